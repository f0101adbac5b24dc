import { KIB, MIB } from '../../units/bytes';
import { ceilDiv, roundUp, taken, type Space } from './types';

/** Everything it is made with besides journal and bitmap: file table, its mirror, boot file, letters, access lists. */
const FILES = 448 * KIB;
/** The same where a record of the file table is a sector of 4096 bytes. */
const FILES_LARGE = 536 * KIB;

/** Bytes of the journal by those of the volume (ntfs-3g, mkntfs). */
function journalOf(bytes: number): number {
  if (bytes <= 200 * MIB) return 2 * MIB;
  return Math.min(64 * MIB, Math.floor(bytes / 200 / KIB) * KIB);
}

/** Room of an NTFS file system made with the defaults of ntfs-3g 2022.10 (mkntfs(8)): clusters of 4 KiB up to 16 TiB. */
export function ntfsSpace(bytes: number, sector = 512): Space | undefined {
  if (bytes < 4 * MIB) return undefined;
  let cluster = 4 * KIB;
  while (bytes / cluster >= 2 ** 32) cluster *= 2;
  // The last sector holds the copy of the boot sector.
  const clusters = Math.floor((bytes - sector) / cluster);
  const bitmap = roundUp(ceilDiv(clusters, 8), cluster);
  const journal = journalOf(bytes);
  const files = sector > 512 ? FILES_LARGE : FILES;
  const total = clusters * cluster;
  const free = total - journal - bitmap - files;
  return {
    total,
    free,
    toUsers: free,
    takes: taken(
      ['journal', journal],
      ['allocation tables', bitmap],
      ['its own files', files],
      ['not a whole unit', bytes - total],
    ),
  };
}
