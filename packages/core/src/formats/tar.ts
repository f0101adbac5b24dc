import { ascii } from './bytes';
import type { ByteSource } from './source';
import { inOnePiece, plainPath, type Found, type Volume } from './volume';

/** Headers that are looked at; more than any archive in a loader has. */
const MAX_ENTRIES = 4000;
const BLOCK = 512;

/** A header's fields by the byte in it (POSIX.1-2017, pax, “ustar Interchange Format”). */
const HEADER = {
  name: 0,
  nameBytes: 100,
  size: 124,
  kind: 156,
  mark: 257,
  prefix: 345,
  prefixBytes: 155,
} as const;

/** Opens a tar archive (ustar) as a volume; undefined where it begins with none. Names keep their case. */
export async function openTar(source: ByteSource): Promise<Volume | undefined> {
  const files = new Map<string, { offset: number; bytes: number } | undefined>([['/', undefined]]);
  for (let at = 0, n = 0; n < MAX_ENTRIES; n += 1) {
    const head = await source.read(at, BLOCK);
    if (ascii(head, HEADER.mark, 5) !== 'ustar') break;
    const prefix = ascii(head, HEADER.prefix, HEADER.prefixBytes);
    const name = ascii(head, HEADER.name, HEADER.nameBytes);
    const bytes = parseInt(ascii(head, HEADER.size, 12).trim() || '0', 8);
    if (!Number.isSafeInteger(bytes)) break;
    const folder = ascii(head, HEADER.kind, 1) === '5';
    files.set(plainPath(`${prefix}/${name}`), folder ? undefined : { offset: at + BLOCK, bytes });
    at += BLOCK + Math.ceil(bytes / BLOCK) * BLOCK;
  }
  if (files.size === 1) return undefined;
  const isFolder = (path: string): boolean =>
    [...files.keys()].some((p) => p.startsWith(path === '/' ? '/' : `${path}/`));
  return {
    find(path): Promise<Found | undefined> {
      const plain = plainPath(path);
      const entry = files.get(plain);
      if (!entry) {
        const folder = files.has(plain) || isFolder(plain);
        return Promise.resolve(folder ? { directory: true, path: plain } : undefined);
      }
      const { offset, bytes } = entry;
      return Promise.resolve({
        directory: false,
        path: plain,
        bytes,
        open: () => Promise.resolve(inOnePiece(source, offset, bytes)),
      });
    },
    names(path) {
      const plain = plainPath(path);
      const below = plain === '/' ? '/' : `${plain}/`;
      const names = [...files.keys()]
        .filter((p) => p !== '/' && p.startsWith(below))
        .map((p) => p.slice(below.length).split('/')[0] ?? '');
      return Promise.resolve([...new Set(names)].filter((n) => n !== ''));
    },
  };
}
