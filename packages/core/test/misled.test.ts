import { PackedFault } from '../src/container/fault';
import { openPacked } from '../src/container/unpack';
import type { Bench, Store } from '../src/model/bench';
import { gatherList } from '../src/gather/list';
import { afterWrite } from '../src/write/after';
import { drive, GIB, machine, wants } from './fitting';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { hazards } from '../src/box/summary';
import { judgeOn } from '../src/box/today';
import { composeMbrDisk } from '../src/formats/mbr/write';
import { composeFat } from '../src/formats/fat/write';
import { mbrBootCode } from '../src/demo/bootCode';
import { bytesSource } from '../src/formats/source';
import { linkOfStore } from '../src/machine/links';
import { readDisk } from '../src/starting/inspect';
import { startOn } from '../src/starting/forMachine';
import { judge, type Judgement } from '../src/system/judge';
import type { MachineView } from '../src/system/view';
import { findingWords } from '../src/words/fit/finding';
import { repairWords } from '../src/words/fit/repairs';
import { menuSchoolWords } from '../src/words/startBy';
import { predictTimes, unknownStick } from '../src/write/time';
import { probeCapacity } from '../src/write/probe';

/*
 * Judgements that would mislead, each as the machine, system or image it would mislead about. Common practice, no source,
 * where no standard is named.
 */

const of = (j: Judgement, rule: string) => j.all.find((f) => f.rule === rule);

describe('choose', () => {
  it('8 GB installed of which 7.74 GiB are seen fit a need of 8 GiB, and it says why', () => {
    const j = judge(
      machine({ 'memory.bytes': 7.74 * GIB }, { modules: [8 * GIB] }),
      wants({ memoryBytes: 8 * GIB }),
    );
    expect(j.verdict).toBe('fits');
    expect(of(j, 'memory')?.reason).toMatchObject({ code: 'memory enough', installed: 8 * GIB });
    const found = of(j, 'memory');
    expect(found && findingWords(found).because).toMatch(
      /8\.00 GiB are installed: firmware and graphics keep/,
    );
  });

  it('memory the graphics take is a setting, not a purchase', () => {
    const view = machine({ 'memory.bytes': 5.5 * GIB }, { modules: [4 * GIB, 4 * GIB] });
    const j = judge(view, wants({ memoryBytes: 8 * GIB }));
    expect(j.verdict).toBe('fits after a change');
    expect(j.repairs).toEqual([expect.objectContaining({ kind: 'setting', set: 'firmware.graphicsMemory' })]);
  });

  it('a module that goes in names the one that comes out', () => {
    const part = {
      kind: 'memory',
      id: 'm',
      name: 'new',
      price: 0,
      offer: false,
      bytes: 16 * GIB,
      type: 'DDR4',
      form: 'DIMM',
    } as const;
    const view = machine(
      { 'memory.bytes': 3.7 * GIB, 'memory.free': 0, 'memory.max': 32 * GIB },
      { modules: [4 * GIB], parts: [part] },
    );
    const [repair] = judge(view, wants({ memoryBytes: 8 * GIB })).repairs;
    expect(repair).toMatchObject({ kind: 'part', out: { modules: [4 * GIB] } });
    expect(repair && repairWords(repair)).toMatch(/4\.00 GiB that is in it comes out/);
  });

  it.each([
    ['nobody looked', undefined, 'cannot say yet'],
    ['setup offers it', ['uefi', 'bios'], 'fits after a change'],
    ['setup has UEFI alone', ['uefi'], 'does not fit'],
  ] as const)('a BIOS-only image on a machine in UEFI mode: %s', (_name, offers, verdict) => {
    const facts = offers ? { 'firmware.offers': [...offers] } : {};
    expect(judge(machine(facts), wants({ firmware: ['bios'] })).verdict).toBe(verdict);
  });

  it('a 64-bit CPU behind a 32-bit UEFI does not start a 64-bit loader (UEFI 2.10 §3.5.1.1, table 3.2)', () => {
    const view = machine({ 'firmware.bits': '32' });
    expect(of(judge(view, wants()), 'firmware')?.reason).toMatchObject({ code: 'UEFI has 32 bits' });
    expect(judge(view, wants({ archs: ['x86_64', 'i686'] })).verdict).toBe('fits');
  });

  it('firmware in BIOS mode does not start from NVMe; where it was seen to, it does', () => {
    const nvme = { drives: [drive(256e9, { transport: 'nvme' })] };
    const old = judge(machine({ 'firmware.mode': 'bios' }, nvme), wants({ firmware: ['bios'] }));
    expect(of(old, 'boot drive')?.reason.code).toBe('NVMe not started');
    const seen = { 'firmware.mode': 'bios', 'firmware.startsNvme': true };
    expect(judge(machine(seen, nvme), wants({ firmware: ['bios'] })).verdict).toBe('fits');
    expect(judge(machine({}, nvme), wants()).verdict).toBe('fits');
  });

  it('a card in a reader is no boot drive before the machine was seen to start from it; of a board it is', () => {
    const card = { drives: [drive(64e9, { transport: 'mmc', kind: 'card', removable: true })] };
    const j = judge(machine({}, { ...card, form: 'laptop' }), wants());
    expect([j.verdict, j.missing[0]?.fact]).toEqual(['cannot say yet', 'firmware.startsCard']);
    expect(
      judge(machine({ 'firmware.startsCard': true }, { ...card, form: 'laptop' }), wants()).verdict,
    ).toBe('fits');
    const board = judge(
      machine({ 'cpu.arch': 'aarch64', 'firmware.mode': 'board' }, { ...card, form: 'board' }),
      wants({ archs: ['aarch64'], firmware: ['board'] }),
    );
    expect(board.verdict).toBe('fits');
  });

  it('two adapters do not go into one port', () => {
    const adapter = (id: string) =>
      ({
        kind: 'adapter',
        id,
        name: id,
        price: 0,
        offer: false,
        goesIn: 'USB port',
        wiredPorts: 1,
        sataPorts: 0,
      }) as const;
    const parts = [adapter('a'), adapter('b')];
    const named = (usb: number): string[] =>
      judge(machine({ 'ports.usb': usb, 'ports.pcie': 0 }, { parts }), wants({ wiredPorts: 3 })).repairs.map(
        (r) => r.kind,
      );
    expect(named(2)).toEqual(['part', 'part']);
    expect(named(1)).toEqual(['buy']);
  });

  it('a mirror of unequal drives keeps the smaller one’s size, and says what is lost', () => {
    const drives = [drive(32e9, { name: 'boot' }), drive(4e12, { name: 'a' }), drive(3e12, { name: 'b' })];
    const j = judge(machine({}, { drives }), wants({ dataDrives: 2 }));
    expect(of(j, 'data drives')?.reason).toMatchObject({ code: 'ports enough', usable: 3e12, lost: 1e12 });
  });

  it('a failing drive is no drive, a worn one starts but keeps nothing', () => {
    const failing = judge(machine({}, { drives: [drive(120e9, { health: 'failing' })] }), wants());
    expect(of(failing, 'boot drive')?.outcome).toBe('change');
    const worn = { health: 'worn' };
    const drives = [
      drive(120e9, { name: 'a', ...worn }),
      drive(1e12, { name: 'b' }),
      drive(1e12, { name: 'c', ...worn }),
    ];
    const j = judge(machine({}, { drives }), wants({ dataDrives: 2 }));
    expect(of(j, 'data drives')?.reason).toMatchObject({ code: 'data drives short', there: 1 });
  });

  it('graphics of a management chip are not for games', () => {
    const j = judge(machine({ 'graphics.driver': 'ast' }), wants({ graphics: true }));
    expect([j.verdict, of(j, 'graphics')?.reason.code]).toEqual(['does not fit', 'management graphics']);
    expect(judge(machine({ 'graphics.driver': 'ast' }), wants()).verdict).toBe('fits');
  });

  it('a 64-bit ARM core and a 32-bit image: asked, not denied', () => {
    const view = (facts = {}) => machine({ 'cpu.arch': 'aarch64', 'firmware.mode': 'board', ...facts });
    const arm = wants({ archs: ['armv7l'], firmware: ['board'] });
    const j = judge(view(), arm);
    expect([j.verdict, j.missing[0]?.fact]).toEqual(['cannot say yet', 'cpu.arm32']);
    expect(judge(view({ 'cpu.arm32': true }), arm).verdict).toBe('fits');
    expect(judge(view({ 'cpu.arm32': false }), arm).verdict).toBe('does not fit');
  });

  it('support that ended is a Check, and for a gate a Stop; without a day nothing is said', () => {
    const hall = saltmarshHall();
    const gate = hall.profiles.find((p) => p.purpose === 'firewall');
    const [first, ...rest] = hall.boxes;
    if (!gate || !first) throw new Error('the hall has a gate and a box');
    const bench = { ...hall, boxes: [{ ...first, profileId: gate.id, releaseId: null }, ...rest] };
    const grades = (day: string | undefined): string[] => {
      judgeOn(day);
      try {
        return bench.boxes
          .flatMap((b) => hazards(bench, b).filter((h) => h.code === 'support ended'))
          .map((h) => h.grade);
      } finally {
        judgeOn(undefined);
      }
    };
    expect(grades(undefined)).toEqual([]);
    expect(grades('2100-01-01')).toContain('stop');
    expect(grades('2100-01-01')).toContain('check');
    expect(grades('2026-01-01')).toEqual([]);
  });

  it('an image without an active entry: some firmware passes over it, and the cure is said', async () => {
    const disk = (active: boolean): Uint8Array => {
      const out = composeMbrDisk({
        bytes: 4 * 1024 ** 2,
        start: 1024 ** 2,
        type: 0x0e,
        bootCode: mbrBootCode(2048),
        content: composeFat({ bytes: 2 * 1024 ** 2, label: 'X', files: [] }),
      });
      if (!active) out[446] = 0;
      return out;
    };
    const faults = async (active: boolean): Promise<string[]> =>
      (await readDisk(bytesSource(disk(active)))).findings.map((f) => f.fault.code);
    expect(await faults(true)).not.toContain('no entry active');
    expect(await faults(false)).toContain('no entry active');
  });
});

describe('write and firmware', () => {
  const secureRow = {
    firmware: 'uefi-x64',
    attached: 'disk',
    starts: 'yes',
    reason: { code: 'optical volume only' },
    through: null,
    evidence: [],
    chain: [],
    secureBoot: { starts: 'no', reason: { code: 'not signed' }, through: null, evidence: [] },
  } as const;
  it('Secure Boot that nobody looked at is “cannot say”, where it would refuse', () => {
    const reading = { outcomes: [secureRow] } as never;
    expect(startOn(reading, 'uefi-x64', undefined)).toMatchObject({
      starts: 'unknown',
      secureNotKnown: true,
    });
    expect(startOn(reading, 'uefi-x64', true)).toMatchObject({ starts: 'no', refused: true });
    expect(startOn(reading, 'uefi-x64', false)).toMatchObject({ starts: 'yes' });
  });

  it('“a stick left in does no harm” only where the order says so', () => {
    expect(menuSchoolWords(['internal', 'usb'])).toMatch(/does no harm/);
    expect(menuSchoolWords(['internal'])).toMatch(/does no harm/);
    expect(menuSchoolWords(['usb', 'internal'])).not.toMatch(/does no harm/);
    expect(menuSchoolWords(undefined)).not.toMatch(/does no harm/);
  });

  it('a turning disk is read as fast as it is written, flash faster', () => {
    const of = (rotational: boolean) =>
      predictTimes(1e9, { ...unknownStick('s'), kind: 'drive', transport: 'sata', rotational }, []);
    expect(of(true).verify.value.high).toBeCloseTo(of(true).write.value.high);
    expect(of(false).verify.value.high).toBeLessThan(of(false).write.value.high / 2);
  });

  it('soldered flash has the link of HS400, a card that of its bus (JESD84-B51 §6.6.2; SD Physical Layer §3.9)', () => {
    const link = (kind: Store['kind']) => linkOfStore({ kind, transport: 'mmc', m2: null })?.bytesPerSecond;
    expect([link('drive'), link('card')]).toEqual([400e6, 104e6]);
  });

  it('a medium that fails under the unpacking is not called damage of the file', async () => {
    const gone = {
      size: 5e6,
      read: (at: number) => (at < 1e6 ? Promise.resolve(gzipHead) : Promise.reject(new Error('EIO'))),
    };
    const gzipHead = Uint8Array.from([0x1f, 0x8b, 8, 0, 0, 0, 0, 0, 0, 3, ...new Uint8Array(1024 ** 2 - 10)]);
    for (const kind of ['gzip', 'xz', 'zstd', 'bzip2'] as const) {
      const bad = { ...gone, read: () => Promise.reject(new Error('EIO')) };
      const packed = await openPacked(kind, bad, () => undefined).catch((e: unknown) => e);
      const fault =
        packed instanceof Error
          ? packed
          : await (async () => {
              for await (const _ of (packed as Awaited<ReturnType<typeof openPacked>>).content());
            })().catch((e: unknown) => e);
      expect(fault).toBeInstanceOf(Error);
      expect(fault).not.toBeInstanceOf(PackedFault);
      expect(String(fault)).toContain('EIO');
    }
  });

  it('the probe outruns a stick that answers from a memory of its own', async () => {
    // Holds 4 MiB of the 64 it claims, and gives back its last writes from a memory of 1 MiB.
    const real = 4 * 1024 ** 2;
    const kept = new Map<number, number>();
    const cache = new Map<number, Uint8Array>();
    const remember = (at: number, bytes: Uint8Array): void => {
      cache.delete(at);
      cache.set(at, bytes);
      while ([...cache.values()].reduce((n, b) => n + b.length, 0) > 1024 ** 2)
        cache.delete(cache.keys().next().value ?? 0);
    };
    const device = {
      bytes: 64 * 1024 ** 2,
      write: (at: number, bytes: Uint8Array): Promise<void> => {
        if (at < real) bytes.forEach((b, i) => kept.set(at + i, b));
        remember(at, bytes.slice());
        return Promise.resolve();
      },
      read: (at: number, length: number): Promise<Uint8Array> => {
        const hit = cache.get(at);
        if (hit?.length === length) return Promise.resolve(hit.slice());
        const out = new Uint8Array(length);
        if (length <= 4096) for (let i = 0; i < length; i += 1) out[i] = kept.get(at + i) ?? 0;
        remember(at, out);
        return Promise.resolve(out);
      },
    };
    expect((await probeCapacity(device, 7)).real).toBe(real);
  });
});

describe('modules that do not mix (SMBIOS 3.7 §7.18; JESD79-3-1 §1)', () => {
  const module = (type: string, checked: 'none' | 'unbuffered' | 'registered' | null) =>
    ({
      kind: 'memory',
      id: 'm',
      name: 'm',
      price: 0,
      offer: false,
      bytes: 16 * GIB,
      type,
      form: 'DIMM',
      checked,
    }) as const;
  const goesIn = (facts: MachineView['facts'], part: ReturnType<typeof module>): boolean =>
    judge(
      machine({ 'memory.bytes': 2 * GIB, ...facts }, { parts: [part] }),
      wants({ memoryBytes: 8 * GIB }),
    ).repairs.some((r) => r.kind === 'part');
  it.each([
    ['registered', 'registered', true],
    ['registered', null, false],
    ['none', 'registered', false],
    ['none', null, true],
    ['unbuffered', 'unbuffered', true],
  ] as const)('a machine with %s modules and one that is %s: %s', (has, is, fits) =>
    expect(goesIn({ 'memory.checked': has }, module('DDR4', is))).toBe(fits),
  );
  it.each([
    ['DDR3', 'DDR3L', true],
    ['DDR3L', 'DDR3', false],
    ['DDR3L', 'DDR3L', true],
    ['DDR4', 'DDR3L', false],
  ] as const)('a machine for %s and a module of %s: %s', (has, is, fits) =>
    expect(goesIn({ 'memory.type': has }, module(is, null))).toBe(fits),
  );
});

it('the demo agrees with itself: ports and their speed, slots and modules, age and firmware', () => {
  for (const m of saltmarshHall().items) {
    if (m.kind !== 'machine') continue;
    const fact = (key: keyof typeof m.facts): unknown =>
      m.facts[key]?.entered?.value ?? m.facts[key]?.surveyed?.value;
    const speeds = m.networkPorts.map((p) => p.speedMbps ?? 0);
    if (fact('network.speed') !== undefined && speeds.length > 0)
      expect([m.name, Math.max(...speeds)]).toEqual([m.name, fact('network.speed')]);
    const modules = m.details?.modules ?? [];
    if (modules.length > 0) {
      expect([m.name, modules.length]).toEqual([m.name, fact('memory.slots')]);
      expect([m.name, modules.filter((x) => x.bytes === null).length]).toEqual([m.name, fact('memory.free')]);
    }
    const [year, date] = [fact('cpu.year'), /\d{4}$/.exec(String(fact('firmware.date')))?.[0]];
    if (typeof year === 'number' && date) expect(Number(date)).toBeGreaterThanOrEqual(year);
  }
});

describe('gather and after the write, on the hall’s games corner', () => {
  const hall = saltmarshHall();
  const box = hall.boxes.find((b) => b.id === 'games-corner');
  if (!box) throw new Error('the hall has a games corner');
  const changed = (id: string | null, facts: Record<string, unknown>, items = hall.items): Bench => ({
    ...hall,
    items: items.map((i) =>
      i.kind === 'machine' && i.id === id
        ? {
            ...i,
            facts: {
              ...i.facts,
              ...Object.fromEntries(
                Object.entries(facts).map(([k, value]) => [
                  k,
                  value === undefined ? {} : { entered: { value, at: '' } },
                ]),
              ),
            },
          }
        : i,
    ),
  });

  it('a packed image needs a stick for what is inside it', () => {
    const image = {
      kind: 'image',
      id: 'packed',
      name: 'packed.img.xz',
      bytes: 1e9,
      inspection: { container: { kind: 'xz', innerBytes: 40e9 } },
    } as unknown as Bench['items'][number];
    const bench = { ...hall, items: [...hall.items, image] };
    const stick = gatherList(bench, { ...box, imageId: 'packed' }).lines.find((l) => l.key === 'stick');
    expect(stick?.thing).toMatchObject({ code: 'stick', bytes: 40e9 });
  });

  it('a machine of 2003 may not start from USB; one that was seen to does', () => {
    const usb = (facts: Record<string, unknown>): string[] => {
      const bench = changed(box.machineId, facts);
      return hazards(bench, box).flatMap((h) => (h.code === 'may not start from USB' ? [h.grade] : []));
    };
    expect(usb({ 'cpu.year': 2003 })).toEqual(['check']);
    expect(usb({ 'cpu.year': 2003, 'firmware.startsUsb': true })).toEqual([]);
    expect(usb({ 'firmware.startsUsb': false })).toEqual(['stop']);
    expect(usb({})).toEqual([]);
  });

  it('a card that was written is never told to be taken out', () => {
    const card = hall.items.find((i) => i.kind === 'card' && i.serial !== null);
    const image = hall.items.find((i) => i.kind === 'image') ?? {
      kind: 'image',
      id: 'i',
      name: 'i.img',
      bytes: 1e9,
      digests: {},
      inspection: null,
    };
    if (card?.kind !== 'card' || card.serial === null) throw new Error('the hall has a card with a serial');
    const bench = {
      ...hall,
      items: [...hall.items.filter((i) => i.id !== image.id), image as Bench['items'][number]],
    };
    const written = { serial: card.serial, imageId: image.id, result: 'proven' } as never;
    const steps = afterWrite(bench, { ...box, imageId: image.id, targetSerial: card.serial, written }).join(
      '\n',
    );
    expect(steps).toMatch(/It stays in/);
    expect(steps).not.toMatch(/[Tt]ake it out/);
  });

  it('what serves for years is told of a machine that stays off after a cut, or halts without a keyboard', () => {
    const codes = (facts: Record<string, unknown>, purpose: string): string[] => {
      const system = hall.profiles.find((p) => p.purpose === purpose);
      const bench = changed(box.machineId, facts);
      return hazards(bench, { ...box, profileId: system?.id ?? null, releaseId: null }).map((h) => h.code);
    };
    const bad = { 'firmware.afterPowerCut': 'off', 'firmware.haltsOn': 'missing keyboard or display' };
    expect(codes(bad, 'firewall')).toEqual(
      expect.arrayContaining(['stays off after a cut', 'halts without a keyboard']),
    );
    expect(codes(bad, 'games')).not.toContain('stays off after a cut');
    expect(codes({}, 'firewall')).not.toContain('stays off after a cut');
  });
});
