import type { Span } from '../units/duration';

/** What is timed: the kind of work, on what kind of machine, for which system; null where that is not known. */
export interface Work {
  act: string;
  kind: string | null;
  system: string | null;
}

/** What a time rests on: what is usual, how quick its owner was at other work, or runs of the same work. */
export type Ground = 'usual' | 'your pace' | 'runs like it';

/** A time to be expected. Seconds. */
export interface Foretold {
  ground: Ground;
  /** As many runs take longer as take less. */
  median: number;
  /** The middle half of runs. */
  half: Span;
  /** Eight of ten runs. */
  range: Span;
  /** Runs of this kind of work that it rests on, on whatever machine; with none it is what is usual. */
  runs: number;
}

/** A run that was timed. `table`: what is usual, before anything was measured, eight of ten. Seconds. */
export interface TimedRun extends Work {
  table: Span;
  seconds: number;
  /** The range that was foretold of it; null where none was. */
  range: Span | null;
}
