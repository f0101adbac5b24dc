import type { Conflict } from '@zb/core/model/change';
import type { Bench } from '@zb/core/model/bench';
import type { Act, Change } from '@zb/core/model/changes';
import { BenchFileError, type FileProblem } from '@zb/core/model/problems';

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

/** Values that an act was to change are not as it saw them: another tab changed them. Nothing of the act was done. */
export class ChangedElsewhere extends Error {
  override name = 'ChangedElsewhere';
  constructor(readonly conflicts: readonly Conflict[]) {
    super('changed elsewhere');
  }
}

/** What an act or its undoing did. */
export interface Done {
  label: string;
  changes: readonly Change[];
  /** How many times the bench was changed by then, and the mark of the storage it was changed in. */
  revision: number;
  mark: string;
}

/** What is kept, and the revision and mark by which what other tabs tell is known to follow from it. */
export interface Loaded {
  bench: Bench;
  revision: number;
  mark: string;
}

/** Where a bench is kept. Every method is all-or-nothing and may throw StorageReplaced. */
export interface Keeper {
  readonly kind: 'browser' | 'memory';
  /** Undefined where nothing was ever kept here. */
  load(): Promise<Loaded | undefined>;
  /** Undefined, and nothing kept, where the act says `once` and was done already. Throws ChangedElsewhere. */
  perform(act: Act): Promise<Done | undefined>;
  /** Performs the first act of a bench, if nothing was ever kept here; false, and nothing done, where something was. */
  begin(act: Act): Promise<boolean>;
  /** Is what was kept still there and readable? Never throws. */
  intact(): Promise<boolean>;
  /** Goes on with whatever is kept here now. */
  adopt(): Promise<void>;
  /** Takes the last act back; answers what that did, or undefined where there is none. */
  undo(): Promise<Done | undefined>;
  undoable(): Promise<string | undefined>;
  /** Forgets everything. */
  clear(): Promise<void>;
}

/** How many acts can be taken back. */
export const UNDO_DEPTH = 50;
