import { put16, put32 } from '../put';
import { ACTIVE, END_MARK, MBR, MBR_ENTRY } from './layout';

const SECTOR = 512;

/** Puts an entry into sector 0; its cylinders and heads say “beyond what CHS can tell” (UEFI 2.10 §5.2.1). */
export function putMbrEntry(
  out: Uint8Array,
  slot: number,
  active: boolean,
  type: number,
  start: number,
  sectors: number,
): void {
  const at = MBR.table + MBR.entryBytes * slot;
  out[at + MBR_ENTRY.flag] = active ? ACTIVE : 0;
  out.set([0xfe, 0xff, 0xff], at + MBR_ENTRY.firstChs);
  out[at + MBR_ENTRY.type] = type;
  out.set([0xfe, 0xff, 0xff], at + MBR_ENTRY.lastChs);
  put32(out, at + MBR_ENTRY.start, start);
  put32(out, at + MBR_ENTRY.sectors, sectors);
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
  out.set(options.bootCode.subarray(0, MBR.codeBytes));
  put32(out, MBR.diskSignature, 0x5a42544d);
  putMbrEntry(out, 0, true, options.type, options.start / SECTOR, options.content.length / SECTOR);
  put16(out, MBR.endMark, END_MARK);
  out.set(options.content, options.start);
  return out;
}
