import { ascii, u16, u8 } from './bytes';
import { put16, put32, putText } from './put';
import { END_MARK, MBR } from './mbr/layout';

/**
 * The header by which loaders know a kernel image for x86, by the byte in the image: “The Linux/x86 Boot Protocol”
 * (kernel documentation, arch/x86/boot), section “The Real-Mode Kernel Header”. The setup code is entered at 200h.
 */
export const KERNEL = {
  setupSectors: 0x1f1,
  protectedParagraphs: 0x1f4,
  setup: 0x200,
  mark: 'HdrS',
  markAt: 0x202,
  version: 0x206,
  nameAt: 0x20e,
  kindOfLoader: 0x210,
  loadFlags: 0x211,
  code32: 0x214,
  /** First byte that setup code may use behind a header of version 2.00 to 2.01. */
  behind: 0x228,
} as const;

/** Bytes that are enough to tell a kernel image by. */
export const KERNEL_HEAD_BYTES = 0x208;

/** Is this the beginning of a kernel image for x86, by its own header? */
export const isKernel = (head: Uint8Array): boolean =>
  u16(head, MBR.endMark) === END_MARK &&
  ascii(head, KERNEL.markAt, KERNEL.mark.length) === KERNEL.mark &&
  u8(head, KERNEL.version + 1) >= 2;

/** Near jump from byte 0 to the setup code, so that the image also runs where firmware or boot code enters it at byte 0. */
const TO_SETUP = [0xe9, 0xfd, 0x01] as const;

/**
 * A kernel image whose setup code is `code`, of whole sectors; at most 32 KiB. The code must not depend on where it runs.
 * Throws RangeError where it does not fit.
 */
export function composeKernel(code: Uint8Array): Uint8Array {
  const sectors = Math.ceil((KERNEL.behind + code.length) / 512);
  if (sectors > 64) throw new RangeError('setup code fits no more than 64 sectors');
  const out = new Uint8Array(sectors * 512);
  out.set(TO_SETUP);
  out[KERNEL.setupSectors] = sectors - 1;
  put16(out, MBR.endMark, END_MARK);
  // Short jump over the header (protocol, field “jump”).
  out.set([0xeb, KERNEL.behind - KERNEL.setup - 2], KERNEL.setup);
  putText(out, KERNEL.markAt, KERNEL.mark);
  put16(out, KERNEL.version, 0x0200);
  out[KERNEL.loadFlags] = 1;
  put32(out, KERNEL.code32, 0x100000);
  out.set(code, KERNEL.behind);
  return out;
}
