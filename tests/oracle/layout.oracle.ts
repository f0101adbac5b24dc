/**
 * Layouts against the tools that write tables: random plans are laid out, the scripts run by sfdisk and sgdisk on sparse
 * files and read back by sfdisk and parted, equal to the sector. 30 plans in every run, 300 in `npm run proof layout`.
 */
import { spawn } from 'node:child_process';
import { rmSync, truncateSync, writeFileSync } from 'node:fs';
import { lay } from '@zb/core/layout/lay';
import type { Layout } from '@zb/core/layout/laid';
import { readTable } from '@zb/core/layout/read/table';
import { sfdiskScript } from '@zb/core/layout/write/sfdisk';
import { sgdiskCommands } from '@zb/core/layout/write/sgdisk';
import type { DriveThere, DriveWant, PartWant } from '@zb/core/model/layout';
import { random, seedOfRun } from './damage';
import { scratch } from './files';

jest.setTimeout(900_000);
const PLANS = process.env.ZB_LAYOUT === 'all' ? 300 : 30;
const MIB = 1024 ** 2;
const GIB = 1024 ** 3;
const room = scratch();
afterAll(() => room.clear());

/** Runs a tool and answers what it says; sgdisk waits a second after each write, so that many are run beside each other. */
const tool = (command: string, args: string[], input = ''): Promise<string> =>
  new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      env: { ...process.env, PATH: `${process.env.PATH ?? ''}:/usr/sbin:/sbin` },
    });
    let said = '';
    let complaint = '';
    child.stdout.on('data', (d: Buffer) => (said += d.toString()));
    child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
    child.on('error', reject);
    // A tool that reads nothing has ended before it is given anything.
    child.stdin.on('error', () => undefined);
    child.on('close', (code) =>
      code === 0
        ? resolve(said)
        : reject(new Error(`${command} ${args.join(' ')}: ${said}${complaint}\n${input}`)),
    );
    child.stdin.end(input);
  });
const BESIDE = 16;

/** A plan by dice: sizes from a stick to beyond what MBR can name, up to nine parts of all kinds. */
function planBy(dice: (below: number) => number): { drive: DriveThere; want: DriveWant } {
  const bytes = ([dice(5000) + 1, 1, 1, dice(64) + 2][dice(4)] ?? 1) * GIB + dice(1_000_000) * 512;
  const table = dice(2) === 0 ? 'gpt' : 'mbr';
  const uses = ['system', 'swap', '/home', '/var', 'data', 'second system'] as const;
  const wants = Array.from({ length: 1 + dice(table === 'gpt' ? 9 : 7) }, (_, i): PartWant => {
    const use = i === 0 && dice(2) === 0 ? 'start' : (uses[dice(uses.length)] ?? 'data');
    const size: PartWant['size'] =
      dice(3) === 0
        ? { kind: 'rest' }
        : dice(3) === 0
          ? { kind: 'share', share: (1 + dice(50)) / 100 }
          : { kind: 'fixed', bytes: (1 + dice(900)) * MIB + dice(3) * 12_345 };
    return {
      id: `w${i}`,
      use,
      // Names that a tool could cut, or take for more than a name.
      name: ([`part ${i}`, `a:b ${i}`, `"q" $HOME \\ ${i}`, `übung, ${i} \n#`, ''] as const)[dice(5)] ?? '',
      filesystem: use === 'swap' ? 'swap' : use === 'start' ? 'vfat' : dice(5) === 0 ? 'exfat' : 'ext4',
      mount: null,
      size,
      minimum: dice(3) === 0 ? dice(300) * MIB : null,
      active: false,
    };
  });
  const first = wants[0];
  if (table === 'mbr' && first && dice(2) === 0) first.active = true;
  return {
    drive: { name: '', bytes, sectorSize: 512, table: 'none', tableId: null, parts: [] },
    want: { table, kept: [], wants, reserve: dice(3) === 0 ? dice(20) * MIB : 0 },
  };
}

function fresh(name: string, bytes: number): string {
  const path = room.path(name);
  rmSync(path, { force: true });
  writeFileSync(path, '');
  truncateSync(path, bytes);
  return path;
}
/** A type of MBR is written with or without its leading nought. */
const plainType = (type: string): string => (type.length === 2 ? type.replace(/^0/, '') : type).toUpperCase();
const brief = (l: Layout): object[] =>
  [...l.parts]
    .sort((a, b) => a.number - b.number)
    .map((p) => ({
      number: p.number,
      start: p.start,
      bytes: p.bytes,
      type: plainType(p.type),
      active: p.active,
      name: l.table === 'gpt' ? (p.entry?.name ?? p.name) : '',
    }));
const there = (d: DriveThere): object[] =>
  [...d.parts]
    .sort((a, b) => a.number - b.number)
    .map((p) => ({
      number: p.number,
      start: p.start,
      bytes: p.bytes,
      type: plainType(p.type),
      active: p.active,
      name: p.name,
    }));

/** The script of a layout whose parts are known. */
function scriptOf(layout: Layout): string {
  const script = sfdiskScript(layout);
  if (typeof script !== 'string') throw new Error(JSON.stringify(script));
  return script;
}

type Seen = Record<'gpt' | 'mbr' | 'logical' | 'cut' | 'kept' | 'smaller', number>;

it(`${PLANS} random plans: sfdisk and sgdisk write what was laid out, to the sector, and find nothing wrong`, async () => {
  const seed = seedOfRun();
  const seen: Seen = { gpt: 0, mbr: 0, logical: 0, cut: 0, kept: 0, smaller: 0 };
  let next = 0;
  await Promise.all(
    Array.from({ length: BESIDE }, async (_, lane) => {
      while (next < PLANS) {
        const n = next;
        next += 1;
        await onePlan(seed, n, lane, seen);
      }
    }),
  );
  // The plans are no empty exercise.
  for (const [what, times] of Object.entries(seen))
    expect({ what, some: times > PLANS / 40 }).toEqual({ what, some: true });
});

/** What fdisk says of a drive of 4096-byte sectors: where each part begins and how long it is, bytes. */
const ofLargeSectors = (text: string): { number: number; start: number; bytes: number }[] =>
  text.split('\n').flatMap((line) => {
    const [, number, start, sectors] = /^\S+?(\d+)\s+(?:\*\s+)?(\d+)\s+(\d+)\s*$/.exec(line) ?? [];
    return number === undefined
      ? []
      : [{ number: Number(number), start: Number(start) * 4096, bytes: Number(sectors) * 4096 }];
  });

it('drives of 4096-byte sectors: fdisk writes what was laid out and reads it back the same', async () => {
  const seed = seedOfRun();
  let parts = 0;
  for (let n = 0; n < PLANS / 5; n += 1) {
    const dice = random((seed + n) * 40_961);
    for (let i = 0; i < 8; i += 1) dice(2);
    const { drive, want } = planBy(dice);
    const large: DriveThere = { ...drive, bytes: Math.floor(drive.bytes / 4096) * 4096, sectorSize: 4096 };
    const layout = lay(large, want);
    const file = fresh('large.img', large.bytes);
    const script = room.path('large.sfdisk');
    writeFileSync(script, scriptOf(layout));
    await tool('fdisk', ['-b', '4096', file], `I\n${script}\nw\n`);
    const read = ofLargeSectors(
      await tool('fdisk', ['-b', '4096', '-o', 'Device,Start,Sectors', '-l', file]),
    );
    const told = layout.parts.map(({ number, start, bytes }) => ({ number, start, bytes }));
    // The extended part is as long as its tool makes it; what lies in it is placed.
    const placed = (list: typeof told): typeof told =>
      list
        .filter((p) => !layout.parts.some((l) => l.kind === 'extended' && l.number === p.number))
        .sort((a, b) => a.number - b.number);
    expect({ n, parts: placed(read) }).toEqual({ n, parts: placed(told) });
    parts += read.length;
  }
  expect(parts).toBeGreaterThan(PLANS / 5);
});

async function onePlan(seed: number, n: number, lane: number, seen: Seen): Promise<void> {
  // Neighbouring seeds of the dice are alike at first.
  const dice = random((seed + n) * 2_654_435);
  for (let i = 0; i < 8; i += 1) dice(2);
  const { drive, want } = planBy(dice);
  const layout = lay(drive, want);
  const where = `seed ${seed}, plan ${n}: ${JSON.stringify({ drive, want })}`;
  if (layout.parts.length === 0) throw new Error(`${where}: nothing was laid out`);
  seen[want.table === 'gpt' ? 'gpt' : 'mbr'] += 1;
  if (layout.parts.some((p) => p.kind === 'logical')) seen.logical += 1;
  if (layout.cuts.length > 0) seen.cut += 1;
  const file = fresh(`plan${lane}.img`, drive.bytes);
  const reread = async (of = file): Promise<DriveThere> =>
    readTable(await tool('sfdisk', ['--json', of]), { bytes: drive.bytes });
  const same = (read: DriveThere, as: Layout, how: object): void =>
    expect({ where, how, parts: there(read) }).toEqual({ where, how, parts: brief(as) });
  await tool('sfdisk', ['--quiet', file], scriptOf(layout));
  const read = await reread();
  same(read, layout, {});
  same(readTable(await tool('sfdisk', ['--dump', file]), { bytes: drive.bytes }), layout, {});
  expect(await tool('sfdisk', ['--verify', file])).toMatch(/No errors detected/);
  if (want.table === 'gpt') {
    const other = fresh(`sgdisk${lane}.img`, drive.bytes);
    for (const command of sgdiskCommands(layout, drive, other)) await tool('sh', ['-c', command.text]);
    same(await reread(other), layout, { by: 'sgdisk' });
    expect(await tool('sgdisk', ['--verify', other])).toMatch(/No problems found/);
  }
  // What is there now is planned anew, with some of it kept.
  if (want.table === 'gpt')
    for (const p of read.parts)
      await tool('sfdisk', [
        '--part-attrs',
        file,
        String(p.number),
        ['', 'RequiredPartition', 'LegacyBIOSBootable GUID:48,63'][dice(3)] ?? '',
      ]);
  const marked = await reread();
  // What lies in them is not in the table; an ext4 can be made smaller.
  const known = { ...marked, parts: marked.parts.map((p) => ({ ...p, filesystem: 'ext4' })) };
  const second = again(dice, known, want.table);
  const after = lay(known, second);
  if (after.parts.length === 0) return;
  const stays = after.parts.filter((p) => p.fate === 'kept');
  /** The table and what stays in it is known by what it was known by. */
  const identity = (by: string, now: DriveThere): void => {
    const of = (d: DriveThere): object[] =>
      d.parts
        .filter((p) =>
          after.parts.some((l) => l.fate !== 'new' && l.kind !== 'extended' && l.start === p.start),
        )
        .map((p) => [p.start, p.type, want.table === 'gpt' ? [p.uuid, p.name, p.attributes] : []]);
    if (after.parts.some((p) => p.fate !== 'new'))
      expect({ where, by, table: now.tableId, parts: of(now) }).toEqual({
        where,
        by,
        table: marked.tableId,
        parts: of(marked),
      });
  };
  if (stays.length > 0) seen.kept += 1;
  if (after.parts.some((p) => p.fate === 'made smaller')) seen.smaller += 1;
  for (const p of stays)
    expect({ where, there: read.parts.some((b) => b.start === p.start && b.bytes === p.bytes) }).toEqual({
      where,
      there: true,
    });
  if (want.table === 'gpt') {
    for (const command of sgdiskCommands(after, read, file)) await tool('sh', ['-c', command.text]);
    identity('sgdisk', await reread());
    same(await reread(), after, { second, by: 'sgdisk' });
    expect(await tool('sgdisk', ['--verify', file])).toMatch(/No problems found/);
  }
  await tool('sfdisk', ['--quiet', '--wipe', 'never', file], scriptOf(after));
  identity('sfdisk', await reread());
  same(await reread(), after, { second });
  expect(await tool('sfdisk', ['--verify', file])).toMatch(/No errors detected/);
}

/** Another plan of what is there: some parts kept, some of them smaller, new ones beside. */
function again(dice: (below: number) => number, read: DriveThere, table: DriveWant['table']): DriveWant {
  const kept = read.parts.flatMap((p) =>
    dice(2) === 0
      ? []
      : [
          {
            number: p.number,
            shrinkTo: dice(2) === 0 ? null : Math.max(MIB, Math.floor(p.bytes / 2 / 512) * 512),
          },
        ],
  );
  const wants = Array.from({ length: dice(3) }, (_, i): PartWant => ({
    id: `n${i}`,
    use: 'data',
    name: `new ${i}`,
    filesystem: 'ext4',
    mount: null,
    size: i === 0 ? { kind: 'rest' } : { kind: 'fixed', bytes: (1 + dice(50)) * MIB },
    minimum: null,
    active: false,
  }));
  return { table, kept, wants, reserve: 0 };
}

it('what parted says of a drive is read as what sfdisk says', async () => {
  const { drive, want } = planBy(random(7));
  // It prints names as they are, line ends among them.
  const wants = want.wants.map((w, i) => ({ ...w, name: `part ${i}` }));
  const layout = lay(drive, { ...want, wants, table: 'gpt' });
  const file = fresh('parted.img', drive.bytes);
  await tool('sfdisk', ['--quiet', file], scriptOf(layout));
  const truth = readTable(await tool('sfdisk', ['--json', file]), { bytes: drive.bytes });
  for (const unit of ['B', 's']) {
    const read = readTable(await tool('parted', ['-s', '-m', file, 'unit', unit, 'print']));
    expect(read.bytes).toBe(drive.bytes);
    const places = (d: DriveThere): number[][] => d.parts.map((p) => [p.number, p.start, p.bytes]);
    expect(places(read)).toEqual(places(truth));
  }
});
