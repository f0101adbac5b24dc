import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { takeWriteWay } from '@zb/core/acts/box';
import { tradeLines } from '@zb/core/box/summary';
import type { SchoolWay, TradeCode, TradeLine } from '@zb/core/box/trade/line';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { sataOfGeneration } from '@zb/core/machine/links';
import type { Bench, Box, Machine, Profile, Store } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import type { FactKey, FactValue } from '@zb/core/model/facts';
import { contentSchema } from '@zb/core/model/content';
import { usualManner } from '@zb/core/model/installer';
import { noBoxLayout } from '@zb/core/model/layout';
import { isMachine, isStore } from '@zb/core/model/shelf';
import type { Stop } from '@zb/core/model/stops';
import { chainLoaderPlan, runChain, type ChainLoaderState } from '@zb/core/system/chainLoader';
import { consoleSpeed } from '@zb/core/system/consoleClass';
import { judge } from '@zb/core/system/judge';
import { Reader } from '@zb/core/system/places';
import { randomFrom } from '@zb/core/units/random';
import { caveatWords, eraseLevelWords } from '@zb/core/words/erase';
import { schoolWayWords, tradeWords } from '@zb/core/words/trade';
import { erasePlan, samplesOf } from '@zb/core/write/erase';
import { guardTargets } from '@zb/core/write/guard';
import { predictInstall } from '@zb/core/write/install';
import { machine as view, wants } from './fitting';

/* Lines of the trade, each by the machine, system or drive it is about. Common practice, no source, where none is named. */

const demo = saltmarshHall();
const must = <T>(x: T | undefined): T => {
  if (x === undefined) throw new Error('not there');
  return x;
};
const oak = must(demo.items.filter(isMachine).find((m) => m.form === 'tower'));
const aDrive = must(demo.items.filter(isStore).find((s) => s.kind === 'drive'));
const aStick = must(demo.items.filter(isStore).find((s) => s.kind === 'stick'));
const store = (more: Partial<Store>): Store => ({ ...aDrive, owned: true, ...more });

/** A bench with one tower, one box for it and one system; `inside` sits in the tower. */
function built(
  facts: Partial<Record<FactKey, FactValue>>,
  more: { system?: Partial<Profile>; inside?: Store[]; loose?: Store[]; box?: Partial<Box> } = {},
): { bench: Bench; box: Box } {
  const at = '2026-05-01T10:00:00.000Z';
  const tower: Machine = {
    ...oak,
    id: 'tower',
    name: 'Tower',
    details: null,
    facts: Object.fromEntries(Object.entries(facts).map(([key, value]) => [key, { entered: { value, at } }])),
  };
  const system = { ...wants(), ...more.system };
  const box: Box = {
    ...must(demo.boxes[0]),
    id: 'box',
    machineId: 'tower',
    profileId: system.id,
    imageId: null,
    releaseId: null,
    variantId: null,
    targetSerial: null,
    decisions: [],
    signoffs: [],
    parts: [],
    ...more.box,
  };
  const items = [tower, ...(more.inside ?? []).map((s) => ({ ...s, in: 'tower' })), ...(more.loose ?? [])];
  return { bench: { ...demo, items, profiles: [system], boxes: [box], log: [] }, box };
}
const lineOf = <C extends TradeCode>(
  { bench, box }: { bench: Bench; box: Box },
  stop: Stop,
  code: C,
): Extract<TradeLine, { code: C }> | undefined =>
  tradeLines(bench, box, stop).find((l): l is Extract<TradeLine, { code: C }> => l.code === code);

describe('console emulation', () => {
  it.each([
    // A 2013 desktop with the graphics in its CPU plays the early 2000s; from before 2012 it often fails at them.
    [{ 'cpu.year': 2013 }, 'early 2000s', null],
    [{ 'cpu.year': 2012 }, 'early 2000s', null],
    [{ 'cpu.year': 2010 }, 'first 3D', null],
    [{ 'cpu.year': 2019 }, 'later', null],
    // A measured core tells more than the year.
    [{ 'cpu.year': 2019, 'cpu.score': 60 }, 'first 3D', null],
    [{ 'cpu.year': 2019, 'graphics.family': 'none' }, 'first 3D', 'no graphics driver'],
    [{ 'cpu.year': 2019, 'cpu.arch': 'aarch64' }, 'early 2000s', 'a small core'],
  ] as const)('%j plays %s', (facts, reached, heldBy) =>
    expect(consoleSpeed(new Reader(view(facts)))).toMatchObject({ class: reached, heldBy }),
  );
  it('is not told where neither year nor score is known', () =>
    expect(consoleSpeed(new Reader(view()))).toBeUndefined());
  it('is said where games are chosen, and nowhere else', () => {
    const games = built({ 'cpu.year': 2013, 'graphics.family': 'in-kernel' }, { box: { purpose: 'games' } });
    expect(lineOf(games, 'choose', 'console speed')?.speed?.class).toBe('early 2000s');
    const films = built({ 'cpu.year': 2013 }, { box: { purpose: 'film' } });
    expect(lineOf(films, 'choose', 'console speed')).toBeUndefined();
  });
});

it('hosts of guests keep the release before the chosen one at hand', () => {
  const [release] = wants().releases;
  const releases = [
    { ...must(release), id: 'new', version: '9', released: '2026-01-01' },
    { ...must(release), id: 'old', version: '8', released: '2024-01-01' },
  ];
  const at = built({}, { system: { purpose: 'virtual machines', releases }, box: { releaseId: 'new' } });
  expect(lineOf(at, 'choose', 'earlier release')).toMatchObject({ version: '8', image: null });
  const gate = built({}, { system: { purpose: 'firewall', releases } });
  expect(lineOf(gate, 'choose', 'earlier release')).toBeUndefined();
});

describe('drives', () => {
  it('a worn drive, a card or a turning disk is slower than a cheap new one, in minutes', () => {
    const facts = { 'firmware.mode': 'uefi', 'ports.drives': 2 };
    const of = (inside: Store) =>
      lineOf(built(facts, { inside: [inside] }), 'gather', 'new drive is quicker');
    const big = { bytes: 500e9, fate: 'may be lost' as const, transport: 'sata' as const, wear: null };
    expect(of(store({ ...big, rotational: true }))).toMatchObject({ why: 'turning' });
    expect(of(store({ ...big, rotational: false, wear: 91 }))).toMatchObject({ why: 'worn' });
    expect(of(store({ ...big, rotational: false }))).toBeUndefined();
    const found = of(store({ ...big, rotational: true }));
    expect(must(found).old.high).toBeGreaterThan(must(found).fresh.high * 2);
  });

  it('data drives that have neither bay nor power lead do not go in, and the limit can be set aside', () => {
    const facts = { 'ports.drives': 5, 'ports.sata': 5 };
    const mirror = wants({ dataDrives: 2 });
    expect(judge(view(facts), mirror).verdict).toBe('fits after a change');
    const none = judge(view({ ...facts, 'ports.bays': 1 }), mirror);
    expect(none.verdict).toBe('does not fit');
    expect(none.binding[0]).toMatchObject({ reason: { code: 'no room for drives', bays: 1 }, soft: true });
    expect(judge(view({ ...facts, 'power.sataLeads': 0 }), mirror).verdict).toBe('does not fit');
    expect(judge(view({ ...facts, 'ports.bays': 2, 'power.sataLeads': 2 }), mirror).verdict).not.toBe(
      'does not fit',
    );
    const overruled = [{ profileId: mirror.id, rule: 'data drives', reason: 'a carrier' }];
    expect(judge(view({ ...facts, 'ports.bays': 0 }, { overruled }), mirror).verdict).not.toBe(
      'does not fit',
    );
  });

  it('SATA of the first generation holds an install up', () => {
    // SATA revision 3: 1.5, 3 and 6 Gb/s with 8 bits coded in 10 are 150, 300 and 600 MB/s.
    expect(['1', '2', '3'].map((g) => sataOfGeneration(g)?.bytesPerSecond)).toEqual([150e6, 300e6, 600e6]);
    const inside = [store({ bytes: 500e9, transport: 'sata', rotational: false, fate: 'may be lost' })];
    const image = {
      kind: 'image' as const,
      id: 'i',
      name: 'i',
      bytes: 400e9,
      digests: {},
      inspection: null,
      comparison: null,
      depotFile: null,
      trials: [],
      notes: '',
    };
    const of = (generation: string): number => {
      const { bench, box } = built({ 'ports.sataGeneration': generation }, { inside, box: { imageId: 'i' } });
      // The stick is not what holds it up here.
      const stick = { ...store({ id: 's', serial: 'STICK-1', transport: 'nvme', kind: 'drive' }) };
      const quick = { ...bench, items: [...bench.items, image, stick] };
      return must(predictInstall(quick, { ...box, targetSerial: 'STICK-1' })).value.low;
    };
    expect(of('1')).toBeGreaterThan(of('3'));
  });
});

describe('before a stick is written', () => {
  it('the target is named so that it cannot be mistaken, and what stays is unplugged', () => {
    const target = { ...aStick, id: 't', serial: 'ABCD1234', label: 'STUFF', owned: true, in: null } as Store;
    const kept = {
      ...aStick,
      id: 'k',
      serial: 'ZZZZ9999',
      name: 'Photos',
      fate: 'keep',
      owned: true,
      in: null,
    } as Store;
    const at = built({}, { loose: [target, kept], box: { targetSerial: 'ABCD1234' } });
    const line = lineOf(at, 'write', 'name the target');
    expect(line?.label).toBe('ERASE 1234');
    // A label of a FAT volume has eleven characters at most.
    expect(must(line).label.length).toBeLessThanOrEqual(11);
    expect(lineOf(at, 'write', 'unplug what stays')?.drives).toEqual(['Photos']);
    const named = built(
      {},
      { loose: [{ ...target, label: 'ERASE 1234' }], box: { targetSerial: 'ABCD1234' } },
    );
    expect(lineOf(named, 'write', 'name the target')).toBeUndefined();
  });

  it('a target that is large, or a drive, is asked about once more', () => {
    const of = (bytes: number, known: Store[] = []): boolean | undefined =>
      guardTargets([{ id: 'x', bytes, serial: 'ABCD1234', model: '', port: '' }], known, 1e9)[0]?.large;
    expect(of(32e9)).toBe(false);
    expect(of(256e9)).toBe(true);
    expect(of(32e9, [store({ serial: 'ABCD1234' })])).toBe(true);
  });

  it('a whole system goes by an adapter or by a stick: minutes of both, what is lacking, and the decision', () => {
    const inside = [
      store({ id: 'd', bytes: 240e9, transport: 'sata', rotational: false, fate: 'may be lost' }),
    ];
    const facts = { 'firmware.mode': 'uefi', 'ports.drives': 2 };
    const straight = { installer: 'written straight to the final drive' as const };
    const at = built(facts, { system: straight, inside });
    const line = must(lineOf(at, 'write', 'school: stick or adapter'));
    const [adapter, stick] = line.ways;
    expect(adapter).toMatchObject({ way: 'adapter', lacks: 'adapter' });
    expect(must(stick?.seconds).low).toBeGreaterThan(must(adapter?.seconds).low);
    for (const w of line.ways) expect(schoolWayWords(w)).not.toMatch(/undefined|NaN/);
    const [drive] = inside;
    const take = (bench: Bench, way: SchoolWay): Bench => {
      const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => `l-${way.way}` };
      return applyChanges(bench, takeWriteWay(must(bench.boxes[0]), way, drive, stamp).changes);
    };
    // Where the drive itself is written, that is the medium; where a stick is, it is none.
    const serials = line.ways.map((w) => take(at.bench, w).boxes[0]?.targetSerial);
    expect(serials).toEqual([must(drive).serial, null, must(drive).serial]);
    expect(take(take(at.bench, must(adapter)), must(stick)).boxes[0]?.targetSerial).toBeNull();
    const after = take(at.bench, must(stick));
    const box = must(after.boxes[0]);
    expect(lineOf({ bench: after, box }, 'write', 'school: stick or adapter')?.taken).toBe('installer stick');
    const asks = built(facts, { inside, system: { installer: 'asks for the drive' } });
    expect(lineOf(asks, 'write', 'school: stick or adapter')).toBeUndefined();
  });
});

describe('firmware', () => {
  it('settings first, an update first or not at all, with its date by the calendar', () => {
    const at = built({ 'firmware.mode': 'uefi', 'firmware.date': '11/02/2012' });
    expect(lineOf(at, 'firmware', 'write settings down')).toBeDefined();
    // SMBIOS 3.6 §7.1: month, day, year.
    expect(lineOf(at, 'firmware', 'firmware update')?.date).toBe('2012-11-02');
    expect(lineOf(built({ 'firmware.mode': 'board' }), 'firmware', 'firmware update')).toBeUndefined();
    const fixed = built({ 'firmware.mode': 'uefi', 'firmware.graphicsMemory': 'fixed' });
    expect(lineOf(fixed, 'firmware', 'graphics memory')).toBeDefined();
    expect(lineOf(at, 'firmware', 'graphics memory')).toBeUndefined();
  });

  it('a system that was installed for BIOS on a machine that starts by UEFI', () => {
    const content = contentSchema.parse({
      table: 'mbr',
      parts: [],
      starts: [{ by: 'boot code', firmware: 'bios', path: '', title: 'Old system' }],
      learnt: { from: 'hand', at: '2026-05-01' },
    });
    const inside = [store({ id: 'd', content })];
    const facts = { 'cpu.arch': 'x86_64', 'firmware.bits': '64' };
    const of = (mode: string) =>
      lineOf(built({ ...facts, 'firmware.mode': mode }, { inside }), 'firmware', 'installed in another mode');
    expect(of('uefi')).toMatchObject({ installed: 'bios', present: 'uefi', title: 'Old system' });
    expect(of('bios')).toBeUndefined();
  });

  it('several NVMe drives on cards want lanes that are split', () => {
    const nvme = (id: string): Store =>
      store({ id, serial: id, transport: 'nvme', bytes: 500e9, fate: 'may be lost' });
    const of = (facts: Partial<Record<FactKey, FactValue>>) =>
      lineOf(
        built({ 'firmware.mode': 'uefi', 'ports.m2': [], ...facts }, { inside: [nvme('a'), nvme('b')] }),
        'firmware',
        'lanes not split',
      );
    expect(of({})).toMatchObject({ known: false, drives: 2 });
    expect(of({ 'firmware.splitsLanes': false })).toMatchObject({ known: true });
    expect(of({ 'firmware.splitsLanes': true })).toBeUndefined();
    expect(of({ 'ports.m2': ['M 2280 nvme x4'] })).toBeUndefined();
  });

  describe('NVMe on firmware that does not start from it', () => {
    const right: ChainLoaderState = {
      firmwareStartsStick: true,
      part: 'FAT',
      loaderThere: true,
      drivers: { bios: true, uefi: true },
      mode: 'bios',
      countdown: 5,
      drivesOnAdapter: 1,
      splitsLanes: false,
      systemOnDrive: true,
    };
    it('starts by way of the loader where all of it is right', () =>
      expect(runChain(right)).toEqual({ end: 'system starts', menu: true }));

    it('every mistake ends otherwise than what is right, or takes the menu away', () => {
      const plan = chainLoaderPlan({
        drive: 'N',
        mode: 'bios',
        startsUsb: true,
        splitsLanes: undefined,
        drivesOnAdapter: 1,
        stick: null,
      });
      expect(plan.rehearsed).toHaveLength(8);
      for (const r of plan.rehearsed) expect(r).not.toMatchObject({ end: 'system starts', menu: true });
      expect(plan.rehearsed.find((r) => r.mistake === 'countdown 0')).toMatchObject({
        end: 'system starts',
        menu: false,
      });
    });

    it('property: it starts where nothing on the way is wrong, and nowhere else', () => {
      const state = fc.record({
        firmwareStartsStick: fc.boolean(),
        part: fc.constantFrom('FAT' as const, 'another file system' as const),
        loaderThere: fc.boolean(),
        drivers: fc.record({ bios: fc.boolean(), uefi: fc.boolean() }),
        mode: fc.constantFrom('bios' as const, 'uefi' as const),
        countdown: fc.integer({ min: 0, max: 9 }),
        drivesOnAdapter: fc.integer({ min: 1, max: 3 }),
        splitsLanes: fc.boolean(),
        systemOnDrive: fc.boolean(),
      });
      fc.assert(
        fc.property(state, (s) => {
          const whole =
            s.firmwareStartsStick &&
            s.part === 'FAT' &&
            s.loaderThere &&
            s.drivers[s.mode] &&
            (s.drivesOnAdapter === 1 || s.splitsLanes) &&
            s.systemOnDrive;
          expect(runChain(s).end === 'system starts').toBe(whole);
        }),
      );
    });

    it('is offered where that is the only drive, with what is known of it', () => {
      const inside = [store({ id: 'n', name: 'N', transport: 'nvme', bytes: 500e9, fate: 'may be lost' })];
      const stick = {
        ...aStick,
        id: 's',
        name: 'Small',
        bytes: 8e9,
        fate: 'may be lost',
        owned: true,
        in: null,
      } as Store;
      const facts = { 'firmware.mode': 'bios', 'firmware.startsUsb': true };
      const plan = lineOf(built(facts, { inside, loose: [stick] }), 'firmware', 'chain loader')?.plan;
      expect(plan).toMatchObject({ drive: 'N', stick: 'Small' });
      expect(plan?.checks).toContainEqual({ check: 'starts from USB', state: 'holds' });
      // About 10 MB over USB 2 take a fraction of a second.
      expect(must(plan).loadSeconds).toBeLessThan(0.5);
      expect(
        lineOf(built({ ...facts, 'firmware.mode': 'uefi' }, { inside }), 'firmware', 'chain loader'),
      ).toBeUndefined();
      const sata = store({ id: 'o', transport: 'sata', bytes: 500e9, fate: 'may be lost' });
      expect(lineOf(built(facts, { inside: [...inside, sata] }), 'firmware', 'chain loader')).toBeUndefined();
    });
  });
});

// NIST SP 800-88 Rev. 1, appendix A, tables, from memory.
describe('erasing', () => {
  it.each([
    [{ transport: 'sata', rotational: true }, 'magnetic disk', 'enhanced secure erase'],
    [{ transport: 'sata', rotational: false }, 'SATA flash', 'sanitize by block erase'],
    [{ transport: 'nvme', rotational: false }, 'NVMe flash', 'format with the key forgotten'],
  ] as const)('%j is a %s, purged by %s; overwriting flash is only clearing it', (kind, what, purge) => {
    const plan = erasePlan(store({ ...kind, serial: 'ABCD1234', fate: 'may be lost' }));
    expect(plan.kind).toBe(what);
    expect(plan.ways.filter((w) => w.level === 'purge').map((w) => w.method)).toContain(purge);
    expect(plan.ways.find((w) => w.method === 'overwrite once')?.level).toBe('clear');
    expect(plan.ways.at(-1)?.level).toBe('destroy');
    for (const w of plan.ways)
      expect(`${eraseLevelWords(w.level)}${caveatWords(w)}`).not.toMatch(/undefined/);
  });

  it('a stick is overwritten twice, and takes twice as long as once', () => {
    const [way] = erasePlan({ ...aStick, serial: 'ABCD1234' }).ways;
    expect(way).toMatchObject({ level: 'clear', method: 'overwrite twice, second time inverted' });
    expect(must(way).seconds?.high).toBeGreaterThan(0);
  });

  it('gives no command for what is not to be lost, and none where a serial does not name it for certain', () => {
    const of = (more: Partial<Store>) =>
      erasePlan(store({ serial: 'ABCD1234', fate: 'may be lost', ...more }));
    const none = (plan: ReturnType<typeof of>): boolean =>
      plan.find === null && plan.ways.every((w) => w.command === null);
    expect(none(of({}))).toBe(false);
    expect(none(of({ fate: 'keep' }))).toBe(true);
    expect(of({ fate: 'not decided' }).not).toBe('not to be lost');
    expect(of({ serial: null }).not).toBe('no serial');
    expect(none(of({ serial: 'AB"; rm -r /' }))).toBe(true);
  });

  it('finds the one drive of that serial, and no drive where there are two or none', () => {
    const { find } = erasePlan(store({ serial: 'ABCD1234', fate: 'may be lost' }));
    // A shell runs it over what lsblk would print; a device that is there stands for the drive.
    const found = (printed: string): string =>
      execFileSync(
        'sh',
        [
          '-c',
          `lsblk() { printf '${printed}'; }; test() { case "$2" in /dev/one) return 0 ;; esac; return 1; }; ${find}; echo "$drive"`,
        ],
        {
          encoding: 'utf8',
        },
      ).trim();
    expect(found('/dev/one ABCD1234\\n/dev/two ABCD12345\\n')).toBe('/dev/one');
    expect(found('/dev/one ABCD1234\\n/dev/two ABCD1234\\n')).toContain('/dev/null/none');
    expect(found('/dev/two OTHER\\n')).toContain('/dev/null/none');
  });

  it('property: of each of 1,000 sections two places are read back that do not overlap, 5 % of it together', () => {
    fc.assert(
      fc.property(fc.integer({ min: 64e6, max: 2 ** 45 }), fc.integer({ min: 0, max: 1e6 }), (size, seed) => {
        const bytes = Math.floor(size / 512) * 512;
        const samples = samplesOf(bytes, randomFrom(seed));
        expect(samples).toHaveLength(2000);
        const section = Math.floor(bytes / 1000 / 512) * 512;
        const wrong = samples.filter((s, i) => {
          const inside = Math.floor(i / 2) * section;
          const end = Math.min(inside + section, samples[i + 1]?.offset ?? bytes);
          return s.offset < inside || s.offset + s.bytes > end;
        });
        expect(wrong).toEqual([]);
        const read = samples.reduce((n, s) => n + s.bytes, 0);
        expect(read / (section * 1000)).toBeGreaterThanOrEqual(0.05);
      }),
      { numRuns: 30 },
    );
  });
});

describe('at the installer', () => {
  const manner = (change: Partial<Profile['manner']>): Partial<Profile> => ({
    installer: 'asks for the drive',
    manner: { ...usualManner(), ...change },
  });
  const codes = (scene: { bench: Bench; box: Box }): TradeCode[] =>
    tradeLines(scene.bench, scene.box, 'install').map((l) => l.code);
  it.each([
    [{ confirms: 0 }, 'erases unasked'],
    [{ confirms: 2 }, 'asks several times'],
    [{ asksArchitecture: true }, 'processor asked again'],
    [{ basicGraphics: true }, 'basic graphics'],
    [{ screen: 'text' }, 'works over a console'],
    [{ ends: 'restarts by itself' }, 'restarts by itself'],
    [{ loader: null }, 'loader not seen'],
  ] as const)('%o is said as: %s', (change, code) => {
    expect(codes(built({}, { system: manner({}) }))).not.toContain(code);
    const scene = built({ 'cpu.arch': 'x86_64' }, { system: manner(change) });
    expect(codes(scene)).toContain(code);
    for (const l of tradeLines(scene.bench, scene.box, 'install'))
      expect(tradeWords(l).title + tradeWords(l).because).not.toMatch(/undefined|null/);
  });
  it('two sticks are told apart, and the network is asked for where the installer wants it', () => {
    const [from, to] = ['S1', 'S2'].map((serial): Store => ({
      ...aStick,
      id: serial,
      serial,
      name: serial,
      bytes: 64e9,
      fate: 'may be lost',
      in: null,
    }));
    const scene = built(
      {},
      {
        system: { ...manner({}), networkAtInstall: true },
        loose: [must(from), must(to)],
        box: { targetSerial: 'S1', layout: { ...noBoxLayout(), driveId: 'S2' } },
      },
    );
    expect(lineOf(scene, 'install', 'two sticks')).toMatchObject({ from: 'S1', to: 'S2' });
    expect(codes(scene)).toContain('network while installing');
    expect(codes(built({}, { system: { installer: 'written straight to the final drive' } }))).toEqual([]);
  });
});

it('every line has words with what it is about', () => {
  for (const box of demo.boxes)
    for (const stop of ['choose', 'gather', 'write', 'firmware', 'install'] as const)
      for (const l of tradeLines(demo, box, stop)) {
        const { title, because, steps } = tradeWords(l);
        expect([title, because, ...steps].join(' ')).not.toMatch(/undefined|NaN|null/);
        expect(title).not.toBe('');
      }
});
