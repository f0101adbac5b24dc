/**
 * The evening’s plan against every order there is (Python), the chance to be done against NumPy, calendars against Debian’s
 * python3-icalendar.
 */
import { eveningOf } from '@zb/core/box/evening';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { writeCalendar } from '@zb/core/formats/icalendar';
import { chanceOf } from '@zb/core/schedule/chance';
import type { Problem, Task } from '@zb/core/schedule/problem';
import { solve } from '@zb/core/schedule/solve';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import { randomFrom } from '@zb/core/units/random';
import { run } from './files';

const random = randomFrom(20261127);
const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T;
const span = (n: number) => ({ low: n, high: n });

/** A small evening by dice: two or three boxes, five to seven tasks, waits, things that are shared, an end. */
function small(): Problem {
  const boxes = 2 + Math.floor(random() * 2);
  const tasks: Task[] = [];
  const count = 5 + Math.floor(random() * 3);
  for (let i = 0; i < count; i += 1) {
    const box = Math.floor(random() * boxes);
    const last = tasks
      .map((t, j) => ({ t, j }))
      .filter(({ t }) => t.box === box)
      .at(-1);
    const needs = ['monitor', 'writer'].filter(() => random() < 0.35);
    tasks.push({
      key: `${i}`,
      box,
      hands: span(pick([0, 10, 20, 45, 60, 90])),
      alone: span(pick([0, 0, 0, 30, 120, 300])),
      after: last && random() < 0.85 ? [last.j] : [],
      needs,
      keeps: needs.filter(() => random() < 0.5),
      pinned: random() < 0.15 ? pick([0, 60, 150, 300]) : null,
    });
  }
  return {
    boxes: Array.from({ length: boxes }, (_, i) => ({
      id: `${i}`,
      name: `${i}`,
      weight: 1 + Math.floor(random() * 5),
    })),
    tasks,
    until: pick([null, 120, 250, 400]),
    correlations: null,
  };
}

const problems = Array.from({ length: 240 }, small);
const hall = saltmarshHall();
const chances = [0.8, 1, 1.2].map((share) => {
  const boxes = hall.boxes.filter((b) => b.id === 'film-night' || b.id === 'games-corner');
  const { problem } = eveningOf(hall, boxes, null);
  const plan = solve(problem);
  return { problem: { ...problem, until: plan.end * share }, order: plan.order };
});
const names = [
  'Film night',
  'a, b; c\\d',
  'ü 日本 🪵 '.repeat(20),
  'one\ntwo',
  '"quoted": x',
  'e\u0301'.repeat(60),
];
const events = names.map((title, i) => ({
  id: `${i}@zealous-box`,
  title,
  words: `${title}\nand more`,
  from: `2026-03-05T1${i}:00:00.000Z`,
  to: `2026-03-05T1${i}:30:00.000Z`,
  busy: i % 2 === 0,
}));
const days = names.map((title, i) => ({
  id: `${i}@zealous-box`,
  title,
  words: '',
  day: `2026-03-0${i + 1}`,
  everyDays: i % 2 === 0 ? null : i * 7,
  noticeDays: i % 3 === 0 ? null : i,
}));
const answered = JSON.parse(
  run(
    '/usr/bin/python3',
    ['tests/oracle/schedule.py'],
    JSON.stringify({
      problems,
      chances,
      calendars: [writeCalendar(events, '2026-03-05T09:00:00.000Z')],
      days: writeCalendar(days, '2026-03-05T09:00:00.000Z'),
    }),
  ),
) as {
  best: [number, number, number][];
  chances: { done: number; middle: number }[];
  days: { title: string; day: string; every: number | null; notice: number | null }[];
  calendars: { title: string; words: string; from: string; to: string; busy: boolean }[][];
};

it('no order there is does better, in 240 small evenings', () => {
  problems.forEach((problem, i) => {
    const plan = solve(problem);
    const [late = NaN, missed = NaN, end = NaN] = answered.best[i] ?? [];
    expect([i, Math.round(plan.late * 1e6), plan.missed, Math.round(plan.end * 1e6)]).toEqual([
      i,
      Math.round(late * 1e6),
      missed,
      Math.round(end * 1e6),
    ]);
    expect(plan.proven).toBe(true);
  });
});

it('the chance to be done is that of NumPy, within what dice differ by', () => {
  chances.forEach(({ problem, order }, i) => {
    const ours = chanceOf(problem, order, 6000, normalFrom(randomFrom(1)));
    const theirs = answered.chances[i];
    // Four standard errors of a share of 6000 draws, twice.
    expect(Math.abs((ours.done ?? -1) - (theirs?.done ?? -2))).toBeLessThan(0.037);
    expect(Math.abs(ours.middle / (theirs?.middle ?? NaN) - 1)).toBeLessThan(0.02);
  });
  expect(new Set(answered.chances.map((c) => c.done)).size).toBeGreaterThan(1);
});

it('a calendar is read as it was meant', () => {
  expect(answered.calendars[0]).toEqual(
    events.map(({ title, words, from, to, busy }) => ({
      title,
      words,
      from: from.replace('.000Z', '+00:00'),
      to: to.replace('.000Z', '+00:00'),
      busy,
    })),
  );
});

it('days that come round are read as they were meant', () => {
  expect(answered.days).toEqual(
    days.map(({ title, day, everyDays, noticeDays }) => ({
      title,
      day,
      every: everyDays,
      notice: noticeDays,
    })),
  );
});
