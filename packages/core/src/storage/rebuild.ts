import type { PoolDrive } from '../model/storage';
import { span, type Span } from '../units/duration';
import { bySize, type PlacedPool } from './placed';
import { exponentOf, readRateOf, writeRateOf, slowestOf } from './poolDrive';
import { givenBy, type PoolRoom } from './room';

/** What happens when one drive is replaced: how long, what is read meanwhile, and the chance that a sector of it is not readable. */
export interface Rebuild {
  /** The drive whose loss takes longest to make good. */
  drive: string;
  /** Bytes written to the new one, and read from the others. */
  writes: number;
  reads: number;
  /** Seconds, while nobody else uses the pool; and while it is used as usual. */
  seconds: Span;
  busy: Span;
  fault: ReadFault;
}

/** What the error rate says that drives are rated with: no bound, since a worn drive does worse and most do far better. */
export interface ReadFault {
  /** 0 to 1. */
  chance: number;
  /** The worst rating among the drives that are read: one bit in ten to this power, and whether it was assumed. */
  exponent: number;
  assumed: boolean;
  /** What cannot be read is made from what else is left. */
  mended: boolean;
}

/**
 * Chance that of so many bytes at least one bit cannot be read: 1 − (1 − 10⁻ᵉ)^(8 × bytes), as if faults came one by one
 * and as often as the rating allows. The formula is the usual one of data sheets’ “non-recoverable read errors per bits read”.
 * Common practice, no source.
 */
export const unreadableChance = (bytes: number, exponent: number): number =>
  -Math.expm1(allRead(bytes, exponent));
/** Logarithm of the chance that all of so many bytes can be read: over several drives these add up. */
const allRead = (bytes: number, exponent: number): number => 8 * bytes * Math.log1p(-(10 ** -exponent));

/** The same over drives that are rated differently. */
export function faultOver(read: readonly { drive: PoolDrive; bytes: number }[], mended: boolean): ReadFault {
  const log = read.reduce((sum, r) => sum + allRead(r.bytes, exponentOf(r.drive).exponent), 0);
  const rated = read.map((r) => exponentOf(r.drive)).sort((a, b) => a.exponent - b.exponent);
  return {
    chance: -Math.expm1(log),
    exponent: rated[0]?.exponent ?? 14,
    assumed: rated.some((r) => r.assumed),
    mended,
  };
}

/** How many times longer a rebuild takes while the pool is used: rebuilding yields to it. Common practice, no source. */
const BUSY = { low: 1.5, high: 5 };
/** How many times longer a drive of overlapping tracks takes to be written from end to end in a rebuild. Common practice, no source. */
const SHINGLED = 6;

/**
 * A failed drive made good on a new one like it, for the drive of which that takes longest; undefined where nothing keeps
 * it. `filled`: how full the pool is, 0 to 1. Only the plain manner copies what was never written.
 */
export function rebuildOf(pool: PlacedPool, room: PoolRoom, filled: number): Rebuild | undefined {
  const { way, rows } = pool;
  const keeps = way.shape === 'parity' || way.shape === 'copies' || (rows[0]?.length ?? 0) > 1;
  if (!keeps || way.shape === 'single' || way.shape === 'joined') return undefined;
  const used = way.manner === 'plain' ? 1 : filled;
  const share = givenBy(room);
  const one = (row: readonly PoolDrive[], failed: PoolDrive): Rebuild => {
    const others = row.filter((d) => d !== failed);
    const writes = Math.round((share.get(failed.id) ?? 0) * used);
    const parity = way.shape === 'parity';
    // Of parity all the others are read, each for as much as it shares with the failed one; of copies what it held, once.
    const read = parity
      ? others.map((drive) => ({
          drive,
          bytes: Math.min(writes, Math.round((share.get(drive.id) ?? 0) * used)),
        }))
      : way.shape === 'copies'
        ? spread(others, writes)
        : bySize(others)
            .slice(0, 1)
            .map((drive) => ({ drive, bytes: writes }));
    const from = slowestOf(others.map(readRateOf));
    const to = writeRateOf(failed);
    const level = parity ? way.level : way.shape === 'copies' ? way.level - 1 : row.length - 1;
    // What is rewritten in overlapping tracks goes through a small store first, and then by far slower.
    const slower = failed.shingled === true ? SHINGLED : 1;
    const seconds = span(
      (slower * writes) / Math.min(from.fast, to.fast),
      (slower * writes) / Math.min(from.slow, to.slow),
    );
    return {
      drive: failed.name,
      writes,
      reads: read.reduce((sum, r) => sum + r.bytes, 0),
      seconds,
      busy: span(seconds.low * BUSY.low, seconds.high * BUSY.high),
      fault: faultOver(read, level > 1),
    };
  };
  const all = rows.flatMap((row) => row.map((d) => one(row, d)));
  return all.reduce<Rebuild | undefined>(
    (worst, r) => (worst && worst.seconds.high >= r.seconds.high ? worst : r),
    undefined,
  );
}

/** What a failed drive held is read from the others by their size. */
function spread(others: readonly PoolDrive[], bytes: number): { drive: PoolDrive; bytes: number }[] {
  const all = others.reduce((sum, d) => sum + d.bytes, 0);
  return others.map((drive) => ({ drive, bytes: Math.round((bytes * drive.bytes) / all) }));
}
