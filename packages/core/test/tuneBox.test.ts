import fc from 'fast-check';
import {
  dropExperiment,
  dropSetting,
  keepArm,
  keepRuns,
  keepSetting,
  leaveRunOut,
  planExperiment,
  putRun,
  sayVerdict,
} from '@zb/core/acts/tune';
import { removeBox } from '@zb/core/acts/box';
import { hazards, route } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { emptyBench, findBox, runsOfBox, theBench, type Bench, type Box } from '@zb/core/model/bench';
import {
  experimentSchema,
  noTune,
  tunePlanSchema,
  tuneRunSchema,
  type Setting,
  type TuneRun,
} from '@zb/core/model/tune';
import { judgeTogether } from '@zb/core/tune/compare';
import {
  experimentOfDraft,
  panelOfDraft,
  settingOfDraft,
  roomOfText,
  valuesOfDraft,
  type ExperimentDraft,
} from '@zb/core/model/tuneDraft';
import type { Act } from '@zb/core/model/changes';
import { XMLValidator } from 'fast-xml-parser';
import { buildSheet } from '@zb/core/words/buildSheet';
import { tradePicture } from '@zb/core/tune/picture';
import { tuneCsv, tuneJson } from '@zb/core/tune/exported';
import { tuneOf } from '@zb/core/tune/forBox';
import { groundOf } from '@zb/core/tune/ground';
import { designFor, experimentOf, type Proposal } from '@zb/core/tune/propose';
import { playRun } from '@zb/core/tune/play';
import { resultOf } from '@zb/core/tune/results';
import { readRun } from '@zb/core/tune/runValues';
import { withoutRoom } from '@zb/core/tune/room';
import { runFrom } from '@zb/core/tune/runOf';
import { standInLog } from '@zb/core/tune/standin/asLog';
import { asItComes, runStandIn, settledTruth, standInTruth } from '@zb/core/tune/standin/machine';
import { standInSet, standInSetOf } from '@zb/core/tune/standin/sets';
import { tuneHeadline } from '@zb/core/words/tune';
import { tuneFaultWords } from '@zb/core/words/tuneFault';
import { playedGames } from './playedGames';

const demo = saltmarshHall();
const must = <T>(value: T | null | undefined): T => {
  if (value == null) throw new Error('not there');
  return value;
};
let n = 0;
const stamp = { now: '2026-03-20T19:00:00.000Z', id: () => `id-${(n += 1)}` };
const done = (bench: Bench, act: Act): Bench => theBench.apply(bench, act.changes);
const setting = (over: Partial<Setting> = {}): Setting => ({
  id: 'limit',
  kind: 'power limit',
  name: 'Power limit',
  place: 'firmware',
  came: '31 W',
  now: '31 W',
  why: '',
  back: 'Set 31 W.',
  ...over,
});

/** A bench with one box, an experiment of two states, and as many runs on the stand-in as asked. */
function evening(question: Proposal['question'], runs: number): { bench: Bench; box: Box } {
  const box: Box = {
    ...must(findBox(demo, 'games-corner')),
    id: 'b',
    tune: noTune(),
    signoffs: [],
    decisions: [],
  };
  let bench: Bench = { ...emptyBench(), items: demo.items, profiles: demo.profiles, boxes: [box] };
  const p: Proposal = {
    question,
    changes: [{ setting: setting(), values: ['31 W', '18 W'] }],
    runs,
    seed: 5,
    settleSeconds: 900,
    measureSeconds: 40,
  };
  const e = experimentOf(p, designFor(p, groundOf(bench, box, question)), { id: 'e', at: stamp.now });
  bench = done(bench, planExperiment(box, e, [setting()], stamp));
  const planned = must(findBox(bench, 'b'));
  const made = [...e.order].map((letter, place): TuneRun => {
    const set = standInSetOf(must(planned.tune).settings, e, letter);
    const run = runStandIn(standInTruth(), set, {
      seed: 40 + place,
      place,
      settle: e.settleSeconds,
      measure: 40,
      from: 55,
    });
    return runFrom(
      { ...readRun(standInLog(run), { measureSeconds: 40, panel: null }), steady: true },
      {
        id: `r${place}`,
        boxId: 'b',
        experimentId: 'e',
        arm: letter === 'A' ? 'A' : 'B',
        place,
        at: stamp.now,
        room: run.room,
      },
      'stand-in',
      'seed',
    );
  });
  bench = done(bench, keepRuns(made, 'runs'));
  return { bench, box: must(findBox(bench, 'b')) };
}

describe('an experiment on the stand-in machine', () => {
  const { bench, box } = evening('cooler', 4);
  const state = must(tuneOf(bench, box).results[0]);
  const result = resultOf(state);
  it('finds what the machine’s own truth says, and says it', () => {
    const truth =
      settledTruth(standInTruth(), { ...asItComes(), limit: 18 }).die -
      settledTruth(standInTruth(), asItComes()).die;
    const heat = must(result.comparisons.find((c) => c.quantity === 'hottest')).judged;
    expect(heat.outcome).toBe('better');
    expect(heat.low ?? 0).toBeLessThan(truth + 1);
    expect(heat.high ?? 0).toBeGreaterThan(truth - 1);
    expect(tuneHeadline(box.name, state, result)).toMatch(/31 W → 18 W: \d/);
    expect(result.comparisons.find((c) => c.quantity === 'low percentile')?.judged.outcome).toBe('worse');
  });
  it('what is kept goes to the settings sheet and into the log, and can be undone as one', () => {
    const act = keepArm(box, state.experiment, 'B', 'quiet enough', stamp);
    const after = done(bench, act);
    const kept = must(findBox(after, 'b'));
    expect(kept.tune?.settings[0]).toMatchObject({ now: '18 W', came: '31 W', why: 'quiet enough' });
    expect(kept.tune?.experiments[0]).toMatchObject({ kept: 'B' });
    expect(after.log.at(-1)).toMatchObject({ kind: 'decision', stop: 'tune' });
    const { running } = tuneOf(after, kept);
    expect(running.came?.watts ?? 0).toBeGreaterThan(running.now?.watts ?? 0);
    expect(running.saved ?? 0).toBeCloseTo(
      (running.came?.yearly.money ?? 0) - (running.now?.yearly.money ?? 0),
      9,
    );
  });
  it('a run left out is asked for again, and one that had not settled does not count', () => {
    const first = must(runsOfBox(bench, 'b')[0]);
    const less = done(bench, leaveRunOut(first, 'an update ran'));
    const again = must(tuneOf(less, must(findBox(less, 'b'))).results[0]);
    expect(again.made).toBe(state.made - 1);
    expect(again.next).toEqual({ arm: first.arm, place: first.place });
    expect(
      done(
        less,
        putRun(
          { ...first, id: 'anew' },
          runsOfBox(less, 'b').filter((r) => r.place === first.place),
        ),
      )
        .runs.filter((r) => r.place === first.place)
        .map((r) => r.id),
    ).toEqual(['anew']);
    const cold = done(bench, keepRuns([{ ...first, steady: false }], 'cold'));
    const found = tuneOf(cold, must(findBox(cold, 'b')));
    expect(found.results[0]?.made).toBe(state.made - 1);
    expect(found.findings.map((f) => f.fault.code)).toContain('not settled');
  });
  it('goes away with its runs, and so does the box', () => {
    expect(done(bench, dropExperiment(bench, box, state.experiment)).runs).toEqual([]);
    expect(done(bench, removeBox(bench, box)).runs).toEqual([]);
    expect(dropSetting(box, must(box.tune).settings[0] ?? setting()).changes).toEqual([]);
  });
  it('the next box of its kind begins from what was measured here', () => {
    const twin: Box = { ...box, id: 'twin', name: 'Twin', tune: null };
    const both: Bench = { ...bench, boxes: [...bench.boxes, twin] };
    const ground = groundOf(both, twin, 'cooler');
    expect(ground.spread?.ground).toBe('measured on its like');
    expect(ground.was?.ground).toBe('measured on its like');
    expect(groundOf(bench, box, 'cooler').spread?.ground).toBe('measured here');
    expect(
      groundOf(
        { ...both, boxes: [{ ...twin, machineId: 'millrace' }, box] },
        { ...twin, machineId: 'millrace' },
        'cooler',
      ).spread,
    ).toBeUndefined();
  });
  it('is exported with its units, and nothing a spreadsheet would reckon with', () => {
    const evil = done(bench, leaveRunOut(must(runsOfBox(bench, 'b')[0]), '=HYPERLINK("x")'));
    const csv = tuneCsv(evil, must(findBox(evil, 'b')));
    expect(csv.split('\r\n')[0]).toContain('hottest (°C)');
    expect(csv.split('\r\n')).toHaveLength(1 + state.planned);
    expect(csv).not.toMatch(/(^|,)"?=/m);
    expect(tuneJson(bench, box).runs).toHaveLength(state.planned);
  });
});

describe('the demo bench', () => {
  const box = must(findBox(demo, 'games-corner'));
  const found = tuneOf(demo, box);
  it('has a knee, a change that cannot be told with three runs, and one that helped', () => {
    const [boost, paste, limit] = found.results.map(resultOf);
    expect(boost?.comparisons.find((c) => c.quantity === 'hottest')?.judged.outcome).toBe('better');
    expect(paste?.comparisons.find((c) => c.quantity === 'hottest')?.judged.outcome).toBe('cannot say');
    expect(limit?.trade?.knee.knee).toBeDefined();
    expect(found.findings.map((f) => f.fault.code)).toEqual(
      expect.arrayContaining(['in a row', 'not decided']),
    );
    for (const f of found.findings) expect(tuneFaultWords(f.fault)).not.toBe('');
  });
  it('has the runs that the stand-in machine gives by their seeds', () => {
    const written = demo.runs.map((r) => ({
      experimentId: r.experimentId,
      place: r.place,
      tau: r.tau,
      frameCount: r.frameCount,
      values: r.values,
      heat: { t: r.traces[0]?.t, v: r.traces[0]?.v },
    }));
    expect(written).toEqual(playedGames());
  });
  it('is of its own figures, goes through a file unchanged, and shows in ledger and route', () => {
    // Steps of the trade are check values of tests and suggestions, never the demo’s own.
    expect(JSON.stringify(box.tune)).not.toMatch(/\b(54|45|40|30|25|15|10) W\b/);
    expect(benchToText(benchFromText(benchToText(demo)))).toBe(benchToText(demo));
    expect(hazards(demo, box).some((h) => h.stop === 'tune')).toBe(true);
    expect(must(route(demo, box).find((r) => r.stop === 'tune')).waiting.high).toBeGreaterThan(0);
  });
  it('goes into the build sheet with its settings, and its trade as a picture that is whole XML', () => {
    const sheet = buildSheet(demo, box);
    expect(sheet).toContain('## Settings');
    expect(sheet).toMatch(/\| Power limit \| firmware \| 31 W \|/);
    expect(sheet).toMatch(/More even frames\?\*\* 20 of 20 runs/);
    const state = must(found.results[2]);
    const trade = must(resultOf(state).trade);
    const svg = tradePicture(
      'A <title> & “more”',
      state,
      trade,
      { cost: 'W', gain: 'frames/s' },
      (arm) => `state ${arm} <b>`,
    );
    expect(XMLValidator.validate(svg)).toBe(true);
    // A dot for every run, one more for the knee.
    expect(svg.match(/<circle/g)).toHaveLength(21);
    expect(svg).not.toContain('<b>');
  });
  it('says what the fan does to the ear, by its speed alone', () => {
    const fan = must(found.fan);
    expect(fan.decibels).toBeCloseTo(50 * Math.log10(fan.now / fan.came), 9);
    expect(fan.decibels).toBeLessThan(0);
  });
  it('throttling is found in the clocks that were kept', () => {
    const t = Array.from({ length: 60 }, (_, i) => i);
    const trace = (what: string, unit: string, of: (s: number) => number) => ({
      what,
      unit,
      t,
      v: t.map(of),
    });
    const bench = {
      ...demo,
      runs: demo.runs.map((r) => ({
        ...r,
        traces: [
          trace('processor package', '°C', (s) => 50 + Math.min(45, 2 * s)),
          trace('processor', 'MHz', (s) => (s < 30 ? 3600 : 2500)),
        ],
      })),
    };
    expect(tuneOf(bench, must(findBox(bench, 'games-corner'))).findings.map((f) => f.fault.code)).toContain(
      'throttles',
    );
  });
  it('a hot part and a changed voltage are findings', () => {
    const hot = (celsius: number, what: string): Bench => ({
      ...demo,
      runs: demo.runs.map((r) => ({
        ...r,
        traces: [{ what, unit: '°C', t: [0, 1, 2], v: [celsius, celsius, celsius] }],
      })),
    });
    const graded = (bench: Bench): string[] =>
      tuneOf(bench, must(findBox(bench, 'games-corner'))).findings.map((f) => f.grade);
    expect(graded(hot(50, 'battery BAT0'))).toContain('check');
    expect(graded(hot(62, 'battery BAT0'))).toContain('stop');
    expect(graded(hot(50, 'processor package'))).not.toContain('check');
    const lower: Box = {
      ...box,
      tune: {
        ...must(box.tune),
        settings: [setting({ id: 'uv', kind: 'undervolting', came: '0 mV', now: '−40 mV' })],
        experiments: [],
      },
    };
    const bench = { ...demo, boxes: demo.boxes.map((b) => (b.id === lower.id ? lower : b)) };
    expect(tuneOf(bench, lower).findings).toContainEqual({
      grade: 'check',
      fault: { code: 'undervolted', setting: 'Power limit' },
    });
  });
});

describe('settings and verdicts', () => {
  const box: Box = { ...must(findBox(demo, 'film-night')) };
  it('a setting that changed leaves a line from what to what', () => {
    const first = done(demo, keepSetting(box, setting(), stamp));
    const held = must(findBox(first, box.id));
    const second = keepSetting(held, setting({ now: '24 W', why: 'warm' }), stamp);
    expect(second.changes).toContainEqual(
      expect.objectContaining({
        in: 'log',
        to: expect.objectContaining({ kind: 'setting', from: '31 W', to: '24 W' }) as unknown,
      }),
    );
    expect(
      keepSetting(must(findBox(done(first, second), box.id)), setting({ now: '24 W' }), stamp).changes,
    ).toHaveLength(1);
  });
  it('works and recommended are two verdicts, each with its line', () => {
    const one = done(demo, sayVerdict(box, 'works', { is: 'yes', words: 'all of it', at: stamp.now }, stamp));
    const both = done(
      one,
      sayVerdict(
        must(findBox(one, box.id)),
        'recommended',
        { is: 'no', words: 'not beside a bed', at: stamp.now },
        stamp,
      ),
    );
    expect(must(findBox(both, box.id)).tune).toMatchObject({
      works: { is: 'yes' },
      recommended: { is: 'no' },
    });
  });
  it('refuses plans that contradict themselves', () => {
    const e = must(must(findBox(demo, 'games-corner')).tune?.experiments[0]);
    const bad = (over: object): boolean => experimentSchema.safeParse({ ...e, ...over }).success;
    expect(bad({})).toBe(true);
    expect(bad({ arms: [e.arms[0], e.arms[0]] })).toBe(false);
    expect(
      bad({
        arms: [
          { arm: 'A', sets: { boost: 'on' } },
          { arm: 'B', sets: { boost: 'on' } },
        ],
      }),
    ).toBe(false);
    expect(bad({ order: 'ABBC' })).toBe(false);
    expect(bad({ changes: ['boost', 'boost'] })).toBe(false);
    expect(bad({ kept: 'D' })).toBe(false);
    expect(tunePlanSchema.safeParse({ panel: { hz: 60, low: 48 } }).success).toBe(false);
    expect(tunePlanSchema.safeParse({ panel: { hz: 60, low: 60, high: 48 } }).success).toBe(false);
    expect(tunePlanSchema.safeParse({ settings: [setting(), setting()] }).success).toBe(false);
  });
});

describe('what people type', () => {
  const draft: ExperimentDraft = {
    question: 'cooler',
    settingId: '',
    kind: 'boost',
    name: '',
    from: 'on',
    to: 'off',
    two: false,
    secondId: '',
    secondKind: 'power limit',
    secondFrom: '',
    secondTo: '',
    matters: '',
    runs: '',
    settle: '',
    seed: '1',
  };
  const places = (d: Partial<ExperimentDraft>): PropertyKey[] => {
    const found = experimentOfDraft.safeParse({ ...draft, ...d });
    return found.success ? [] : found.error.issues.map((i) => i.path[0] ?? '');
  };
  it('an experiment: one value, a ladder, or two settings; what is wrong is told at its field', () => {
    expect(experimentOfDraft.parse(draft).changes).toEqual([
      { settingId: null, kind: 'boost', name: '', values: ['on', 'off'] },
    ]);
    expect(
      experimentOfDraft.parse({ ...draft, from: '31 W', to: '24 W; 18 W,13 W', settle: '2,5' }),
    ).toMatchObject({ settleSeconds: 150, changes: [{ values: ['31 W', '24 W', '18 W', '13 W'] }] });
    expect(places({ from: '' })).toEqual(['from']);
    expect(places({ to: 'on' })).toEqual(['to']);
    expect(places({ to: 'a,b,c,d,e,f,g,h' })).toEqual(['to']);
    expect(places({ kind: 'other' })).toEqual(['name']);
    expect(places({ runs: '1' })).toEqual(['runs']);
    expect(places({ two: true })).toEqual(['secondFrom', 'secondTo']);
    expect(places({ two: true, secondKind: 'boost', secondFrom: 'a', secondTo: 'b' })).toEqual(['secondId']);
    expect(places({ two: true, secondFrom: 'a', secondTo: 'b' })).toEqual([]);
  });
  it('a factorial has all four states, and its settings are told apart', () => {
    const p: Proposal = {
      question: 'cooler',
      seed: 1,
      runs: 2,
      changes: [
        { setting: setting({ id: 'x' }), values: ['1 W', '2 W'] },
        { setting: setting({ id: 'y' }), values: ['p', 'q'] },
      ],
    };
    const e = experimentOf(p, designFor(p, {}), { id: 'e', at: '' });
    expect(e.arms.map((a) => Object.values(a.sets).join(''))).toEqual(['1 Wp', '2 Wp', '1 Wq', '2 Wq']);
    expect(e.order).toHaveLength(8);
    expect(experimentSchema.safeParse(e).success).toBe(true);
  });
  it('panel, settings and figures', () => {
    expect(panelOfDraft.parse({ hz: '60', low: '', high: '', wattHours: '40,5' })).toEqual({
      panel: { hz: 60, low: null, high: null },
      batteryWattHours: 40.5,
    });
    expect(
      panelOfDraft.safeParse({ hz: '', low: '40', high: '60', wattHours: '' }).error?.issues[0]?.path,
    ).toEqual(['hz']);
    expect(
      panelOfDraft.safeParse({ hz: '60', low: '40', high: '', wattHours: '' }).error?.issues[0]?.path,
    ).toEqual(['high']);
    expect(settingOfDraft('s').safeParse({ ...setting(), name: ' ' }).error?.issues[0]?.path).toEqual([
      'name',
    ]);
    expect(valuesOfDraft.parse({ steady: true, hottest: '71,5', write: '410', wall: '' })).toEqual({
      steady: true,
      values: { hottest: 71.5, write: 410e6 },
    });
    expect(valuesOfDraft.safeParse({ steady: true, hottest: '' }).success).toBe(false);
    expect(valuesOfDraft.safeParse({ steady: true, hottest: 'warm' }).error?.issues[0]?.path).toEqual([
      'hottest',
    ]);
  });
});

describe('the room', () => {
  const run = (arm: 'A' | 'B', place: number, hottest: number, room: number | null): TuneRun =>
    tuneRunSchema.parse({
      id: `${place}`,
      boxId: 'b',
      experimentId: 'e',
      arm,
      place,
      at: stamp.now,
      steady: true,
      room,
      values: { hottest, fan: 3000 },
      source: 'typed',
    });
  // By hand: 40 K over the room in state A and 37 K in B, while the room warms from 20 to 27 °C, and more in the runs of B.
  const evenings = (rooms: readonly (number | null)[]): TuneRun[] =>
    [...'ABBAABBA'].map((arm, i) =>
      run(arm as 'A' | 'B', i, (arm === 'A' ? 40 : 37) + (rooms[i] ?? 20), rooms[i] ?? null),
    );
  const WARM = [20, 23, 24, 21, 22, 26, 27, 23];
  it('is taken out of heat where every run has it, and of nothing else', () => {
    const { runs, room } = withoutRoom(evenings(WARM));
    const at = WARM.reduce((a, b) => a + b, 0) / 8;
    expect(room).toEqual({ noted: 8, of: 8, at });
    for (const r of runs) {
      expect(r.values.hottest).toBeCloseTo((r.arm === 'A' ? 40 : 37) + at, 9);
      expect(r.values.fan).toBe(3000);
    }
  });
  it('stays in where one run lacks it, and how many lack it is said', () => {
    const some = evenings(WARM.map((w, i) => (i === 3 ? null : w)));
    expect(withoutRoom(some)).toEqual({ runs: some, room: { noted: 7, of: 8, at: null } });
  });
  it('of an evening that warms hides a cooler state, and with it taken out the state is cooler', () => {
    const judged = (runs: readonly TuneRun[]) =>
      judgeTogether(
        runs.map((r) => ({ arm: r.arm, at: r.place, values: [r.values.hottest] })),
        'A',
        [{ better: 'less', matters: 2, usual: 0.5 }],
      )[0]?.judged;
    const all = evenings(WARM);
    expect(judged(all)?.outcome).not.toBe('better');
    const free = judged(
      withoutRoom(all).runs.map((r, i) => ({
        ...r,
        values: { hottest: (r.values.hottest ?? 0) + 0.01 * (i % 3) },
      })),
    );
    expect(free?.outcome).toBe('better');
    expect(free?.change).toBeCloseTo(-3, 1);
  });
  it('is typed as people type it', () => {
    expect(['21,5', '', ' 20 '].map((t) => roomOfText.parse(t))).toEqual([21.5, null, 20]);
    expect(['warm', '70', '-40'].map((t) => roomOfText.safeParse(t).success)).toEqual([false, false, false]);
  });
});

describe('the stand-in machine', () => {
  it('does as its settings say: cooler and slower with less, warmer with boost, held by a cap', () => {
    const m = standInTruth();
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 44 }), fc.integer({ min: 1, max: 10 }), (limit, more) => {
        const off = { ...asItComes(), boost: false };
        const [a, b] = [settledTruth(m, { ...off, limit }), settledTruth(m, { ...off, limit: limit + more })];
        expect(b.die).toBeGreaterThanOrEqual(a.die);
        expect(b.rate).toBeGreaterThanOrEqual(a.rate);
        expect(settledTruth(m, { ...off, limit, boost: true }).die).toBeGreaterThanOrEqual(a.die);
        expect(settledTruth(m, { ...off, limit, paste: 1 }).die).toBeLessThan(a.die);
        const capped = settledTruth(m, { ...off, limit, cap: 30 });
        expect(capped.rate).toBeLessThanOrEqual(30);
        expect(capped.wallWatts).toBeLessThanOrEqual(a.wallWatts + 1e-9);
      }),
      { numRuns: 40 },
    );
    expect(settledTruth(m, { ...asItComes(), lines: 720 }).rate).toBeGreaterThan(
      1.3 * settledTruth(m, asItComes()).rate,
    );
  });
  it('the same seed gives the same run, and values are read as people say them', () => {
    const ask = { seed: 3, settle: 100, measure: 20 };
    expect(runStandIn(standInTruth(), asItComes(), ask)).toEqual(
      runStandIn(standInTruth(), asItComes(), ask),
    );
    const sheet = [
      setting(),
      setting({ id: 'b', kind: 'boost', came: 'on', now: 'on' }),
      setting({ id: 'r', kind: 'resolution', came: '1920 × 1080', now: '' }),
      setting({ id: 'c', kind: 'frame cap', came: 'none', now: 'none' }),
      setting({ id: 'p', kind: 'paste and pads', came: 'as it came', now: '' }),
    ];
    expect(standInSet(sheet, {})).toEqual(asItComes());
    expect(
      standInSet(sheet, { limit: '18,5 W', b: 'off', r: '1280 × 720', c: '40 frames/s', p: 'fresh' }),
    ).toEqual({ limit: 18.5, boost: false, lines: 720, cap: 40, paste: 1 });
  });
  it('a played run tells of its settling as it goes, from what was read until then', () => {
    const shares: number[] = [];
    const played = playRun(
      { set: asItComes(), seed: 2, place: 0, settle: 1100, measure: 60, panel: null },
      (s) => shares.push(s),
    );
    expect(played.told.map((t) => t.at)).toEqual([...played.told.map((t) => t.at)].sort((a, b) => a - b));
    expect(['open', 'not yet', 'too short']).toContain(played.told[0]?.steadiness.code);
    expect(played.reading.steady).toBe(true);
    expect(Object.keys(played.reading.values)).toEqual(
      expect.arrayContaining(['hottest', 'fan', 'wall', 'rate', 'low percentile']),
    );
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    // The nearer the end, the truer what is foretold of it.
    const told = played.told.flatMap((x) => ('fit' in x.steadiness ? [x.steadiness.fit.final] : []));
    const off = told.map((end) => Math.abs(end - (played.reading.values.hottest ?? 0)));
    expect(off.at(-1) ?? NaN).toBeLessThan(0.6);
    expect(off.at(-1) ?? NaN).toBeLessThan(off[1] ?? NaN);
  });
});
