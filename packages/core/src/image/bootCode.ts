import { allZero, ascii, holds, u16, u64 } from '../formats/bytes';

/**
 * What a boot sector's code does next, as far as it can be told without running it. There is no field for it, so it is
 * told by the messages the code carries (common practice, no source; held against started images); code that carries none
 * of them is followed (starting/realMode).
 */
export type BootCodeKind =
  | 'none'
  /** Reads the second stage from a sector it names. */
  | 'names a sector'
  /** The same, at the place hybrid optical images use. */
  | 'names a sector of an optical volume'
  /** Looks for an optical loader and its mark at a sector it names. */
  | 'optical loader'
  /** Starts the one part marked active. */
  | 'active part'
  /** Starts the part whose number stands in byte 439. */
  | 'numbered part'
  /** Starts the GPT part marked for older BIOS code. */
  | 'marked GPT part'
  /** Only tells that it cannot start. */
  | 'message only'
  /** A boot record whose second stage is a file of its FAT volume. */
  | 'stage file'
  | 'unrecognised';

/** Where a second stage is named: byte 92, or 432 in code for optical volumes (GRUB's boot.S; ISOLINUX's isohybrid). */
export const STAGE_AT = { disk: 0x5c, optical: 432 } as const;

/** Its compatibility version, 3.2, behind the parameter block. */
const OLD_STAGE = { versionAt: 0x3e, version: 0x0203 } as const;

/** Reads the first 440 bytes of sector 0, or what follows the parameter block of a volume's boot record. */
export function bootCodeKind(code: Uint8Array): BootCodeKind {
  if (allZero(code)) return 'none';
  if (holds(code, 'This is not a bootable disk')) return 'message only';
  if (holds(code, 'GRUB ') && holds(code, 'Geom')) {
    // The loader of before 2009 names its sector elsewhere, and all that it loads is followed (GRUB 0.97, stage1.h).
    if (u16(code, OLD_STAGE.versionAt) === OLD_STAGE.version) return 'unrecognised';
    return u64(code, STAGE_AT.disk) === 0 ? 'names a sector of an optical volume' : 'names a sector';
  }
  if (holds(code, 'isolinux.bin missing or corrupt')) return 'optical loader';
  if (holds(code, '!GPT') && holds(code, 'Missing OS')) return 'marked GPT part';
  const text = ascii(
    code.map((b) => b || 32),
    0,
    code.length,
  );
  if (/invalid partition table|multiple active partitions|error loading/i.test(text)) return 'active part';
  if (/missing operating system/i.test(text)) return 'numbered part';
  if (holds(code, 'Boot error') && holds(code, 'SYSLINUX')) return 'stage file';
  return 'unrecognised';
}

/** What an optical loader in no-emulation mode is told by: its mark at byte 64, or the messages of its first sector. */
export function opticalLoaderKind(head: Uint8Array): 'marked' | 'by message' | 'none' | 'unrecognised' {
  if (allZero(head)) return 'none';
  // ISOLINUX keeps 7078C0FB at byte 64 for the code of hybrid images to find.
  if (head[64] === 0xfb && head[65] === 0xc0 && head[66] === 0x78 && head[67] === 0x70) return 'marked';
  if (holds(head, 'cdrom read fails')) return 'by message';
  return 'unrecognised';
}
