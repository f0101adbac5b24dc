/**
 * Exercises by what they promise: solvable without a fault, losable, the same for the same seed, and never without words. That a
 * simulated machine does nothing the rehearsal does not know of is held against it.
 */
import fc from 'fast-check';
import { attemptOf, forgetAttempts, keepAttempt } from '@zb/core/acts/practice';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { applyChanges } from '@zb/core/model/changes';
import { attemptSchema, type PracticeAct } from '@zb/core/model/practice';
import { stops } from '@zb/core/model/stops';
import { exercises, findExercise } from '@zb/core/practice/exercises';
import { ownExercise, ownId, ownSetup } from '@zb/core/practice/own';
import { play, Playing, PracticeError, withAct, type Exercise } from '@zb/core/practice/play';
import type { Part } from '@zb/core/practice/said';
import type { Panel } from '@zb/core/practice/scene';
import { progressOf, recordOf } from '@zb/core/practice/record';
import { drawRig, type Asked } from '@zb/core/practice/rig/draw';
import { Rig } from '@zb/core/practice/rig/rig';
import { COSTS, HINT_COST } from '@zb/core/practice/tale';
import { tallyOf, takenOf } from '@zb/core/rehearsal/tally';
import { Stage } from '@zb/core/rehearsal/stage';
import { installers } from '@zb/core/model/installer';
import { randomFrom } from '@zb/core/units/random';
import { goals } from '@zb/core/words/practice/goals';
import { noExerciseWords } from '@zb/core/words/practice/own';
import {
  hintWords,
  lossWords,
  offerWords,
  offerWordsInLine,
  partWords,
  practiceWhy,
  practiceWords,
} from '@zb/core/words/practice/say';
import { anyhow, careless, perfect, type Player } from './practicePlayers';
import { runs } from './runs';

const SEEDS = Array.from({ length: runs(24) }, (_, i) => i + 1);

/** Everything that stands on the screen of an exercise. */
const partsOf = (panel: Panel): Part[] =>
  panel.kind === 'machine'
    ? [...panel.screen.lines, ...panel.screen.heads, ...panel.screen.rows.flatMap((r) => r.cells)]
    : panel.kind === 'table'
      ? [panel.title, ...panel.heads, ...panel.rows.flatMap((r) => r.cells)]
      : panel.kind === 'paper'
        ? [panel.title, ...panel.lines]
        : [panel.title, ...panel.drives.map((d) => d.holds)];

/** Reads out all that an exercise says now. Throws where something has no words. */
function readOut({ exercise: { id }, played }: Player): string[] {
  return [
    ...played.happened.flatMap((h) => [
      practiceWords(id, h),
      ...(h.grade === 'plain' || h.grade === 'good' ? [] : [practiceWhy(id, h)]),
      ...(h.lost ? [lossWords(id, h.lost.what)] : []),
    ]),
    ...played.hints.map((h) => hintWords(id, h)),
    ...played.offers.flatMap((o) => [offerWords(id, o), offerWordsInLine(id, o)]),
    ...played.panels
      .flatMap(partsOf)
      .filter((p) => typeof p !== 'string')
      .map((p) => partWords(id, p)),
  ];
}

describe.each(exercises.map((e): [string, Exercise] => [e.id, e]))('%s', (_, exercise) => {
  it('is solved without a fault by whoever knows the trade, whatever the seed', () => {
    for (const seed of SEEDS) {
      const { played, acts } = perfect(exercise, seed);
      expect({ seed, end: played.end, score: played.score }).toEqual({ seed, end: 'done', score: 100 });
      // Told again from its acts it is the same, blow by blow.
      expect(play(exercise, seed, acts).happened).toEqual(played.happened);
    }
  });
  it('costs whoever does what comes first, and says what and why', () => {
    let lost = 0;
    for (const seed of SEEDS) {
      const { played } = careless(exercise, seed);
      expect(played.score).toBeLessThan(100);
      for (const h of played.happened.filter((x) => COSTS[x.grade] > 0))
        expect(practiceWhy(exercise.id, h)).not.toBe('');
      if (played.happened.some((h) => h.lost !== null)) lost += 1;
    }
    expect(lost).toBeGreaterThan(0);
  });
  it('has words for all it says, and one name for each act, whoever does what', () => {
    for (const seed of SEEDS)
      for (const most of [0, 4, 12, 30]) {
        const p = anyhow(exercise, seed * 31 + most, most);
        const before = p.played.score;
        if (!p.over) {
          p.act('hint');
          expect(p.played.score).toBe(Math.max(0, before - HINT_COST));
        }
        for (const words of readOut(p)) expect(words).toMatch(/^[^{}]+$/);
        const names = p.played.offers.map((o) => offerWords(exercise.id, o));
        expect(new Set(names).size).toBe(names.length);
        expect(p.played.score).toBeGreaterThanOrEqual(0);
      }
  });
});

describe('all exercises', () => {
  it('are at least fourteen, over every stop, each with its goal', () => {
    expect(exercises.length).toBeGreaterThanOrEqual(14);
    expect(new Set(exercises.map((e) => e.stop))).toEqual(new Set(stops));
    for (const e of exercises) expect(goals[e.id]?.goal).toBeTruthy();
  });
  it('of other seeds are others', () => {
    for (const e of exercises) {
      const drawn = new Set(SEEDS.map((s) => JSON.stringify(play(e, s, []).panels)));
      expect(drawn.size).toBeGreaterThan(1);
    }
  });
  it('refuse an act that is not on offer, and nothing after the end', () => {
    const e = findExercise('start-once') as Exercise;
    expect(() => play(e, 1, [{ do: 'erase' }])).toThrow(PracticeError);
    const { acts } = perfect(e, 1);
    expect(() => play(e, 1, [...acts, { do: 'power' }])).toThrow(PracticeError);
    expect(findExercise('nothing of the kind')).toBeUndefined();
  });
  it('do not draw which drive of a pool has failed before its sticker was read', () => {
    const pool = findExercise('one-of-four') as Exercise;
    for (const seed of SEEDS) {
      const drawn = (acts: PracticeAct[]): number => {
        const drives = play(pool, seed, acts).panels.find((p) => p.kind === 'drives');
        return new Set(drives?.drives.map((d) => d.pattern)).size;
      };
      const { done } = perfect(pool, seed);
      const upTo = done.findIndex((a) => a.do === 'pull');
      expect(drawn(done.slice(0, 1))).toBe(1);
      expect(drawn(done.slice(0, upTo))).toBe(2);
    }
  });
  it('let time go by of itself at a machine, never at a pool that is made good', () => {
    const pool = findExercise('one-of-four') as Exercise;
    const machine = findExercise('start-once') as Exercise;
    const went = (e: Exercise): [boolean, boolean][] => {
      const { done } = perfect(e, 1);
      return done.map((_, i) => {
        const { beats, offers } = play(e, 1, done.slice(0, i));
        return [beats, offers.some((o) => o.act.do === 'wait')];
      });
    };
    expect(went(pool)).toContainEqual([false, true]);
    expect(went(pool).filter(([beats]) => beats)).toEqual([]);
    expect(went(machine)).toContainEqual([true, true]);
  });
  it('keep beats that went by one after the other as one act', () => {
    const wait = { do: 'wait' };
    expect(withAct(withAct(withAct([{ do: 'power' }], wait), wait), { do: 'press', on: 'F2' })).toEqual([
      { do: 'power' },
      { do: 'wait', times: 2 },
      { do: 'press', on: 'F2' },
    ]);
  });
});

describe('a simulated machine', () => {
  const asked: fc.Arbitrary<Asked> = fc.record({
    task: fc.constant('install' as const),
    others: fc.integer({ min: 1, max: 3 }),
    twin: fc.boolean(),
    larger: fc.boolean(),
    choice: fc.constantFrom(...installers.filter((i) => i !== 'written straight to the final drive')),
    secure: fc.boolean(),
  });
  it('loses what matters only where the rehearsal of the same plan knows a world in which that is lost', () => {
    let lost = 0;
    fc.assert(
      fc.property(asked, fc.integer({ min: 1, max: 1e6 }), (of, seed) => {
        const exercise: Exercise = {
          id: 'a rig',
          stop: 'install',
          begin: (random) => new Rig(drawRig(random, of), random),
        };
        const { played } = careless(exercise, seed);
        if (!played.happened.some((h) => h.code === 'erased')) return;
        lost += 1;
        const { plan } = drawRig(randomFrom(seed), of);
        const stage = new Stage(plan);
        expect(tallyOf(stage, takenOf(stage, [])).lost).toBeGreaterThan(0);
      }),
      { numRuns: runs(60) },
    );
    expect(lost).toBeGreaterThan(0);
  });
  it('catches a key within its window alone', () => {
    const e = findExercise('start-once') as Exercise;
    const { keys } = drawRig(randomFrom(5), { task: 'start once', others: 0 });
    for (let beat = 0; beat < keys.of; beat += 1) {
      const p = new Playing(e, 5).take({ do: 'stick in' }).take({ do: 'power' });
      if (beat > 0) p.take({ do: 'wait', times: beat });
      const caught = p.take({ do: 'press', on: keys.menu }).stands().happened.at(-1)?.code === 'in the menu';
      expect(caught).toBe(beat >= keys.from && beat <= keys.to);
    }
  });
});

describe('one’s own box', () => {
  const bench = saltmarshHall();
  it('becomes an exercise that can be solved, or says why not', () => {
    let made = 0;
    for (const box of bench.boxes) {
      const own = ownSetup(bench, box);
      if ('code' in own) {
        expect(noExerciseWords(own)).not.toBe('');
        continue;
      }
      made += 1;
      const exercise = ownExercise(own);
      expect(exercise.id).toBe(ownId(box.id));
      for (const seed of SEEDS) {
        const { played } = perfect(exercise, seed);
        expect({ box: box.id, seed, end: played.end, score: played.score }).toEqual({
          box: box.id,
          seed,
          end: 'done',
          score: 100,
        });
      }
    }
    expect(made).toBeGreaterThan(0);
  });
});

describe('the record', () => {
  const bench = saltmarshHall();
  const at = (id: string, exercise: string, p: Player) =>
    attemptOf(p.played, {
      id,
      exercise,
      boxId: null,
      seed: p.seed,
      acts: p.acts,
      begun: '2026-11-27T10:00:00.000Z',
      now: '2026-11-27T10:04:30.000Z',
    });
  it('keeps attempts in the bench, counts them, and names what comes next', () => {
    const e = findExercise('which-drive') as Exercise;
    const good = at('a', e.id, perfect(e, 3));
    const bad = at('b', e.id, careless(e, 3));
    expect(attemptSchema.parse(good)).toEqual(good);
    expect(good.seconds).toBe(270);
    const kept = applyChanges(bench, [...keepAttempt(good, 'x').changes, ...keepAttempt(bad, 'x').changes]);
    const before = bench.attempts.length;
    expect(kept.attempts).toHaveLength(before + 2);
    const fresh = kept.attempts.slice(-2);
    expect(recordOf(fresh).get(e.id)).toMatchObject({ tries: 2, best: 100, clean: 1 });
    const progress = progressOf(fresh);
    expect(progress).toMatchObject({ clean: 1, tried: 1, all: exercises.length, before: null });
    expect(progress.lately).toBe(Math.round((good.score + bad.score) / 2));
    expect(progress.next).toBe('which-system');
    expect(applyChanges(kept, forgetAttempts(kept.attempts).changes).attempts).toEqual([]);
  });
});
