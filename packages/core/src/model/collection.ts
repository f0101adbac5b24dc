import type { z } from 'zod';

/** What every record of the bench has: an id, single within its collection. */
export interface Keyed {
  id: string;
}

/** A field that names a record of another collection, by its id or in a list of ids. */
export interface Reference {
  field: string;
  to: string;
  /** Only records of this kind count. */
  kind?: string;
  /** What it names, for messages: “names machine “m7”, which is not in the file”. */
  what: string;
}

/** Where a search leads: a title, what it is, and an address within the application. */
export interface FindEntry {
  title: string;
  detail: string;
  path: string;
}

/**
 * All that the bench knows of one collection. Changes, the bench file, the tying and checking of references, the normal form,
 * storage in the browser and find follow from it (benchModel.ts).
 */
export interface Collection<T extends Keyed = Keyed> {
  schema: z.ZodType<T>;
  title: { one: string; many: string };
  /** Negative where `a` is shown before `b`; ids decide between equals. */
  order(a: T, b: T): number;
  references: readonly Reference[];
  /** What find-anything offers of a record; nothing where it is not looked for by itself. */
  find(record: T): FindEntry[];
  /** Fields that hold values by key, each key of which is changed by itself. */
  byKey?: readonly string[];
  /** Large records: when one goes it is put aside for undo, never copied into the journal. */
  large?: true;
  /** Small records by the tens of thousands: storage keeps some hundreds of them together. */
  many?: true;
}

/** A collection, checked against its own schema by the compiler. */
export const collection = <T extends Keyed>(c: Collection<T>): Collection<T> => c;

/** The table of collections, by their names in the file. */
export type Table = Readonly<Record<string, Collection>>;
/** What a collection holds. */
export type RecordOf<C> = C extends Collection<infer T> ? T : never;
