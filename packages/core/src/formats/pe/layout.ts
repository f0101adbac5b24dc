/** PE/COFF specification: the mark of the file, where the header's offset stands, the mark of the header. */
export const PE = { mark: 'MZ', headerAt: 0x3c, signature: 0x00004550 } as const;

/** Machine types ("Machine Types"; UEFI 2.10 §2.1.1). */
export const MACHINE_TYPE = {
  x64: 0x8664,
  ia32: 0x014c,
  aa64: 0xaa64,
  arm: 0x01c2,
  riscv64: 0x5064,
} as const;

/** The COFF file header by the byte after the header's mark ("COFF File Header"). */
export const COFF = { machine: 4, sections: 6, optionalBytes: 20, characteristics: 22, bytes: 24 } as const;

/** The optional header by the byte in it ("Optional Header"): magic of either width, and the fields both have. */
export const OPTIONAL = {
  pe32: 0x10b,
  pe32Plus: 0x20b,
  codeBytes: 4,
  entry: 16,
  baseOfCode: 20,
  imageBase32: 28,
  imageBase64: 24,
  sectionAlignment: 32,
  fileAlignment: 36,
  imageBytes: 56,
  headerBytes: 60,
  checksum: 64,
  subsystem: 68,
} as const;
/** Where the data directories begin in an optional header of either width; their count stands right before them. */
export const directoriesAt = (wide: boolean): number => (wide ? 112 : 96);
export const DIRECTORY = { bytes: 8, certificates: 4, relocations: 5 } as const;

/** EFI applications; boot-service and runtime drivers are started by other means (the subsystem field). */
export const SUBSYSTEM_APPLICATION = 10;

/** A section header by the byte in its forty ("Section Table"). */
export const SECTION = {
  headerBytes: 40,
  virtual: 8,
  rva: 12,
  raw: 16,
  offset: 20,
  flags: 36,
  nameBytes: 8,
} as const;
