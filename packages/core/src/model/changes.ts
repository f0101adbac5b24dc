import { theBench, type Bench, type CollectionName } from './bench';
import type { ChangeOf } from './benchModel';
import { editsBetween, type Conflict } from './change';
import { collections } from './collections';
import type { RecordOf } from './collection';

/** A collection of the bench, by its name in the file. */
export type Collection = CollectionName;
/** A change of the bench: of one record, its name or its settings. */
export type Change = ChangeOf<typeof collections>;

/** One act of the user: everything in it happens or nothing does, and one undo takes all of it back. */
export interface Act {
  label: string;
  changes: Change[];
  /** A record whose being there says that the act is done already, by another tab: nothing is done then. */
  once?: { in: Collection; id: string };
  /**
   * What is true even once the act is taken back: an undo corrects the record, not the world. Changes of the bench as it was before
   * the act.
   */
  leaves?: Change[];
  /** It keeps a box going, or opens it: it may be done to a finished one as well. */
  keeping?: boolean;
}

/** Changes the values in which a record now differs from what it was when the user saw it, and no others. */
export const edited = <K extends Collection>(
  where: K,
  before: RecordOf<(typeof collections)[K]>,
  after: RecordOf<(typeof collections)[K]>,
): Change => {
  const { byKey }: { byKey?: readonly string[] } = collections[where];
  return { in: where, id: before.id, edits: editsBetween(before, after, byKey) };
};

/** The bench after the changes, in order, whatever they saw; the bench given is not touched. */
export const applyChanges = (bench: Bench, changes: readonly Change[]): Bench =>
  theBench.apply(bench, changes);

/** Where changes meet other values than those that were seen. */
export const conflictsOf = (bench: Bench, changes: readonly Change[]): Conflict[] =>
  theBench.conflicts(bench, changes);

/** The changes that lead from one bench to another; used to replace a whole bench as one act. */
export const differences = (from: Bench, to: Bench): Change[] => theBench.differences(from, to);

/** Puts another bench in the place of one, as one act: one undo takes it back, so what is closed on it may go as well. */
export const replaced = (label: string, from: Bench, to: Bench): Act => ({
  label,
  keeping: true,
  changes: differences(from, to),
});
