import type { SizeManner } from '../model/installer';
import { GIB, MIB } from '../units/bytes';

/** What is typed for a size and what the installer makes of it. Bytes. */
export interface Typed {
  /** The number to type. */
  text: string;
  /** The unit as the installer calls it. */
  unit: string;
  /** What the installer means by it. */
  means: string;
  /** What that is. */
  becomes: number;
  /** What the installer shows for it afterwards. */
  shown: string;
}

interface Manner {
  /** What the installer calls it. */
  unit: string;
  means: string;
  bytes: (of: Whole) => number;
  /** Decimals that it takes, and those that it shows. */
  takes: number;
  shows: number;
}
interface Whole {
  driveBytes: number;
  sectorSize: number;
}

/** Common practice, no source: what installers call a size and what they mean by it. */
const MANNERS: Record<SizeManner, Manner> = {
  'MB that are MiB': { unit: 'MB', means: 'MiB', bytes: () => MIB, takes: 0, shows: 0 },
  MB: { unit: 'MB', means: 'MB', bytes: () => 1e6, takes: 0, shows: 0 },
  'GB that are GiB': { unit: 'GB', means: 'GiB', bytes: () => GIB, takes: 2, shows: 1 },
  GB: { unit: 'GB', means: 'GB', bytes: () => 1e9, takes: 2, shows: 1 },
  MiB: { unit: 'MiB', means: 'MiB', bytes: () => MIB, takes: 0, shows: 0 },
  GiB: { unit: 'GiB', means: 'GiB', bytes: () => GIB, takes: 2, shows: 2 },
  'per cent': {
    unit: '%',
    means: '% of the drive',
    bytes: ({ driveBytes }) => driveBytes / 100,
    takes: 2,
    shows: 1,
  },
  sectors: { unit: 'sectors', means: 'sectors', bytes: ({ sectorSize }) => sectorSize, takes: 0, shows: 0 },
};

/** A number with so many decimals at most, rounded down by a hair's breadth at most. */
const cut = (value: number, decimals: number): number => {
  const scale = 10 ** decimals;
  // What is typed must never ask for more than there is.
  return Math.floor(value * scale + 1e-9) / scale;
};

/** What to type for so many bytes in an installer of this manner, and what it shows for it. */
export function typedFor(bytes: number, types: SizeManner, shows: SizeManner, whole: Whole): Typed {
  const manner = MANNERS[types];
  const one = manner.bytes(whole);
  const number = cut(bytes / one, manner.takes);
  const becomes = Math.round(number * one);
  const back = MANNERS[shows];
  return {
    text: String(number),
    unit: manner.unit,
    means: manner.means,
    becomes,
    shown: `${(becomes / back.bytes(whole)).toFixed(back.shows)} ${back.unit}`,
  };
}
