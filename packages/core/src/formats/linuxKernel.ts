import { allZero, ascii, u16, u32, u64, u8 } from './bytes';
import { put16, put32, putText } from './put';
import { END_MARK, MBR } from './mbr/layout';
import type { ByteSource } from './source';

/**
 * The header by which loaders know a kernel image for x86, by the byte in the image: “The Linux/x86 Boot Protocol”
 * (kernel documentation, arch/x86/boot), section “The Real-Mode Kernel Header”. The setup code is entered at 200h.
 */
export const KERNEL = {
  setupSectors: 0x1f1,
  protectedParagraphs: 0x1f4,
  setup: 0x200,
  mark: 'HdrS',
  markAt: 0x202,
  version: 0x206,
  nameAt: 0x20e,
  kindOfLoader: 0x210,
  loadFlags: 0x211,
  code32: 0x214,
  /** Bit 0: it is entered in 64-bit mode (protocol 2.12, field “xloadflags”). */
  wideFlags: 0x236,
  payload: 0x248,
  payloadBytes: 0x24c,
  /** First byte that setup code may use behind a header of version 2.00 to 2.01. */
  behind: 0x228,
} as const;

/** Bytes that are enough to tell a kernel image by. */
export const KERNEL_HEAD_BYTES = 0x208;

/** Is this the beginning of a kernel image for x86, by its own header? */
export const isKernel = (head: Uint8Array): boolean =>
  u16(head, MBR.endMark) === END_MARK &&
  ascii(head, KERNEL.markAt, KERNEL.mark.length) === KERNEL.mark &&
  u8(head, KERNEL.version + 1) >= 2;

/** What a kernel image says of itself; bytes. */
export interface KernelHead {
  /** x86: setup code and protected-mode code; aa64: its own image, plain or packed behind an EFI stub. */
  kind: 'x86' | 'aa64' | 'packed with a stub';
  /**
   * Bytes that have to be there. What calls itself a kernel and says no version is mostly another program in a kernel’s clothes: of
   * it the setup code alone, since no loader checks the sizes behind it.
   */
  bytes: number;
  /** What is packed inside is wiped, though the header is sound. */
  wiped: boolean;
  /** Its version and how it was built, as it says; undefined where it does not. */
  version: string | undefined;
  /** The processor it is for; undefined where its header does not tell. */
  machine: 'x86_64' | 'i686' | 'aarch64' | undefined;
}

/** Setup sectors where the header says none (protocol, field “setup_sects”). */
const USUAL_SETUP = 4;
/** How a kernel begins to say which it is (protocol, field “kernel_version”). */
const SAYS_VERSION = /^\d+\.\d+/;
/** Since this version of the protocol the header says where the packed kernel lies. */
const KNOWS_PAYLOAD = 0x208;
/** Since this version it says whether it is a 64-bit kernel. */
const KNOWS_WIDTH = 0x20c;
/** arm64 kernel: mark at 56, size in memory at 16 (kernel documentation, “Booting AArch64 Linux”); packed with a stub: “zimg” at 4. */
const ARM64 = { markAt: 56, mark: 'ARMd', sizeAt: 16 } as const;
const STUB = { markAt: 4, mark: 'zimg', offsetAt: 8, sizeAt: 12 } as const;

async function x86Head(file: ByteSource, head: Uint8Array): Promise<KernelHead> {
  const setup = ((u8(head, KERNEL.setupSectors) || USUAL_SETUP) + 1) * 512;
  const paragraphs = u32(head, KERNEL.protectedParagraphs);
  const knows = u16(head, KERNEL.version) >= KNOWS_PAYLOAD && u32(head, KERNEL.payloadBytes) > 0;
  const payload = knows ? await file.read(setup + u32(head, KERNEL.payload), 512) : undefined;
  const nameAt = u16(head, KERNEL.nameAt);
  const name = nameAt === 0 ? '' : ascii(await file.read(KERNEL.setup + nameAt, 200), 0, 200);
  return {
    kind: 'x86',
    // The last paragraph counts as whole in the header, and need not be in the file.
    bytes: setup + (SAYS_VERSION.test(name) ? Math.max(0, paragraphs * 16 - 15) : 0),
    wiped: payload !== undefined && payload.length > 0 && allZero(payload),
    version: name || undefined,
    machine:
      u16(head, KERNEL.version) < KNOWS_WIDTH
        ? undefined
        : u16(head, KERNEL.wideFlags) & 1
          ? 'x86_64'
          : 'i686',
  };
}

/** Reads the head of a kernel image; undefined where the file is none that is known. */
export async function readKernel(file: ByteSource): Promise<KernelHead | undefined> {
  const head = await file.read(0, 1024);
  if (isKernel(head)) return x86Head(file, head);
  if (ascii(head, ARM64.markAt, 4) === ARM64.mark)
    return {
      kind: 'aa64',
      bytes: Math.min(u64(head, ARM64.sizeAt), file.size),
      wiped: false,
      version: undefined,
      machine: 'aarch64',
    };
  if (ascii(head, 0, 2) === 'MZ' && ascii(head, STUB.markAt, 4) === STUB.mark) {
    const at = u32(head, STUB.offsetAt);
    const packed = await file.read(at, 512);
    return {
      kind: 'packed with a stub',
      bytes: at + u32(head, STUB.sizeAt),
      wiped: allZero(packed),
      version: undefined,
      machine: undefined,
    };
  }
  return undefined;
}

/** Near jump from byte 0 to the setup code, so that the image also runs where firmware or boot code enters it at byte 0. */
const TO_SETUP = [0xe9, 0xfd, 0x01] as const;

/**
 * A kernel image whose setup code is `code`, of whole sectors; at most 32 KiB. The code must not depend on where it runs.
 * Throws RangeError where it does not fit.
 */
export function composeKernel(code: Uint8Array): Uint8Array {
  const sectors = Math.ceil((KERNEL.behind + code.length) / 512);
  if (sectors > 64) throw new RangeError('setup code fits no more than 64 sectors');
  const out = new Uint8Array(sectors * 512);
  out.set(TO_SETUP);
  out[KERNEL.setupSectors] = sectors - 1;
  put16(out, MBR.endMark, END_MARK);
  // Short jump over the header (protocol, field “jump”).
  out.set([0xeb, KERNEL.behind - KERNEL.setup - 2], KERNEL.setup);
  putText(out, KERNEL.markAt, KERNEL.mark);
  put16(out, KERNEL.version, 0x0200);
  out[KERNEL.loadFlags] = 1;
  put32(out, KERNEL.code32, 0x100000);
  out.set(code, KERNEL.behind);
  return out;
}
