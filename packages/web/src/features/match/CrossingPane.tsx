import { Box, Text } from '@chakra-ui/react';
import { formatNumber } from '@zb/core/units/number';
import { memo, useMemo } from 'react';
import { unmetWords } from '@zb/core/words/fit/unmet';
import { flipWords } from '@zb/core/words/fit/score';
import { amount } from '@zb/core/words/money';
import { difference, planLines } from '@zb/core/words/plan';
import { flipReport, ownCost, rivalOf } from '@zb/core/system/report';
import { canTake, otherWays } from '@zb/core/system/judge';
import { crossingOf, type BriefSheet } from '@zb/core/system/sheet';
import { machineView } from '@zb/core/system/view';
import type { Bench, Machine, Wish } from '@zb/core/model/bench';
import { Findings } from '../../parts/Findings';
import { LedgerAside, LedgerGroup, LedgerRow } from '../../parts/LedgerPane';
import { FitMark } from '../../parts/Marks';
import { OtherWays } from '../../parts/OtherWays';
import { RuleTable } from '../../parts/RuleTable';
import { ScoreTable } from '../../parts/ScoreTable';
import { To } from '../../ui/To';
import { Soft, Sub } from '../../ui/Words';
import { RemedyAct } from './RemedyAct';
import type { Assigning } from '../../workers/assigning';

/** The margin of the match sheet: the crossing under the cursor, why a wish is left out, and the whole plan. */
export const CrossingPane = memo(function CrossingPane({
  bench,
  machine,
  wish,
  sheet,
  plan,
}: {
  bench: Bench;
  machine: Machine | undefined;
  wish: Wish | undefined;
  sheet: BriefSheet | null;
  plan: Assigning;
}) {
  const cell = useMemo(
    () => (machine && wish ? crossingOf(bench, machine, wish) : undefined),
    [bench, machine, wish],
  );
  const ways = useMemo(
    () =>
      machine && wish && cell ? otherWays(machineView(bench, machine), cell.profile, cell.judged, wish) : [],
    [bench, machine, wish, cell],
  );
  const rival = machine && wish && sheet ? rivalOf(sheet, machine.id, bench.wishes.indexOf(wish)) : undefined;
  const flip = useMemo(
    () => (machine && wish && rival ? flipReport(bench, machine.id, rival, wish) : undefined),
    [bench, machine, wish, rival],
  );
  const lines = useMemo(() => (plan.solution ? planLines(bench, plan.solution) : []), [bench, plan.solution]);
  const unmet = plan.unmet?.find((u) => u.wishId === wish?.id);
  const why = unmet && unmetWords(unmet, bench.settings);
  const assigned = plan.solution?.assignments.find((a) => a.wishId === wish?.id);
  const money = machine && wish ? ownCost(bench, machine.id, wish.purpose, wish.hoursPerDay) : undefined;
  return (
    <LedgerAside>
      {machine && wish && (
        <LedgerGroup title={`${wish.name} on ${machine.name}`}>
          {cell ? (
            <>
              <p>
                <FitMark verdict={cell.judged.verdict} />
                <Sub>
                  <To to={`/profiles/${cell.profile.id}`}>{cell.profile.name}</To>{' '}
                  {cell.judged.release.version}, {cell.judged.release.channel}
                  {cell.judged.cost !== null &&
                    cell.judged.cost > 0 &&
                    `, ${amount(bench, cell.judged.cost)} to buy`}
                </Sub>
              </p>
              <Findings machine={machine} profile={cell.profile} judged={cell.judged} wish={wish} />
              <OtherWays bench={bench} ways={ways} />
              <RuleTable judged={cell.judged} />
            </>
          ) : (
            <p>No system for {wish.purpose} is on the bench.</p>
          )}
        </LedgerGroup>
      )}
      {cell && canTake(cell.judged.verdict) && (
        <LedgerGroup title="Score" count={<b>{formatNumber(cell.score.total)}</b>}>
          <ScoreTable score={cell.score} settings={bench.settings} />
          {flip && (
            <Text marginTop="1">
              <b>What would flip it.</b> {flipWords(flip)}
            </Text>
          )}
          {money && <Soft>{amount(bench, money.perYear)} of electricity a year.</Soft>}
        </LedgerGroup>
      )}
      {wish && unmet && why && (
        <LedgerGroup title={`Not met: ${wish.name}`}>
          <p>{why.because}</p>
          {unmet.remedy ? (
            <Box marginTop="1">
              <p>
                <b>What would meet it.</b> {why.remedy}
              </p>
              <RemedyAct bench={bench} wish={wish} remedy={unmet.remedy} />
            </Box>
          ) : (
            <Text marginTop="1">Nothing that was tried meets it.</Text>
          )}
        </LedgerGroup>
      )}
      {wish && assigned && assigned.parts.length > 0 && assigned.machineId === machine?.id && (
        <LedgerGroup title="Parts that go in">
          {assigned.parts.map((p) => (
            <p key={p.partId + p.role}>
              {p.count > 1 ? `${p.count} × ` : ''}
              {p.name}
              {p.offer ? `, to buy at ${amount(bench, p.price)}` : ', from the shelf'}
            </p>
          ))}
        </LedgerGroup>
      )}
      {plan.solution && (
        <LedgerGroup title="Whole plan">
          {lines.map((line) => (
            <LedgerRow key={line.label} line={line} />
          ))}
        </LedgerGroup>
      )}
      {plan.solution && plan.others && (
        <LedgerGroup title="Nearly as good" count={plan.others.length}>
          {plan.others.length === 0 && <Soft>No other plan comes within 4 %.</Soft>}
          {plan.others.map((o) => (
            <p key={o.value}>{plan.solution && difference(bench, plan.solution, o)}</p>
          ))}
        </LedgerGroup>
      )}
    </LedgerAside>
  );
});
