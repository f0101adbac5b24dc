/**
 * Room after making, foretold and made: mkfs of every kind on sparse files, read by its own tools and, as root, mounted.
 * ext4 and FAT to the byte, the others within 0.5 % of the truth. A few sizes in every run; 1 to 18 000 GiB in
 * `npm run proof space`, whose largest files lie in memory because few file systems take a file of that size.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { fatBitsOf } from '@zb/core/layout/space/fat';
import { spaceIn, type MadeFilesystem } from '@zb/core/layout/space/spaceIn';
import { blank, run, scratch } from './files';

jest.setTimeout(900_000);
const ALL = process.env.ZB_SPACE === 'all';
const GIB = 1024 ** 3;
const SIZES = ALL
  ? [
      1, 1.37, 2.5, 3, 7.9, 8, 16, 31.7, 33, 49.9, 50.1, 100, 447.1, 931.5, 2000, 4095, 4097, 9000, 16_384.5,
      18_000,
    ]
  : [1, 3, 37.3, 447.1];
/** As far as each is made at all: FAT ends at 2 TiB, and the tools for F2FS at 16 TiB. */
const MOST: Partial<Record<MadeFilesystem, number>> = { vfat: 2000, f2fs: 9000 };
const SMALL = [0.002, 0.0039, 0.01, 0.05, 0.2, 0.2501, 0.3, 0.45, 0.6];
const room = scratch();
const large = existsSync('/dev/shm') ? `/dev/shm/zb-space-${process.pid}.img` : room.path('large.img');
afterAll(() => {
  room.clear();
  rmSync(large, { force: true });
});

interface Truth {
  total?: number;
  free: number;
  toUsers?: number;
}
const number = (text: string, of: RegExp): number => {
  const found = of.exec(text)?.[1];
  if (found === undefined) throw new Error(`${String(of)} is not in: ${text}`);
  return Number(found);
};
const root = process.getuid?.() === 0;

/** What df says of it mounted; undefined where nobody may mount it here. */
function mounted(file: string): Truth | undefined {
  if (!root) return undefined;
  const at = room.path('mounted');
  mkdirSync(at, { recursive: true });
  const loop = file.startsWith('/dev/loop') ? [] : ['-o', 'loop'];
  const done = spawnSync('mount', [...loop, file, at], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`mount: ${done.stderr}`);
  try {
    const [, line = ''] = run('df', ['-B1', '--output=size,avail', at]).split('\n');
    const [total = 0, free = 0] = line.trim().split(/\s+/).map(Number);
    return { total, free };
  } finally {
    run('umount', [at]);
  }
}

const TRUTH: Record<
  Exclude<MadeFilesystem, 'swap'>,
  (file: string, bytes: number, sector: number) => Truth
> = {
  ext4: (file) => {
    run('mkfs.ext4', ['-q', '-F', file]);
    const text = run('dumpe2fs', ['-h', file]);
    const of = (name: string): number => number(text, new RegExp(`^${name}:\\s+(\\d+)`, 'm'));
    const block = of('Block size');
    return {
      total: (of('Block count') - of('Overhead clusters')) * block,
      free: of('Free blocks') * block,
      toUsers: (of('Free blocks') - of('Reserved block count')) * block,
    };
  },
  vfat: (file, bytes, sector) => {
    // As it is written to be made.
    run('mkfs.vfat', ['-F', String(fatBitsOf(bytes, sector)), file]);
    const text = run('fsck.vfat', ['-nv', file]);
    const cluster = number(text, /(\d+) bytes per cluster/);
    const all = number(text, /\/(\d+) clusters/);
    return { total: all * cluster, free: (all - number(text, /(\d+)\/\d+ clusters/)) * cluster };
  },
  exfat: (file) => {
    run('mkfs.exfat', [file]);
    const text = run('dump.exfat', [file]);
    const cluster = number(text, /Cluster size:\s+(\d+)/);
    return {
      total: number(text, /Total Clusters:\s+(\d+)/) * cluster,
      free: number(text, /Free Clusters:\s+(\d+)/) * cluster,
    };
  },
  f2fs: (file) => {
    run('mkfs.f2fs', ['-q', file]);
    return {
      free: number(run('dump.f2fs', ['-d', '1', file]), /user_block_count\s+\[0x\s*\w+ : (\d+)\]/) * 4096,
    };
  },
  ntfs: (file) => {
    run('mkfs.ntfs', ['-q', '-F', '-f', file]);
    const text = run('ntfsinfo', ['-m', file]);
    const cluster = number(text, /Cluster Size: (\d+)/);
    return {
      total: number(text, /Volume Size in Clusters: (\d+)/) * cluster,
      free: number(text, /Free Clusters: (\d+)/) * cluster,
    };
  },
  xfs: (file, _, sector) => {
    run('mkfs.xfs', ['-q', '-f', file]);
    const text = run('xfs_db', ['-r', '-c', 'sb 0', '-c', 'p dblocks logblocks blocksize fdblocks', file]);
    const of = (name: string): number => number(text, new RegExp(`${name} = (\\d+)`));
    const block = of('blocksize');
    // What a mounted one keeps for its trees is not in its superblock: that is foretold by size, and seen as root only.
    const kept = spaceIn('xfs', of('dblocks') * block, sector)?.takes.find(
      (t) => t.what === 'kept for its trees',
    );
    return (
      mounted(file) ?? {
        total: (of('dblocks') - of('logblocks')) * block,
        free: of('fdblocks') * block - (kept?.bytes ?? 0),
      }
    );
  },
  btrfs: (file) => {
    const text = run('mkfs.btrfs', ['-f', file]);
    const unit = { KiB: 1024, MiB: 1024 ** 2, GiB: GIB };
    const of = (name: string): number => {
      const [, size = '', u = 'MiB'] =
        new RegExp(`${name}:\\s+DUP\\s+([\\d.]+)(KiB|MiB|GiB)`).exec(text) ?? [];
      return Number(size) * unit[u as keyof typeof unit];
    };
    const total = number(run('btrfs', ['inspect-internal', 'dump-super', file]), /total_bytes\s+(\d+)/);
    return mounted(file) ?? { total, free: total - 2 * (of('Metadata') + of('System')) - 1024 ** 2 };
  },
};
const EXACT = new Set<MadeFilesystem>(['ext4', 'vfat']);
const kinds = Object.keys(TRUTH) as (keyof typeof TRUTH)[];
/** Sizes around the least FAT32 of large sectors, and where the standard's cluster sizes change. */
const AROUND = [0.24, 0.2491, 0.2501, 0.2515, 0.26, 2.02, 2.04];
const cases = [512, 4096].flatMap((sector) =>
  kinds.flatMap((kind) =>
    [
      ...(EXACT.has(kind) ? SMALL : []),
      ...(kind === 'vfat' ? AROUND : []),
      ...SIZES.filter((s) => sector === 512 || (s <= 500 && (ALL || s <= 40))),
    ]
      .filter((s) => s <= (MOST[kind] ?? Infinity))
      .map((size) => [kind, size, sector] as const),
  ),
);

/** A drive of so many bytes: a file, or where its sectors are larger than usual a loop device over it. */
function drive(file: string, bytes: number, sector: number): { path: string; free: () => void } {
  blank(file, bytes);
  if (sector === 512) return { path: file, free: () => undefined };
  const path = run('losetup', ['-f', '--show', '--sector-size', String(sector), file]).trim();
  return { path, free: () => run('losetup', ['-d', path]) };
}

it.each(cases)(
  '%s in %s GiB, in sectors of %i bytes, has the room that was foretold',
  (kind, size, sector) => {
    const bytes = Math.floor((size * GIB) / 4096) * 4096;
    const file = size > 2000 ? large : room.path('made.img');
    rmSync(file, { force: true });
    const made = drive(file, bytes, sector);
    let truth: Truth;
    try {
      truth = TRUTH[kind](made.path, bytes, sector);
    } finally {
      made.free();
      rmSync(file, { force: true });
    }
    const told = spaceIn(kind, bytes, sector);
    for (const [what, value] of Object.entries(truth) as [keyof Truth, number][]) {
      const ours = told?.[what] ?? 0;
      const off = Math.abs(ours - value) / value;
      // The administrator's share is scaled anew each time mke2fs makes its groups smaller, as it does on small drives of large sectors.
      const exact = EXACT.has(kind) && !(what === 'toUsers' && sector > 512);
      expect({ what, ours, value, near: exact ? ours === value : off <= 0.005 }).toEqual({
        what,
        ours,
        value,
        near: true,
      });
    }
  },
);

it('swap is what mkswap leaves', () => {
  const bytes = 37 * 1024 ** 2 + 4096;
  const text = run('mkswap', [blank(room.path('swap.img'), bytes)]);
  expect(spaceIn('swap', bytes)?.free).toBe(number(text, /\((\d+) bytes\)/));
});
