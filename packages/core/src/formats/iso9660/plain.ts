import { put16, put32, putText } from '../put';
import { DESCRIPTOR, FIRST_DESCRIPTOR, ISO_MARK, ISO_SECTOR as SECTOR } from './layout';
import { both32, isoRecord, primaryDescriptor } from './write';

const PATHS_L = 18;
const PATHS_M = 19;
const ROOT = 20;
const FIRST_FILE = 21;

/** What the root says of the names that follow it: they are there in full (SUSP 1.12 §5.3, RRIP 1.12 §4.1). */
const SHARED = [0x53, 0x50, 7, 1, 0xbe, 0xef, 0];
/** A name in full (RRIP 1.12 §4.1.4). */
const named = (name: string): number[] => [
  0x4e,
  0x4d,
  5 + name.length,
  1,
  0,
  ...new TextEncoder().encode(name),
];
/** Who may read it: everybody, and nobody writes (RRIP 1.12 §4.1.1). */
function mode(value: number): number[] {
  const out = new Uint8Array(36);
  out.set([0x50, 0x58, 36, 1]);
  both32(out, 4, value);
  both32(out, 12, 1);
  return [...out];
}
const FOLDER = 0o040555;
const FILE = 0o100444;

/** A name of eight capitals and three, which every reader takes (ECMA-119 §7.5.1, level 1). */
const short = (i: number): string => `FILE${String(i + 1).padStart(4, '0')}.;1`;

/**
 * A small optical volume with a few files in its root, their names in full beside short ones. Source: ECMA-119 §8.4, §9.1, §9.4;
 * SUSP 1.12, RRIP 1.12. Throws RangeError where the names do not fit one sector of the root.
 */
export function plainIso(label: string, files: readonly { name: string; bytes: Uint8Array }[]): Uint8Array {
  let next = FIRST_FILE;
  const placed = files.map((f) => {
    const at = next;
    next += Math.max(1, Math.ceil(f.bytes.length / SECTOR));
    return { ...f, at };
  });
  const total = next;
  const out = new Uint8Array(total * SECTOR);
  primaryDescriptor(out, { label, sectors: total, pathsL: PATHS_L, pathsM: PATHS_M, root: ROOT });
  const end = out.subarray((FIRST_DESCRIPTOR + 1) * SECTOR, (FIRST_DESCRIPTOR + 2) * SECTOR);
  end[0] = DESCRIPTOR.end;
  putText(end, 1, ISO_MARK);
  end[6] = 1;
  const low = out.subarray(PATHS_L * SECTOR);
  low[0] = 1;
  put32(low, 2, ROOT);
  put16(low, 6, 1);
  out.set([1, 0, 0, 0, 0, ROOT, 0, 1], PATHS_M * SECTOR);
  const records = [
    isoRecord('\0', ROOT, SECTOR, true, [...SHARED, ...mode(FOLDER)]),
    isoRecord('\x01', ROOT, SECTOR, true, mode(FOLDER)),
    ...placed.map((f, i) =>
      isoRecord(short(i), f.at, f.bytes.length, false, [...mode(FILE), ...named(f.name)]),
    ),
  ];
  if (records.reduce((sum, r) => sum + r.length, 0) > SECTOR)
    throw new RangeError('more names than one sector holds');
  let at = ROOT * SECTOR;
  for (const r of records) {
    out.set(r, at);
    at += r.length;
  }
  for (const f of placed) out.set(f.bytes, f.at * SECTOR);
  return out;
}
