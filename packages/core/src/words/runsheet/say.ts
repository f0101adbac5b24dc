import type { StepWhat } from '../../runsheet/what';

/** A step as it is read at the machine. What does not apply is empty. */
export interface StepWords {
  title: string;
  /** What to do, one thing after another. */
  lines: string[];
  /** What is typed, pressed or looked for, to the letter. */
  /** `script`: several lines of commands, which stay lines. */
  exact: { label: string; text: string; script?: boolean }[];
  /** What reads how now, and what it is changed to. */
  change: { from: string; to: string } | null;
  why: string;
  /** What is there to be seen when it went well. */
  see: string;
  /** What to do when it did not, and what is unharmed meanwhile. */
  wrong: string;
}

/** How the steps of each kind are said. */
export type Say = { [C in StepWhat['code']]: (what: Extract<StepWhat, { code: C }>) => StepWords };

const EMPTY: StepWords = { title: '', lines: [], exact: [], change: null, why: '', see: '', wrong: '' };

/** A step by what there is to say of it. */
export const words = (title: string, more: Partial<Omit<StepWords, 'title'>> = {}): StepWords => ({
  ...EMPTY,
  title,
  ...more,
});

/** A serial that is held against the one on the thing itself; empty where none is known. */
export const serialLine = (serial: string | null): StepWords['exact'] =>
  serial === null ? [] : [{ label: 'Serial', text: serial }];

/** A name in quotes, or what it is where it has none. */
export const quoted = (name: string, otherwise: string): string => (name === '' ? otherwise : `“${name}”`);
