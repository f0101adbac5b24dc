/** ECMA-119 (4th edition) §6.1.2: a logical sector of an optical volume is 2048 bytes. */
export const ISO_SECTOR = 2048;
/** The first volume descriptor (§6.2.1), and what every descriptor begins with after its type (§8.1). */
export const FIRST_DESCRIPTOR = 16;
export const ISO_MARK = 'CD001';
/** Types of descriptors (§8.1.1). */
export const DESCRIPTOR = { boot: 0, primary: 1, supplementary: 2, end: 255 } as const;

/** The primary volume descriptor by the byte in its sector (§8.4). */
export const PRIMARY = {
  system: 8,
  label: 40,
  sectors: 80,
  escape: 88,
  setSize: 120,
  sequence: 124,
  blockBytes: 128,
  pathTableBytes: 132,
  pathTableL: 140,
  pathTableM: 148,
  root: 156,
  created: 813,
  changed: 830,
  structureVersion: 881,
} as const;

/** A directory record by the byte in it (§9.1). */
export const RECORD = {
  sector: 2,
  bytes: 10,
  date: 18,
  flags: 25,
  sequence: 28,
  nameLength: 32,
  name: 33,
} as const;
export const RECORD_FLAG = { directory: 2, continued: 0x80 } as const;

/** El Torito 1.0 §2.0: the boot record's identifier, and where it names the catalogue's sector. */
export const EL_TORITO = { name: 'EL TORITO SPECIFICATION', nameAt: 7, catalogueAt: 71 } as const;
