import { Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { compileGate } from '@zb/core/rules/compile';
import type { BoxGate } from '@zb/core/rules/forBox';
import { callersOf, tryOut } from '@zb/core/rules/tryOut';
import { endWords, packetWords } from '@zb/core/words/packet';
import { GateStage } from '../../../drawing/GateStage';
import { useLan } from '../../../parts/LanStandIn';
import { Word } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Said } from '../../../ui/Said';
import { Data, Head, Sub } from '../../../ui/Words';
import { WayOf } from './WayOf';

/** The stand-in network behind the gate: what its hosts try, and what passes. */
export function TryOut({ of, onClose }: { of: BoxGate; onClose: () => void }) {
  const { plan, networks, hosts } = of;
  const { data: lan, error } = useLan(true);
  const [shown, setShown] = useState(0);
  // Without the stand-ins the hosts of the plan itself try.
  const tried = useMemo(
    () => tryOut(plan, networks, callersOf(plan, networks, lan ? lan.hosts.filter((h) => h.plugged) : hosts)),
    [plan, networks, hosts, lan],
  );
  const ruleset = useMemo(() => compileGate(plan, networks), [plan, networks]);
  const passed = tried.filter((t) => t.asked.walk.end === 'passes').length;
  const at = tried[shown];
  return (
    <Dialog open onClose={onClose} title="An evening on the stand-in network" size="lg">
      <Stack gap="4">
        <Sub>
          {lan
            ? 'The hosts of the stand-in network stand behind the gate; nothing is sent anywhere.'
            : error
              ? 'The stand-ins do not answer, so the hosts of your own plan try. Nothing is sent anywhere.'
              : 'The stand-in network is being asked.'}
        </Sub>
        <Said>
          {tried.length} things are tried: {passed} pass, {tried.length - passed} are stopped.
        </Said>
        {at && (
          <>
            <GateStage plan={plan} asked={at.asked} />
            <Head>{packetWords(plan, at.asked.packet)}</Head>
            <WayOf plan={plan} ruleset={ruleset} walk={at.asked.walk} label="Its way" />
          </>
        )}
        <Ruled dense label="What is tried" heads={['Who', 'What', 'With whom', 'Becomes of it']}>
          {tried.map((t, i) => (
            <Line key={i} here={i === shown}>
              <LineHead>
                <Word onClick={() => setShown(i)}>{t.from.name}</Word>
                <Sub>
                  <Data>{t.from.address}</Data>
                </Sub>
              </LineHead>
              <Cell>{t.what}</Cell>
              <Cell>{t.to}</Cell>
              <Cell>
                <VerdictMark kind={t.asked.walk.end === 'passes' ? 'yes' : 'no'}>
                  {t.asked.walk.end === 'passes' ? 'passes' : 'stopped'}
                </VerdictMark>
                <Sub>{endWords(plan, t.asked.walk)}</Sub>
              </Cell>
            </Line>
          ))}
        </Ruled>
      </Stack>
    </Dialog>
  );
}
