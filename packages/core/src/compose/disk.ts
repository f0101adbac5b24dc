import { crc32 } from '../image/crc32';
import { guidBytes } from '../image/gpt';
import { put16, put32, put64 } from './bytes';

export interface ComposedPart {
  /** Bytes, multiples of 512. */
  start: number;
  content: Uint8Array;
  typeGuid: string;
  guid: string;
  name: string;
}

const SECTOR = 512;
const ENTRIES = 128;

function mbrEntry(
  out: Uint8Array,
  slot: number,
  active: boolean,
  type: number,
  start: number,
  sectors: number,
): void {
  const at = 446 + 16 * slot;
  out[at] = active ? 0x80 : 0;
  out.set([0xfe, 0xff, 0xff], at + 1);
  out[at + 4] = type;
  out.set([0xfe, 0xff, 0xff], at + 5);
  put32(out, at + 8, start);
  put32(out, at + 12, sectors);
}

/** A disk image with a protective record and both GPT copies: UEFI 2.10 §5.2.3, §5.3.2, §5.3.3. */
export function composeGptDisk(options: {
  bytes: number;
  diskGuid: string;
  parts: readonly ComposedPart[];
  bootCode?: Uint8Array;
}): Uint8Array {
  const out = new Uint8Array(options.bytes);
  const sectors = options.bytes / SECTOR;
  if (options.bootCode) out.set(options.bootCode.subarray(0, 440));
  mbrEntry(out, 0, false, 0xee, 1, sectors - 1);
  out.set([0x00, 0x02, 0x00], 447);
  put16(out, 510, 0xaa55);

  const array = new Uint8Array(ENTRIES * 128);
  options.parts.forEach((part, i) => {
    const o = i * 128;
    array.set(guidBytes(part.typeGuid), o);
    array.set(guidBytes(part.guid), o + 16);
    put64(array, o + 32, part.start / SECTOR);
    put64(array, o + 40, (part.start + part.content.length) / SECTOR - 1);
    for (let c = 0; c < part.name.length; c += 1) put16(array, o + 56 + 2 * c, part.name.charCodeAt(c));
    out.set(part.content, part.start);
  });
  const header = (own: number, other: number, arrayAt: number): Uint8Array => {
    const h = new Uint8Array(SECTOR);
    h.set(Uint8Array.from('EFI PART', (c) => c.charCodeAt(0)));
    put32(h, 8, 0x00010000);
    put32(h, 12, 92);
    put64(h, 24, own);
    put64(h, 32, other);
    put64(h, 40, 34);
    put64(h, 48, sectors - 34);
    h.set(guidBytes(options.diskGuid), 56);
    put64(h, 72, arrayAt);
    put32(h, 80, ENTRIES);
    put32(h, 84, 128);
    put32(h, 88, crc32(array));
    put32(h, 16, crc32(h.subarray(0, 92)));
    return h;
  };
  out.set(header(1, sectors - 1, 2), SECTOR);
  out.set(array, 2 * SECTOR);
  out.set(array, (sectors - 33) * SECTOR);
  out.set(header(sectors - 1, 1, sectors - 33), (sectors - 1) * SECTOR);
  return out;
}

/** A disk image with one active part under a plain master boot record: UEFI 2.10 §5.2.1. */
export function composeMbrDisk(options: {
  bytes: number;
  start: number;
  type: number;
  content: Uint8Array;
  bootCode: Uint8Array;
}): Uint8Array {
  const out = new Uint8Array(options.bytes);
  out.set(options.bootCode.subarray(0, 440));
  put32(out, 440, 0x5a42544d);
  mbrEntry(out, 0, true, options.type, options.start / SECTOR, options.content.length / SECTOR);
  put16(out, 510, 0xaa55);
  out.set(options.content, options.start);
  return out;
}
