import { Box } from '@chakra-ui/react';
import { quantities } from '@zb/core/tune/quantities';
import type { ExperimentResult, ExperimentState } from '@zb/core/tune/results';
import { bareFigure, costWords, stateTitle } from '@zb/core/words/tune';
import { within } from '@zb/core/words/text';
import { formatNumber } from '@zb/core/units/number';
import { OrderPlot } from './OrderPlot';
import { span } from './span';
import { pictureOfTrade } from '@zb/core/words/tradePicture';
import { Plot } from '../../parts/Plot';
import { download, fileName } from '../../storage/download';
import { Word } from '../../ui/Button';
import { Sub } from '../../ui/Words';

/** Watts against frames or bytes a second: every run a dot, every state its mean, the beaten ones grey, and the knee. */
export function TradePlot({ state, result }: { state: ExperimentState; result: ExperimentResult | null }) {
  if (!result) return <Box minHeight="touch" />;
  const { trade } = result;
  // Of two states it is seen best how they lie from run to run.
  if (!trade || state.arms.length === 2) return <OrderPlot state={state} />;
  const [cost, gain] = [quantities[trade.cost], quantities[trade.gain]];
  const name = (arm: string): string => stateTitle(state, arm);
  const kept = trade.points.filter((p) => !trade.beaten.has(p.key)).sort((a, b) => a.cost - b.cost);
  const { knee } = trade.knee;
  const sure = trade.knee.chances[0];
  const other = trade.knee.chances[1];
  const across = span(
    trade.points.flatMap((p) => p.runPoints.map((r) => r.cost)),
    0.08,
    4,
  );
  return (
    <Plot
      title={`${gain.label}, against ${costWords(trade.cost)}`}
      data={{
        lines: [
          {
            name: 'states',
            points: kept.map((p) => [p.cost, p.gain]),
            ink: 'muted',
            as: 'dashes',
          },
          {
            name: 'runs',
            points: trade.points
              .filter((p) => !trade.beaten.has(p.key))
              .flatMap((p) => p.runPoints.map((r) => [r.cost, r.gain] as const)),
            ink: 'ink',
            as: 'dots',
          },
          {
            name: 'beaten',
            points: trade.points
              .filter((p) => trade.beaten.has(p.key))
              .flatMap((p) => p.runPoints.map((r) => [r.cost, r.gain] as const)),
            ink: 'muted',
            as: 'dots',
          },
        ],
        notes: trade.points.map((p) => ({
          x: p.cost,
          y: p.gain,
          words: p.key === knee ? `the knee: ${name(p.key)}` : name(p.key),
          strong: p.key === knee,
          end: p.key === knee,
          // More is had for more: the line leaves room below it, to the right.
          below: p.key !== knee,
        })),
        x: { of: (v) => `${formatNumber(v, across.digits)} ${cost.unit}`, ...across },
        y: {
          of: (v) => bareFigure(trade.gain, Math.round(v)).replace(/\.0$/, ''),
          ...span(trade.points.flatMap((p) => p.runPoints.map((r) => r.gain))),
        },
      }}
      table={{
        heads: ['State', `${cost.label}, ${cost.unit}`, `${gain.label}, ${gain.unit}`, 'Runs', 'Beaten'],
        rows: trade.points.map((p) => [
          name(p.key),
          bareFigure(trade.cost, p.cost),
          bareFigure(trade.gain, p.gain),
          String(p.runPoints.length),
          trade.beaten.has(p.key) ? 'yes' : 'no',
        ]),
      }}
    >
      <Word
        onClick={() =>
          download(
            fileName(`tuning ${state.changes.map((c) => c.name).join(' ')}`, 'svg'),
            pictureOfTrade(result) ?? '',
            'image/svg+xml',
          )
        }
      >
        Save the picture for the build sheet
      </Word>
      {knee !== undefined && sure && (
        <Sub>
          A dot is a run. Knee: farthest above the straight line from the cheapest to the dearest. Drawn anew
          from these runs it is {within(name(sure.key))} in {Math.round(sure.chance * 100)} of 100 draws
          {other ? `, ${within(name(other.key))} in ${Math.round(other.chance * 100)}` : ''}.
        </Sub>
      )}
    </Plot>
  );
}
