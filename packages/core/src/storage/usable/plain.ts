import { KIB, MIB } from '../../units/bytes';

/** What Linux md cuts rows into where nobody says (mdadm(8), --chunk): 512 KiB. */
export const CHUNK = 512 * KIB;
/** The volume manager’s own front, and the pieces it deals in (pvcreate(8), vgcreate(8)). */
const FRONT = MIB;
const EXTENT = 4 * MIB;
const SECTOR = 512;
/** What is kept free before the data, so that a row can be made wider later. */
const HEADROOM = 128 * MIB;

/** Room for the map of what was being written; by the size of the drive. */
function mapRoom(bytes: number): number {
  const own = 64 * KIB;
  if (bytes < own) return 0;
  if (bytes - own >= 200 * 1024 ** 3) return 128 * KIB;
  return bytes - 4 * KIB > 8 * 1024 ** 3 ? 64 * KIB : 4 * KIB;
}

/**
 * Bytes before the data on a member of a row with metadata 1.2, which lies 4 KiB from the start. Source: md(4) for the
 * place; the room kept free as mdadm 4.2 makes it (super1.c), from memory; held against it in the oracles.
 */
export function dataOffset(bytes: number, chunk: number | null): number {
  const sectors = Math.floor(bytes / SECTOR);
  let headroom = HEADROOM / SECTOR;
  while (headroom * 1024 > sectors && (chunk === null || headroom > (2 * chunk) / SECTOR))
    headroom = Math.floor(headroom / 2);
  const needs = 12 * KIB + mapRoom(sectors * SECTOR) + headroom * SECTOR;
  return Math.ceil(needs / MIB) * MIB;
}

/**
 * What of a member a row can use at most, in bytes: whole chunks, or whole 64 KiB where it has none. Data begins on every
 * member where it begins on the first that is named.
 */
export function memberRoom(bytes: number, chunk: number | null, first = bytes): number {
  const unit = chunk ?? 64 * KIB;
  return Math.max(0, Math.floor((bytes - dataOffset(first, chunk)) / unit) * unit);
}

/** What of a drive or a row the volume manager can give away, in bytes. */
export const volumeRoom = (bytes: number): number =>
  Math.max(0, Math.floor((bytes - FRONT) / EXTENT) * EXTENT);
