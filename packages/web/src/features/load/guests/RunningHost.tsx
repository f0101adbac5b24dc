import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { takeGuests } from '@zb/core/acts/guests';
import type { Box } from '@zb/core/model/bench';
import type { GuestPlan } from '@zb/core/model/guests';
import type { Pot } from '@zb/core/guests/pot';
import { DomainReadError } from '@zb/core/guests/read/domain';
import { leftOf, readHost, type SeenHost } from '@zb/core/guests/read/tables';
import { takeSeen } from '@zb/core/guests/read/take';
import { formatIec } from '@zb/core/units/bytes';
import { plural } from '@zb/core/words/text';
import { stamp } from '../../../storage/hooks';
import { useActAndClose } from '../../../parts/DraftDialog';
import { Primary, Quiet } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { Fold } from '../../../ui/Fold';
import { Lines } from '../../../ui/Input';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { Said } from '../../../ui/Said';
import { Acts, Data, Sub } from '../../../ui/Words';

/** What a running host has left, from what people paste of it. */
export function RunningHost({
  box,
  plan,
  pot,
  onClose,
}: {
  box: Box;
  plan: GuestPlan;
  pot: Pot;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const [text, setText] = useState('');
  const [seen, setSeen] = useState<SeenHost | null>(null);
  const [fault, setFault] = useState(false);
  const read = (): void => {
    try {
      setSeen(readHost(text));
      setFault(false);
    } catch (error) {
      if (!(error instanceof DomainReadError)) throw error;
      setSeen(null);
      setFault(true);
    }
  };
  const left = seen && leftOf(seen, pot.reserve.base + pot.reserve.cache, pot.reserve.perGuest);
  return (
    <Dialog open onClose={onClose} title="Read a running host" size="lg">
      <Stack gap="4">
        <Lines
          label="What the host prints"
          data
          rows={6}
          help="virsh nodeinfo; virsh list --all; virsh dominfo NAME or dumpxml NAME for each; virsh pool-list --details"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Primary alignSelf="flex-start" onClick={read}>
          Read it
        </Primary>
        {fault && (
          <Said kind="check">
            Nothing of a running host is in that. Nothing was changed; paste what the commands above print.
          </Said>
        )}
        {seen && left && (
          <>
            <Said kind={left.memory !== null && left.memory < 0 ? 'check' : 'note'}>
              {left.memory === null
                ? 'How much memory the host has was not in it: virsh nodeinfo tells.'
                : left.memory < 0
                  ? `${plural(left.running, 'guest')} running, and ${formatIec(-left.memory)} of memory promised beyond what there is.`
                  : `${plural(left.running, 'guest')} running, and ${formatIec(left.memory)} of memory left.`}
              {left.pools.map((p) => ` On ${p.name} ${formatIec(p.free)} are free.`).join('')}
            </Said>
            <Ruled
              stacked
              label="Guests of the running host"
              heads={['Guest', { words: 'Cores', figure: true }, { words: 'Memory', figure: true }, 'State']}
            >
              {seen.guests.map((g) => (
                <Line key={g.name}>
                  <LineHead>{g.name}</LineHead>
                  <Num>{g.cores ?? 'not told'}</Num>
                  <Num>{g.memoryBytes === null ? 'not told' : formatIec(g.memoryBytes)}</Num>
                  <Cell>{g.running === null ? 'not told' : g.running ? 'runs' : 'off'}</Cell>
                </Line>
              ))}
            </Ruled>
            {seen.unread.length > 0 && (
              <Fold title={`${plural(seen.unread.length, 'line')} not understood`}>
                {seen.unread.map((l, i) => (
                  <Sub key={i}>
                    <Data overflowWrap="anywhere">{l}</Data>
                  </Sub>
                ))}
              </Fold>
            )}
            <Acts>
              <Quiet
                onClick={() =>
                  void keep(takeGuests(box, takeSeen(plan, seen), 'as the running host has it', stamp()))
                }
              >
                Take its guests into the plan
              </Quiet>
            </Acts>
          </>
        )}
      </Stack>
    </Dialog>
  );
}
