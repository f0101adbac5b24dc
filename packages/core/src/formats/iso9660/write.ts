import { put16, put32, putText } from '../put';
import { CATALOGUE_ENTRY, CATALOGUE, SECTION_HEADER } from '../eltorito';
import {
  DESCRIPTOR,
  EL_TORITO,
  FIRST_DESCRIPTOR,
  ISO_MARK,
  ISO_SECTOR as SECTOR,
  PRIMARY,
  RECORD,
  RECORD_FLAG,
} from './layout';

/** A number of 16 bits in both orders (ECMA-119 §7.2.3). */
export const both16 = (b: Uint8Array, o: number, v: number): void => {
  put16(b, o, v);
  b[o + 2] = (v >>> 8) & 0xff;
  b[o + 3] = v & 0xff;
};
/** A number of 32 bits in both orders (ECMA-119 §7.3.3). */
export const both32 = (b: Uint8Array, o: number, v: number): void => {
  put32(b, o, v);
  b.set([(v >>> 24) & 0xff, (v >>> 16) & 0xff, (v >>> 8) & 0xff, v & 0xff], o + 4);
};

/** A line of a directory (ECMA-119 §9.1); `more` is what stands behind it for other standards, an even number of bytes. */
export function isoRecord(
  name: string,
  sector: number,
  bytes: number,
  directory: boolean,
  more: readonly number[] = [],
): Uint8Array {
  const own = RECORD.name + name.length + (name.length % 2 === 0 ? 1 : 0);
  const out = new Uint8Array(own + more.length + (more.length % 2));
  out[0] = out.length;
  both32(out, RECORD.sector, sector);
  both32(out, RECORD.bytes, bytes);
  out.set([126, 3, 1, 12, 0, 0, 0], RECORD.date);
  out[RECORD.flags] = directory ? RECORD_FLAG.directory : 0;
  both16(out, RECORD.sequence, 1);
  out[RECORD.nameLength] = name.length;
  for (let i = 0; i < name.length; i += 1) out[RECORD.name + i] = name.charCodeAt(i);
  out.set(more, own);
  return out;
}

/** Fields of text that nothing is said in: spaces (ECMA-119 §8.4). */
const EMPTY_TEXTS = [
  [PRIMARY.system, 32],
  [190, 128],
  [318, 128],
  [446, 128],
  [574, 128],
  [702, 37],
  [739, 37],
  [776, 37],
] as const;

/** The primary descriptor of a volume with one folder (ECMA-119 §8.4); places are sectors. A date that is not said is zeros. */
export function primaryDescriptor(
  out: Uint8Array,
  of: { label: string; sectors: number; pathsL: number; pathsM: number; root: number; created?: string },
): void {
  const pvd = out.subarray(FIRST_DESCRIPTOR * SECTOR, (FIRST_DESCRIPTOR + 1) * SECTOR);
  pvd[0] = DESCRIPTOR.primary;
  putText(pvd, 1, ISO_MARK);
  pvd[6] = 1;
  for (const [at, length] of EMPTY_TEXTS) putText(pvd, at, '', length);
  putText(pvd, PRIMARY.label, of.label, 32);
  both32(pvd, PRIMARY.sectors, of.sectors);
  both16(pvd, PRIMARY.setSize, 1);
  both16(pvd, PRIMARY.sequence, 1);
  both16(pvd, PRIMARY.blockBytes, SECTOR);
  both32(pvd, PRIMARY.pathTableBytes, 10);
  put32(pvd, PRIMARY.pathTableL, of.pathsL);
  pvd.set([0, 0, 0, of.pathsM], PRIMARY.pathTableM);
  pvd.set(isoRecord('\0', of.root, SECTOR, true), PRIMARY.root);
  for (const at of [PRIMARY.created, PRIMARY.changed, 847, 864]) putText(pvd, at, '0000000000000000', 16);
  if (of.created !== undefined) putText(pvd, PRIMARY.created, of.created, 16);
  pvd[PRIMARY.structureVersion] = 1;
}

/**
 * A small optical volume with files in its root and a boot catalogue for BIOS (no emulation) and UEFI.
 * Source: ECMA-119 §8.4, §9.1, §9.4; El Torito specification 1.0 §2; UEFI 2.10 §13.3.2.1. The volume is not hybrid:
 * sector 0 is empty, so BIOS starts it from optical media only.
 */
export function composeIso(options: {
  label: string;
  biosImage: Uint8Array;
  uefiImage: Uint8Array;
  files: readonly { name: string; bytes: Uint8Array }[];
}): Uint8Array {
  const CATALOGUE_SECTOR = 20;
  const PATHS_L = 21;
  const PATHS_M = 22;
  const ROOT = 23;
  let next = 24;
  const place = (bytes: Uint8Array): { sector: number; bytes: Uint8Array } => {
    const at = next;
    next += Math.max(1, Math.ceil(bytes.length / SECTOR));
    return { sector: at, bytes };
  };
  const bios = place(options.biosImage);
  const uefi = place(options.uefiImage);
  const files = options.files.map((f) => ({ name: f.name, ...place(f.bytes) }));
  const total = next + 16;
  const out = new Uint8Array(total * SECTOR);

  primaryDescriptor(out, {
    label: options.label,
    sectors: total,
    pathsL: PATHS_L,
    pathsM: PATHS_M,
    root: ROOT,
    created: '2026030112000000',
  });

  const boot = out.subarray(17 * SECTOR, 18 * SECTOR);
  putText(boot, 1, ISO_MARK);
  boot[6] = 1;
  for (const [i, c] of Array.from(EL_TORITO.name).entries()) boot[EL_TORITO.nameAt + i] = c.charCodeAt(0);
  put32(boot, EL_TORITO.catalogueAt, CATALOGUE_SECTOR);
  const end = out.subarray(18 * SECTOR, 19 * SECTOR);
  end[0] = DESCRIPTOR.end;
  putText(end, 1, ISO_MARK);
  end[6] = 1;

  const cat = out.subarray(CATALOGUE_SECTOR * SECTOR, (CATALOGUE_SECTOR + 1) * SECTOR);
  cat[0] = CATALOGUE.header;
  put16(cat, CATALOGUE.keyAt, CATALOGUE.key);
  let sum = 0;
  for (let o = 0; o < CATALOGUE.entryBytes; o += 2) sum += (cat[o] ?? 0) | ((cat[o + 1] ?? 0) << 8);
  put16(cat, CATALOGUE.sumAt, -sum & 0xffff);
  const entry = (slot: number, loadSectors: number, sector: number): void => {
    const at = slot * CATALOGUE.entryBytes;
    cat[at] = CATALOGUE_ENTRY.bootable;
    put16(cat, at + CATALOGUE_ENTRY.loadSectors, loadSectors);
    put32(cat, at + CATALOGUE_ENTRY.sector, sector);
  };
  entry(1, 4, bios.sector);
  cat.set([SECTION_HEADER.last, CATALOGUE.platformUefi, 1, 0], 2 * CATALOGUE.entryBytes);
  entry(3, Math.min(0xffff, Math.ceil(options.uefiImage.length / 512)), uefi.sector);

  for (const [at, big] of [
    [PATHS_L, false],
    [PATHS_M, true],
  ] as const) {
    const t = out.subarray(at * SECTOR, (at + 1) * SECTOR);
    t[0] = 1;
    if (big) t.set([0, 0, 0, ROOT, 0, 1], 2);
    else {
      put32(t, 2, ROOT);
      put16(t, 6, 1);
    }
  }
  const root = out.subarray(ROOT * SECTOR, (ROOT + 1) * SECTOR);
  let o = 0;
  const records = [isoRecord('\0', ROOT, SECTOR, true), isoRecord('\x01', ROOT, SECTOR, true)];
  for (const f of [...files].sort((a, b) => (a.name < b.name ? -1 : 1))) {
    records.push(isoRecord(`${f.name};1`, f.sector, f.bytes.length, false));
  }
  for (const r of records) {
    root.set(r, o);
    o += r.length;
  }
  for (const f of [bios, uefi, ...files]) out.set(f.bytes, f.sector * SECTOR);
  return out;
}
