import type { Container } from '../model/inspection';
import {
  sizeFor,
  sumsFor,
  type DigestAlgorithm,
  type ChecksumList,
  type ListedSum,
} from '../formats/checksumList';
import type { Comparison } from '../model/shelf';

/** Strongest first: what a comparison rests on where a list offers several. */
const STRENGTH: DigestAlgorithm[] = ['sha512', 'sha256', 'sha1', 'md5'];

/** Which algorithms must be computed to hold this file against the list; SHA-256 is always kept for the record. */
export function algorithmsWanted(list: ChecksumList | undefined, file: string): DigestAlgorithm[] {
  const listed = list ? sumsFor(list, file).map((s) => s.algorithm) : [];
  return [...new Set<DigestAlgorithm>(['sha256', ...listed])];
}

/** What is known of a file that is held against a list. Sizes in bytes. */
export interface ComparedFile {
  name: string;
  bytes: number;
  digests: Partial<Record<DigestAlgorithm, string>>;
  /** Of a packed file: its kind, and what is inside. */
  container?: Container | undefined;
}

type Found = Omit<Comparison, 'from' | 'at'> & { line: number | null };

/** Name under which a list may tell of what is inside a packed file: its own, else the file's without the last ending. */
const innerName = (file: ComparedFile): string =>
  file.container?.innerName ?? file.name.replace(/\.[^.]+$/, '');

function judge(
  list: ChecksumList,
  sums: ListedSum[],
  file: { name: string; bytes: number; digests: ComparedFile['digests'] },
  of: Comparison['of'],
): Found | undefined {
  const size = sizeFor(list, file.name);
  if (size && size.bytes !== file.bytes)
    return {
      verdict: 'other-size',
      algorithm: 'sha256',
      published: '',
      computed: file.digests.sha256 ?? '',
      of,
      publishedBytes: size.bytes,
      line: size.line,
    };
  const checkable = sums
    .filter((s) => file.digests[s.algorithm] !== undefined)
    .sort((a, b) => STRENGTH.indexOf(a.algorithm) - STRENGTH.indexOf(b.algorithm));
  const wrong = checkable.find((s) => file.digests[s.algorithm] !== s.hex);
  const shown = wrong ?? checkable[0];
  if (!shown) return undefined;
  return {
    verdict: wrong ? 'differs' : 'same',
    algorithm: shown.algorithm,
    published: shown.hex,
    computed: file.digests[shown.algorithm] ?? '',
    of,
    publishedBytes: size?.bytes ?? null,
    line: shown.line,
  };
}

/**
 * Holds computed digests against a published list. Every listed sum that can be checked must agree; one that does
 * not decides, and so does a size the list names. A packed file that is not listed may be listed by what is inside.
 * Undefined where the list cannot be compared yet because its algorithm was not computed.
 */
export function compareDigests(
  file: ComparedFile,
  list: ChecksumList,
  from: string,
  at: string,
): Comparison | undefined {
  const sums = sumsFor(list, file.name);
  const named = sums.some((s) => s.file !== null) || sizeFor(list, file.name) !== undefined;
  const { container } = file;
  const inside = innerName(file);
  const insideSums = sumsFor(list, inside);
  let found: Found | undefined;
  if (!named && container && container.innerBytes !== null && insideSums.some((s) => s.file !== null)) {
    const inner = {
      name: inside,
      bytes: container.innerBytes,
      digests: { sha256: container.innerSha256 ?? '' },
    };
    found = judge(list, insideSums, inner, 'content');
  } else if (sums.length > 0 || named) {
    found = judge(list, sums, file, 'file');
    if (found?.verdict === 'differs' && !named && container?.innerSha256 === found.published)
      found = { ...found, verdict: 'same', of: 'content', computed: container.innerSha256 };
  } else {
    found = {
      verdict: 'not-listed',
      algorithm: 'sha256',
      published: '',
      computed: file.digests.sha256 ?? '',
      of: 'file',
      publishedBytes: null,
      line: null,
    };
  }
  if (!found) return undefined;
  const { line, ...comparison } = found;
  return { ...comparison, from: line === null ? from : `${from}, line ${line}`, at };
}

/** A digest in groups of four, so that two can be compared by eye. */
export const groupedHex = (hex: string): string => hex.replace(/(.{4})(?=.)/g, '$1 ');
