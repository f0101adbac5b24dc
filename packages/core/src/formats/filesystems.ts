import { ascii, u16, u32, u32be, u64, u8, utf8 } from './bytes';
import { ntfs } from './ntfs';
import type { FilesystemMark } from './filesystemMark';
import { openFat, type FatVolume } from './fat/read';
import { volumeSerial } from './iso9660/fields';
import type { ByteSource } from './source';

/** A UUID kept as sixteen bytes in order (RFC 9562, §4). */
export function uuidText(b: Uint8Array, o: number): string {
  const hex = Array.from({ length: 16 }, (_, i) =>
    u8(b, o + i)
      .toString(16)
      .padStart(2, '0'),
  ).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}

const be = (b: Uint8Array, o: number): number => u32be(b, o) * 2 ** 32 + u32be(b, o + 4);
const named = (text: string): string | undefined => (text === '' ? undefined : text);

type Reader = (head: Uint8Array) => FilesystemMark | undefined;

/** XFS superblock, big-endian: block size at 4, blocks at 8, UUID at 32, name at 108 (XFS Algorithms & Data Structures, ch. 13). */
const xfs: Reader = (b) =>
  ascii(b, 0, 4) === 'XFSB'
    ? { kind: 'xfs', label: named(utf8(b, 108, 12)), uuid: uuidText(b, 32), bytes: be(b, 8) * u32be(b, 4) }
    : undefined;

/** Squashfs superblock: bytes used at 40 (kernel documentation, squashfs §3). */
const squashfs: Reader = (b) =>
  ascii(b, 0, 4) === 'hsqs' ? { kind: 'squashfs', bytes: u64(b, 40) } : undefined;

/** LUKS 1 and 2 headers: big-endian version at 6, UUID as text at 168, label of version 2 at 24 (LUKS2 on-disk format §2.1). */
const luks: Reader = (b) =>
  ascii(b, 0, 4) === 'LUKS' && u8(b, 4) === 0xba && u8(b, 5) === 0xbe
    ? {
        kind: 'luks',
        label: u8(b, 7) === 2 ? named(ascii(b, 24, 48)) : undefined,
        uuid: named(ascii(b, 168, 40)),
      }
    : undefined;

/** ext super block at 1024: blocks at 4 and 336, log block size at 24, features at 92 and 96, UUID at 104, name at 120 (kernel documentation, ext4 super block). */
const ext: Reader = (b) => {
  const s = 1024;
  if (u16(b, s + 56) !== 0xef53) return undefined;
  const compat = u32(b, s + 92);
  const incompat = u32(b, s + 96);
  const large = incompat & 0x80 ? u32(b, s + 336) * 2 ** 32 : 0;
  return {
    // Extents, 64-bit or flexible groups make it ext4; a journal alone ext3.
    kind: incompat & 0x2c0 ? 'ext4' : compat & 0x4 ? 'ext3' : 'ext2',
    label: named(utf8(b, s + 120, 16)),
    uuid: uuidText(b, s + 104),
    bytes: (u32(b, s + 4) + large) * 1024 * 2 ** u32(b, s + 24),
  };
};

/** F2FS super block at 1024: log block size at 16, blocks at 36, UUID at 108, UTF-16 name at 124 (kernel header f2fs_fs.h). */
const f2fs: Reader = (b) => {
  const s = 1024;
  if (u32(b, s) !== 0xf2f52010) return undefined;
  let label = '';
  for (let i = 0; i < 512 && u16(b, s + 124 + 2 * i) !== 0; i += 1)
    label += String.fromCharCode(u16(b, s + 124 + 2 * i));
  return {
    kind: 'f2fs',
    label: named(label),
    uuid: uuidText(b, s + 108),
    bytes: u64(b, s + 36) * 2 ** u32(b, s + 16),
  };
};

/** Swap header in the first page: UUID at 1036, name at 1052, last page at 1028 (kernel header swap.h). */
const swap: Reader = (b) =>
  ['SWAPSPACE2', 'SWAP-SPACE'].includes(ascii(b, 4086, 10))
    ? {
        kind: 'swap',
        label: named(ascii(b, 1052, 16)),
        uuid: uuidText(b, 1036),
        bytes: (u32(b, 1028) + 1) * 4096,
      }
    : undefined;

/** LVM2 label in one of the first four sectors: the physical volume's UUID and size follow (common practice; held against blkid). */
const lvm: Reader = (b) => {
  for (let o = 0; o < 2048; o += 512) {
    if (ascii(b, o, 8) !== 'LABELONE' || ascii(b, o + 24, 8) !== 'LVM2 001') continue;
    const at = o + u32(b, o + 20);
    const raw = ascii(b, at, 32);
    const uuid = raw.replace(/^(.{6})(.{4})(.{4})(.{4})(.{4})(.{4})(.{6})$/, '$1-$2-$3-$4-$5-$6-$7');
    return { kind: 'lvm', uuid, bytes: u64(b, at + 32) };
  }
  return undefined;
};

/** exFAT boot sector: sectors at 72, serial at 100, sector shift at 108, root cluster at 96 (exFAT specification §3.1). */
async function exfat(source: ByteSource, b: Uint8Array): Promise<FilesystemMark | undefined> {
  if (ascii(b, 3, 8) !== 'EXFAT') return undefined;
  const sector = 2 ** Math.min(12, u8(b, 108));
  const cluster = sector * 2 ** Math.min(25, u8(b, 109));
  const root = await source.read(u32(b, 88) * sector + (u32(b, 96) - 2) * cluster, 32 * 64);
  let label: string | undefined;
  for (let o = 0; o + 32 <= root.length && u8(root, o) !== 0; o += 32) {
    if (u8(root, o) !== 0x83) continue;
    label = '';
    for (let i = 0; i < Math.min(11, u8(root, o + 1)); i += 1)
      label += String.fromCharCode(u16(root, o + 2 + 2 * i));
  }
  const serial = u32(b, 100).toString(16).toUpperCase().padStart(8, '0');
  return {
    kind: 'exfat',
    label: named(label ?? ''),
    uuid: `${serial.slice(0, 4)}-${serial.slice(4)}`,
    bytes: u64(b, 72) * sector,
  };
}

/** Btrfs super block at 64 KiB: fsid at 32, total bytes at 112, label at 299 (Btrfs on-disk format, super block). */
async function btrfs(source: ByteSource): Promise<FilesystemMark | undefined> {
  const b = await source.read(65536, 1024);
  return ascii(b, 64, 8) === '_BHRfS_M'
    ? { kind: 'btrfs', label: named(utf8(b, 299, 256)), uuid: uuidText(b, 32), bytes: u64(b, 112) }
    : undefined;
}

/** Linux RAID member: version 1 keeps its super block at 0, at 4 KiB or near the end; 0.90 near the end (kernel header md_p.h). */
async function raid(source: ByteSource): Promise<FilesystemMark | undefined> {
  const sectors = Math.floor(source.size / 512);
  // Version 1.0: at least 8 KiB from the end, on a 4 KiB boundary.
  const places = [0, 4096, Math.floor((sectors - 16) / 8) * 8 * 512];
  for (const at of places) {
    if (at < 0) continue;
    const b = await source.read(at, 256);
    if (u32(b, 0) === 0xa92b4efc && u32(b, 4) === 1)
      return { kind: 'raid member', label: named(ascii(b, 32, 32)), uuid: uuidText(b, 16) };
  }
  const old = await source.read(Math.floor(source.size / 65536) * 65536 - 65536, 64);
  return u32(old, 0) === 0xa92b4efc && u32(old, 4) === 0 ? { kind: 'raid member' } : undefined;
}

/** ISO 9660 or UDF inside the stretch: ECMA-119 §8.4; ECMA-167 §2/9.1 for the recognition sequence "NSR". */
async function optical(source: ByteSource): Promise<FilesystemMark | undefined> {
  const head = await source.read(32768, 2048 * 16);
  let iso: FilesystemMark | undefined;
  for (let o = 0; o + 2048 <= head.length; o += 2048) {
    const id = ascii(head, o + 1, 5);
    if (id === 'CD001' && u8(head, o) === 1)
      iso ??= {
        kind: 'iso9660',
        label: named(ascii(head, o + 40, 32)),
        uuid: volumeSerial(head, o),
        bytes: u32(head, o + 80) * (u16(head, o + 128) || 2048),
      };
    if (id.startsWith('NSR0')) return iso ?? { kind: 'udf' };
    if (id !== 'CD001' && id !== 'BEA01' && id !== 'BOOT2' && id !== 'TEA01') break;
  }
  return iso;
}

const fatMark = (fat: FatVolume): FilesystemMark => ({
  kind: fat.kind,
  label: fat.label,
  uuid: fat.serial,
  bytes: fat.bytes,
});

/**
 * Tells what file system or volume begins here, by the marks each format keeps. Order matters: a RAID member holds a
 * whole file system behind its own super block, and is named first, since nothing else may touch it.
 */
export async function recogniseFilesystem(
  source: ByteSource,
  fat?: FatVolume,
): Promise<FilesystemMark | undefined> {
  const head = await source.read(0, 4096);
  if (head.length < 512) return undefined;
  const volume = fat ?? (await openFat(source));
  if (volume) return fatMark(volume);
  const member = await raid(source);
  if (member) return member;
  for (const read of [luks, lvm, xfs, squashfs, ext, f2fs, swap]) {
    const mark = read(head);
    if (mark) return mark;
  }
  return (
    (await ntfs(source, head)) ??
    (await exfat(source, head)) ??
    (await btrfs(source)) ??
    (await optical(source))
  );
}
