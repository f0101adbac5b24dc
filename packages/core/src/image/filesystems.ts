import { ascii, u16, u32, u8 } from './bytes';
import { openFat } from './fat';
import type { ByteSource } from './source';

export interface FilesystemMark {
  kind: string;
  label?: string | undefined;
}

/** Where each format keeps its mark; magic numbers as in the formats' own documentation, checked with blkid. */
export async function recogniseFilesystem(source: ByteSource): Promise<FilesystemMark | undefined> {
  const head = await source.read(0, 4096);
  if (head.length < 512) return undefined;
  const fat = await openFat(source);
  if (fat) return { kind: fat.kind, label: fat.label };
  if (ascii(head, 0, 4) === 'hsqs') return { kind: 'squashfs' };
  if (ascii(head, 0, 4) === 'XFSB') return { kind: 'xfs', label: ascii(head, 108, 12) || undefined };
  if (ascii(head, 3, 8) === 'NTFS') return { kind: 'ntfs' };
  if (ascii(head, 3, 8) === 'EXFAT') return { kind: 'exfat' };
  if (ascii(head, 0, 4) === 'LUKS') return { kind: 'luks' };
  if (u16(head, 1024 + 56) === 0xef53) {
    const incompat = u32(head, 1024 + 96);
    const compat = u32(head, 1024 + 92);
    // Extents, 64-bit or flexible groups make it ext4; a journal alone ext3 (kernel documentation, ext4 super block).
    const kind = incompat & 0x2c0 ? 'ext4' : compat & 0x4 ? 'ext3' : 'ext2';
    return { kind, label: ascii(head, 1024 + 120, 16) || undefined };
  }
  if (ascii(head, 4086, 10) === 'SWAPSPACE2')
    return { kind: 'swap', label: ascii(head, 1052, 16) || undefined };
  const far = await source.read(65536, 4096);
  if (ascii(far, 64, 8) === '_BHRfS_M') return { kind: 'btrfs', label: ascii(far, 299, 256) || undefined };
  if (u8(await source.read(32768, 1), 0) === 1 && ascii(await source.read(32769, 5), 0, 5) === 'CD001') {
    return { kind: 'iso9660', label: ascii(await source.read(32808, 32), 0, 32) || undefined };
  }
  return undefined;
}
