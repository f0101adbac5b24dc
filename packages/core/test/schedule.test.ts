import fc from 'fast-check';
import { eveningOf, stretchesOf } from '@zb/core/box/evening';
import { runSheetOf } from '@zb/core/box/runSheet';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { leastEnd, preemptive, topological } from '@zb/core/schedule/bound';
import { writeCalendar } from '@zb/core/formats/icalendar';
import { chanceOf, drawn } from '@zb/core/schedule/chance';
import { middles, place, worth, type Problem, type Task } from '@zb/core/schedule/problem';
import { solve } from '@zb/core/schedule/solve';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import { randomFrom } from '@zb/core/units/random';
import { eveningCalendar } from '@zb/core/words/evening';
import { runs } from './runs';

const hall = saltmarshHall();
const span = (low: number, high = low) => ({ low, high });

/** Some boxes, each a chain of tasks with now and then a second thing to come after. */
const anyProblem = (most: number): fc.Arbitrary<Problem> =>
  fc
    .array(
      fc.record({
        box: fc.nat(2),
        hands: fc.constantFrom(0, 10, 30, 60, 90),
        alone: fc.constantFrom(0, 0, 0, 60, 240, 500),
        needs: fc.subarray(['monitor', 'writer'], { maxLength: 2 }),
        keeps: fc.boolean(),
        far: fc.nat(),
        pinned: fc.constantFrom(null, null, null, 0, 120, 400),
      }),
      { minLength: 1, maxLength: most },
    )
    .chain((raw) =>
      fc
        .record({
          until: fc.constantFrom(null, 200, 500, 900),
          weights: fc.tuple(
            fc.integer({ min: 1, max: 5 }),
            fc.integer({ min: 1, max: 5 }),
            fc.integer({ min: 1, max: 5 }),
          ),
        })
        .map(({ until, weights }): Problem => {
          const tasks = raw.map((r, i): Task => {
            const before = raw.map((o, j) => ({ o, j })).filter(({ o, j }) => j < i && o.box === r.box);
            const last = before.at(-1)?.j;
            const after =
              r.far % 3 === 0 ? before.map(({ j }) => j).slice(0, 1) : last === undefined ? [] : [last];
            return {
              key: `t${i}`,
              box: r.box,
              hands: span(r.hands),
              alone: span(r.alone),
              after,
              needs: r.needs,
              keeps: r.keeps ? r.needs : [],
              pinned: r.pinned,
            };
          });
          return {
            boxes: weights.map((weight, i) => ({ id: `b${i}`, name: `b${i}`, weight })),
            tasks,
            until,
            correlations: null,
          };
        }),
    );

describe('a plan', () => {
  it('breaks nothing: one pair of hands, one of each thing, nothing before what it comes after', () => {
    fc.assert(
      fc.property(anyProblem(14), (problem) => {
        const plan = solve(problem);
        const { tasks } = problem;
        expect([...plan.order].sort((a, b) => a - b)).toEqual(tasks.map((_, i) => i));
        const of = new Map(plan.placed.map((p) => [p.task, p]));
        const apart = (list: readonly (readonly [number, number])[]): void => {
          const sorted = [...list].filter(([a, b]) => b > a).sort((x, y) => x[0] - y[0]);
          sorted.forEach(
            ([from], i) => i > 0 && expect(from).toBeGreaterThanOrEqual((sorted[i - 1]?.[1] ?? 0) - 1e-6),
          );
        };
        apart(plan.placed.map((p) => [p.from, p.free] as const));
        for (const r of new Set(tasks.flatMap((t) => t.needs)))
          apart(
            plan.placed
              .filter((p) => tasks[p.task]?.needs.includes(r))
              .map((p) => [p.from, tasks[p.task]?.keeps.includes(r) ? p.end : p.free] as const),
          );
        for (const p of plan.placed)
          for (const a of tasks[p.task]?.after ?? [])
            expect(p.from).toBeGreaterThanOrEqual((of.get(a)?.end ?? 0) - 1e-6);
        // Never worse than box after box, and never better than what no plan can beat.
        expect(worth(plan, plan.oneByOne)).toBeLessThanOrEqual(0);
        // What is pinned never begins before its time, and what it begins later adds up.
        const late = tasks.map((t, i) => (t.pinned === null ? 0 : (of.get(i)?.from ?? -1) - t.pinned));
        for (const l of late) expect(l).toBeGreaterThanOrEqual(-1e-6);
        expect(late.reduce((s, l) => s + l, 0)).toBeCloseTo(plan.late, 6);
        expect(plan.end).toBeGreaterThanOrEqual(leastEnd(problem, middles(problem)) - 1e-6);
        expect(plan.missed).toBeGreaterThanOrEqual(plan.leastMissed - 1e-9);
      }),
      { numRuns: runs(160) },
    );
  });

  it('of twelve boxes of twenty steps is proven, or within two in a hundred of what none can beat', () => {
    const random = randomFrom(3);
    const tasks = Array.from({ length: 240 }, (_, i): Task => {
      const hands = random() < 0.12 ? 0 : 20 + random() * 160;
      const alone = random() < 0.3 ? random() * 1200 : 0;
      const needs = [...(random() < 0.4 ? ['monitor'] : []), ...(random() < 0.1 ? ['writer'] : [])];
      return {
        key: `${i}`,
        box: Math.floor(i / 20),
        hands: span(hands),
        alone: span(alone),
        after: i % 20 === 0 ? [] : [i - 1],
        needs,
        keeps: needs.filter((n) => n === 'writer'),
        pinned: null,
      };
    });
    const boxes = Array.from({ length: 12 }, (_, i) => ({ id: `${i}`, name: `${i}`, weight: 1 + (i % 5) }));
    const plan = solve({ boxes, tasks, until: null, correlations: null });
    expect(plan.proven || plan.end <= 1.02 * plan.least).toBe(true);
  });

  it('can be stopped, and is then as good as what it had', () => {
    const evening = eveningOf(
      hall,
      hall.boxes.filter((b) => b.machineId !== null),
      1800,
    );
    const shares: number[] = [];
    const plan = solve(evening.problem, {
      stopped: () => shares.length > 1,
      progress: (s) => shares.push(s),
    });
    expect(plan.placed).toHaveLength(evening.problem.tasks.length);
    expect(shares.length).toBeLessThan(5);
  });
});

it('Jackson’s preemptive schedule of Carlier’s example ends at 49', () => {
  // Carlier 1982, “The one-machine sequencing problem”, table 1: heads, lengths, tails; from memory of it.
  const jobs = [
    [10, 5, 7],
    [13, 6, 26],
    [11, 7, 24],
    [20, 4, 21],
    [30, 3, 8],
    [0, 6, 17],
    [30, 2, 0],
  ];
  expect(preemptive(jobs.map(([head = 0, length = 0, tail = 0]) => ({ head, length, tail })))).toBe(49);
});

describe('the chance to be done', () => {
  it('grows with the time there is, and a span holds eight of ten', () => {
    const normal = normalFrom(randomFrom(5));
    const draws = Array.from({ length: 20_000 }, () => drawn(span(60, 300), normal()));
    expect(draws.filter((d) => d >= 60 && d <= 300).length / draws.length).toBeCloseTo(0.8, 1);
    const { problem } = eveningOf(
      hall,
      hall.boxes.filter((b) => b.id === 'film-night'),
      null,
    );
    const order = topological(problem);
    const { end } = place(problem, order, middles(problem));
    const at = (share: number): number =>
      chanceOf({ ...problem, until: end * share }, order, 400, normalFrom(randomFrom(1))).done ?? -1;
    expect(at(0.3)).toBe(0);
    expect(at(1.6)).toBeGreaterThan(at(1));
    expect(at(4)).toBe(1);
  });
});

describe('steps of one evening', () => {
  const chain = (count: number, together: number): Problem => ({
    boxes: [{ id: 'a', name: 'a', weight: 1 }],
    tasks: Array.from({ length: count }, (_, i) => ({
      key: `${i}`,
      box: 0,
      hands: span(600, 1800),
      alone: span(0),
      after: i === 0 ? [] : [i - 1],
      needs: [],
      keeps: [],
      pinned: null,
    })),
    until: null,
    correlations: Array.from({ length: count }, (_, i) =>
      Array.from({ length: count }, (__, j) => (i === j ? 1 : together)),
    ),
  });
  const of = (count: number, together: number) =>
    chanceOf(chain(count, together), [...Array(count).keys()], 20_000, normalFrom(randomFrom(3))).span;
  // Where all go wholly together, quantiles add up (comonotonic additivity: Denneberg, Non-additive Measure and Integral, 1994, §4).
  it('that go wholly together are as uncertain in sum as one by itself', () => {
    const whole = of(9, 0.999999);
    expect(whole.low / (9 * 600)).toBeCloseTo(1, 1);
    expect(whole.high / (9 * 1800)).toBeCloseTo(1, 1);
  });
  it('are less certain to be done the more they go together', () => {
    const widths = [0, 0.2, 0.6].map((c) => of(9, c)).map(({ low, high }) => high / low);
    expect(widths).toEqual([...widths].sort((a, b) => a - b));
    // By hand, log-normal: each has a variance of 0.39² × its mean squared; the sum of nine alone is three times as sure.
    expect(Math.log(widths[2] ?? 0) / Math.log(widths[0] ?? 1)).toBeGreaterThan(2);
  });
  it('of the hall go together as far as nobody has measured their owner', () => {
    const { problem } = eveningOf(
      hall,
      hall.boxes.filter((b) => b.machineId !== null),
      null,
    );
    const off = (problem.correlations ?? []).flatMap((row, i) => row.filter((_, j) => j !== i));
    expect(off.length).toBe(problem.tasks.length * (problem.tasks.length - 1));
    expect(Math.min(...off)).toBeGreaterThan(-0.2);
    expect(Math.max(...off)).toBeGreaterThan(0.2);
  });
});

describe('an evening at the hall', () => {
  it('has every open step of its boxes once, in its order', () => {
    const boxes = hall.boxes.filter((b) => b.machineId !== null);
    const evening = eveningOf(hall, boxes, null);
    const rows = stretchesOf(evening, solve(evening.problem));
    boxes.forEach((box, i) => {
      const open = runSheetOf(hall, box).steps.filter((s) => s.state === 'ready' || s.state === 'waits');
      expect(rows[i]?.map((s) => s.step.key).sort()).toEqual(open.map((s) => s.key).sort());
    });
  });

  it('is a calendar in lines of 75 octets at most, whatever is in its names', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (name) => {
        const at = '2026-03-05T18:30:00.000Z';
        const text = writeCalendar(
          [{ id: 'x', title: name, words: `a,b;c\\d\n${name}`, from: at, to: at, busy: true }],
          at,
        );
        for (const line of text.split('\r\n'))
          expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
        // Unfolded, a title is one line (RFC 5545 §3.1).
        expect(
          text
            .replace(/\r\n /g, '')
            .split('\r\n')
            .filter((l) => l.startsWith('SUMMARY:')),
        ).toHaveLength(1);
      }),
      { numRuns: runs(200) },
    );
    const evening = eveningOf(
      hall,
      hall.boxes.filter((b) => b.id === 'film-night'),
      null,
    );
    const text = eveningCalendar(
      evening,
      solve(evening.problem),
      '2026-03-05T18:30:00.000Z',
      '2026-03-05T18:00:00.000Z',
    );
    expect(text).toContain('DTSTART:20260305T183000Z');
    expect(text.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(2);
  });
});
