import { grub } from '../formats/writer/grub';
import { linesOf, type Written } from '../formats/writer/template';
import type { ImageItem, Store } from '../model/bench';
import { contentOf } from '../model/inspection';
import { writtenBytes } from '../model/written';
import { soldAs } from '../system/sold';

/** Room for the loader and its menu; common practice, no source. */
const LOADER_BYTES = 64e6;
/** A file on FAT holds 4 GiB less one byte (FAT specification, “File Size”). */
const FAT_FILE = 2 ** 32 - 1;
/** Clusters of large FAT32 volumes, and their entries in both tables (FAT specification, “FAT Data Structure”). */
const CLUSTER = 32 * 1024;
const onFat = (bytes: number): number => Math.ceil(bytes / CLUSTER) * (CLUSTER + 2 * 4);
/** Folder on the stick that the images lie in. */
const FOLDER = '/images';

/** Why an image cannot be one of several on a stick. */
export type NotFromFile =
  'not read' | 'packed' | 'no disc' | 'no configuration of its own' | 'too large for FAT';

/** One image of a stick for several. */
export interface OneOfSeveral {
  id: string;
  name: string;
  bytes: number;
  /** Why it is not started out of its file; null where it is. */
  not: NotFromFile | null;
}

/** A stick that holds several installers, each started out of its own file. Bytes. */
export interface SeveralOnStick {
  images: OneOfSeveral[];
  /** What all that can go on it need, with the loader. */
  bytes: number;
  /** The smallest size that is sold and holds them. */
  sold: number;
  /** Sticks of the shelf that may be lost and hold them, the smallest first. */
  sticks: { id: string; name: string; bytes: number }[];
  /** The loader's configuration, for GRUB; empty where nothing goes on it. */
  config: string;
}

function oneOf(image: ImageItem): OneOfSeveral {
  const read = image.inspection && contentOf(image.inspection);
  const one = (not: NotFromFile | null): OneOfSeveral => ({
    id: image.id,
    name: image.name,
    bytes: writtenBytes(image),
    not,
  });
  if (!read) return one('not read');
  // A loader opens what lies there, and nothing that is packed.
  if (image.inspection?.container.kind !== 'none') return one('packed');
  if (!read.layout.startsWith('iso9660')) return one('no disc');
  if (!read.identity?.fromItsFile) return one('no configuration of its own');
  return one(image.bytes > FAT_FILE ? 'too large for FAT' : null);
}

/** A path from the root: one that began with a dash would be an option. */
const fromRoot = (path: string): string => (path.startsWith('/') ? path : `/${path}`);

const entry = (name: string, config: string): Written<'grub'>[] => [
  // A title that began with a dash would be an option.
  grub`menuentry ${`Boot ${name}`} {`,
  grub`  set iso_path=${`${FOLDER}/${name}`}`,
  grub`  export iso_path`,
  grub`  loopback loop "$iso_path"`,
  grub`  set root=(loop)`,
  grub`  configfile ${fromRoot(config)}`,
  grub`  loopback --delete loop`,
  grub`}`,
];

/** Plans a stick for several images: which of them start out of their own files, what size it wants, and its menu. */
export function severalOnStick(images: readonly ImageItem[], stores: readonly Store[]): SeveralOnStick {
  const all = images.map(oneOf);
  const go = images.filter((_, i) => all[i]?.not === null);
  const bytes = go.reduce((n, i) => n + onFat(i.bytes), go.length > 0 ? LOADER_BYTES : 0);
  const menus = go.flatMap((i) => {
    const path = i.inspection && contentOf(i.inspection).identity?.fromItsFile;
    return entry(i.name, path ?? '');
  });
  return {
    images: all,
    bytes,
    sold: go.length > 0 ? soldAs(bytes) : 0,
    sticks: stores
      .filter((s) => s.kind === 'stick' && s.owned && s.fate === 'may be lost')
      .filter((s) => (s.realBytes ?? s.bytes) >= bytes)
      .sort((a, b) => a.bytes - b.bytes)
      .map((s) => ({ id: s.id, name: s.name, bytes: s.bytes })),
    config: menus.length > 0 ? linesOf([grub`set timeout=-1`, ...menus]) : '',
  };
}
