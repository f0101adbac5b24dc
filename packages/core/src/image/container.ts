import { ascii, u16, u8 } from './bytes';

export type ContainerKind = 'none' | 'gzip' | 'xz' | 'zstd' | 'bzip2' | 'zip';

/** Recognises a compressed file by its first bytes: RFC 1952, RFC 8878, the .xz format 1.0.4, PKZIP APPNOTE 4.3.7. */
export function containerKind(head: Uint8Array): ContainerKind {
  if (u16(head, 0) === 0x8b1f) return 'gzip';
  if (u8(head, 0) === 0xfd && ascii(head, 1, 4) === '7zXZ') return 'xz';
  if (u8(head, 0) === 0x28 && u8(head, 1) === 0xb5 && u8(head, 2) === 0x2f && u8(head, 3) === 0xfd)
    return 'zstd';
  if (ascii(head, 0, 3) === 'BZh') return 'bzip2';
  if (ascii(head, 0, 2) === 'PK' && u8(head, 2) === 3 && u8(head, 3) === 4) return 'zip';
  return 'none';
}
