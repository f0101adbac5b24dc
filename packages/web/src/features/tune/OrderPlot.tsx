import { quantities } from '@zb/core/tune/quantities';
import type { ExperimentState } from '@zb/core/tune/results';
import { formatNumber } from '@zb/core/units/number';
import { bareFigure, stateTitle } from '@zb/core/words/tune';
import { Plot } from '../../parts/Plot';
import { Said } from '../../ui/Said';
import { span } from './span';

/** Every run in the order of the evening, each state with its own ink: what the change did, and whether the evening drifted. */
export function OrderPlot({ state }: { state: ExperimentState }) {
  const { first, arms, planned } = state;
  const { label, unit, digits } = quantities[first];
  const seen = arms.flatMap((a) =>
    a.counted.flatMap((r) => {
      const value = r.values[first];
      return value === undefined ? [] : [{ arm: a, place: r.place + 1, value }];
    }),
  );
  if (seen.length === 0) return <Said>Every run is drawn here in its order, once there is one.</Said>;
  const up = span(seen.map((s) => s.value));
  return (
    <Plot
      title={`${label}${unit === '' || unit === 'bytes/s' ? '' : `, ${unit}`}: every run in its order`}
      data={{
        lines: [
          ...arms.map((a) => ({
            name: a.arm,
            points: seen.filter((s) => s.arm === a).map((s) => [s.place, s.value] as const),
            ink: a.arm === 'A' ? ('ink' as const) : ('work' as const),
            as: 'dots' as const,
          })),
          ...arms.flatMap((a) => {
            const mean = a.values[first]?.mean;
            return mean === undefined
              ? []
              : [
                  {
                    name: `mean of ${a.arm}`,
                    points: [[1, mean] as const, [planned, mean] as const],
                    ink: a.arm === 'A' ? ('ink' as const) : ('work' as const),
                    as: 'dashes' as const,
                  },
                ];
          }),
        ],
        notes: arms.flatMap((a) => {
          const mean = a.values[first]?.mean;
          return mean === undefined
            ? []
            : [{ x: planned, y: mean, words: stateTitle(state, a.arm), end: true }];
        }),
        x: { of: (v) => `run ${formatNumber(v)}`, min: 1, max: planned, steps: Math.min(5, planned - 1) },
        y: { of: (v) => (unit === 'bytes/s' ? bareFigure(first, v) : formatNumber(v, up.digits)), ...up },
      }}
      table={{
        heads: ['Run', 'State', unit === '' ? label : `${label}, ${unit}`],
        rows: [...seen]
          .sort((a, b) => a.place - b.place)
          .map((s) => [
            String(s.place),
            stateTitle(state, s.arm.arm),
            unit === 'bytes/s' ? bareFigure(first, s.value) : formatNumber(s.value, digits),
          ]),
      }}
    />
  );
}
