import { Box, Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { takeGate } from '@zb/core/acts/rules';
import type { Box as Build } from '@zb/core/model/bench';
import type { GatePromise } from '@zb/core/model/gate';
import { compileGate } from '@zb/core/rules/compile';
import type { BoxGate } from '@zb/core/rules/forBox';
import type { Kept } from '@zb/core/rules/promises';
import type { Repair } from '@zb/core/rules/repair';
import { caveatWords, mendWords, promiseVerdictWords, unsureWords } from '@zb/core/words/rules';
import { packetWords } from '@zb/core/words/packet';
import { promiseWords } from '@zb/core/words/gatePlan';
import { stamp, useAct } from '../../../storage/hooks';
import { Primary, Quiet, Word } from '../../../ui/Button';
import { VerdictMark, type MarkKind } from '../../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../../ui/Words';
import type { GateJudged } from '../../../workers/gateWorker';
import { Idle } from './Idle';
import { PromiseForm } from './PromiseForm';
import { WayOf } from './WayOf';

const MARK: Record<Kept['verdict'], MarkKind> = {
  holds: 'yes',
  fails: 'stop',
  limited: 'change',
  'cannot say': 'ask',
  'about nothing': 'no',
};

const RANK: readonly Kept['verdict'][] = ['fails', 'cannot say', 'limited', 'holds', 'about nothing'];
/** Promises with those that fail first. */
const inOrder = (promises: readonly GatePromise[], kept: readonly Kept[]): GatePromise[] => {
  const rank = (p: GatePromise): number =>
    RANK.indexOf(kept.find((k) => k.promise.id === p.id)?.verdict ?? 'about nothing');
  return [...promises].sort((a, b) => rank(a) - rank(b));
};

/** Promises with what became of them, and the way of a packet that breaks one. */
export function Promises({ box, of, judged }: { box: Build; of: BoxGate; judged: GateJudged | null }) {
  const { plan, networks } = of;
  const act = useAct();
  const ruleset = useMemo(() => compileGate(plan, networks), [plan, networks]);
  const kept = judged?.report.kept ?? [];
  // Said once below the list, where more than one verdict has it.
  const common = [...new Set(kept.flatMap((k) => k.caveats))].filter(
    (c) => kept.filter((k) => k.verdict === 'holds' && k.caveats.includes(c)).length > 1,
  );
  const firstBroken = kept.find((k) => k.verdict === 'fails') ?? kept.find((k) => k.packet !== null);
  const [asked, setAsked] = useState<string | null>(null);
  const [open, setOpen] = useState<GatePromise | 'new' | null>(null);
  const shown = kept.find((k) => k.promise.id === asked && k.packet) ?? firstBroken;
  const mend = (repair: Repair): void =>
    void act(takeGate(box, repair.plan, mendWords(plan, repair.mend), stamp()));
  return (
    <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
      <Box flex="1" minWidth="0" width="full" as="section" aria-label="Promises">
        <Head marginBottom="1">Promises, over every possible packet</Head>
        <Ruled dense silent label="Promises" heads={['Verdict', 'Promise']}>
          {inOrder(plan.promises, kept).map((p) => {
            const k = kept.find((q) => q.promise.id === p.id);
            return (
              <Line key={p.id} here={shown?.promise.id === p.id && shown.packet !== null}>
                <Cell>
                  {!p.on ? (
                    <VerdictMark kind="no">not asked</VerdictMark>
                  ) : k ? (
                    <VerdictMark kind={MARK[k.verdict]}>{promiseVerdictWords(k.verdict)}</VerdictMark>
                  ) : (
                    <VerdictMark kind="ask">being judged</VerdictMark>
                  )}
                </Cell>
                <LineHead>
                  <Word onClick={() => setOpen(p)}>{promiseWords(plan, p)}</Word>
                  {k?.packet && (
                    <Sub>
                      a packet that does: <Data>{packetWords(plan, k.packet)}</Data>{' '}
                      {shown?.promise.id !== p.id && <Word onClick={() => setAsked(p.id)}>its way</Word>}
                    </Sub>
                  )}
                  {k?.verdict === 'cannot say' && <Sub>{unsureWords(k.because)}</Sub>}
                  {k?.verdict === 'holds' &&
                    k.caveats
                      .filter((c) => !common.includes(c))
                      .map((c) => <Sub key={c}>{caveatWords(c)}</Sub>)}
                </LineHead>
              </Line>
            );
          })}
        </Ruled>
        {common.map((c) => (
          <Sub key={c} marginTop="2">
            {caveatWords(c)}
          </Sub>
        ))}
        <Acts marginTop="2">
          <Quiet onClick={() => setOpen('new')}>Another promise</Quiet>
        </Acts>
        {judged && (
          <Box marginTop="4">
            <Idle plan={plan} ruleset={ruleset} unused={judged.report.unused} />
          </Box>
        )}
      </Box>
      {shown?.packet && shown.walk && judged && (
        <Box flex="1" minWidth="0" width="full" as="section" aria-label="That packet, rule by rule">
          <Head marginBottom="1">That packet, rule by rule</Head>
          <WayOf plan={plan} ruleset={ruleset} walk={shown.walk} label="Its way" />
          <Acts marginTop="2">
            {(judged.repairs[shown.promise.id] ?? []).map((r, i) =>
              i === 0 ? (
                <Primary key={i} onClick={() => mend(r)}>
                  {mendWords(plan, r.mend)}
                </Primary>
              ) : (
                <Quiet key={i} onClick={() => mend(r)}>
                  {mendWords(plan, r.mend)}
                </Quiet>
              ),
            )}
          </Acts>
        </Box>
      )}
      {open && (
        <PromiseForm
          box={box}
          plan={plan}
          promise={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </Stack>
  );
}
