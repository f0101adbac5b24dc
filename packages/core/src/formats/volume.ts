import type { FatVolume } from './fat/read';
import type { IsoVolume } from './iso9660/read';
import { slice, type ByteSource } from './source';

/** A file of a volume as a source of bytes; as long as its directory says, shorter only where that is known to be wrong. */
export interface VolumeFile extends ByteSource {
  /** Where a byte of the file stands in the volume; undefined where nothing is kept there. */
  placeOf(offset: number): number | undefined;
  /** False where some of it lies behind the end of the source, or its chain ends early. */
  whole: boolean;
}

/** What is found by a path. `bytes` is what the directory says. */
export type Found =
  | { directory: true; path: string }
  | { directory: false; path: string; bytes: number; open(): Promise<VolumeFile> };

/** A file system that is opened read only and within bounds, whatever its kind; paths with slashes from its root. */
export interface Volume {
  find(path: string): Promise<Found | undefined>;
  /** Names in a folder, in the order they stand; none where it is no folder. */
  names(path: string): Promise<string[]>;
}

/** A path without dots and doubled slashes; never leads above the root. */
export function plainPath(path: string): string {
  const out: string[] = [];
  for (const name of path.split('/')) {
    if (name === '' || name === '.') continue;
    if (name === '..') out.pop();
    else out.push(name);
  }
  return `/${out.join('/')}`;
}

/** The folder a file lies in, by its path; empty for the root. */
export const folderOf = (path: string): string => plainPath(path).replace(/\/[^/]*$/, '');

/** A path as a file in `folder` names it: from there, or from the root where it begins with a slash. */
export const pathFrom = (folder: string, path: string): string =>
  plainPath(path.startsWith('/') ? path : `${folder}/${path}`);

/** A file that lies in one piece. */
export const inOnePiece = (source: ByteSource, offset: number, bytes: number): VolumeFile => ({
  ...slice(source, offset, bytes),
  placeOf: (at) => offset + at,
  whole: offset + bytes <= source.size,
});

/** A reader of one format as a volume like any other. */
const asVolume = <E extends { name: string; directory: boolean; bytes: number }>(
  reader: { find(path: string): Promise<E | undefined>; list(path: string): Promise<E[]> },
  open: (entry: E) => Promise<VolumeFile>,
): Volume => ({
  async find(path) {
    const plain = plainPath(path);
    if (plain === '/') return { directory: true, path: plain };
    const entry = await reader.find(plain);
    if (!entry) return undefined;
    if (entry.directory) return { directory: true, path: plain };
    return { directory: false, path: plain, bytes: entry.bytes, open: () => open(entry) };
  },
  names: async (path) => (await reader.list(plainPath(path))).map((e) => e.name),
});

/** A FAT volume as a volume like any other. */
export const fatAsVolume = (fat: FatVolume): Volume => asVolume(fat, (entry) => fat.open(entry));

/** An optical volume as a volume like any other; `source` is what it was opened from. */
export const isoAsVolume = (iso: IsoVolume, source: ByteSource): Volume =>
  asVolume(iso, ({ offset, bytes }) => Promise.resolve(inOnePiece(source, offset, bytes)));
