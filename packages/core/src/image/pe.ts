import { ascii, u16, u32 } from './bytes';
import type { ByteSource } from './source';

export type LoaderMachine = 'x64' | 'ia32' | 'aa64' | 'arm' | 'riscv64' | 'other';

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
  /** What of the file cannot run, in words; empty where nothing speaks against it. */
  fault: string;
}

/** Machine types: PE/COFF specification, section "Machine Types"; UEFI 2.10 §2.1.1. */
const MACHINES: Record<number, LoaderMachine> = {
  0x8664: 'x64',
  0x014c: 'ia32',
  0xaa64: 'aa64',
  0x01c2: 'arm',
  0x5064: 'riscv64',
};

/** Headers stand at the front; more than this no loader has. */
const HEAD_BYTES = 4096;
/** So much of the first code is looked at: enough to tell code from a wiped sector. */
const ENTRY_BYTES = 32;
/** EFI applications; boot-service and runtime drivers are started by other means (PE/COFF, the subsystem field). */
const SUBSYSTEM_APPLICATION = 10;

const oneValue = (b: Uint8Array): boolean => b.length === 0 || b.every((x) => x === b[0]);

/** What keeps a loader from running although its header is sound: sections that are not there, an empty first code. */
async function faultOf(
  file: ByteSource,
  entry: number,
  sections: { name: string; rva: number; virtual: number; offset: number; bytes: number }[],
): Promise<string> {
  const cut = sections.find((s) => s.bytes > 0 && s.offset + s.bytes > file.size);
  if (cut) return `its section ${cut.name || 'without a name'} ends beyond the file`;
  const home = sections.find((s) => entry >= s.rva && entry < s.rva + Math.max(s.virtual, s.bytes));
  if (!home) return 'its first instruction lies in no section';
  const code = await file.read(home.offset + entry - home.rva, ENTRY_BYTES);
  return oneValue(code) ? 'its first instructions are wiped' : '';
}

/**
 * Reads the PE/COFF header of an EFI loader and looks whether it could run. Undefined where the bytes are not an EFI
 * application: no MZ or PE mark, an optional header of neither kind, or a subsystem other than 10.
 * Source: PE/COFF specification, "COFF File Header", "Optional Header", "Section Table"; UEFI 2.10 §2.1.1.
 */
export async function readLoader(file: ByteSource): Promise<LoaderHeader | undefined> {
  const head = await file.read(0, HEAD_BYTES);
  if (ascii(head, 0, 2) !== 'MZ') return undefined;
  const pe = u32(head, 0x3c);
  if (pe + 0x60 > head.length || u32(head, pe) !== 0x00004550) return undefined;
  const optional = pe + 24;
  const plus = u16(head, optional) === 0x20b;
  if (!plus && u16(head, optional) !== 0x10b) return undefined;
  if (u16(head, optional + 68) !== SUBSYSTEM_APPLICATION) return undefined;
  const directories = optional + (plus ? 112 : 96);
  const certificateEntryAt = directories + 4 * 8;
  const has = u32(head, directories - 4) > 4;
  const certificates = {
    offset: has ? u32(head, certificateEntryAt) : 0,
    bytes: has ? u32(head, certificateEntryAt + 4) : 0,
  };
  const table = optional + u16(head, pe + 20);
  const sections = Array.from({ length: Math.min(96, u16(head, pe + 6)) }, (_, i) => {
    const at = table + 40 * i;
    return {
      name: ascii(head, at, 8),
      virtual: u32(head, at + 8),
      rva: u32(head, at + 12),
      bytes: u32(head, at + 16),
      offset: u32(head, at + 20),
    };
  });
  return {
    machine: MACHINES[u16(head, pe + 4)] ?? 'other',
    machineType: u16(head, pe + 4),
    machineAt: pe + 4,
    signed: certificates.bytes > 0,
    checksumAt: optional + 64,
    certificateEntryAt,
    certificates,
    headerBytes: u32(head, optional + 60),
    sections: sections.map(({ name, offset, bytes }) => ({ name, offset, bytes })),
    fault: await faultOf(file, u32(head, optional + 16), sections),
  };
}
