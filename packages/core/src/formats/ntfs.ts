import { ascii, u16, u32, u64, u8, utf16 } from './bytes';
import type { FilesystemMark } from './filesystemMark';
import type { ByteSource } from './source';

/** The record of the volume itself, and the attribute that holds its name; 0xFFFFFFFF ends a record's attributes. */
const VOLUME_RECORD = 3;
const VOLUME_NAME = 0x60;
const END = 0xffffffff;

/** A size that is a count of clusters, or, where it is negative, a power of two in bytes. */
const sized = (raw: number, clusterBytes: number): number =>
  raw < 0x80 ? raw * clusterBytes : 2 ** (0x100 - raw);

/**
 * The name in the volume's record, where it stands in the record itself. A name that crosses a sector's end would need the
 * record's fix-ups; names are short and stand near its front.
 */
async function volumeName(source: ByteSource, b: Uint8Array): Promise<string | undefined> {
  const clusterBytes = u16(b, 11) * u8(b, 13);
  const recordBytes = sized(u8(b, 64), clusterBytes);
  if (clusterBytes === 0 || recordBytes < 512 || recordBytes > 65536) return undefined;
  const record = await source.read(u64(b, 48) * clusterBytes + VOLUME_RECORD * recordBytes, recordBytes);
  if (ascii(record, 0, 4) !== 'FILE') return undefined;
  for (let o = u16(record, 20); o + 24 <= record.length;) {
    const type = u32(record, o);
    const length = u32(record, o + 4);
    if (type === END || length < 16) return undefined;
    if (type === VOLUME_NAME && u8(record, o + 8) === 0)
      return utf16(record, o + u16(record, o + 20), Math.min(128, u32(record, o + 16) / 2)) || undefined;
    o += length;
  }
  return undefined;
}

/**
 * NTFS: sector size at 11, sectors at 40, first record at 48, record size at 64, serial at 72 of its boot sector
 * (common practice; held against blkid).
 */
export async function ntfs(source: ByteSource, b: Uint8Array): Promise<FilesystemMark | undefined> {
  if (ascii(b, 3, 8) !== 'NTFS') return undefined;
  const serial = [79, 78, 77, 76, 75, 74, 73, 72].map((o) => u8(b, o).toString(16).padStart(2, '0')).join('');
  return {
    kind: 'ntfs',
    label: await volumeName(source, b),
    uuid: serial.toUpperCase(),
    bytes: (u64(b, 40) + 1) * u16(b, 11),
  };
}
