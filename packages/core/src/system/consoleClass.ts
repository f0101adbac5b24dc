import type { Reader } from './places';

/** Kinds of game consoles by what it takes to play them at full speed, the lightest first. */
export const consoleClasses = ['before 3D', 'first 3D', 'early 2000s', 'later'] as const;
/** A kind of game consoles. */
export type ConsoleClass = (typeof consoleClasses)[number];

/** Up to which consoles a machine plays at full speed, and what tells it. */
export interface ConsoleSpeed {
  class: ConsoleClass;
  by: 'score' | 'year';
  /** Points of the measured score, or the year of the CPU. */
  value: number;
  /** What keeps it from the class that its processor alone would reach. */
  heldBy: 'no graphics driver' | 'a small core' | null;
}

/**
 * From this year, or these points of a measured score, a core is enough. A desktop of 2013 plays consoles of the early
 * 2000s with the graphics in its CPU; those from before 2012 often fail at them. Common practice, no source.
 */
const FROM = [
  { class: 'later', year: 2017, score: 200 },
  { class: 'early 2000s', year: 2012, score: 90 },
  { class: 'first 3D', year: 2006, score: 40 },
] as const;

const below = (c: ConsoleClass, steps: number): ConsoleClass =>
  consoleClasses[Math.max(0, consoleClasses.indexOf(c) - steps)] ?? 'before 3D';

/** Up to which consoles the machine plays at full speed; undefined where neither year nor score is known. */
export function consoleSpeed(m: Reader): ConsoleSpeed | undefined {
  const score = m.number('cpu.score');
  const year = m.number('cpu.year');
  const value = score ?? year;
  if (value === undefined) return undefined;
  const by = score === undefined ? 'year' : 'score';
  const reached = FROM.find((f) => value >= f[by])?.class ?? 'before 3D';
  const family = m.text('graphics.family');
  if (family === undefined || family === 'none')
    return { class: below(reached, 2), by, value, heldBy: 'no graphics driver' };
  // The year of a board's core says less than that of a desktop's: a measured score tells both alike.
  const other = !['x86_64', 'i686', undefined].includes(m.text('cpu.arch'));
  const small = by === 'year' && (m.view.form === 'board' || other);
  return small
    ? { class: below(reached, 1), by, value, heldBy: 'a small core' }
    : { class: reached, by, value, heldBy: null };
}
