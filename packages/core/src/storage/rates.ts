import type { PoolDrive } from '../model/storage';
import { membersOf, type PlacedPool } from './placed';
import { readRateOf, slowestOf, writeRateOf, type Rate } from './poolDrive';

/** How fast a pool reads and writes in one go: slow and fast, in bytes a second, and the drive that holds it up. */
export interface PoolRates {
  read: Rate;
  write: Rate;
  /** Name of the slowest drive; null where all do the same. */
  heldBy: string | null;
}

const times = (r: Rate, n: number): Rate => ({ slow: r.slow * n, fast: r.fast * n });
const sum = (ranges: readonly Rate[]): Rate => ({
  slow: ranges.reduce((s, r) => s + r.slow, 0),
  fast: ranges.reduce((s, r) => s + r.fast, 0),
});
/** From one reader alone to as many as there are copies. */
const upTo = (one: Rate, all: Rate): Rate => ({ slow: one.slow, fast: Math.max(one.fast, all.fast) });

function slowestName(drives: readonly PoolDrive[]): string | null {
  const rates = drives.map((d) => ({ d, rate: readRateOf(d).fast }));
  const low = Math.min(...rates.map((r) => r.rate));
  const high = Math.max(...rates.map((r) => r.rate));
  return low === high ? null : (rates.find((r) => r.rate === low)?.d.name ?? null);
}

/**
 * Reading and writing of long files. A row goes as fast as its slowest drive; parity is read and written past its own
 * share; copies are read from one drive by one reader and from all of them by several; drives joined without cutting
 * are read one after the other. Common practice, no source; small files are slower on every way.
 */
export function ratesOf(pool: PlacedPool): PoolRates {
  const { way, rows } = pool;
  const drives = membersOf(pool);
  const reads = drives.map(readRateOf);
  const writes = drives.map(writeRateOf);
  const heldBy = drives.length > 1 ? slowestName(drives) : null;
  if (way.shape === 'parity') {
    const data = Math.max(1, drives.length - way.level);
    return { read: times(slowestOf(reads), data), write: times(slowestOf(writes), data), heldBy };
  }
  // Whole files lie on one row of the plain manner and in one group of the other; the padded one spreads over all rows.
  const perRow = rows.map((row) => ({ read: row.map(readRateOf), write: slowestOf(row.map(writeRateOf)) }));
  if (way.manner === 'padded')
    return {
      read: upTo(sum(perRow.map((r) => slowestOf(r.read))), sum(reads)),
      write: sum(perRow.map((r) => r.write)),
      heldBy,
    };
  if (way.shape === 'joined' || way.shape === 'single')
    return { read: slowestOf(reads), write: slowestOf(writes), heldBy };
  return { read: upTo(slowestOf(reads), sum(reads)), write: slowestOf(writes), heldBy };
}
