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

/** A FAT volume as a volume like any other. */
export const fatAsVolume = (fat: FatVolume): Volume => ({
  async find(path) {
    const plain = plainPath(path);
    if (plain === '/') return { directory: true, path: plain };
    const entry = await fat.find(plain);
    if (!entry) return undefined;
    if (entry.directory) return { directory: true, path: plain };
    return { directory: false, path: plain, bytes: entry.bytes, open: () => fat.open(entry) };
  },
  names: async (path) => (await fat.list(plainPath(path))).map((e) => e.name),
});

/** An optical volume as a volume like any other; `source` is what it was opened from. */
export const isoAsVolume = (iso: IsoVolume, source: ByteSource): Volume => ({
  async find(path) {
    const plain = plainPath(path);
    if (plain === '/') return { directory: true, path: plain };
    const entry = await iso.find(plain);
    if (!entry) return undefined;
    if (entry.directory) return { directory: true, path: plain };
    const { offset, bytes } = entry;
    const open = (): Promise<VolumeFile> =>
      Promise.resolve({
        ...slice(source, offset, bytes),
        placeOf: (at) => offset + at,
        whole: offset + bytes <= source.size,
      });
    return { directory: false, path: plain, bytes, open };
  },
  names: async (path) => (await iso.list(plainPath(path))).map((e) => e.name),
});
