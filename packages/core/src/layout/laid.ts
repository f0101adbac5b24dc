import type { DriveWant, LayoutFilesystem, PartUse } from '../model/layout';

/** A part as it will lie on the drive. Bytes. */
export interface LaidPart {
  number: number;
  kind: 'primary' | 'extended' | 'logical';
  start: number;
  bytes: number;
  /** A GUID, or two hexadecimal digits. */
  type: string;
  fate: 'new' | 'kept' | 'made smaller';
  /** The want it answers; null of kept parts and of the extended one. */
  want: string | null;
  use: PartUse | null;
  name: string;
  filesystem: LayoutFilesystem | null;
  mount: string | null;
  active: boolean;
  /** Its entry in the table as it was, where it stays; null of new ones. */
  entry: { uuid: string | null; name: string; attributes: string | null } | null;
  /** The file system that stays in it; null of new ones, and where nobody knows it. */
  stays: string | null;
}

/** Why a plan cannot be had as it was asked for, or what of it is to be known. */
export type LayoutProblem =
  | { code: 'too large'; asked: number; room: number; binds: string[] }
  | { code: 'below its least'; want: string; asked: number; least: number }
  | { code: 'too many primaries'; wanted: number; free: number }
  | { code: 'another table keeps nothing'; table: DriveWant['table'] }
  | { code: 'nothing kept of that number'; number: number }
  | { code: 'smaller than it can be'; number: number; asked: number }
  /** No common tool makes this file system smaller; null: nobody knows what it is. */
  | { code: 'cannot be made smaller'; number: number; filesystem: string | null }
  /** A table holds 36 units of UTF-16 (UEFI 2.10 table 5.8); tools cut what is longer. */
  | { code: 'name too long'; want: string; units: number; most: number }
  | { code: 'one part without a table' }
  | { code: 'unknown table keeps nothing' }
  | { code: 'no room at all' };

/** What was changed to come to the nearest layout. Bytes. */
export type LayoutCut =
  { want: string; asked: number; got: number } | { want: string; asked: number; got: null };

/** What a drive will hold. */
export interface Layout {
  table: DriveWant['table'];
  bytes: number;
  sectorSize: number;
  /** What its table is known by, where parts stay in it; null of a new one, and where nobody told. */
  tableId: string | null;
  parts: LaidPart[];
  /** Room that nothing lies in, of at least one unit. */
  unused: { start: number; bytes: number }[];
  /** Bytes beyond what the table can name. */
  beyond: number;
  /** Why it is not as it was asked for; empty where it is. */
  problems: LayoutProblem[];
  /** What the nearest layout takes away; empty where it is as asked. */
  cuts: LayoutCut[];
  /** Were all ways of placing the parts looked at? */
  exact: boolean;
}
