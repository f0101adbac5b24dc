import { ascii, u16, u32 } from './bytes';

export type LoaderMachine = 'x64' | 'ia32' | 'aa64' | 'arm' | 'riscv64' | 'other';

export interface LoaderHeader {
  machine: LoaderMachine;
  /** True where the optional header's certificate table is not empty. It says "signed", not "trusted". */
  signed: boolean;
}

/** Machine types: PE/COFF specification, section "Machine Types"; UEFI 2.10 §2.1.1. */
const MACHINES: Record<number, LoaderMachine> = {
  0x8664: 'x64',
  0x014c: 'ia32',
  0xaa64: 'aa64',
  0x01c2: 'arm',
  0x5064: 'riscv64',
};

/**
 * Reads the PE/COFF header of an EFI loader. Undefined where the bytes are not an EFI application:
 * no MZ or PE mark, or a subsystem other than 10 (EFI application).
 */
export function readLoader(head: Uint8Array): LoaderHeader | undefined {
  if (ascii(head, 0, 2) !== 'MZ') return undefined;
  const pe = u32(head, 0x3c);
  if (pe + 0x60 > head.length || u32(head, pe) !== 0x00004550) return undefined;
  const optional = pe + 24;
  const plus = u16(head, optional) === 0x20b;
  if (!plus && u16(head, optional) !== 0x10b) return undefined;
  if (u16(head, optional + 68) !== 10) return undefined;
  const directories = optional + (plus ? 112 : 96);
  const signed = u32(head, directories - 4) > 4 && u32(head, directories + 4 * 8 + 4) > 0;
  return { machine: MACHINES[u16(head, pe + 4)] ?? 'other', signed };
}
