/**
 * 1 000 damaged images in every run, 20 000 in `npm run proof fuzz`: bytes changed in tables, boot records, directories and
 * loaders, and files cut short anywhere. None may throw, none may be read without bound, and none whose loader was
 * destroyed may be said to start. The images are made by our composer and by xorriso; the seed of the damage is told where it fails.
 */
import { readFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { composeFat } from '@zb/core/formats/fat/write';
import { composeMbrDisk } from '@zb/core/formats/mbr/write';
import { composeGptDisk } from '@zb/core/formats/gpt/write';
import { loadBootCode, mbrBootCode, sayKernel } from '@zb/core/demo/bootCode';
import { composeIso } from '@zb/core/formats/iso9660/write';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { ESP_GUID } from '@zb/core/formats/gpt/layout';
import { readDisk } from '@zb/core/starting/inspect';
import { bytesSource } from '@zb/core/formats/source';
import { Damaged, random, seedOfRun } from './damage';
import { run, scratch } from './files';

jest.setTimeout(400_000);
const RUNS = process.env.ZB_FUZZ === 'all' ? 20_000 : 1_000;
const KIB = 1024;
const MIB = 1024 * KIB;
/** More than any sound image of this size asks for; a reader without a bound would pass it at once. */
const MOST = 48 * MIB;
const room = scratch();
afterAll(() => room.clear());

interface Seed {
  name: string;
  bytes: Uint8Array;
  /** Places worth hitting, and where the loaders are. */
  hot: [number, number][];
  loaders: { at: number; bytes: number }[];
}

const loader = efiLoader('fuzz');
const fat = (bytes = MIB, boot = false): Uint8Array =>
  composeFat({
    bytes,
    label: 'FUZZ',
    files: [
      { path: '/EFI/BOOT/BOOTX64.EFI', bytes: loader },
      { path: '/SYSTEM/FILE.BIN', bytes: new Uint8Array(9000).fill(7) },
    ],
    ...(boot ? { bootCode: loadBootCode(512 * 2 + 1), reserved: sayKernel('x') } : {}),
  });

async function seed(name: string, bytes: Uint8Array, hot: [number, number][]): Promise<Seed> {
  const seen = await readDisk(bytesSource(bytes));
  const loaders = seen.loaders.map((l) => ({ at: l.offset, bytes: l.bytes }));
  return { name, bytes, hot: [...hot, ...loaders.map((l): [number, number] => [l.at, l.bytes])], loaders };
}

function optical(): Uint8Array {
  const tree = room.path('tree');
  mkdirSync(`${tree}/deep/deeper`, { recursive: true });
  writeFileSync(`${tree}/deep/deeper/a file with a long name.txt`, 'x');
  writeFileSync(`${tree}/efi.img`, fat(512 * KIB));
  const to = room.path('x.iso');
  run('xorriso', ['-as', 'mkisofs', '-r', '-J', '-o', to, '-e', 'efi.img', '-no-emul-boot', tree]);
  return new Uint8Array(readFileSync(to));
}

it(`${RUNS} damaged images: none throws, hangs, or starts from a destroyed loader`, async () => {
  const gpt = composeGptDisk({
    bytes: 2 * MIB + 64 * KIB,
    diskGuid: '00000000-0000-4000-8000-000000000001',
    parts: [
      {
        start: MIB,
        content: fat(),
        typeGuid: ESP_GUID,
        guid: '00000000-0000-4000-8000-000000000002',
        name: 'esp',
      },
    ],
  });
  const mbr = composeMbrDisk({
    bytes: 2 * MIB,
    start: 512 * KIB,
    type: 0x0e,
    content: fat(MIB, true),
    bootCode: mbrBootCode(),
  });
  const iso = composeIso({
    label: 'FUZZ',
    files: [{ name: 'README.TXT', bytes: new Uint8Array(100).fill(65) }],
    biosImage: sayKernel('x'),
    uefiImage: fat(512 * KIB),
  });
  const seeds = [
    await seed('GPT', gpt, [
      [0, 20 * KIB],
      [MIB, 24 * KIB],
      [gpt.length - 17 * KIB, 17 * KIB],
    ]),
    await seed('MBR', mbr, [
      [0, 512],
      [512 * KIB, 24 * KIB],
    ]),
    await seed('FAT', fat(), [[0, 24 * KIB]]),
    await seed('ISO', iso, [[32 * KIB, 24 * KIB]]),
    await seed('optical', optical(), [[32 * KIB, 64 * KIB]]),
  ];
  const chosen = seedOfRun();
  const dice = random(chosen);
  let destroyed = 0;
  let said = 0;
  for (let n = 0; n < RUNS; n += 1) {
    const s = seeds[n % seeds.length];
    if (!s) throw new Error('no seed');
    const changes = new Map<number, number>();
    const edits = dice(24);
    for (let i = 0; i < edits; i += 1) {
      const [start, length] = s.hot[dice(s.hot.length)] ?? [0, 512];
      changes.set(start + dice(length), dice(3) === 0 ? 0xff : dice(256));
    }
    const kill = dice(4) === 0 ? s.loaders : [];
    for (const l of kill) {
      // Head or all of it: zeros, ones or noise, as lost sectors and bad writes leave them.
      const how = dice(3);
      for (let i = 0; i < Math.min(l.bytes, 1024); i += 1)
        changes.set(l.at + i, how === 0 ? 0 : how === 1 ? 0xff : dice(256));
    }
    const size = dice(3) === 0 ? dice(s.bytes.length + 1) : s.bytes.length;
    const source = new Damaged(s.bytes, changes, size);
    const where = `seed ${chosen}, image ${n} (${s.name})`;
    const seen = await readDisk(source).catch((error: unknown) => {
      throw new Error(`${where}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    });
    if (source.asked > MOST) throw new Error(`${where}: ${source.asked} bytes were read`);
    const yes = seen.outcomes.some((o) => o.firmware === 'uefi-x64' && o.starts === 'yes');
    if (yes) said += 1;
    if (kill.length > 0) {
      destroyed += 1;
      if (yes) throw new Error(`${where}: said to start though its loader is destroyed`);
    }
  }
  // The damage is neither so light nor so heavy that the claims above are empty.
  expect(destroyed).toBeGreaterThan(RUNS / 8);
  expect(said).toBeGreaterThan(RUNS / 20);
});
