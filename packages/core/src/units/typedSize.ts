import { parseBytes } from './bytes';

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
