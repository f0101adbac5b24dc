import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { editGate } from '@zb/core/acts/rules';
import type { Box as Build } from '@zb/core/model/bench';
import type { GatePlan, Permit } from '@zb/core/model/gate';
import { blankPermit, movedPermit } from '@zb/core/rules/permits';
import { withItem } from '@zb/core/units/list';
import { permitLine, zoneWords } from '@zb/core/words/gatePlan';
import { useAct } from '../../../storage/hooks';
import { Primary, Word } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Acts, Sub } from '../../../ui/Words';
import { PermitForm } from './PermitForm';

/** One crossing: what is let in there, in the order in which it is looked at. */
export function Crossing({
  box,
  plan,
  from,
  to,
  onClose,
}: {
  box: Build;
  plan: GatePlan;
  from: string;
  to: string;
  onClose: () => void;
}) {
  const act = useAct();
  const [open, setOpen] = useState<Permit | null>(null);
  const mine = plan.permits.filter((p) => p.from.zone === from && p.to.zone === to);
  const zone = plan.zones.find((z) => z.id === from);
  return (
    <Dialog open onClose={onClose} title={`${zoneWords(plan, from)} to ${zoneWords(plan, to)}`} size="lg">
      <Stack gap="3">
        {mine.length === 0 ? (
          <Sub>
            Nobody in {zoneWords(plan, from)} begins anything with {zoneWords(plan, to)}. Answers go back all
            the same.
          </Sub>
        ) : (
          <Ruled stacked label="What is let in, in order" heads={['What', 'For', 'Order', 'Now']}>
            {mine.map((p, i) => {
              const said = permitLine(plan, p);
              return (
                <Line key={p.id}>
                  <LineHead>
                    <Word onClick={() => setOpen(p)}>{said.name}</Word>
                    {said.sub !== '' && <Sub>{said.sub}</Sub>}
                  </LineHead>
                  <Cell>{said.services}</Cell>
                  <Cell>
                    <Word
                      disabled={i === 0}
                      aria-label={`earlier: ${said.name}`}
                      onClick={() =>
                        void act(
                          editGate(
                            box,
                            { permits: movedPermit(plan.permits, p.id, -1) },
                            `${said.name} looked at earlier`,
                          ),
                        )
                      }
                    >
                      earlier
                    </Word>
                  </Cell>
                  <Cell>
                    <Word
                      aria-pressed={p.on}
                      onClick={() =>
                        void act(
                          editGate(
                            box,
                            { permits: withItem(plan.permits, { ...p, on: !p.on }) },
                            `${said.name} ${p.on ? 'put aside' : 'in force'}`,
                          ),
                        )
                      }
                    >
                      <VerdictMark kind={!p.on ? 'no' : p.does === 'let in' ? 'yes' : 'stop'}>
                        {!p.on ? 'put aside' : p.does === 'let in' ? 'let in' : 'refused'}
                      </VerdictMark>
                    </Word>
                  </Cell>
                </Line>
              );
            })}
          </Ruled>
        )}
        <Sub>
          Whatever none of them lets in is{' '}
          {zone?.tells ? 'refused, and told so' : 'dropped, and nothing answers'}.
        </Sub>
        <Acts>
          <Primary onClick={() => setOpen(blankPermit(crypto.randomUUID(), from, to))}>
            Let something in
          </Primary>
        </Acts>
      </Stack>
      {open && <PermitForm box={box} plan={plan} permit={open} onClose={() => setOpen(null)} />}
    </Dialog>
  );
}
