import { joined, u16, u32, u64 } from '../bytes';
import { unpackLzma } from '../lzma';
import { bytesSource, type ByteSource } from '../source';
import { grubFromKernel, type GrubImage } from './modules';

/** The first sector of a second stage lists the rest from here downwards, twelve bytes each: sector, count, segment (GRUB, boot/i386/pc/diskboot.S). */
const LIST_AT = 500;
const LIST_ENTRY = 12;
const MAX_LISTED = 30;
const SECTOR = 512;
/** A second stage of more bytes is none that fits where it is loaded; SYSLINUX's kin are smaller still. */
export const MAX_STAGE = 1024 * 1024;
const MAX_KERNEL = 8 * 1024 * 1024;

/** Where the second stage runs, and what it does before it unpacks (GRUB, boot/i386/pc/startup_raw.S). */
const STAGE_RUNS_AT = 0x8200;
const PACKED = { packedBytes: 8, bytes: 12 } as const;
/** movl $0x100000,%edi; movl $…,%esi; pushl %edi: the operand of the second is where what is packed begins. */
const UNPACK = [0xbf, 0x00, 0x00, 0x10, 0x00, 0xbe] as const;
/** Properties that its code is built for. */
const PROPERTIES = { lc: 3, lp: 0, pb: 2 } as const;

/** The second stage's bytes behind its first sector, gathered by the list in that; at most 1 MiB. */
export async function secondStage(source: ByteSource, at: number): Promise<Uint8Array> {
  const head = await source.read(at, SECTOR);
  const pieces: Uint8Array[] = [];
  let total = 0;
  for (let n = 0; n < MAX_LISTED; n += 1) {
    const o = LIST_AT - n * LIST_ENTRY;
    const bytes = u16(head, o + 8) * SECTOR;
    if (bytes === 0 || total >= MAX_STAGE) break;
    const piece = await source.read(u64(head, o) * SECTOR, Math.min(bytes, MAX_STAGE - total));
    pieces.push(piece);
    total += piece.length;
  }
  return joined(pieces);
}

function packedFrom(stage: Uint8Array): number | undefined {
  const end = Math.min(stage.length, 8192) - UNPACK.length;
  for (let at = 0; at < end; at += 1)
    if (UNPACK.every((b, i) => stage[at + i] === b)) return u32(stage, at + UNPACK.length) - STAGE_RUNS_AT;
  return undefined;
}

/** What unpacking a second stage comes to. */
export type GrubCore = { image: GrubImage } | { fault: 'packed otherwise' | 'cut short' | 'damaged' };

/**
 * Unpacks GRUB's second stage for BIOS (the bytes behind its first sector) and reads what is built into it. Its kernel is
 * packed by LZMA behind code that unpacks it.
 */
export async function readGrubCore(stage: Uint8Array): Promise<GrubCore> {
  const from = packedFrom(stage);
  const size = u32(stage, PACKED.bytes);
  const packed = u32(stage, PACKED.packedBytes);
  if (from === undefined || from < 0 || from >= stage.length || size > MAX_KERNEL)
    return { fault: 'packed otherwise' };
  if (from + packed > stage.length) return { fault: 'cut short' };
  const kernel = unpackLzma(stage.subarray(from, from + packed), size, PROPERTIES);
  const image = kernel && (await grubFromKernel(bytesSource(kernel)));
  return image ? { image } : { fault: 'damaged' };
}
