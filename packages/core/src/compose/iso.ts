import { put16, put32, putText } from './bytes';

const SECTOR = 2048;

const both16 = (b: Uint8Array, o: number, v: number): void => {
  put16(b, o, v);
  b[o + 2] = (v >>> 8) & 0xff;
  b[o + 3] = v & 0xff;
};
const both32 = (b: Uint8Array, o: number, v: number): void => {
  put32(b, o, v);
  b.set([(v >>> 24) & 0xff, (v >>> 16) & 0xff, (v >>> 8) & 0xff, v & 0xff], o + 4);
};

function record(name: string, sector: number, bytes: number, directory: boolean): Uint8Array {
  const out = new Uint8Array(33 + name.length + (name.length % 2 === 0 ? 1 : 0));
  out[0] = out.length;
  both32(out, 2, sector);
  both32(out, 10, bytes);
  out.set([126, 3, 1, 12, 0, 0, 0], 18);
  out[25] = directory ? 2 : 0;
  both16(out, 28, 1);
  out[32] = name.length;
  for (let i = 0; i < name.length; i += 1) out[33 + i] = name.charCodeAt(i);
  return out;
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
  const CATALOGUE = 20;
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

  const pvd = out.subarray(16 * SECTOR, 17 * SECTOR);
  pvd[0] = 1;
  putText(pvd, 1, 'CD001');
  pvd[6] = 1;
  putText(pvd, 8, '', 32);
  putText(pvd, 40, options.label, 32);
  both32(pvd, 80, total);
  both16(pvd, 120, 1);
  both16(pvd, 124, 1);
  both16(pvd, 128, SECTOR);
  both32(pvd, 132, 10);
  put32(pvd, 140, PATHS_L);
  pvd.set([0, 0, 0, PATHS_M], 148);
  pvd.set(record('\0', ROOT, SECTOR, true), 156);
  for (const [o, n] of [
    [190, 128],
    [318, 128],
    [446, 128],
    [574, 128],
    [702, 37],
    [739, 37],
    [776, 37],
  ] as const)
    putText(pvd, o, '', n);
  for (const o of [813, 830, 847, 864]) putText(pvd, o, '0000000000000000', 16);
  putText(pvd, 813, '2026030112000000', 16);
  pvd[881] = 1;

  const boot = out.subarray(17 * SECTOR, 18 * SECTOR);
  putText(boot, 1, 'CD001');
  boot[6] = 1;
  for (const [i, c] of Array.from('EL TORITO SPECIFICATION').entries()) boot[7 + i] = c.charCodeAt(0);
  put32(boot, 71, CATALOGUE);
  const end = out.subarray(18 * SECTOR, 19 * SECTOR);
  end[0] = 255;
  putText(end, 1, 'CD001');
  end[6] = 1;

  const cat = out.subarray(CATALOGUE * SECTOR, (CATALOGUE + 1) * SECTOR);
  cat[0] = 1;
  put16(cat, 30, 0xaa55);
  let sum = 0;
  for (let o = 0; o < 32; o += 2) sum += (cat[o] ?? 0) | ((cat[o + 1] ?? 0) << 8);
  put16(cat, 28, -sum & 0xffff);
  cat[32] = 0x88;
  put16(cat, 38, 4);
  put32(cat, 40, bios.sector);
  cat.set([0x91, 0xef, 1, 0], 64);
  cat[96] = 0x88;
  put16(cat, 102, Math.min(0xffff, Math.ceil(options.uefiImage.length / 512)));
  put32(cat, 104, uefi.sector);

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
  const records = [record('\0', ROOT, SECTOR, true), record('\x01', ROOT, SECTOR, true)];
  for (const f of [...files].sort((a, b) => (a.name < b.name ? -1 : 1))) {
    records.push(record(`${f.name};1`, f.sector, f.bytes.length, false));
  }
  for (const r of records) {
    root.set(r, o);
    o += r.length;
  }
  for (const f of [bios, uefi, ...files]) out.set(f.bytes, f.sector * SECTOR);
  return out;
}
