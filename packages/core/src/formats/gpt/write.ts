import { crc32 } from '../crc32';
import { guidBytes } from './read';
import { put16, put32, put64 } from '../put';
import { MBR, END_MARK, MBR_ENTRY, PROTECTIVE } from '../mbr/layout';
import { putMbrEntry } from '../mbr/write';
import { GPT_ENTRY, GPT_HEADER, GPT_SIGNATURE } from './layout';

/** A part to be put into a composed table: where it begins (bytes) and what it holds. */
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

/** A disk image with a protective record and both GPT copies: UEFI 2.10 §5.2.3, §5.3.2, §5.3.3. */
export function composeGptDisk(options: {
  bytes: number;
  diskGuid: string;
  parts: readonly ComposedPart[];
  bootCode?: Uint8Array;
}): Uint8Array {
  const out = new Uint8Array(options.bytes);
  const sectors = options.bytes / SECTOR;
  if (options.bootCode) out.set(options.bootCode.subarray(0, MBR.codeBytes));
  putMbrEntry(out, 0, false, PROTECTIVE, 1, sectors - 1);
  out.set([0x00, 0x02, 0x00], MBR.table + MBR_ENTRY.firstChs);
  put16(out, MBR.endMark, END_MARK);

  const array = new Uint8Array(ENTRIES * GPT_ENTRY.bytes);
  options.parts.forEach((part, i) => {
    const o = i * GPT_ENTRY.bytes;
    array.set(guidBytes(part.typeGuid), o + GPT_ENTRY.type);
    array.set(guidBytes(part.guid), o + GPT_ENTRY.guid);
    put64(array, o + GPT_ENTRY.first, part.start / SECTOR);
    put64(array, o + GPT_ENTRY.last, (part.start + part.content.length) / SECTOR - 1);
    for (let c = 0; c < part.name.length; c += 1)
      put16(array, o + GPT_ENTRY.name + 2 * c, part.name.charCodeAt(c));
    out.set(part.content, part.start);
  });
  const header = (own: number, other: number, arrayAt: number): Uint8Array => {
    const h = new Uint8Array(SECTOR);
    h.set(Uint8Array.from(GPT_SIGNATURE, (c) => c.charCodeAt(0)));
    put32(h, GPT_HEADER.revision, 0x00010000);
    put32(h, GPT_HEADER.headerBytes, GPT_HEADER.bytes);
    put64(h, GPT_HEADER.own, own);
    put64(h, GPT_HEADER.alternate, other);
    put64(h, GPT_HEADER.firstUsable, 34);
    put64(h, GPT_HEADER.lastUsable, sectors - 34);
    h.set(guidBytes(options.diskGuid), GPT_HEADER.diskGuid);
    put64(h, GPT_HEADER.array, arrayAt);
    put32(h, GPT_HEADER.count, ENTRIES);
    put32(h, GPT_HEADER.entryBytes, GPT_ENTRY.bytes);
    put32(h, GPT_HEADER.arrayCrc, crc32(array));
    put32(h, GPT_HEADER.crc, crc32(h.subarray(0, GPT_HEADER.bytes)));
    return h;
  };
  out.set(header(1, sectors - 1, 2), SECTOR);
  out.set(array, 2 * SECTOR);
  out.set(array, (sectors - 33) * SECTOR);
  out.set(header(sectors - 1, 1, sectors - 33), (sectors - 1) * SECTOR);
  return out;
}
