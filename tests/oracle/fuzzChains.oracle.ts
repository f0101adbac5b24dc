/**
 * Damaged chains: bytes changed in file systems, configurations, loader entries, loaders and kernels, and images cut
 * anywhere. None may throw, none may be read without bound, and none whose kernel was destroyed may be said to start. 20
 * images in every run, 6 000 in `npm run proof fuzz`; the seed of the damage is told where it fails.
 */
import { readFileSync } from 'node:fs';
import { bytesSource } from '@zb/core/formats/source';
import { readDisk } from '@zb/core/starting/inspect';
import type { Outcome } from '@zb/core/model/inspection';
import { Damaged, random, seedOfRun } from './damage';
import { allChains } from './makeChains';

jest.setTimeout(900_000);
const RUNS = process.env.ZB_FUZZ === 'all' ? 6_000 : 20;
const KIB = 1024;
/** More than following the largest of these asks for, several times. */
const MOST = 96 * KIB * KIB;

const WHOLE =
  /^(GRUB on FAT: functions|GRUB on ext4: whole|GRUB on ext2: whole|shim.*whole|loader entries: whole|BIOS GRUB on ext4: whole|SYSLINUX: a drawn menu, whole|ISOLINUX: whole)/;

/** Where each of these texts stands: configurations and entries, whatever file system they are on. */
const TEXTS = ['menuentry last', 'LABEL last', 'title Last', 'search.fs_uuid', 'function pick'];

interface Seed {
  name: string;
  bytes: Uint8Array;
  hot: [number, number][];
  kernel: number;
  firmware: string;
  attached: Outcome['attached'];
}

const rowOf = (rows: readonly Outcome[], s: Pick<Seed, 'firmware' | 'attached'>): Outcome | undefined =>
  rows.find((o) => o.firmware === s.firmware && o.attached === s.attached);

async function seeds(): Promise<Seed[]> {
  const out: Seed[] = [];
  for (const { name, path, firmwares, attached } of allChains()) {
    if (!WHOLE.test(name)) continue;
    const bytes = new Uint8Array(readFileSync(path));
    const [firmware = ''] = firmwares;
    const { outcomes, parts } = await readDisk(bytesSource(bytes));
    const row = rowOf(outcomes, { firmware, attached });
    const kernel = row?.chain.find((r) => r.rung === 'kernel')?.evidence[0]?.offset ?? -1;
    const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
    const texts = TEXTS.flatMap((t): [number, number][] => {
      const at = buffer.indexOf(t);
      return at < 0 ? [] : [[Math.max(0, at - 64), 400]];
    });
    const volumes = parts.map((p): [number, number] => [p.start, 96 * KIB]);
    const hot: [number, number][] = [
      [0, 2 * KIB],
      [32 * KIB, 24 * KIB],
      ...volumes,
      ...texts,
      ...texts,
      [kernel, 700],
    ];
    expect({ name, starts: row?.starts, kernel: kernel > 0 }).toEqual({ name, starts: 'yes', kernel: true });
    out.push({ name, bytes, hot, kernel, firmware, attached });
  }
  return out;
}

it(`${RUNS} damaged chains: none throws, hangs, or starts a kernel that is destroyed`, async () => {
  const all = await seeds();
  expect(all.length).toBe(8);
  const chosen = seedOfRun();
  const dice = random(chosen);
  let destroyed = 0;
  let said = 0;
  for (let n = 0; n < RUNS; n += 1) {
    const s = all[n % all.length];
    if (!s) throw new Error('no seed');
    const changes = new Map<number, number>();
    for (let i = dice(12); i > 0; i -= 1) {
      const [start, length] = s.hot[dice(s.hot.length)] ?? [0, 512];
      changes.set(start + dice(length), dice(3) === 0 ? 0xff : dice(256));
    }
    const kill = dice(4) === 0;
    // The mark of the kernel's header is gone, whatever else of it is left.
    for (let i = 0; kill && i < 1024; i += 1) changes.set(s.kernel + i, dice(2) ? 0 : dice(128));
    const size = dice(4) === 0 ? dice(s.bytes.length + 1) : s.bytes.length;
    const source = new Damaged(s.bytes, changes, size);
    const where = `seed ${chosen}, image ${n} (${s.name})`;
    const seen = await readDisk(source).catch((error: unknown) => {
      throw new Error(`${where}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    });
    if (source.asked > MOST) throw new Error(`${where}: ${source.asked} bytes were read`);
    const yes = rowOf(seen.outcomes, s)?.starts === 'yes';
    if (yes) said += 1;
    if (kill || size <= s.kernel) {
      destroyed += 1;
      if (yes) throw new Error(`${where}: said to start though its kernel is destroyed`);
    }
  }
  expect(destroyed).toBeGreaterThan(RUNS / 8);
  expect(said).toBeGreaterThan(RUNS / 20);
});
