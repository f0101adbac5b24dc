import { formatIec, formatSi, GIB, KIB, MIB, parseBytes } from './bytes';

/** A size somebody typed: bytes, or whatever is left. */
export type TypedSize = { bytes: number } | { rest: true };
/** What is wrong with a typed size. */
export type SizeProblem = 'empty' | 'no unit' | 'not positive' | 'none' | 'no rest here';

/** Reads a size with its unit (“60000 MB”, “58.6 GiB”), or “the rest” where `rest` allows it. */
export function readSize(text: string, rest: boolean): TypedSize | { problem: SizeProblem } {
  const plain = text.trim();
  if (plain === '') return { problem: 'empty' };
  if (/^(the )?rest$/i.test(plain)) return rest ? { rest: true } : { problem: 'no rest here' };
  if (/^[-\u2212]/.test(plain)) return { problem: 'not positive' };
  if (/^[\d.,\s]+$/.test(plain)) return { problem: 'no unit' };
  const bytes = parseBytes(plain);
  if (bytes === undefined) return { problem: 'none' };
  return bytes > 0 ? { bytes } : { problem: 'not positive' };
}

/** Units with their bytes and the decimals they are given, large ones first; a form has no larger ones. */
const UNITS = [
  ['GiB', GIB, 3],
  ['GB', 1e9, 3],
  ['MiB', MIB, 3],
  ['MB', 1e6, 3],
  ['KiB', KIB, 0],
  ['kB', 1e3, 0],
] as const;

/**
 * A size for a form, bytes: in three figures where they say all of it, else in the largest unit that does. What nobody
 * touches must be read back as the very same bytes.
 */
export function writeSize(bytes: number): string {
  const inUnits = UNITS.map(([unit, of, decimals]) => `${Number((bytes / of).toFixed(decimals))} ${unit}`);
  const told = [formatIec(bytes), formatSi(bytes), ...inUnits].find((t) => parseBytes(t) === bytes);
  return told ?? `${bytes} B`;
}
