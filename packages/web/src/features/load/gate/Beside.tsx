import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { BoxGate } from '@zb/core/rules/forBox';
import { useBeside } from '../../../workers/judging';
import { changedWords, fateWords } from '@zb/core/words/packet';
import { nftReadWords, promiseVerdictWords, unsureWords } from '@zb/core/words/rules';
import { promiseWords } from '@zb/core/words/gatePlan';
import { plural } from '@zb/core/words/text';
import { Primary } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { Fold } from '../../../ui/Fold';
import { Lines } from '../../../ui/Input';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Said } from '../../../ui/Said';
import { Data, Head, Sub } from '../../../ui/Words';
import { Working } from '../../../ui/Working';
import { Idle } from './Idle';

/** Rules that run, pasted, beside the plan: what they promise, and which packets change fate. */
export function Beside({ of, onClose }: { of: BoxGate; onClose: () => void }) {
  const { plan } = of;
  const [text, setText] = useState('');
  const [asked, setAsked] = useState<string | null>(null);
  const beside = useBeside(of, asked);
  const held = beside.stale ? null : beside.found;
  return (
    <Dialog open onClose={onClose} title="Beside the rules that run" size="lg">
      <Stack gap="4">
        <Lines
          label="What the gate prints"
          data
          rows={5}
          help="nft -j list ruleset"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Primary alignSelf="flex-start" onClick={() => setAsked(text)}>
          Hold it against the plan
        </Primary>
        {beside.share !== null && (
          <Working
            label="Every packet, before and after"
            done={beside.share}
            whole={1}
            says=""
            onCancel={beside.cancel}
          />
        )}
        {beside.fault !== null && beside.fault !== 'stopped' && (
          <Said kind="check">{nftReadWords(beside.fault)}</Said>
        )}
        {held && (
          <>
            <Head>What the running rules promise</Head>
            <Ruled dense silent label="Promises of the running rules" heads={['Verdict', 'Promise']}>
              {held.theirs.kept.map((k) => (
                <Line key={k.promise.id}>
                  <Cell>
                    <VerdictMark
                      kind={k.verdict === 'holds' ? 'yes' : k.verdict === 'fails' ? 'stop' : 'ask'}
                    >
                      {promiseVerdictWords(k.verdict)}
                    </VerdictMark>
                  </Cell>
                  <LineHead>
                    {promiseWords(plan, k.promise)}
                    {k.verdict === 'cannot say' && <Sub>{unsureWords(k.because)}</Sub>}
                  </LineHead>
                </Line>
              ))}
            </Ruled>
            {held.unknown.length + held.strange.length > 0 && (
              <Fold title={`${plural(held.unknown.length + held.strange.length, 'part')} not understood`}>
                <Stack gap="1">
                  {held.strange.map((s) => (
                    <Data key={s}>{s}</Data>
                  ))}
                  {held.unknown.map((u, i) => (
                    <Data key={i} overflowWrap="anywhere">
                      {u.rule}: {u.what}
                    </Data>
                  ))}
                </Stack>
              </Fold>
            )}
            <Idle plan={plan} ruleset={held.ruleset} unused={held.theirs.unused} />
            <Head>Packets that change fate when the plan takes their place</Head>
            {held.changes === null ? (
              <Said kind="check">The rules cross each other too often to be compared whole.</Said>
            ) : held.changes.same ? (
              <Said kind="proven">None: every packet ends as it does now.</Said>
            ) : (
              <Ruled stacked label="Packets that change fate" heads={['Packets', 'Now', 'Then']}>
                {held.changes.changed.slice(0, 100).map((c, i) => (
                  <Line key={i}>
                    <LineHead>
                      {changedWords(plan, c)}
                      {c.unsure && <Sub>perhaps: a part that is not understood decides</Sub>}
                    </LineHead>
                    <Cell>{fateWords(c.was)}</Cell>
                    <Cell>{fateWords(c.is)}</Cell>
                  </Line>
                ))}
              </Ruled>
            )}
            {held.changes && held.changes.changed.length > 100 && (
              <Sub>{held.changes.changed.length - 100} more kinds; zb rules compare tells all.</Sub>
            )}
          </>
        )}
      </Stack>
    </Dialog>
  );
}
