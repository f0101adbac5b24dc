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
  /** The GUID of its entry, where it is kept. */
  uuid: string | null;
}

/** Why a plan cannot be had as it was asked for, or what of it is to be known. */
export type LayoutProblem =
  | { code: 'too large'; asked: number; room: number; binds: string[] }
  | { code: 'below its least'; want: string; asked: number; least: number }
  | { code: 'too many primaries'; wanted: number; free: number }
  | { code: 'another table keeps nothing'; table: DriveWant['table'] }
  | { code: 'nothing kept of that number'; number: number }
  | { code: 'smaller than it can be'; number: number; asked: number }
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
