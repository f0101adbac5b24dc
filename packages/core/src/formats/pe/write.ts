import { put16, put32, put64, putText } from '../put';
import {
  COFF,
  DIRECTORY,
  directoriesAt,
  MACHINE_TYPE,
  OPTIONAL,
  PE,
  SECTION,
  SUBSYSTEM_APPLICATION,
} from './layout';

const ALIGN = 512;
const CODE_RVA = 0x1000;
const RELOC_RVA = 0x2000;

/** Section flags of code that may be read, run and written, and of relocations ("Section Flags"). */
const FLAGS = { text: 0x60000020, reloc: 0x42000040 } as const;

/**
 * An EFI application of one section of code and an empty one of relocations: PE32 headers for ia32, PE32+ for the others,
 * as in the PE/COFF specification. The code begins at its first byte and must use addresses relative to itself only.
 */
export function composeEfi(code: Uint8Array, arch: 'x64' | 'ia32' | 'aa64'): Uint8Array {
  const wide = arch !== 'ia32';
  const raw = Math.ceil(code.length / ALIGN) * ALIGN;
  const out = new Uint8Array(ALIGN + raw + ALIGN);
  const pe = 0x40;
  const optionalBytes = wide ? 240 : 224;
  putText(out, 0, PE.mark);
  put32(out, PE.headerAt, pe);
  put32(out, pe, PE.signature);
  put16(out, pe + COFF.machine, MACHINE_TYPE[arch]);
  put16(out, pe + COFF.sections, 2);
  put16(out, pe + COFF.optionalBytes, optionalBytes);
  put16(out, pe + COFF.characteristics, wide ? 0x0022 : 0x0102);
  const opt = pe + COFF.bytes;
  put16(out, opt, wide ? OPTIONAL.pe32Plus : OPTIONAL.pe32);
  put32(out, opt + OPTIONAL.codeBytes, raw);
  put32(out, opt + OPTIONAL.entry, CODE_RVA);
  put32(out, opt + OPTIONAL.baseOfCode, CODE_RVA);
  if (wide) put64(out, opt + OPTIONAL.imageBase64, 0x10000);
  else put32(out, opt + OPTIONAL.imageBase32, 0x10000);
  put32(out, opt + OPTIONAL.sectionAlignment, 0x1000);
  put32(out, opt + OPTIONAL.fileAlignment, ALIGN);
  put32(out, opt + OPTIONAL.imageBytes, 0x3000);
  put32(out, opt + OPTIONAL.headerBytes, ALIGN);
  put16(out, opt + OPTIONAL.subsystem, SUBSYSTEM_APPLICATION);
  const directories = opt + directoriesAt(wide);
  put32(out, directories - 4, 16);
  const section = (
    slot: number,
    name: string,
    rva: number,
    file: number,
    size: number,
    flags: number,
  ): void => {
    const at = opt + optionalBytes + slot * SECTION.headerBytes;
    putText(out, at, name, SECTION.nameBytes);
    put32(out, at + SECTION.virtual, size);
    put32(out, at + SECTION.rva, rva);
    put32(out, at + SECTION.raw, ALIGN * Math.ceil(size / ALIGN));
    put32(out, at + SECTION.offset, file);
    put32(out, at + SECTION.flags, flags);
  };
  section(0, '.text\0\0\0', CODE_RVA, ALIGN, raw, FLAGS.text);
  // An empty relocation block keeps strict loaders content.
  section(1, '.reloc\0\0', RELOC_RVA, ALIGN + raw, 12, FLAGS.reloc);
  put32(out, directories + DIRECTORY.relocations * DIRECTORY.bytes, RELOC_RVA);
  put32(out, directories + DIRECTORY.relocations * DIRECTORY.bytes + 4, 12);
  put32(out, ALIGN + raw + 4, 12);
  put32(out, ALIGN + raw, 0x1000);
  out.set(code, ALIGN);
  return out;
}
