import type { DigestAlgorithm } from '../schema/shelf';

export interface ListedSum {
  algorithm: DigestAlgorithm;
  hex: string;
  /** File name as listed, or null for a bare sum. */
  file: string | null;
  line: number;
}

export interface ChecksumList {
  sums: ListedSum[];
  /** Line numbers (from 1) that hold text but no readable sum. */
  unread: number[];
}

const BY_LENGTH: Record<number, DigestAlgorithm> = { 32: 'md5', 40: 'sha1', 64: 'sha256', 128: 'sha512' };
const BY_NAME: Record<string, DigestAlgorithm> = {
  MD5: 'md5',
  SHA1: 'sha1',
  SHA256: 'sha256',
  SHA512: 'sha512',
};

/** GNU coreutils escapes line feeds and backslashes in names and says so with a leading backslash. */
const unescape = (name: string): string =>
  name.replace(/\\(n|r|\\)/g, (_, c: string) => (c === 'n' ? '\n' : c === 'r' ? '\r' : '\\'));

/**
 * Reads a checksum list: GNU lines ("<hex> *name"), BSD lines ("SHA256 (name) = <hex>") and bare sums, mixed, with
 * CRLF or a byte-order mark. Source: GNU coreutils manual, "md5sum invocation" and `--tag`.
 */
export function parseChecksumList(text: string): ChecksumList {
  const sums: ListedSum[] = [];
  const unread: number[] = [];
  text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .forEach((raw, i) => {
      const line = raw.trim();
      if (line === '' || line.startsWith('#')) return;
      const bsd = /^(\\?)(MD5|SHA-?1|SHA-?256|SHA-?512)\s*\((.+)\)\s*=\s*([0-9a-f]+)$/i.exec(line);
      const gnu = /^(\\?)([0-9a-f]{32,128})(?:[ \t]+\*?(.+))?$/i.exec(line);
      const hex = (bsd?.[4] ?? gnu?.[2] ?? '').toLowerCase();
      const named = bsd ? BY_NAME[(bsd[2] ?? '').toUpperCase().replace('-', '')] : BY_LENGTH[hex.length];
      if (!named || BY_LENGTH[hex.length] !== named) {
        unread.push(i + 1);
        return;
      }
      const file = (bsd ? bsd[3] : gnu?.[3])?.trim();
      const escaped = (bsd?.[1] ?? gnu?.[1]) === '\\';
      sums.push({
        algorithm: named,
        hex,
        file: file ? (escaped ? unescape(file) : file) : null,
        line: i + 1,
      });
    });
  return { sums, unread };
}

const baseName = (path: string): string => path.split(/[\\/]/).pop() ?? path;

/**
 * The sums of a list that speak of this file: by its name without folders; a bare sum speaks of any file. Where a
 * list holds several algorithms for the file, all are given.
 */
export function sumsFor(list: ChecksumList, file: string): ListedSum[] {
  const byName = list.sums.filter((s) => s.file !== null && baseName(s.file) === baseName(file));
  return byName.length > 0 ? byName : list.sums.filter((s) => s.file === null);
}
