import { ascii, u16, u8 } from '../formats/bytes';
import type { ContainerKind } from '../model/inspection';

const BLOCK = [0x31, 0x41, 0x59, 0x26, 0x53, 0x59];
const END = [0x17, 0x72, 0x45, 0x38, 0x50, 0x90];
const at4 = (b: Uint8Array, mark: number[]): boolean => mark.every((x, i) => b[4 + i] === x);

/**
 * Recognises a packed file by its first bytes: RFC 1952 §2.3.1 (method 8, no reserved flag), RFC 8878 §3.1.1, the .xz
 * format 1.0.4 §2.1.1, PKZIP APPNOTE 4.3.7; for bzip2 its level digit and the mark of a block or of the end.
 */
export function containerKind(head: Uint8Array): ContainerKind {
  if (u16(head, 0) === 0x8b1f && u8(head, 2) === 8 && u8(head, 3) < 0x20) return 'gzip';
  if (u8(head, 0) === 0xfd && ascii(head, 1, 4) === '7zXZ' && u8(head, 5) === 0) return 'xz';
  if (u8(head, 0) === 0x28 && u8(head, 1) === 0xb5 && u8(head, 2) === 0x2f && u8(head, 3) === 0xfd)
    return 'zstd';
  if (/^BZh[1-9]$/.test(ascii(head, 0, 4)) && (at4(head, BLOCK) || at4(head, END))) return 'bzip2';
  if (ascii(head, 0, 2) === 'PK' && u8(head, 2) === 3 && u8(head, 3) === 4) return 'zip';
  return 'none';
}
