import type { Bench } from '@zb/core/model/bench';
import type { Act } from '@zb/core/model/changes';
import { BenchFileError, type FileProblem } from '@zb/core/model/file';

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

/**
 * What this page read and kept to is not there any more: the storage was deleted, or begun anew by another tab. Nothing
 * was read or changed; `adopt` accepts what is there now.
 */
export class StorageReplaced extends Error {
  override name = 'StorageReplaced';
}

/** Where a bench is kept. Every method is all-or-nothing and may throw StorageReplaced. */
export interface Keeper {
  readonly kind: 'browser' | 'memory';
  /** Undefined where nothing was ever kept here. */
  load(): Promise<Bench | undefined>;
  /** False, and nothing kept, where the act says `once` and was done already. */
  perform(act: Act): Promise<boolean>;
  /** Performs the first act of a bench, if nothing was ever kept here; false, and nothing done, where something was. */
  begin(act: Act): Promise<boolean>;
  /** Is what was kept still there and readable? Never throws. */
  intact(): Promise<boolean>;
  /** Goes on with whatever is kept here now. */
  adopt(): Promise<void>;
  /** Takes the last act back; answers its label, or undefined where there is none. */
  undo(): Promise<string | undefined>;
  undoable(): Promise<string | undefined>;
  /** Forgets everything. */
  clear(): Promise<void>;
}

/** How many acts can be taken back. */
export const UNDO_DEPTH = 50;
