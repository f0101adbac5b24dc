/** The digests that published lists use, the strongest in general use first. */
export const digestAlgorithms = ['sha256', 'sha512', 'sha1', 'md5'] as const;
/** A digest by the name lists use for it. */
export type DigestAlgorithm = (typeof digestAlgorithms)[number];

/** One sum of a list: the file it is for (null where the list names none), in lower-case hex, and its line. */
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

/** What a checksum list says, and how many of its lines could not be read. */
export interface ChecksumList {
  sums: ListedSum[];
  sizes: ListedSize[];
  /** Line numbers (from 1) that hold text but no readable sum; the first of them. */
  unread: number[];
  unreadCount: number;
  /** Lines that hold a sum, whether it was wanted or not. */
  sumCount: number;
}

const BY_LENGTH: Record<number, DigestAlgorithm> = { 32: 'md5', 40: 'sha1', 64: 'sha256', 128: 'sha512' };
const BY_NAME: Record<string, DigestAlgorithm> = {
  MD5: 'md5',
  SHA1: 'sha1',
  SHA256: 'sha256',
  SHA512: 'sha512',
};

/** GNU coreutils escapes line feeds and backslashes in names and says so with a leading backslash. */
export const unescaped = (name: string): string =>
  name.replace(/\\(n|r|\\)/g, (_, c: string) => (c === 'n' ? '\n' : c === 'r' ? '\r' : '\\'));

/** More line numbers than anybody looks up. */
const MOST_UNREAD = 1000;
/** Two sums without a name already contradict each other; many more of them are a list of something else. */
const MOST_BARE = 1000;

/**
 * Reads a checksum list line by line: GNU lines ("<hex> *name"), BSD lines ("SHA256 (name) = <hex>") and bare sums,
 * mixed, with CRLF or a byte-order mark; also lines that name a size: "SIZE (name) = <bytes>" beside BSD lines, and
 * " <hex> <bytes> <name>" as package archives write them. The frame of a clear OpenPGP signature (RFC 9580 §7) is passed
 * over. Source: GNU coreutils manual, "md5sum invocation" and `--tag`; the size lines are common practice.
 */
export class ListReader {
  private list: ChecksumList = { sums: [], sizes: [], unread: [], unreadCount: 0, sumCount: 0 };
  private at = 0;
  private bare = 0;
  private within: 'plain' | 'signature head' | 'signed text' | 'over' = 'plain';

  /** `wanted` chooses by name which sums and sizes are kept, so that a list of millions needs no room for the rest. */
  constructor(private readonly wanted: (file: string) => boolean = () => true) {}

  /** Takes the next line, without its line feed. */
  line(raw: string): void {
    this.at += 1;
    if (this.at === 1) raw = raw.replace(/^\ufeff/, '');
    if (raw.endsWith('\r')) raw = raw.slice(0, -1);
    const text = this.unframed(raw);
    if (text !== undefined) this.read(text);
  }

  finish(): ChecksumList {
    return this.list;
  }

  /** The line without the frame of a clear signature; undefined for a line that belongs to the frame. */
  private unframed(raw: string): string | undefined {
    if (this.within === 'plain' && raw.startsWith('-----BEGIN PGP SIGNED MESSAGE-----')) {
      // What stood before is not signed and is no part of the list.
      this.list = { sums: [], sizes: [], unread: [], unreadCount: 0, sumCount: 0 };
      this.within = 'signature head';
      return undefined;
    }
    if (this.within === 'plain') return raw;
    if (this.within === 'signature head') {
      if (raw.trim() === '') this.within = 'signed text';
      return undefined;
    }
    if (raw.startsWith('-----BEGIN PGP SIGNATURE-----')) this.within = 'over';
    return this.within === 'over' ? undefined : raw.replace(/^- /, '');
  }

  private read(raw: string): void {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) return;
    const size = /^SIZE\s*\((.+)\)\s*=\s*(\d+)$/.exec(line);
    if (size) {
      this.size(size[1] ?? '', Number(size[2]));
      return;
    }
    const archived = /^\s+([0-9a-f]{32,128})\s+(\d+)\s+(\S.*)$/i.exec(raw);
    const algorithm = BY_LENGTH[archived?.[1]?.length ?? 0];
    if (archived && algorithm) {
      const [, hex = '', bytes, file = ''] = archived;
      this.size(file, Number(bytes));
      this.sum(algorithm, hex.toLowerCase(), file);
      return;
    }
    const bsd = /^(\\?)(MD5|SHA-?1|SHA-?256|SHA-?512)\s*\((.+)\)\s*=\s*([0-9a-f]+)$/i.exec(line);
    const gnu = /^(\\?)([0-9a-f]{32,128})(?:[ \t]+\*?(.+))?$/i.exec(line);
    const hex = (bsd?.[4] ?? gnu?.[2] ?? '').toLowerCase();
    const named = bsd ? BY_NAME[(bsd[2] ?? '').toUpperCase().replace('-', '')] : BY_LENGTH[hex.length];
    if (!named || BY_LENGTH[hex.length] !== named) {
      this.list.unreadCount += 1;
      if (this.list.unread.length < MOST_UNREAD) this.list.unread.push(this.at);
      return;
    }
    const file = (bsd ? bsd[3] : gnu?.[3])?.trim();
    const escaped = (bsd?.[1] ?? gnu?.[1]) === '\\';
    this.sum(named, hex, file ? (escaped ? unescaped(file) : file) : null);
  }

  private size(file: string, bytes: number): void {
    if (this.wanted(file)) this.list.sizes.push({ file, bytes, line: this.at });
  }

  private sum(algorithm: DigestAlgorithm, hex: string, file: string | null): void {
    this.list.sumCount += 1;
    if (file === null ? (this.bare += 1) > MOST_BARE : !this.wanted(file)) return;
    this.list.sums.push({ algorithm, hex, file, line: this.at });
  }
}

/** Reads the text of a whole checksum list. */
export function parseChecksumList(text: string): ChecksumList {
  const reader = new ListReader();
  for (let at = 0; at <= text.length;) {
    const end = text.indexOf('\n', at);
    reader.line(text.slice(at, end < 0 ? text.length : end));
    at = end < 0 ? text.length + 1 : end + 1;
  }
  return reader.finish();
}

/** The name of a file without its folders, in either spelling. */
export const baseName = (path: string): string => path.split(/[\\/]/).pop() ?? path;

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
