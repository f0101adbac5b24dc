import { composeKernel } from '../src/formats/linuxKernel';
import { bytesSource } from '../src/formats/source';
import { plainPath, type Found, type Volume } from '../src/formats/volume';
import type { Rung } from '../src/model/inspection';
import type { ChainVolume } from '../src/starting/chain/volumes';

/** A kernel that does nothing, and an initial disk that is empty: whole by their own headers. */
export const KERNEL = composeKernel(Uint8Array.of(0xf4));
export const DISK = Uint8Array.from({ length: 512 }, (_, i) => [0x1f, 0x8b][i] ?? 1);

export type Files = Readonly<Record<string, string | Uint8Array>>;

/** A file system in memory, as a loader looks at one: paths are told apart by case. */
export function memoryVolume(files: Files): Volume {
  const paths = Object.keys(files);
  const isFolder = (path: string): boolean => path === '/' || paths.some((p) => p.startsWith(`${path}/`));
  return {
    find: (asked): Promise<Found | undefined> => {
      const path = plainPath(asked);
      const content = files[path];
      if (content === undefined)
        return Promise.resolve(isFolder(path) ? { directory: true, path } : undefined);
      const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
      return Promise.resolve({
        directory: false,
        path,
        bytes: bytes.length,
        open: () => Promise.resolve({ ...bytesSource(bytes), placeOf: () => undefined, whole: true }),
      });
    },
    names: (asked) => {
      const under = plainPath(asked).replace(/\/$/, '');
      const below = paths.filter((p) => p.startsWith(`${under}/`));
      return Promise.resolve([...new Set(below.map((p) => p.slice(under.length + 1).split('/')[0] ?? ''))]);
    },
  };
}

/** A part of an image with these files; `null` is one whose file system is not opened. */
export const partOf = (index: number, files: Files | null, more: Partial<ChainVolume> = {}): ChainVolume => ({
  place: { of: 'part', index, label: null },
  from: 'gpt',
  index,
  start: undefined,
  filesystem: 'vfat',
  uuid: undefined,
  label: undefined,
  type: '',
  open: () => Promise.resolve(files === null ? undefined : memoryVolume(files)),
  ...more,
});

/** Rungs as short words: which, how it stands, why, and the path it is about. */
export const brief = (rungs: readonly Rung[]): string[] =>
  rungs.map(({ rung, state, why }) => {
    const about = 'path' in why ? why.path : 'command' in why ? why.command : 'what' in why ? why.what : '';
    return `${rung} ${state}: ${why.code}${about === '' ? '' : ` ${about}`}`;
  });
