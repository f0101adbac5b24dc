import { ascii, u32, u8 } from './bytes';

/** How an initial disk is packed, by its first bytes. */
export type InitialDiskKind = 'cpio' | 'gzip' | 'bzip2' | 'lzma' | 'xz' | 'lzo' | 'lz4' | 'zstd' | 'wrapped';

/**
 * What an initial disk's first bytes say that it is; undefined where a kernel would take it for none. Source: kernel
 * documentation, “initramfs buffer format”, and the marks of the packings it names; “wrapped” is the legacy image header
 * of board loaders (27051956h, common practice).
 */
export function initialDiskKind(head: Uint8Array): InitialDiskKind | undefined {
  if (/^07070[127]/.test(ascii(head, 0, 6))) return 'cpio';
  if (u8(head, 0) === 0x1f && u8(head, 1) === 0x8b) return 'gzip';
  if (ascii(head, 0, 3) === 'BZh') return 'bzip2';
  if (u32(head, 0) === 0x587a37fd) return 'xz';
  if (u32(head, 0) === 0x4f5a4c89) return 'lzo';
  if (u32(head, 0) === 0x184c2102) return 'lz4';
  if (u32(head, 0) === 0xfd2fb528) return 'zstd';
  if (u8(head, 0) === 0x5d && u8(head, 1) === 0 && u8(head, 2) === 0) return 'lzma';
  return u32(head, 0) === 0x56190527 ? 'wrapped' : undefined;
}
