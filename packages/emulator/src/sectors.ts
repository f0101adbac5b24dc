/** Firmware reads optical media in sectors of so many bytes (ECMA-119 §6.1.2); the emulator wants whole ones. */
const SECTOR = 2048;

/** Bytes of a file that is filled up to whole sectors. */
export const wholeSectors = (bytes: number): number => Math.ceil(bytes / SECTOR) * SECTOR;
