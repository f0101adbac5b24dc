import { KIB, MIB } from '../../units/bytes';

/*
 * The manner of RAID-Z: OpenZFS 2.1, module/zfs (vdev.c, vdev_raidz.c, spa_misc.c, metaslab.c) and man 7 zpoolconcepts,
 * from memory. No tool of Debian’s main section makes such a pool: the figures are held against published tables.
 */

/** Two labels and the room for a loader before the data, two labels after it; both in whole labels. */
const BEFORE = 4 * MIB;
const AFTER = 512 * KIB;
const LABEL = 256 * KIB;
/** Record by which a row’s worth is reckoned, whatever is written later. */
const RECKONED = 128 * KIB;

/** Log₂ of a sector, as the pool keeps it. */
export const shiftOf = (sector: 512 | 4096): 9 | 12 => (sector === 512 ? 9 : 12);

/**
 * Sectors a record takes on a row: its data, parity for each line of it, and padding so that no hole is left that is too
 * small for a record of one sector (vdev_raidz_asize). `wide` counts drives; bytes.
 */
export function recordSectors(
  bytes: number,
  wide: number,
  parity: number,
  shift: 9 | 12,
): { data: number; parity: number; padding: number } {
  const data = Math.floor((bytes - 1) / 2 ** shift) + 1;
  const lines = Math.ceil(data / (wide - parity));
  const both = data + parity * lines;
  const whole = Math.ceil(both / (parity + 1)) * (parity + 1);
  return { data, parity: parity * lines, padding: whole - both };
}

/** No smaller drive is taken (SPA_MINDEVSIZE). */
const LEAST_DRIVE = 64 * MIB;

/** Bytes of a drive that a row can use; 0 where the drive is too small to be taken. */
export const leafRoom = (bytes: number): number =>
  bytes < LEAST_DRIVE
    ? 0
    : Math.max(0, Math.floor((Math.floor(bytes / LABEL) * LABEL - BEFORE - AFTER) / LABEL) * LABEL);

const highBit = (n: number): number => (n < 1 ? 0 : Math.floor(Math.log2(n)) + 1);
const LEAST_SHIFT = 24;
const USUAL_SHIFT = 29;
const MOST_SHIFT = 34;

/** Regions a row is dealt out in: bytes of one, and how many whole ones there are. */
export function regions(bytes: number): { each: number; count: number } {
  const usual = Math.floor(bytes / 2 ** USUAL_SHIFT);
  let shift =
    usual < 16
      ? highBit(Math.floor(bytes / 16))
      : usual > 200
        ? highBit(Math.floor(bytes / 200))
        : USUAL_SHIFT;
  shift = Math.min(MOST_SHIFT, Math.max(LEAST_SHIFT, shift));
  const each = 2 ** shift;
  return { each, count: Math.floor(bytes / each) };
}

/** What the pool keeps back so that it can always tidy up: a 32nd, between 128 MiB and 128 GiB. */
export const keptBack = (room: number): number =>
  Math.min(128 * 1024 * MIB, Math.max(Math.min(Math.floor(room / 2), 128 * MIB), Math.floor(room / 32)));

/** A row of a pool, reckoned: what it holds before parity, and what of it is for files. Bytes. */
export interface RowRoom {
  /** All that its drives give to it. */
  raw: number;
  /** Regions that are whole, less the one that is kept for the log of what was promised. */
  dealt: number;
  logged: number;
  /** Of it for files, by a record of 128 KiB. */
  usable: number;
  parity: number;
  padding: number;
}

/** A row of `wide` drives of which each gives `leaf` bytes; `parity` 0 and `copies` above 1 is a mirror. */
export function rowRoom(leaf: number, wide: number, parity: number, copies: number, shift: 9 | 12): RowRoom {
  const once = parity > 0 ? leaf * wide : leaf;
  const { each, count } = regions(once);
  // From 64 regions on one of them is the log’s.
  const logged = count > 64 ? each : 0;
  const dealt = each * count - logged;
  if (parity === 0)
    return {
      raw: once * copies,
      dealt: dealt * copies,
      logged: logged * copies,
      usable: dealt,
      parity: 0,
      padding: 0,
    };
  const takes = recordSectors(RECKONED, wide, parity, shift);
  const all = (takes.data + takes.parity + takes.padding) * 2 ** shift;
  // Worth of a sector of 512 bytes in 512ths, as the pool keeps it: whole ones.
  const ratio = Math.floor(RECKONED / (all / 512));
  const usable = Math.floor(dealt / 512) * ratio;
  const rest = dealt - usable;
  const padding = Math.round((dealt * takes.padding) / (takes.data + takes.parity + takes.padding));
  return { raw: once, dealt, logged, usable, parity: rest - padding, padding };
}
