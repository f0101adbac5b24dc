import { openExt } from '../../formats/ext/read';
import type { FatVolume } from '../../formats/fat/read';
import { slice } from '../../formats/source';
import { fatAsVolume, isoAsVolume, type Volume } from '../../formats/volume';
import { placeOf } from '../../image/loaders';
import type { ImageFacts } from '../../image/read';
import type { RungWhy } from '../../model/chain';
import type { ImagePlace } from '../../model/imagePlace';

/** A volume of the image as its loaders see it. */
export interface ChainVolume {
  place: ImagePlace;
  /** Which table names it, and by what number; `whole` is the image itself, `apart` what only a loader sees. */
  from: 'gpt' | 'mbr' | 'whole' | 'apart';
  index: number;
  /** Its first byte in the image; undefined where it has none, in memory or in a file. */
  start: number | undefined;
  filesystem: string | undefined;
  uuid: string | undefined;
  label: string | undefined;
  /** Type of the part in its table. */
  type: string;
  /** Undefined where what is on it is not opened here. */
  open(): Promise<Volume | undefined>;
}

const once = <T>(make: () => Promise<T>): (() => Promise<T>) => {
  let made: Promise<T> | undefined;
  return () => (made ??= make());
};

/** All volumes of an image that a loader could look on: the whole of it first, then its parts. */
export function chainVolumes(facts: ImageFacts): ChainVolume[] {
  const { iso, source, candidates } = facts;
  const out: ChainVolume[] = [];
  if (iso)
    out.push({
      place: { of: 'optical volume' },
      from: 'whole',
      index: 0,
      start: 0,
      filesystem: 'iso9660',
      uuid: iso.uuid,
      label: iso.label || undefined,
      type: '',
      open: once(() => Promise.resolve(isoAsVolume(iso, source))),
    });
  for (const c of candidates) {
    const { fat } = c;
    const window = slice(source, c.start, c.bytes);
    if (c.from === 'whole' && iso) continue;
    const index = c.from === 'whole' ? 0 : c.index;
    const filesystem = c.mark?.kind ?? null;
    out.push({
      place: fat ? placeOf(c) : { of: 'volume', index, filesystem, label: c.mark?.label ?? null },
      from: c.from,
      index,
      start: c.start,
      filesystem: c.mark?.kind,
      uuid: c.mark?.uuid,
      label: c.mark?.label,
      type: c.type,
      open: once(() => (fat ? Promise.resolve(fatAsVolume(fat)) : openExt(window))),
    });
  }
  return out;
}

/** A FAT volume that firmware opens and that no table names: behind the boot catalogue, or on an emulated floppy. */
export const unnamed = (place: ImagePlace, fat: FatVolume, start: number): ChainVolume => ({
  ...apart(place, () => Promise.resolve(fatAsVolume(fat))),
  start,
  filesystem: fat.kind,
});

/** A volume that only a loader sees: in its memory, or in a file. */
export const apart = (place: ImagePlace, open: () => Promise<Volume | undefined>): ChainVolume => ({
  place,
  from: 'apart',
  index: 0,
  start: undefined,
  filesystem: undefined,
  uuid: undefined,
  label: undefined,
  type: '',
  open: once(open),
});

/** Why nothing can be said of what is on a volume that is not opened here. */
export const notOpened = ({ filesystem, place }: ChainVolume): RungWhy => ({
  code: 'file system not opened',
  filesystem: filesystem ?? null,
  place,
});
