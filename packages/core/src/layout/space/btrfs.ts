import { GIB, MIB } from '../../units/bytes';
import { taken, type Space } from './types';

const LEAST = 114 * MIB;
/** The first MiB of every device is never given away. */
const FRONT = MIB;
const SYSTEM = 8 * MIB;

/**
 * Room of a Btrfs file system on one device made with the defaults of btrfs-progs 6.2 (mkfs.btrfs(8), “Profiles”): data
 * once, metadata twice. What is free is what is not given to metadata yet; more of it goes there as files come.
 */
export function btrfsSpace(bytes: number): Space | undefined {
  if (bytes < LEAST) return undefined;
  // Read off what is made: 1 GiB from 50 GiB on, 256 MiB where that is a tenth at most, else a twentieth of at least 32 MiB.
  const twentieth = Math.floor(bytes / 20 / (64 * 1024)) * 64 * 1024;
  const metadata =
    bytes > 50 * GIB ? GIB : bytes / 10 >= 256 * MIB ? 256 * MIB : Math.max(32 * MIB, twentieth);
  const total = Math.floor(bytes / 4096) * 4096;
  const free = total - FRONT - 2 * (metadata + SYSTEM);
  return {
    total,
    free,
    toUsers: free,
    takes: taken(['metadata, twice', 2 * (metadata + SYSTEM)], ['not a whole unit', bytes - total + FRONT]),
  };
}
