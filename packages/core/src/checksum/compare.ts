import type { Comparison, DigestAlgorithm } from '../schema/shelf';
import { sumsFor, type ChecksumList } from './list';

/** Strongest first: what a comparison rests on where a list offers several. */
const STRENGTH: DigestAlgorithm[] = ['sha512', 'sha256', 'sha1', 'md5'];

/** Which algorithms must be computed to hold this file against the list; SHA-256 is always kept for the record. */
export function algorithmsWanted(list: ChecksumList | undefined, file: string): DigestAlgorithm[] {
  const listed = list ? sumsFor(list, file).map((s) => s.algorithm) : [];
  return [...new Set<DigestAlgorithm>(['sha256', ...listed])];
}

/**
 * Holds computed digests against a published list. Every listed sum that can be checked must agree; one that does
 * not decides. Undefined where the list cannot be compared yet because its algorithm was not computed.
 */
export function compareDigests(
  digests: Partial<Record<DigestAlgorithm, string>>,
  list: ChecksumList,
  file: string,
  from: string,
  at: string,
): Comparison | undefined {
  const sums = sumsFor(list, file);
  if (sums.length === 0) {
    return {
      verdict: 'not-listed',
      algorithm: 'sha256',
      published: '',
      computed: digests.sha256 ?? '',
      from,
      at,
    };
  }
  const checkable = sums
    .filter((s) => digests[s.algorithm] !== undefined)
    .sort((a, b) => STRENGTH.indexOf(a.algorithm) - STRENGTH.indexOf(b.algorithm));
  const wrong = checkable.find((s) => digests[s.algorithm] !== s.hex);
  const shown = wrong ?? checkable[0];
  if (!shown) return undefined;
  return {
    verdict: wrong ? 'differs' : 'same',
    algorithm: shown.algorithm,
    published: shown.hex,
    computed: digests[shown.algorithm] ?? '',
    from: `${from}, line ${shown.line}`,
    at,
  };
}

/** A digest in groups of four, so that two can be compared by eye. */
export const groupedHex = (hex: string): string => hex.replace(/(.{4})(?=.)/g, '$1 ');
