import fc from 'fast-check';
import { lay } from '../src/layout/lay';
import type { LaidPart, Layout } from '../src/layout/laid';
import { readTable } from '../src/layout/read/table';
import { layoutSheet } from '../src/layout/sheet';
import { spaceIn } from '../src/layout/space/spaceIn';
import { layoutSteps } from '../src/layout/steps';
import { decideLayout } from '../src/acts/install';
import { bordersOf, heightOf, movedBorder } from '../src/layout/borders';
import { laidBox } from '../src/layout/forBox';
import { strataAfter, stratumNow } from '../src/layout/strata';
import { applyChanges } from '../src/model/changes';
import { driveThere, usualWant, type UsualAsked } from '../src/layout/usual';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { machinesOf, storesOf, type Bench, type Box, type Machine } from '../src/model/bench';
import { typedFor } from '../src/layout/typed';
import { fstab } from '../src/layout/write/fstab';
import { mkfsCommands } from '../src/layout/write/mkfs';
import { sgdiskCommands } from '../src/layout/write/sgdisk';
import {
  layoutPlanSchema,
  partWantSchema,
  type DriveThere,
  type DriveWant,
  type PartWant,
} from '../src/model/layout';
import { sizeManners } from '../src/model/installer';
import { runs } from './runs';

const MIB = 1024 ** 2;
const GIB = 1024 ** 3;
const drive = (bytes: number, more: Partial<DriveThere> = {}): DriveThere => ({
  name: 'one',
  bytes,
  sectorSize: 512,
  table: 'none',
  tableId: null,
  parts: [],
  ...more,
});
const part = (id: string, size: PartWant['size'], more: Partial<PartWant> = {}): PartWant =>
  partWantSchema.parse({ id, use: 'data', name: id, filesystem: 'ext4', size, ...more });
const fixed = (bytes: number): PartWant['size'] => ({ kind: 'fixed', bytes });
const REST: PartWant['size'] = { kind: 'rest' };
const want = (table: DriveWant['table'], wants: PartWant[], more: Partial<DriveWant> = {}): DriveWant => ({
  table,
  kept: [],
  wants,
  reserve: 0,
  ...more,
});
const sizes = (l: Layout): Record<string, number> =>
  Object.fromEntries(l.parts.flatMap((p) => (p.want ? [[p.want, p.bytes]] : [])));
const codes = (l: Layout): string[] => l.problems.map((p) => p.code);

describe('where parts may lie', () => {
  it('GPT keeps its copy at the end: 33 sectors of 512 bytes, 5 of 4096 (UEFI 2.10 §5.3.1)', () => {
    for (const [sectorSize, behind] of [
      [512, 33],
      [4096, 5],
    ] as const) {
      const bytes = 10 * GIB;
      const [p] = lay(drive(bytes, { sectorSize }), want('gpt', [part('a', REST)])).parts;
      expect(p?.start).toBe(MIB);
      const end = (p?.start ?? 0) + (p?.bytes ?? 0);
      expect(end).toBeLessThanOrEqual(bytes - behind * sectorSize);
      expect(bytes - end).toBeLessThanOrEqual(MIB);
    }
  });

  it('MBR names no sector from 2^32 on: 2 TiB of 512 bytes, 16 TiB of 4096 (UEFI 2.10 §5.2.1)', () => {
    const small = lay(drive(4e12), want('mbr', [part('a', REST)]));
    expect(small.parts[0]?.bytes).toBe(2 ** 41 - MIB);
    expect(small.beyond).toBeGreaterThan(1.7e12);
    const large = lay(drive(4e12, { sectorSize: 4096 }), want('mbr', [part('a', REST)]));
    expect(large.parts[0]?.bytes).toBeGreaterThan(3.99e12);
    expect(large.beyond).toBe(0);
  });

  it('a "20 GB" drive takes 12 + 1 + the rest on MBR, active and in four primaries (common practice, no source)', () => {
    const l = lay(
      drive(20e9),
      want('mbr', [
        part('system', fixed(12 * GIB), { use: 'system', active: true }),
        part('swap', fixed(GIB), { use: 'swap', filesystem: 'swap' }),
        part('data', REST),
      ]),
    );
    expect(l.problems).toEqual([]);
    expect(l.parts.map((p) => [p.kind, p.active])).toEqual([
      ['primary', true],
      ['primary', false],
      ['primary', false],
    ]);
    // 20 GB are 18.6 GiB; what 12 and 1 leave is 5.6.
    expect(((sizes(l).data ?? 0) / GIB).toFixed(1)).toBe('5.6');
    expect(l.unused).toEqual([]);
  });
});

describe('more than four parts on MBR', () => {
  it('lie as logical ones in one extended part, each with room for its record; what must be primary is', () => {
    const wants = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => part(id, fixed(GIB), { active: id === 'f' }));
    const l = lay(drive(20e9), want('mbr', wants));
    expect(l.problems).toEqual([]);
    const extended = l.parts.filter((p) => p.kind === 'extended');
    expect(extended).toHaveLength(1);
    const logical = l.parts.filter((p) => p.kind === 'logical');
    expect(logical.map((p) => p.number)).toEqual([5, 6, 7]);
    expect(l.parts.find((p) => p.want === 'f')?.kind).toBe('primary');
    let before = extended[0]?.start ?? 0;
    for (const p of logical) {
      expect(p.start - before).toBeGreaterThanOrEqual(512);
      before = p.start + p.bytes;
    }
  });

  it('five that must be primary are refused by what binds', () => {
    const wants = ['a', 'b', 'c', 'd', 'e'].map((id) => part(id, fixed(GIB), { use: 'start' }));
    expect(codes(lay(drive(20e9), want('mbr', wants)))).toContain('too many primaries');
  });
});

describe('what cannot be had', () => {
  it('is answered with what binds and the nearest: fixed sizes cut alike, never below their least', () => {
    const l = lay(
      drive(10 * GIB),
      want('gpt', [
        part('start', fixed(512 * MIB), { use: 'start', filesystem: 'vfat' }),
        part('system', fixed(20 * GIB), { use: 'system', minimum: 6 * GIB }),
        part('home', fixed(10 * GIB), { use: '/home' }),
      ]),
    );
    expect(codes(l)).toEqual(['too large']);
    expect(sizes(l).start).toBe(512 * MIB);
    expect(sizes(l).system).toBeGreaterThanOrEqual(6 * GIB);
    expect(l.cuts.map((c) => c.want).sort()).toEqual(['home', 'system']);
    // Nearest: nothing is left over.
    expect(l.unused.reduce((n, u) => n + u.bytes, 0)).toBeLessThanOrEqual(3 * MIB);
  });

  it('where even the least does not fit, parts are given up before the system is', () => {
    const l = lay(
      drive(8 * GIB),
      want('gpt', [
        part('system', fixed(7 * GIB), { use: 'system', minimum: 7 * GIB }),
        part('swap', fixed(2 * GIB), { use: 'swap', filesystem: 'swap', minimum: 2 * GIB }),
        part('home', fixed(4 * GIB), { use: '/home', minimum: 4 * GIB }),
      ]),
    );
    expect(sizes(l).system).toBe(7 * GIB);
    expect(l.cuts.filter((c) => c.got === null).map((c) => c.want)).toEqual(['home', 'swap']);
  });

  it('a size below what its system needs is made as it is asked for, and said', () => {
    const l = lay(
      drive(64e9),
      want('gpt', [part('system', fixed(GIB), { use: 'system', minimum: 8 * GIB })]),
    );
    expect(codes(l)).toEqual(['below its least']);
    expect(sizes(l).system).toBe(GIB);
  });

  it('a full size that is refused goes through a few MiB smaller (common practice, no source)', () => {
    const full = lay(drive(64e9), want('gpt', [part('a', REST)]));
    const less = lay(drive(64e9), want('gpt', [part('a', REST)], { reserve: 4 * MIB }));
    expect((sizes(full).a ?? 0) - (sizes(less).a ?? 0)).toBe(4 * MIB);
  });

  it('another table keeps nothing, and a part is not kept that is not there', () => {
    const there = drive(64e9, { table: 'mbr', parts: [there1] });
    expect(codes(lay(there, want('gpt', [], { kept: [{ number: 1, shrinkTo: null }] })))).toEqual([
      'another table keeps nothing',
    ]);
    expect(codes(lay(there, want('mbr', [], { kept: [{ number: 3, shrinkTo: null }] })))).toEqual([
      'nothing kept of that number',
    ]);
  });
});
const there1 = {
  number: 1,
  start: MIB,
  bytes: 30 * GIB,
  type: '83',
  name: '',
  filesystem: 'ext4',
  label: 'old',
  uuid: null,
  attributes: null,
  active: true,
};

describe('any plan', () => {
  const plans = fc
    .record({
      bytes: fc.integer({ min: 64 * MIB, max: 6e12 }),
      sectorSize: fc.constantFrom(512 as const, 4096 as const),
      table: fc.constantFrom('gpt' as const, 'mbr' as const),
      asked: fc.array(
        fc.record({
          kind: fc.constantFrom('fixed', 'share', 'rest'),
          bytes: fc.integer({ min: 1, max: 2e12 }),
          share: fc.double({ min: 0.01, max: 1, noNaN: true }),
          minimum: fc.option(fc.integer({ min: 0, max: 1e10 })),
        }),
        { maxLength: 8 },
      ),
    })
    .map(({ bytes, sectorSize, table, asked }) => ({
      drive: drive(bytes, { sectorSize }),
      want: want(
        table,
        asked.map((a, i) =>
          part(
            `p${i}`,
            a.kind === 'fixed'
              ? fixed(a.bytes)
              : a.kind === 'share'
                ? { kind: 'share', share: a.share }
                : REST,
            { minimum: a.minimum },
          ),
        ),
      ),
    }));
  const end = (p: LaidPart): number => p.start + p.bytes;

  it('lies in whole MiB, within the table, without overlap, and is as asked or says what it took away', () => {
    fc.assert(
      fc.property(plans, ({ drive: d, want: w }) => {
        const l = lay(d, w);
        const outer = l.parts.filter((p) => p.kind !== 'logical');
        const inner = l.parts.filter((p) => p.kind === 'logical');
        for (const list of [outer, inner])
          list.forEach((p, i) => {
            expect([p.start % MIB, p.bytes % MIB]).toEqual([0, 0]);
            expect(p.bytes).toBeGreaterThan(0);
            const next = list[i + 1];
            if (next) expect(next.start).toBeGreaterThanOrEqual(end(p) + (list === inner ? MIB : 0));
            expect(end(p)).toBeLessThanOrEqual(d.bytes);
          });
        const cut = new Map(l.cuts.map((c) => [c.want, c.got]));
        for (const one of w.wants) {
          const laid = l.parts.find((p) => p.want === one.id);
          if (cut.get(one.id) === null) expect(laid).toBeUndefined();
          else if (l.problems.length === 0) {
            if (one.size.kind === 'fixed')
              expect(laid?.bytes).toBe(Math.ceil(Math.max(one.size.bytes, 1) / MIB) * MIB);
            expect(laid?.bytes ?? 0).toBeGreaterThanOrEqual(
              one.size.kind === 'fixed' ? 0 : (one.minimum ?? 0),
            );
          }
        }
        if (l.problems.length === 0 && w.wants.some((x) => x.size.kind === 'rest'))
          expect(l.unused).toEqual([]);
      }),
      { numRuns: runs(1500) },
    );
  });

  it('a part that stays is where it was, and nothing new lies on it', () => {
    fc.assert(
      fc.property(
        plans,
        fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }),
        ({ drive: d, want: w }, keep) => {
          const first = lay(d, w);
          const there = drive(d.bytes, {
            sectorSize: d.sectorSize,
            table: w.table,
            parts: first.parts.map(({ number, start, bytes, type }) => ({
              ...there1,
              ...{ number, start, bytes, type },
              label: null,
              filesystem: null,
            })),
          });
          const kept = first.parts.flatMap((p, i) =>
            keep[i] && p.kind !== 'extended' ? [{ number: p.number, shrinkTo: null }] : [],
          );
          const l = lay(there, want(w.table, [part('new', REST)], { kept }));
          for (const k of kept) {
            const before = first.parts.find((p) => p.number === k.number);
            const after = l.parts.find((p) => p.start === before?.start && p.kind === before?.kind);
            expect(after).toMatchObject({ bytes: before?.bytes, fate: 'kept' });
          }
          const solid = l.parts.filter((p) => p.kind !== 'extended').sort((a, b) => a.start - b.start);
          solid.forEach((p, i) => {
            const next = solid[i + 1];
            if (next) expect(next.start).toBeGreaterThanOrEqual(end(p));
          });
        },
      ),
      { numRuns: runs(600) },
    );
  });
});

describe('what is typed', () => {
  const whole = { driveBytes: 500e9, sectorSize: 512 };
  it('83 000 “MB” are 81.05 GiB and 31 000 are 30.27 (common practice, no source)', () => {
    for (const [typed, gib] of [
      ['83000', '81.05 GiB'],
      ['31000', '30.27 GiB'],
    ] as const) {
      const t = typedFor(Number(typed) * MIB, 'MB that are MiB', 'GiB', whole);
      expect([t.text, t.unit, t.shown]).toEqual([typed, 'MB', gib]);
    }
  });
  it('type 90 000, read 87.9: the same size (common practice, no source)', () => {
    const t = typedFor(90_000 * MIB, 'MB that are MiB', 'GB that are GiB', whole);
    expect([t.text, t.shown]).toEqual(['90000', '87.9 GB']);
  });
  it('never asks for more than there is, and for no less than its last digit', () => {
    const step = {
      'MB that are MiB': MIB,
      MB: 1e6,
      'GB that are GiB': GIB / 100,
      GB: 1e7,
      MiB: MIB,
      GiB: GIB / 100,
      'per cent': 5e7,
      sectors: 512,
    };
    fc.assert(
      fc.property(fc.constantFrom(...sizeManners), fc.integer({ min: MIB, max: 500e9 }), (manner, bytes) => {
        const { becomes } = typedFor(bytes, manner, 'GB', whole);
        expect(becomes).toBeLessThanOrEqual(bytes + 1);
        expect(bytes - becomes).toBeLessThanOrEqual(step[manner] + 1);
      }),
    );
  });
});

describe('a plan as it is carried out', () => {
  const plan = layoutPlanSchema.parse({
    drive: drive(128e9),
    device: '/dev/disk/by-id/ata-ONE_7C20',
    want: want('gpt', [
      part('start', fixed(512 * MIB), { use: 'start', filesystem: 'vfat', mount: '/boot/efi' }),
      part('system', fixed(40 * GIB), { use: 'system', mount: '/', name: 'the system’s own' }),
      part('swap', fixed(4 * GIB), { use: 'swap', filesystem: 'swap' }),
      part('films', REST, { mount: '/srv/old films' }),
    ]),
  });
  const { layout, rows } = layoutSheet(plan);

  it('tells each part’s room, less than its size and less to users', () => {
    for (const { part: p, space } of rows) {
      expect(space?.free ?? Infinity).toBeLessThan(p.bytes);
      expect(space?.toUsers).toBeLessThanOrEqual(space?.free ?? 0);
    }
    expect(spaceIn('xfs', 100 * MIB)).toBeUndefined();
  });
  it('names parts by their drive’s serial and mounts them by label, in the order of fstab(5)', () => {
    expect(mkfsCommands(layout, plan.device)).toEqual([
      'mkfs.vfat -F 32 -n START /dev/disk/by-id/ata-ONE_7C20-part1',
      'mkfs.ext4 -L the-systems-own /dev/disk/by-id/ata-ONE_7C20-part2',
      'mkswap -L swap /dev/disk/by-id/ata-ONE_7C20-part3',
      'mkfs.ext4 -L films /dev/disk/by-id/ata-ONE_7C20-part4',
    ]);
    expect(
      fstab(layout)
        .trim()
        .split('\n')
        .map((l) => l.split(/ {2,}/)),
    ).toEqual([
      ['LABEL=START', '/boot/efi', 'vfat', 'umask=0077', '0', '2'],
      ['LABEL=the-systems-own', '/', 'ext4', 'defaults', '0', '1'],
      ['LABEL=swap', 'none', 'swap', 'sw', '0', '0'],
      ['LABEL=films', '/srv/old\\040films', 'ext4', 'defaults,nofail', '0', '2'],
    ]);
  });
  it('a name cannot end a word of the shell', () => {
    const evil = lay(drive(10e9), want('gpt', [part('x', REST, { name: "a'; rm -rf / #" })]));
    const [, command] = sgdiskCommands(evil, drive(10e9), '/dev/sdx');
    expect(command?.text).toContain(`'--change-name=1:a'\\''; rm -rf / #'`);
  });
  it('says the steps in three ways: part after part, in a list, by commands', () => {
    expect(layoutSteps(plan, 'asks part after part').map((s) => s.code)).toEqual([
      'begin',
      'new table',
      'make part',
      'make part',
      'make part',
      'make part',
      'read back',
    ]);
    const last = layoutSteps(plan, 'edits a list').findLast((s) => s.code === 'make part');
    expect(last).toMatchObject({ size: 'the rest' });
    expect(layoutSteps(plan, 'typed commands').filter((s) => s.code === 'command')).toHaveLength(5);
  });
});

describe('the layout most people would give a system', () => {
  const bench = saltmarshHall();
  const item = <T extends { id: string }>(list: readonly T[], id: string): T => {
    const found = list.find((x) => x.id === id);
    if (!found) throw new Error(`no ${id}`);
    return found;
  };
  const machine = item(machinesOf(bench), 'tern');
  const loose = item(storesOf(bench), 'loose-480');
  const profile = item(bench.profiles, 'curtain-player');
  const usual = (more: Partial<UsualAsked>): ReturnType<typeof usualWant> =>
    usualWant({ profile, machine, drive: loose, parts: null, swap: null, ...more });
  const uses = (w: ReturnType<typeof usualWant>): string[] =>
    'code' in w ? [w.code] : w.wants.map((x) => x.use);
  const bios = item(machinesOf(bench), 'grandfather');

  it('goes by firmware, purpose and schools, fits, and leaves nothing unused', () => {
    expect(uses(usual({}))).toEqual(['start', 'system', 'data']);
    expect(uses(usual({ parts: '/var and /home apart', swap: '1 GB' }))).toEqual([
      'start',
      'system',
      'swap',
      '/var',
      '/home',
      'data',
    ]);
    expect(uses(usual({ profile: { ...profile, purpose: 'firewall' } }))).toEqual(['start', 'system']);
    for (const w of [usual({}), usual({ parts: '/var and /home apart', swap: 'equal to memory' })]) {
      if ('code' in w) throw new Error(w.code);
      const l = lay(driveThere(loose), w);
      expect([l.problems, l.unused]).toEqual([[], []]);
    }
  });
  it('under BIOS it is MBR with an active system, beyond 2 TiB GPT with a BIOS boot part', () => {
    const small = usual({ machine: bios });
    expect(small).toMatchObject({ table: 'mbr', wants: [{ use: 'system', active: true }, { use: 'data' }] });
    expect(uses(usual({ machine: bios, drive: { ...loose, bytes: 4e12 } }))[0]).toBe('BIOS boot');
  });
  it('says why there is none', () => {
    expect(usual({ profile: { ...profile, layout: 'its own' } })).toEqual({
      code: 'the installer lays it out itself',
    });
    expect(usual({ profile: { ...profile, installer: 'written straight to the final drive' } })).toEqual({
      code: 'written straight to the drive',
    });
    const blank = { ...machine, facts: {} } as Machine;
    expect(usual({ machine: blank, swap: 'equal to memory' })).toEqual({ code: 'memory not known' });
  });
});

describe('the drive of a box', () => {
  const bench = saltmarshHall();
  const night = bench.boxes.find((b) => b.id === 'film-night');
  if (!night) throw new Error('no box');
  // What the demo has decided about its drive is taken back.
  const box: Box = { ...night, layout: null };
  const decided = (of: Box, changed: Parameters<typeof decideLayout>[1]): Box => {
    const [change] = decideLayout(of, changed, 'x').changes;
    const next = applyChanges(bench, change ? [change] : []).boxes.find((b) => b.id === of.id);
    if (!next) throw new Error('gone');
    return next;
  };

  it('is asked for, never one that is kept or that nobody decided about', () => {
    expect(laidBox(bench, box).why?.code).toBe('which drive');
    const kept = laidBox(bench, decided(box, { driveId: 'tern-ssd' }));
    expect([kept.why?.code, kept.sheet]).toEqual(['drive is kept', null]);
    const open = {
      ...bench,
      items: bench.items.map((i) => (i.id === 'loose-480' ? { ...i, fate: 'not decided' } : i)),
    } as Bench;
    expect(laidBox(open, decided(box, { driveId: 'loose-480' })).why?.code).toBe('drive not decided');
    expect(laidBox(bench, { ...box, machineId: null }).why?.code).toBe('no machine');
    expect(laidBox(bench, { ...box, profileId: null }).why?.code).toBe('no system');
  });
  it('takes sizes a person gave, and begins them anew on another drive or by another school', () => {
    const sized = decided(decided(box, { driveId: 'loose-480' }), {
      sizes: { system: { kind: 'fixed', bytes: 50 * GIB } },
      reserve: 4 * MIB,
    });
    const laid = laidBox(bench, sized);
    expect(laid.sheet?.layout.parts.find((p) => p.use === 'system')?.bytes).toBe(50 * GIB);
    expect(decided(sized, { swap: 'none' }).layout?.reserve).toBe(4 * MIB);
    for (const anew of [
      decided(sized, { driveId: 'loose-1t' }),
      decided(sized, { parts: '/var and /home apart' }),
    ])
      expect([anew.layout?.sizes, anew.layout?.reserve]).toEqual([{}, 0]);
  });
  it('has borders that move between the least and the most, snap, and keep what both parts have together', () => {
    const chosen = decided(decided(box, { driveId: 'loose-480' }), { swap: 'equal to memory' });
    const laid = laidBox(bench, chosen);
    const all = bordersOf(laid);
    expect(all.map((b) => b.names)).toEqual([
      ['system', 'swap'],
      ['swap', 'film'],
    ]);
    for (const b of all)
      for (const to of [0, b.least, b.bytes + b.step, b.most, 1e15]) {
        const sizes = movedBorder(laid, b, to);
        const after = laidBox(bench, decided(chosen, { sizes }));
        expect(after.sheet?.layout.problems).toEqual([]);
        const size = (l: typeof laid, id: string): number =>
          l.sheet?.layout.parts.find((p) => p.want === id)?.bytes ?? 0;
        expect(size(after, b.before) + size(after, b.behind)).toBe(
          size(laid, b.before) + size(laid, b.behind),
        );
        expect(size(after, b.before)).toBeGreaterThanOrEqual(b.least);
      }
  });
  it('has its borders where its parts meet, also above room that is left free', () => {
    for (const reserve of [0, 4 * MIB]) {
      const laid = laidBox(bench, decided(box, { driveId: 'loose-480', reserve }));
      const strata = strataAfter(laid);
      const [border] = bordersOf(laid);
      if (!border) throw new Error('no border');
      const below = strata.slice(
        0,
        strata.findIndex((s) => s.part === border.before),
      );
      expect(below.some((s) => s.part === border.behind)).toBe(true);
      expect(heightOf(border, strata)).toBeCloseTo(
        below.reduce((n, s) => n + s.share, 0),
        9,
      );
    }
  });
  it('is drawn from the bottom up, every part tall enough to be seen, in all of one height', () => {
    const laid = laidBox(bench, decided(box, { driveId: 'loose-480' }));
    const after = strataAfter(laid);
    expect(after.map((s) => s.word.split(' ')[0])).toEqual(['film', 'system', 'start']);
    expect(after.reduce((n, s) => n + s.share, 0)).toBeCloseTo(1, 9);
    for (const s of after) expect(s.share).toBeGreaterThan(0.02);
    const [kept] = laid.drives.filter((d) => d.fate === 'keep');
    expect(kept && stratumNow(kept, laid).pattern).toBe('part');
  });
});

describe('a table read back', () => {
  const lsblk = JSON.stringify({
    blockdevices: [
      {
        name: 'loop0',
        type: 'loop',
        size: 64 * MIB,
        start: null,
        'log-sec': 512,
        pttype: 'gpt',
        children: [
          {
            name: 'loop0p1',
            type: 'part',
            size: 10 * MIB,
            start: 2048,
            'log-sec': 512,
            parttype: 'c12a7328-f81f-11d2-ba4b-00a0c93ec93b',
            partlabel: 'EFI',
            partuuid: 'x',
            fstype: 'vfat',
            label: 'ESP',
          },
        ],
      },
      { name: 'sdb', type: 'disk', size: 128 * MIB, 'log-sec': 4096, pttype: null },
    ],
  });
  it('from lsblk, whose starts count 512 bytes whatever the drive answers; which drive is asked where there are two', () => {
    expect(readTable(lsblk, { name: 'loop0' })).toMatchObject({
      bytes: 64 * MIB,
      table: 'gpt',
      parts: [{ number: 1, start: MIB, bytes: 10 * MIB, filesystem: 'vfat', label: 'ESP' }],
    });
    expect(readTable(lsblk, { name: 'sdb' })).toMatchObject({ sectorSize: 4096, table: 'none', parts: [] });
    expect(() => readTable(lsblk)).toThrow('no such drive');
  });
  it.each([
    ['{"blockdevices":[{"name":"sda","type":"disk","size":"465.8G"}]}', 'rounded'],
    ['{"blockdevices":[{"name":"sda","type":"disk"}]}', 'no bytes'],
    ['BYT;\n/dev/sda:500GB:scsi:512:512:gpt:X:;\n', 'rounded'],
    ['CHS;\n/dev/sda:1,2,3:scsi:512:512:gpt:X:;\n', 'rounded'],
    ['BYT;\n/dev/sda:1000B:scsi:512:512:gpt:X:;\nx:1B:2B:3B::;', 'bad line'],
    ['{"partitiontable":', 'not JSON'],
    ['{"a":1}', 'nothing known'],
    ['hello', 'nothing known'],
    ['label: gpt\nsector-size: 1024\n', 'odd sectors'],
    ['label: gpt\n/dev/sda1 : start=abc, size=2', 'bad dump'],
  ])('%s is refused: %s', (text, code) => {
    try {
      readTable(text);
    } catch (error) {
      expect(Reflect.get(error as object, 'fault')).toMatchObject({ code });
      return;
    }
    throw new Error('it was taken');
  });
});
