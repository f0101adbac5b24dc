import type { ArmName } from '@zb/core/model/tune';
import type { ExperimentState } from '@zb/core/tune/results';
import { stateTitle } from '@zb/core/words/tune';
import { capital } from '@zb/core/words/text';
import { formatNumber } from '@zb/core/units/number';
import { span } from './span';
import { Plot } from '../../parts/Plot';
import type { PlotLine } from '../../parts/plotData';
import { Said } from '../../ui/Said';

/** How warm it gets in each state, and from when a reading counts: the last run of each that has its course. */
export function HeatPlot({ state, taken }: { state: ExperimentState; taken: ArmName | null }) {
  const { settleSeconds, measureSeconds } = state.experiment;
  const courses = state.arms.flatMap((a) => {
    const run = [...a.counted].reverse().find((r) => r.traces.some((t) => t.unit === '°C'));
    const trace = run?.traces.find((t) => t.unit === '°C');
    return trace ? [{ arm: a, trace }] : [];
  });
  if (courses.length === 0)
    return (
      <Said>
        How warm it gets is drawn once a run has its course: from a log, our recorder, or the stand-in
        machine.
      </Said>
    );
  const minutes = (s: number): number => s / 60;
  const end = Math.max(...courses.map((c) => c.trace.t[c.trace.t.length - 1] ?? 0));
  // A run’s own time begins before it is measured.
  const from = Math.max(0, end - measureSeconds);
  const lines = courses.map(({ arm, trace }): PlotLine => ({
    name: arm.arm,
    points: trace.t.map((t, i) => [minutes(t), trace.v[i] ?? 0]),
    ink: arm.arm === taken ? 'work' : arm.arm === 'A' ? 'ink' : 'muted',
    as: arm.arm === 'A' || arm.arm === taken ? 'line' : 'dashes',
  }));
  return (
    <Plot
      title={`${capital(courses[0]?.trace.what ?? '')}, °C; what is shaded does not count`}
      data={{
        lines,
        notes: courses.map(({ arm, trace }) => ({
          x: minutes(end),
          end: true,
          y: trace.v[trace.v.length - 1] ?? 0,
          words: stateTitle(state, arm.arm),
        })),
        ...(settleSeconds > 0 && from > 0
          ? { shade: { from: 0, to: minutes(from), words: 'settling' } }
          : {}),
        x: { of: (v) => `${formatNumber(v)} min`, ...span([0, minutes(end)], 0, 4) },
        y: { of: (v) => formatNumber(v), ...span(courses.flatMap((c) => c.trace.v)) },
      }}
      table={{
        heads: ['Minute', ...courses.map((c) => `${stateTitle(state, c.arm.arm)}, °C`)],
        rows: (courses[0]?.trace.t ?? []).map((t) => [
          formatNumber(minutes(t), 1),
          ...courses.map((c) => {
            const at = c.trace.t.findIndex((x) => x >= t);
            return formatNumber(c.trace.v[at < 0 ? c.trace.v.length - 1 : at] ?? NaN, 1);
          }),
        ]),
      }}
    />
  );
}
