/**
 * What is said is well said, whatever it is said of: no hole where a value should stand, no word of the machine's, no sign
 * twice, no space before one. Over everything that ships, and over boxes changed by chance.
 */
import fc from 'fast-check';
import { depotImages } from '@zb/core/demo/depot';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { bytesSource } from '@zb/core/formats/source';
import { contentOf, type ImageReading } from '@zb/core/model/inspection';
import { inspectImage } from '@zb/core/starting/inspect';
import { judge } from '@zb/core/system/judge';
import { machineView } from '@zb/core/system/view';
import { rungWhyWords } from '@zb/core/words/chain';
import { findingWords, verdictWords } from '@zb/core/words/fit/finding';
import { repairWords } from '@zb/core/words/fit/repairs';
import { imageFaultWords } from '@zb/core/words/imageFinding';
import { imagePlaceWords } from '@zb/core/words/imagePlace';
import { loaderFaultWords, startWords } from '@zb/core/words/start';
import { hazards, summaryOf } from '@zb/core/box/summary';
import { benchCards } from '@zb/core/box/benchDay';
import { causeCodes } from '@zb/core/diagnose/causes';
import { lookCodes, moments, symptoms } from '@zb/core/diagnose/codes';
import { choresOf } from '@zb/core/keeping/chores';
import { retirementOf } from '@zb/core/keeping/retirement';
import { machineEnds } from '@zb/core/model/keep';
import { isMachine, type Bench, type Box } from '@zb/core/model/bench';
import { exercises } from '@zb/core/practice/exercises';
import { HINT, Playing, type Exercise } from '@zb/core/practice/play';
import { boxPlan, withAlways } from '@zb/core/rehearsal/forBox';
import { rehearse } from '@zb/core/rehearsal/rehearse';
import { benchHeadline } from '@zb/core/words/bench';
import { buildSheet } from '@zb/core/words/buildSheet';
import { causeWords } from '@zb/core/words/diagnose/causes';
import { lookWords, momentWords, symptomWords } from '@zb/core/words/diagnose/looks';
import { hazardWords } from '@zb/core/words/hazard';
import { choreHow, choreTitle, dueWords, everyWords, retireWords } from '@zb/core/words/keep';
import { goals } from '@zb/core/words/practice/goals';
import {
  hintWords,
  lossWords,
  offerWords,
  partWords,
  practiceWhy,
  practiceWords,
} from '@zb/core/words/practice/say';
import { namesIn, rehearsalHeadline } from '@zb/core/words/rehearsal';
import { planOf } from '@zb/core/box/plan';
import { goalResultWords, planHeadline, unmetWords } from '@zb/core/words/planEnd';
import { runSheetHeadline } from '@zb/core/words/runsheet/around';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { anyAsk, made } from './anyBox';
import { careless, perfect } from './practicePlayers';
import { runs } from './runs';

const HOLES = /undefined|\bnull\b|\bNaN\b|Infinity|\[object|\{\w+\}/;
/** A space where none belongs, or a sign that another follows. A file that begins with a dot, and “…”, are neither. */
const SIGNS = /\s{2}|\s[,;:!?)](?:\s|$)|\s\.(?:\s|$)|[,;:]{2}|\.\.(?!\w|\/)|[.,;]:|[,;:]\.|\(\s|^\s|\s$/;

/** A line of a list of sums, as its tool prints it. */
const SUM = /^[0-9a-f]{64} {2}\S/;

/** The sentences in which something is wrong. */
const illSaid = (texts: Iterable<string>): string[] =>
  [...texts].filter((t) => t !== '' && !SUM.test(t) && (HOLES.test(t) || SIGNS.test(t)));

describe('the rule itself', () => {
  it.each(['', 'It starts.', 'Type .bashrc, then go on.', 'cd ../shared', 'Waiting … and on', '19:30'])(
    'lets “%s” be',
    (t) => expect(illSaid([t])).toEqual([]),
  );
  it.each([
    'It is undefined.',
    'NaN GiB',
    '{drive} is lost',
    'Two  spaces',
    'One .',
    'It ended.. Again',
    ' before',
    'a , b',
  ])('finds “%s”', (t) => expect(illSaid([t])).toEqual([t]));
});

/** All that is said of a box. */
function* ofBox(bench: Bench, box: Box): Generator<string> {
  const whole = planOf(bench, box);
  const { sheet } = whole;
  yield runSheetHeadline(whole);
  yield planHeadline(whole);
  for (const g of whole.goals) yield goalResultWords(g);
  for (const u of whole.unmet) yield unmetWords(u);
  for (const { what } of sheet.steps) {
    const { title, lines, exact, why, see, wrong, change } = runStepWords(what);
    yield* [title, ...lines, why, see, wrong, ...exact.map((e) => e.label)];
    if (change) yield* [change.from, change.to];
  }
  for (const h of hazards(bench, box)) yield hazardWords(h);
  const { times, bytesAtRisk, questions } = summaryOf(bench, box);
  for (const l of [...times, ...bytesAtRisk]) yield* [l.label, l.value, l.because];
  yield* questions;
  const plan = boxPlan(bench, box);
  if (!('code' in plan)) {
    const found = rehearse(plan.plan, withAlways(plan, box.precautions));
    yield rehearsalHeadline(found, namesIn(plan.plan));
  }
  for (const c of choresOf(bench, box, '2026-03-05'))
    yield* [choreTitle(c), choreHow(c.code), everyWords(c), dueWords(c)];
  for (const to of machineEnds)
    for (const l of retirementOf(bench, box, to)) yield* Object.values(retireWords(l));
}

describe('what is said', () => {
  const hall = saltmarshHall();

  it('of the boxes that ship is well said', () => {
    for (const box of hall.boxes) expect(illSaid(ofBox(hall, box))).toEqual([]);
    expect(illSaid([benchHeadline(benchCards(hall), hall.boxes.length)])).toEqual([]);
  });

  it('of boxes changed by chance is well said', () => {
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        expect(illSaid(ofBox(bench, box))).toEqual([]);
      }),
      { numRuns: runs(60) },
    );
  });

  it('on a build sheet has no holes', () => {
    for (const box of hall.boxes)
      expect(
        buildSheet(hall, box)
          .split('\n')
          .filter((line) => HOLES.test(line)),
      ).toEqual([]);
  });

  it('of every sign, look and cause is well said, and a cause has a cure', () => {
    const said = [...symptoms.map(symptomWords), ...moments.map(momentWords), ...lookCodes.map(lookWords)];
    expect(illSaid(said)).toEqual([]);
    expect(said.every((t) => t !== '')).toBe(true);
    for (const code of causeCodes) {
      const { title, because, cure, unharmed } = causeWords(code);
      expect(illSaid([title, because, ...cure, unharmed])).toEqual([]);
      expect([title, because, unharmed].every((t) => t !== '') && cure.length > 0).toBe(true);
    }
  });
});

/** All that is said of an image that was read. */
function* ofReading(r: ImageReading): Generator<string> {
  for (const o of r.outcomes) {
    yield startWords(o);
    if (o.secureBoot) yield startWords(o.secureBoot);
    for (const rung of o.chain) yield rungWhyWords(rung.why);
  }
  for (const l of r.loaders) {
    yield imagePlaceWords(l.place);
    if (l.fault) yield loaderFaultWords(l.fault);
  }
  for (const f of r.findings) yield imageFaultWords(f.fault);
}

describe('what is said of systems and images', () => {
  const hall = saltmarshHall();

  it('of every system for every machine is well said', () => {
    for (const machine of hall.items.filter(isMachine))
      for (const profile of hall.profiles) {
        const judged = judge(machineView(hall, machine), profile);
        const said = judged.all.flatMap((f) =>
          Object.values(findingWords(f)).filter((t): t is string => typeof t === 'string'),
        );
        expect(
          illSaid([
            ...said,
            verdictWords(judged),
            ...judged.missing.map((m) => m.ask),
            ...judged.repairs.map(repairWords),
          ]),
        ).toEqual([]);
      }
  });

  it('of the images that ship, whole, cut and spoilt, is well said', async () => {
    const images = depotImages.map((d) => d.build());
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...images.keys()),
        fc.option(fc.double({ min: 0, max: 1, noNaN: true })),
        fc.array(fc.tuple(fc.nat(), fc.nat(255)), { maxLength: 12 }),
        async (which, cut, spoilt) => {
          const whole = images[which] ?? new Uint8Array();
          const bytes = whole.slice(0, Math.floor(whole.length * (cut ?? 1)));
          // Where tables and loaders lie.
          for (const [at, to] of spoilt)
            if (bytes.length > 0) bytes[at % Math.min(bytes.length, 1 << 20)] = to;
          expect(illSaid(ofReading(contentOf(await inspectImage(bytesSource(bytes)))))).toEqual([]);
        },
      ),
      { numRuns: runs(80) },
    );
  });
});

/** All that is said in an exercise from its beginning over these acts to its end. */
function* ofExercise(
  exercise: Exercise,
  seed: number,
  acts: readonly { do: string; on?: string }[],
): Generator<string> {
  const playing = new Playing(exercise, seed);
  for (const act of [HINT, ...acts]) {
    for (const o of playing.stands().offers) yield offerWords(exercise.id, o);
    for (const p of playing.stands().panels) {
      if (p.kind === 'paper') yield* p.lines.map((l) => partWords(exercise.id, l));
      if (p.kind === 'table') for (const r of p.rows) yield* r.cells.map((c) => partWords(exercise.id, c));
    }
    playing.take(act);
  }
  const { happened, hints } = playing.stands();
  for (const h of happened) {
    yield practiceWords(exercise.id, h);
    yield practiceWhy(exercise.id, h);
    if (h.lost) yield lossWords(exercise.id, h.lost.what);
  }
  for (const h of hints) yield hintWords(exercise.id, h);
}

describe('what is said in practice', () => {
  it.each(exercises.map((e) => [e.id, e] as const))(
    '“%s” is well said by whoever plays it, and has a goal',
    (id, e) => {
      for (let seed = 1; seed <= runs(12); seed += 1)
        for (const player of [perfect, careless])
          expect(illSaid(ofExercise(e, seed, player(e, seed).done))).toEqual([]);
      const goal = goals[id];
      expect(goal).toBeDefined();
      expect(illSaid(Object.values(goal ?? {}))).toEqual([]);
    },
  );
});
