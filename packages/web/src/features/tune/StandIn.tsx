import { Box, Stack, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { keepRuns } from '@zb/core/acts/tune';
import type { Box as Build } from '@zb/core/model/bench';
import type { ArmName, QuantityCode, TunePlan, TuneRun } from '@zb/core/model/tune';
import type { PlayedRun } from '@zb/core/tune/play';
import { seedAt } from '@zb/core/tune/numbers/dice';
import { runFrom } from '@zb/core/tune/runOf';
import type { ExperimentState } from '@zb/core/tune/results';
import { standInSetOf } from '@zb/core/tune/standin/sets';
import { formatDuration } from '@zb/core/units/duration';
import { formatNumber } from '@zb/core/units/number';
import { figureWords, steadinessWords } from '@zb/core/words/tune';
import { quantities } from '@zb/core/tune/quantities';
import { Plot } from '../../parts/Plot';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { useMedia } from '../../ui/useMedia';
import { VerdictMark } from '../../ui/Marks';
import { Acts, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { span } from './span';
import { useBureau } from './useBureau';

/** A run is played in so many seconds. */
const PLAYS = 8;

/** A run on the stand-in machine: played faster than real time, with what is known of its settling as it goes. */
export function StandIn({
  box,
  plan,
  state,
  next,
  onKeep,
}: {
  box: Build;
  plan: TunePlan;
  state: ExperimentState;
  next: { arm: ArmName; place: number };
  onKeep: (run: TuneRun) => Promise<boolean>;
}) {
  const act = useAct();
  const { share, during, cancel } = useBureau();
  const [run, setRun] = useState<PlayedRun | null>(null);
  const [made, setMade] = useState<number | null>(null);
  const e = state.experiment;
  const seedOf = (place: number): number => seedAt(e.seed, place + 1);
  const askOf = (arm: string, place: number) => ({
    set: standInSetOf(plan.settings, e, arm),
    seed: seedOf(place),
    place,
    settle: e.settleSeconds,
    measure: e.measureSeconds,
    panel: plan.panel,
  });
  const kept = (played: PlayedRun, arm: ArmName, place: number): TuneRun =>
    runFrom(
      played.reading,
      {
        id: crypto.randomUUID(),
        boxId: box.id,
        experimentId: e.id,
        arm,
        place,
        at: stamp().now,
        room: played.room,
      },
      'stand-in',
      `seed ${seedOf(place)}`,
    );
  const play = async (): Promise<void> => {
    const played = await during((w, tell) => w.play(askOf(next.arm, next.place), tell));
    if (played) setRun(played);
  };
  const there = new Set(state.arms.flatMap((a) => a.runs.map((r) => r.place)));
  const left = [...e.order].flatMap((letter, place) => {
    const arm = state.arms.find((a) => a.arm === letter)?.arm;
    return arm === undefined || there.has(place) ? [] : [{ arm, place }];
  });
  const all = async (): Promise<void> => {
    const runs: TuneRun[] = [];
    for (const [i, { arm, place }] of left.entries()) {
      setMade(i);
      const played = await during((w, tell) => w.play(askOf(arm, place), tell));
      if (!played) break;
      runs.push(kept(played, arm, place));
    }
    setMade(null);
    // What was made before it was stopped is kept, all of it at once.
    if (runs.length > 0) await act(keepRuns(runs, `${runs.length} runs made on the stand-in`));
  };
  return (
    <Stack gap="3">
      <Text>
        The stand-in machine ships with the application: a small handheld with its heat, its fan and its
        frames, faster than real time. Its true figures are shown nowhere.
      </Text>
      {share !== null || made !== null ? (
        <Working
          label={made === null ? 'The run is worked out' : `Run ${made + 1} of ${left.length} that are left`}
          done={made === null ? (share ?? 0) : made + (share ?? 0)}
          whole={made === null ? 1 : left.length}
          says="on a thread of its own"
          onCancel={cancel}
        />
      ) : (
        !run && (
          <Acts>
            <Primary onClick={() => void play()}>Start the run</Primary>
            {left.length > 1 && (
              <Quiet onClick={() => void all()}>Make all {left.length} that are left</Quiet>
            )}
          </Acts>
        )
      )}
      {run && <Played run={run} place={next.place} onKeep={() => onKeep(kept(run, next.arm, next.place))} />}
    </Stack>
  );
}

/** The course of a run as it goes. */
function Played({ run, place, onKeep }: { run: PlayedRun; place: number; onKeep: () => Promise<boolean> }) {
  const whole = run.settle + run.measure;
  const still = useMedia('(prefers-reduced-motion: reduce)');
  const [at, setAt] = useState(0);
  const [skipped, setSkipped] = useState(false);
  useEffect(() => {
    if (still || skipped) return;
    const began = performance.now();
    const tick = setInterval(() => {
      const now = ((performance.now() - began) / 1000 / PLAYS) * whole;
      setAt(Math.min(whole, now));
      if (now >= whole) clearInterval(tick);
    }, 200);
    return () => clearInterval(tick);
  }, [still, skipped, whole]);
  const now = still || skipped ? whole : at;
  const over = now >= whole;
  const told = [...run.told].reverse().find((t) => t.at <= now);
  const settled = told?.steadiness.code === 'steady' || told?.steadiness.code === 'level';
  const seen = run.heat.t.flatMap((t, i) => (t <= now ? [[t / 60, run.heat.v[i] ?? 0] as const] : []));
  const last = seen.at(-1)?.[1];
  return (
    <Stack gap="2">
      <Plot
        title="Processor package, °C"
        height={190}
        data={{
          lines: [{ name: 'heat', points: seen, ink: 'work', as: 'line' }],
          ...(run.settle > 0 ? { shade: { from: 0, to: run.settle / 60, words: 'settling' } } : {}),
          x: { of: (v) => `${formatNumber(v)} min`, min: 0, max: Math.ceil(whole / 60) },
          y: { of: (v) => formatNumber(v), ...span([20, ...run.heat.v], 0) },
        }}
        table={{
          heads: ['Minute', '°C'],
          rows: seen.map(([t, v]) => [formatNumber(t, 1), formatNumber(v, 1)]),
        }}
      />
      <Text role="status">
        {over
          ? 'The run is over.'
          : `${formatDuration(Math.max(1, now))}: ${last === undefined ? '' : `${formatNumber(last, 0)} °C`}, ${now < run.settle ? 'settling' : 'measuring'}`}
      </Text>
      {told && (
        <Box>
          <VerdictMark kind={settled ? 'yes' : 'ask'}>
            {settled ? 'a reading counts' : 'a reading does not count yet'}
          </VerdictMark>
          <Sub>{steadinessWords(told.steadiness)}</Sub>
        </Box>
      )}
      {over ? (
        <>
          <Text>
            {(Object.keys(run.reading.values) as QuantityCode[])
              .map((c) => `${quantities[c].label} ${figureWords(c, run.reading.values[c] ?? NaN)}`)
              .join('; ')}
            .
          </Text>
          <Primary alignSelf="flex-start" onClick={() => void onKeep()}>
            Keep it as run {place + 1}
          </Primary>
        </>
      ) : (
        <Quiet alignSelf="flex-start" onClick={() => setSkipped(true)}>
          To its end
        </Quiet>
      )}
    </Stack>
  );
}
