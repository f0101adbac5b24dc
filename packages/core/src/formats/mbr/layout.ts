/** Where things stand in a master boot record, in bytes of sector 0: UEFI 2.10 §5.2.1, tables 5.1 and 5.2. */
export const MBR = {
  /** Room for boot code, from byte 0. */
  codeBytes: 440,
  diskSignature: 440,
  table: 446,
  entryBytes: 16,
  endMark: 510,
} as const;

/** 55 AA on disk, read as a little-endian word. */
export const END_MARK = 0xaa55;

/** An entry of the table, by the place in its sixteen bytes. */
export const MBR_ENTRY = { flag: 0, firstChs: 1, type: 4, lastChs: 5, start: 8, sectors: 12 } as const;

/** The flag of the part that boot code is to start. */
export const ACTIVE = 0x80;
/** The type that stands for a GPT in the eyes of older tools. */
export const PROTECTIVE = 0xee;
/** Types that only hold other partitions: with CHS, with LBA, and the one of older Linux. */
export const EXTENDED: ReadonlySet<number> = new Set([0x05, 0x0f, 0x85]);
