import { ascii, u16, u32, u64, u8 } from './bytes';
import type { ByteSource } from './source';

/** Machines of the ELF header (System V ABI, “ELF Header”, e_machine). */
const MACHINES = new Map<number, ElfMachine>([
  [3, 'i686'],
  [40, 'armv7l'],
  [62, 'x86_64'],
  [183, 'aarch64'],
]);
/** Processors that programs are told apart by here. */
export type ElfMachine = 'x86_64' | 'i686' | 'aarch64' | 'armv7l';

/** What a program says of the processor it wants. */
export interface ElfProgram {
  machine: ElfMachine;
  /** The x86-64 level its own note says it needs (1 to 4); undefined where it has no such note. */
  level: 1 | 2 | 3 | 4 | undefined;
}

const MAX_HEADERS = 64;
const MAX_NOTES = 64 * 1024;
const PT_NOTE = 4;
/** Linux Extensions to gABI, “.note.gnu.property”: note type 5 of owner “GNU”. */
const PROPERTY_NOTE = 5;
/** x86-64 psABI, “Program Property”: GNU_PROPERTY_X86_ISA_1_NEEDED, one bit for each level from the lowest. */
const ISA_NEEDED = 0xc0008002;

function levelIn(notes: Uint8Array, wide: boolean): ElfProgram['level'] {
  const align = (n: number, to: number): number => Math.ceil(n / to) * to;
  for (let at = 0; at + 12 <= notes.length;) {
    const [names, bytes, type] = [u32(notes, at), u32(notes, at + 4), u32(notes, at + 8)];
    const from = at + 12 + align(names, 4);
    if (type === PROPERTY_NOTE && ascii(notes, at + 12, 3) === 'GNU')
      for (let p = from; p + 8 <= Math.min(from + bytes, notes.length);) {
        const size = u32(notes, p + 4);
        if (u32(notes, p) === ISA_NEEDED && size === 4)
          for (const level of [4, 3, 2, 1] as const) if (u32(notes, p + 8) & (1 << (level - 1))) return level;
        p += 8 + align(size, wide ? 8 : 4);
      }
    at = from + align(bytes, 4);
  }
  return undefined;
}

/**
 * Reads a program's header and the note that says which level of x86-64 it needs; undefined where the file is no program
 * for a known processor. Little-endian alone. Source: System V ABI, “Object Files”; x86-64 psABI, “Program Property”.
 */
export async function readElf(file: ByteSource): Promise<ElfProgram | undefined> {
  const head = await file.read(0, 64);
  if (u32(head, 0) !== 0x464c457f || u8(head, 5) !== 1) return undefined;
  const wide = u8(head, 4) === 2;
  const machine = MACHINES.get(u16(head, 18));
  if (!machine) return undefined;
  const [from, size, count] = wide
    ? [u64(head, 32), u16(head, 54), u16(head, 56)]
    : [u32(head, 28), u16(head, 42), u16(head, 44)];
  let level: ElfProgram['level'];
  const table = machine === 'x86_64' ? await file.read(from, size * Math.min(count, MAX_HEADERS)) : head;
  for (let i = 0; machine === 'x86_64' && i < Math.min(count, MAX_HEADERS) && level === undefined; i += 1) {
    const at = i * size;
    if (u32(table, at) !== PT_NOTE) continue;
    const [offset, bytes] = [u64(table, at + 8), u64(table, at + 32)];
    level = levelIn(await file.read(offset, Math.min(bytes, MAX_NOTES)), wide);
  }
  return { machine, level };
}
