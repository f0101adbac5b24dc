import type { Bench } from '@zb/core/schema/bench';
import type { Act } from '@zb/core/schema/changes';
import { BenchFileError, type FileProblem } from '@zb/core/schema/file';

/** What is kept does not make a sound bench. It carries all of it, so that it can be saved before anything else is done. */
export class UnreadableBench extends Error {
  override name = 'UnreadableBench';
  readonly problems: readonly FileProblem[];
  constructor(
    readonly kept: unknown,
    cause: unknown,
  ) {
    super(cause instanceof Error ? cause.message : String(cause));
    this.problems = cause instanceof BenchFileError ? cause.problems : [];
  }
}

/** Where a bench is kept. Every method is all-or-nothing. */
export interface Keeper {
  readonly kind: 'browser' | 'memory';
  /** Undefined where nothing was ever kept here. */
  load(): Promise<Bench | undefined>;
  perform(act: Act): Promise<void>;
  /** Takes the last act back; answers its label, or undefined where there is none. */
  undo(): Promise<string | undefined>;
  undoable(): Promise<string | undefined>;
  /** Forgets everything. */
  clear(): Promise<void>;
}

/** How many acts can be taken back. */
export const UNDO_DEPTH = 50;
