import { ascii, u16, u32, u64 } from '../bytes';
import { slice, type ByteSource } from '../source';

/**
 * What stands behind GRUB's kernel in one of its images: modules, and with them the configuration, the prefix and the
 * memory disk that were built in. Source: GRUB, include/grub/kernel.h (struct grub_module_info, grub_module_header).
 */
export interface GrubImage {
  /** Where it looks for its modules and its configuration; undefined where none was built in. */
  prefix: string | undefined;
  /** Script that is run first. */
  config: string | undefined;
  /** A file system in memory. */
  memdisk: ByteSource | undefined;
  /** Names of the modules that are built in. */
  modules: ReadonlySet<string>;
}

const MARK = 'mimg';
/** Kinds of what follows a header of eight bytes: kind and size with the header. */
const KIND = { module: 0, memdisk: 1, config: 2, prefix: 3 } as const;
const MAX_MODULES = 500;
const MAX_TEXT = 64 * 1024;

const text = (b: Uint8Array): string => ascii(b, 0, b.length);

/** The name a module gives itself: section .modname of its ELF object (System V ABI, “Sections”). */
async function moduleName(object: ByteSource): Promise<string | undefined> {
  const head = await object.read(0, 64);
  if (ascii(head, 1, 3) !== 'ELF') return undefined;
  const wide = head[4] === 2;
  const table = wide ? u64(head, 40) : u32(head, 32);
  const entry = u16(head, wide ? 58 : 46);
  const count = Math.min(u16(head, wide ? 60 : 48), 64);
  const names = u16(head, wide ? 62 : 50);
  const headers = await object.read(table, entry * count);
  const at = (i: number): { name: number; offset: number; bytes: number } => {
    const o = i * entry;
    const [offset, bytes] = wide
      ? [u64(headers, o + 24), u64(headers, o + 32)]
      : [u32(headers, o + 16), u32(headers, o + 20)];
    return { name: u32(headers, o), offset, bytes };
  };
  if (entry < 40) return undefined;
  const strings = await object.read(at(names).offset, Math.min(at(names).bytes, 4096));
  for (let i = 0; i < count; i += 1) {
    const section = at(i);
    if (ascii(strings, section.name, 16) === '.modname')
      return text(await object.read(section.offset, Math.min(section.bytes, 64)));
  }
  return undefined;
}

async function listed(source: ByteSource, first: number, end: number): Promise<GrubImage> {
  const modules = new Set<string>();
  const image: { -readonly [K in keyof GrubImage]: GrubImage[K] } = {
    prefix: undefined,
    config: undefined,
    memdisk: undefined,
    modules,
  };
  for (let at = first, n = 0; at + 8 <= end && n < MAX_MODULES; n += 1) {
    const head = await source.read(at, 8);
    const [kind, bytes] = [u32(head, 0), u32(head, 4)];
    if (bytes < 8 || at + bytes > end) break;
    const body = slice(source, at + 8, bytes - 8);
    const words = async (): Promise<string> => text(await body.read(0, Math.min(body.size, MAX_TEXT)));
    if (kind === KIND.module) {
      const name = await moduleName(body);
      if (name !== undefined) modules.add(name);
    } else if (kind === KIND.memdisk) image.memdisk = body;
    else if (kind === KIND.config) image.config = await words();
    else if (kind === KIND.prefix) image.prefix = await words();
    at += bytes;
  }
  return image;
}

/** Reads a header of modules that stands at `at`; undefined where there is none that makes sense. */
async function moduleInfo(source: ByteSource, at: number, wide: boolean): Promise<GrubImage | undefined> {
  const head = await source.read(at, 24);
  if (ascii(head, 0, 4) !== MARK) return undefined;
  const [offset, bytes] = wide ? [u64(head, 8), u64(head, 16)] : [u32(head, 4), u32(head, 8)];
  const end = at + bytes;
  if (offset < 12 || offset > 64 || end > source.size || bytes < offset) return undefined;
  return listed(source, at + offset, end);
}

/** The modules in an EFI program's section “mods”; undefined where it is none of GRUB's. */
export async function grubFromSection(section: ByteSource, wide: boolean): Promise<GrubImage | undefined> {
  return moduleInfo(section, 0, wide);
}

/** The modules behind a kernel that was unpacked; undefined where there are none. */
export async function grubFromKernel(kernel: ByteSource): Promise<GrubImage | undefined> {
  const bytes = await kernel.read(0, kernel.size);
  for (let at = 0; at + 12 <= bytes.length; at += 4) {
    // The mark in the kernel's own code is no header.
    const found = bytes[at] === 0x6d && (await moduleInfo(kernel, at, false));
    if (found) return found;
  }
  return undefined;
}
