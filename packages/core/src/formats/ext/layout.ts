/** The super block stands 1024 bytes from the front; fields by their byte in it (kernel documentation, ext4 “Super Block”). */
export const EXT_SUPER = {
  at: 1024,
  bytes: 1024,
  firstDataBlock: 20,
  logBlockBytes: 24,
  blocksPerGroup: 32,
  inodesPerGroup: 40,
  mark: 56,
  revision: 76,
  inodeBytes: 88,
  incompatible: 96,
  descriptorBytes: 254,
} as const;
/** What stands in the mark. */
export const EXT_MARK = 0xef53;

/** Incompatible features that bear on reading (“Super Block”, s_feature_incompat). */
export const EXT_FEATURE = {
  compressed: 0x1,
  journalDevice: 0x8,
  metaGroups: 0x10,
  wide: 0x80,
  inlineData: 0x8000,
} as const;

/** A block group's descriptor (“Block Group Descriptors”): where its table of inodes begins, both halves. */
export const EXT_GROUP = { bytes: 32, inodeTable: 8, inodeTableHigh: 40 } as const;

/** An inode (“Index Nodes”) by the byte in it. */
export const EXT_INODE = { mode: 0, sizeLow: 4, flags: 32, block: 40, sizeHigh: 108 } as const;
/** Bytes of an inode that hold its map, or what a short link names. */
export const EXT_BLOCK_BYTES = 60;
/** Kinds of file in the upper bits of an inode's mode. */
export const EXT_MODE = { kind: 0xf000, folder: 0x4000, file: 0x8000, link: 0xa000 } as const;
/** Flags of an inode. */
export const EXT_FLAG = { encrypted: 0x800, extents: 0x80000 } as const;
/** The root folder's inode. */
export const EXT_ROOT = 2;

/** A node of an extent tree (“Extent Tree”): header and entries of twelve bytes each. */
export const EXT_EXTENT = {
  mark: 0xf30a,
  headerBytes: 12,
  entryBytes: 12,
  maxDepth: 5,
  /** An extent longer than this is kept free: its length is what exceeds it, and it reads as zeros. */
  written: 32768,
} as const;
