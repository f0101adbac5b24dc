/** The boot sector of a FAT volume: FAT file-system specification 1.03, §3.1; from byte 36 on §3.2 and §3.3. */
export const FAT_BOOT = {
  oemName: 3,
  bytesPerSector: 11,
  sectorsPerCluster: 13,
  reserved: 14,
  fats: 16,
  rootEntries: 17,
  sectors16: 19,
  media: 21,
  fatSectors16: 22,
  sectorsPerTrack: 24,
  heads: 26,
  hiddenSectors: 28,
  sectors32: 32,
} as const;
/** FAT12 and FAT16 (§3.2). */
export const FAT16_BOOT = { drive: 36, mark: 38, serial: 39, label: 43, kind: 54, code: 62 } as const;
/** FAT32 (§3.3). */
export const FAT32_BOOT = { fatSectors: 36, rootCluster: 44, serial: 67, label: 71, code: 90 } as const;
/** Bytes of a volume's label, in the boot sector and as an entry of the root. */
export const LABEL_BYTES = 11;

/** Fewer clusters than this make FAT12, fewer than the second FAT16 (§3.5). */
export const FAT12_CLUSTERS = 4085;
export const FAT16_CLUSTERS = 65525;

/** A directory entry (§6) by the place in its 32 bytes; the pieces of a long name (§7) by place and UTF-16 units. */
export const DIR_ENTRY = {
  bytes: 32,
  name: 0,
  extension: 8,
  attributes: 11,
  lowerCase: 12,
  clusterHigh: 20,
  date: 24,
  cluster: 26,
  size: 28,
} as const;
export const LONG_PIECES = [
  [1, 5],
  [14, 6],
  [28, 2],
] as const;
export const ATTRIBUTE = { volume: 0x08, directory: 0x10, archive: 0x20, long: 0x0f, mask: 0x3f } as const;
/** First byte of an entry that was given up. */
export const FREED = 0xe5;
