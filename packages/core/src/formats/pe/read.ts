import { ascii, u16, u32 } from '../bytes';
import type { ByteSource } from '../source';
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

/** Architecture of an EFI program, by UEFI's own short names. */
export type LoaderMachine = 'x64' | 'ia32' | 'aa64' | 'arm' | 'riscv64' | 'other';

/** What the header of an EFI program says (PE/COFF); offsets and sizes in bytes from the front of the file. */
export interface LoaderHeader {
  machine: LoaderMachine;
  /** Raw machine type, and where its two bytes stand in the file. */
  machineType: number;
  machineAt: number;
  /** True where the optional header's certificate table is not empty. It says "signed", not "trusted". */
  signed: boolean;
  /** Places in the file that the Authenticode digest leaves out. */
  checksumAt: number;
  certificateEntryAt: number;
  certificates: { offset: number; bytes: number };
  headerBytes: number;
  sections: { name: string; offset: number; bytes: number }[];
  /** What of the file cannot run; undefined where nothing speaks against it. */
  fault: PeFault | undefined;
}

/** What keeps a loader from running although its header is sound. */
export type PeFault =
  | { code: 'section beyond the file'; section: string }
  | { code: 'entry in no section' }
  | { code: 'entry wiped' };

const MACHINES = new Map<number, LoaderMachine>(
  (['x64', 'ia32', 'aa64', 'arm', 'riscv64'] as const).map((m) => [MACHINE_TYPE[m], m]),
);

/** Headers stand at the front; more than this no loader has. */
const HEAD_BYTES = 4096;
/** So much of the first code is looked at: enough to tell code from a wiped sector. */
const ENTRY_BYTES = 32;

const oneValue = (b: Uint8Array): boolean => b.length === 0 || b.every((x) => x === b[0]);

/** What keeps a loader from running although its header is sound: sections that are not there, an empty first code. */
async function faultOf(
  file: ByteSource,
  entry: number,
  sections: { name: string; rva: number; virtual: number; offset: number; bytes: number }[],
): Promise<PeFault | undefined> {
  const cut = sections.find((s) => s.bytes > 0 && s.offset + s.bytes > file.size);
  if (cut) return { code: 'section beyond the file', section: cut.name };
  const home = sections.find((s) => entry >= s.rva && entry < s.rva + Math.max(s.virtual, s.bytes));
  if (!home) return { code: 'entry in no section' };
  const code = await file.read(home.offset + entry - home.rva, ENTRY_BYTES);
  return oneValue(code) ? { code: 'entry wiped' } : undefined;
}

/**
 * Reads the PE/COFF header of an EFI loader and looks whether it could run. Undefined where the bytes are not an EFI
 * application: no MZ or PE mark, an optional header of neither kind, or a subsystem other than 10.
 * Source: PE/COFF specification, "COFF File Header", "Optional Header", "Section Table"; UEFI 2.10 §2.1.1.
 */
export async function readLoader(file: ByteSource): Promise<LoaderHeader | undefined> {
  const head = await file.read(0, HEAD_BYTES);
  if (ascii(head, 0, PE.mark.length) !== PE.mark) return undefined;
  const pe = u32(head, PE.headerAt);
  if (pe + 0x60 > head.length || u32(head, pe) !== PE.signature) return undefined;
  const optional = pe + COFF.bytes;
  const plus = u16(head, optional) === OPTIONAL.pe32Plus;
  if (!plus && u16(head, optional) !== OPTIONAL.pe32) return undefined;
  if (u16(head, optional + OPTIONAL.subsystem) !== SUBSYSTEM_APPLICATION) return undefined;
  const directories = optional + directoriesAt(plus);
  const certificateEntryAt = directories + DIRECTORY.certificates * DIRECTORY.bytes;
  const has = u32(head, directories - 4) > DIRECTORY.certificates;
  const certificates = {
    offset: has ? u32(head, certificateEntryAt) : 0,
    bytes: has ? u32(head, certificateEntryAt + 4) : 0,
  };
  const table = optional + u16(head, pe + COFF.optionalBytes);
  const sections = Array.from({ length: Math.min(96, u16(head, pe + COFF.sections)) }, (_, i) => {
    const at = table + SECTION.headerBytes * i;
    return {
      name: ascii(head, at, SECTION.nameBytes),
      virtual: u32(head, at + SECTION.virtual),
      rva: u32(head, at + SECTION.rva),
      bytes: u32(head, at + SECTION.raw),
      offset: u32(head, at + SECTION.offset),
    };
  });
  return {
    machine: MACHINES.get(u16(head, pe + COFF.machine)) ?? 'other',
    machineType: u16(head, pe + COFF.machine),
    machineAt: pe + COFF.machine,
    signed: certificates.bytes > 0,
    checksumAt: optional + OPTIONAL.checksum,
    certificateEntryAt,
    certificates,
    headerBytes: u32(head, optional + OPTIONAL.headerBytes),
    sections: sections.map(({ name, offset, bytes }) => ({ name, offset, bytes })),
    fault: await faultOf(file, u32(head, optional + OPTIONAL.entry), sections),
  };
}
