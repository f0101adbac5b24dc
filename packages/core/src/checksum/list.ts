import type { DigestAlgorithm } from '../schema/shelf';

export interface ListedSum {
  algorithm: DigestAlgorithm;
  hex: string;
  /** File name as listed, or null for a bare sum. */
  file: string | null;
  line: number;
}

/** A size that a list names beside its sums, in bytes. */
export interface ListedSize {
  bytes: number;
  file: string;
  line: number;
}

export interface ChecksumList {
  sums: ListedSum[];
  sizes: ListedSize[];
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
 * CRLF or a byte-order mark; also lines that name a size: "SIZE (name) = <bytes>" beside BSD lines, and
 * " <hex> <bytes> <name>" as package archives write them. The frame of a clear OpenPGP signature (RFC 9580 §7) is passed
 * over. Source: GNU coreutils manual, "md5sum invocation" and `--tag`; the size lines are common practice.
 */
export function parseChecksumList(text: string): ChecksumList {
  const sums: ListedSum[] = [];
  const sizes: ListedSize[] = [];
  const unread: number[] = [];
  unframed(text)
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .forEach((raw, i) => {
      const line = raw.trim();
      if (line === '' || line.startsWith('#')) return;
      const size = /^SIZE\s*\((.+)\)\s*=\s*(\d+)$/.exec(line);
      if (size) {
        sizes.push({ file: size[1] ?? '', bytes: Number(size[2]), line: i + 1 });
        return;
      }
      const archived = /^\s+([0-9a-f]{32,128})\s+(\d+)\s+(\S.*)$/i.exec(raw);
      const algorithm = BY_LENGTH[archived?.[1]?.length ?? 0];
      if (archived && algorithm) {
        const [, hex = '', bytes, file = ''] = archived;
        sizes.push({ file, bytes: Number(bytes), line: i + 1 });
        sums.push({ algorithm, hex: hex.toLowerCase(), file, line: i + 1 });
        return;
      }
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
  return { sums, sizes, unread };
}

/** A list without the frame of a clear signature: its first lines, its dashes, the signature itself. */
function unframed(text: string): string {
  const lines = text.split(/\r?\n/);
  const begin = lines.findIndex((l) => l.startsWith('-----BEGIN PGP SIGNED MESSAGE-----'));
  if (begin < 0) return text;
  const signature = lines.findIndex((l) => l.startsWith('-----BEGIN PGP SIGNATURE-----'));
  const head = lines.findIndex((l, i) => i > begin && l.trim() === '');
  // Lines stay where they are, so that their numbers stay true.
  return lines
    .map((l, i) => (i <= head || (signature >= 0 && i >= signature) ? '' : l.replace(/^- /, '')))
    .join('\n');
}

const baseName = (path: string): string => path.split(/[\\/]/).pop() ?? path;

/** The size a list names for this file, if it names one. */
export const sizeFor = (list: ChecksumList, file: string): ListedSize | undefined =>
  list.sizes.find((s) => baseName(s.file) === baseName(file));

/**
 * The sums of a list that speak of this file: by its name without folders; a bare sum speaks of any file. Where a
 * list holds several algorithms for the file, all are given.
 */
export function sumsFor(list: ChecksumList, file: string): ListedSum[] {
  const byName = list.sums.filter((s) => s.file !== null && baseName(s.file) === baseName(file));
  return byName.length > 0 ? byName : list.sums.filter((s) => s.file === null);
}
