import { Box } from '@chakra-ui/react';
import type { Bench } from '@zb/core/model/bench';
import type { BoxTune } from '@zb/core/tune/forBox';
import { framesForInterval } from '@zb/core/tune/frames';
import { questions } from '@zb/core/tune/questions';
import type { ExperimentState } from '@zb/core/tune/results';
import { formatDuration } from '@zb/core/units/duration';
import { formatNumber } from '@zb/core/units/number';
import { amount } from '@zb/core/words/money';
import { within } from '@zb/core/words/text';
import { questionTitle, stateTitle } from '@zb/core/words/tune';
import { LedgerGroup, LedgerPair } from '../../parts/LedgerPane';
import { Word } from '../../ui/Button';
import { Soft, Sub } from '../../ui/Words';

/** Beside the sheet: the next run, what it costs to run, and the pace of its picture. */
export function Margin({
  bench,
  found,
  state,
  onState,
}: {
  bench: Bench;
  found: BoxTune;
  state: ExperimentState | undefined;
  onState: (id: string) => void;
}) {
  const { running, battery, pace } = found;
  const e = state?.experiment;
  const frames = e && ['rate', 'low percentile'].includes(questions[e.question].first);
  return (
    <>
      {found.results.length > 1 && (
        <LedgerGroup title="Experiments" count={found.results.length}>
          {found.results.map((r) => (
            <Box key={r.experiment.id} paddingBlock="0.5">
              <Word
                onClick={() => onState(r.experiment.id)}
                aria-pressed={r === state}
                fontWeight={r === state ? 'strong' : 'normal'}
              >
                {r.changes.map((c) => c.name).join(' and ')}
              </Word>
              <Sub>
                {within(questionTitle(r.experiment.question))}, {r.made} of {r.planned} runs
                {r.experiment.kept === null ? '' : ', decided'}
              </Sub>
            </Box>
          ))}
        </LedgerGroup>
      )}
      {e && state.next && (
        <LedgerGroup title="Next run" count={`${state.next.place + 1} of ${state.planned}`}>
          <Box fontWeight="strong">{stateTitle(state, state.next.arm)}</Box>
          {e.settleSeconds > 0 && <LedgerPair what="let it settle" is={formatDuration(e.settleSeconds)} />}
          <LedgerPair what="then measure" is={formatDuration(e.measureSeconds)} />
          {e.coolSeconds > 0 && <LedgerPair what="then cool" is={formatDuration(e.coolSeconds)} />}
          {frames && (
            <LedgerPair what="frames wanted" is={`≥ ${formatNumber(10 * framesForInterval(0.99))}`} />
          )}
          <LedgerPair
            what="order still"
            is={[...e.order].slice(state.next.place, state.next.place + 8).join(' ')}
          />
        </LedgerGroup>
      )}
      {running.now && running.came && (
        <LedgerGroup title="Runs it on">
          <LedgerPair what="now" is={`${formatNumber(running.now.watts, 1)} W`} />
          <LedgerPair
            what={`a year, ${formatNumber(running.hours, running.hours % 1 === 0 ? 0 : 1)} h a day`}
            is={amount(bench, running.now.yearly.money)}
          />
          {running.saved !== null && Math.abs(running.saved) >= 0.005 && (
            <LedgerPair
              what={running.saved > 0 ? 'saved' : 'more than it was'}
              is={amount(bench, Math.abs(running.saved))}
              strong
            />
          )}
          {battery?.now != null && <LedgerPair what="on its battery" is={formatDuration(battery.now * 60)} />}
        </LedgerGroup>
      )}
      {pace && (
        <LedgerGroup title="Pace">
          <LedgerPair what="panel" is={`${formatNumber(pace.panel.hz)} Hz`} />
          {pace.low !== null && <LedgerPair what="1 % low" is={formatNumber(pace.low, 1)} />}
          {pace.take ? (
            <LedgerPair
              what="cap at"
              is={formatNumber(pace.take.cap, pace.take.cap % 1 === 0 ? 0 : 1)}
              strong
            />
          ) : (
            pace.low !== null && <Soft>It keeps up with no even cap.</Soft>
          )}
        </LedgerGroup>
      )}
    </>
  );
}
