import { GIB, KIB, MIB } from '../../units/bytes';
import { ceilDiv, roundUp, taken, type Space } from './types';

/** Tables and clusters begin at whole MiB. */
const BOUNDARY = MIB;
/** Two boot regions of twelve sectors (exFAT file system specification §2). */
const BOOT = 24 * 512;
/** The table of upper-case letters as it is written packed. */
const UPPER_CASE = 5836;

/** Room of an exFAT file system made with the defaults of exfatprogs 1.2 (exFAT file system specification §3 to §7). */
export function exfatSpace(bytes: number): Space | undefined {
  if (bytes < 8 * MIB) return undefined;
  const cluster = bytes <= 256 * MIB ? 4 * KIB : bytes <= 32 * GIB ? 32 * KIB : 128 * KIB;
  const table = roundUp(BOOT, BOUNDARY);
  const heap = roundUp(table + ceilDiv(bytes, cluster) * 4, BOUNDARY);
  const clusters = Math.floor((bytes - heap) / cluster);
  const own = ceilDiv(ceilDiv(clusters, 8), cluster) + ceilDiv(UPPER_CASE, cluster) + 1;
  const total = clusters * cluster;
  const free = (clusters - own) * cluster;
  return {
    total,
    free,
    toUsers: free,
    takes: taken(['allocation tables', bytes - total], ['its own files', own * cluster]),
  };
}
