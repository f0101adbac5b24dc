import fc from 'fast-check';
import { refusePrecaution, takePrecautions } from '../src/acts/install';
import { summaryOf } from '../src/box/summary';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { usualManner, type InstallerManner } from '../src/model/installer';
import type { Bench, Box } from '../src/model/bench';
import { applyChanges } from '../src/model/changes';
import { rehearsalPlanSchema, type RehearsalDrive, type RehearsalPlan } from '../src/model/rehearsal';
import { boxTally } from '../src/rehearsal/boxTally';
import { causeOf } from '../src/rehearsal/cause';
import { aims, gradeOf, missing } from '../src/rehearsal/ending';
import { boxPlan } from '../src/rehearsal/forBox';
import { precautionsFor } from '../src/rehearsal/precautions';
import { rehearse, setsFor, wrongWorld } from '../src/rehearsal/rehearse';
import { Stage } from '../src/rehearsal/stage';
import { RehearsalError, takenOf, tallyOf } from '../src/rehearsal/tally';
import { worldOf } from '../src/rehearsal/varies';
import { endingWords, frameWords, namesIn, rehearsalHeadline, shortNames } from '../src/words/rehearsal';
import { causeWords } from '../src/words/rehearsalCause';
import { runs } from './runs';
import { untimed } from './untimed';

type Drive = Partial<RehearsalDrive> & Pick<RehearsalDrive, 'id' | 'role'>;
const drive = (d: Drive): object => ({ name: d.id, bytes: 240e9, bus: 'sata', matters: false, ...d });
const stick: Drive = {
  id: 'stick',
  role: 'installer',
  bus: 'usb',
  bytes: 8e9,
  starts: { uefi: 'the installer', bios: 'the installer' },
  signed: true,
};
const target: Drive = { id: 'new', role: 'target', bytes: 120e9 };
const scans: Drive = {
  id: 'scans',
  role: 'other',
  matters: true,
  unplug: { minutes: 4, screws: 1 },
};

/** A plan in which nothing is open but what a test opens: power held, mode and order known. */
function plan(
  drives: Drive[],
  installer: { choice?: RehearsalPlan['installer']['choice'] } & Partial<InstallerManner> = {},
  more: { startBy?: 'menu' | 'order'; kind?: 'install' | 'write'; machine?: object; refused?: string[] } = {},
): RehearsalPlan {
  const { machine = {}, ...rest } = more;
  return rehearsalPlanSchema.parse({
    kind: 'install',
    machine: {
      name: 'm',
      mode: 'uefi',
      secureBoot: 'off',
      order: drives.map((d) => [d.id]),
      power: 'secured',
      ...machine,
    },
    drives: drives.map(drive),
    installer: { choice: 'asks for the drive', ...usualManner(), ends: 'powers off', ...installer },
    ...rest,
  });
}
const endingsOf = (p: RehearsalPlan, taken: string[] = []): Record<string, number> =>
  Object.fromEntries(
    tallyOf(new Stage(p), takenOf(new Stage(p), taken)).endings.map((e) => [e.ending, e.worlds]),
  );
const setsOf = (p: RehearsalPlan, aim: (typeof aims)[number] = 'nothing lost'): string[] =>
  setsFor(p, aim).sets.map((s) => s.ids.join(' + '));

describe('Secure Boot', () => {
  it('asks for a signature under UEFI alone: an installation under BIOS leaves what UEFI starts from there as it was', () => {
    const old: Drive = {
      id: 'old',
      role: 'other',
      starts: { uefi: 'a signed system', bios: null },
      signed: true,
    };
    const bios: Drive = { ...stick, starts: { uefi: null, bios: 'the installer' }, signed: false };
    // The loader goes to the first drive, where UEFI still finds the signed system, and starts that.
    const p = plan(
      [bios, old, target],
      { loader: 'the first drive' },
      {
        machine: { mode: 'both', secureBoot: 'on', biosTries: 'each', order: [['stick'], ['old'], ['new']] },
      },
    );
    expect(Object.keys(endingsOf(p))).not.toContain('right system starts');
  });
});

describe('what can vary', () => {
  it('counts every order in which drives may answer', () => {
    const four = plan([stick, target, scans, { id: 'film', role: 'other', bus: 'nvme' }]);
    expect(worldOf(four).varies.find((v) => v.unknown === 'order')?.ways).toBe(24);
    // Of the firmware's order what is known is no question, within a group any order is.
    const groups = plan([stick, target, scans], {}, { machine: { order: [['stick'], ['new', 'scans']] } });
    expect(worldOf(groups).varies.find((v) => v.unknown === 'firmware order')?.ways).toBe(2);
  });

  it('multiplies what is open, and nothing that is known', () => {
    const known = plan([stick, target]);
    // Order 2, key 2, read 2, stick 2, set back 2; all else is told.
    expect(worldOf(known).count).toBe(32);
    const open = plan(
      [stick, target],
      { loader: null },
      { machine: { mode: null, secureBoot: null, power: 'mains' } },
    );
    // Loader 3, mode 2, BIOS trying each or one 2, Secure Boot 2, power 5.
    expect(worldOf(open).count).toBe(32 * 3 * 2 * 2 * 2 * 5);
  });
});

describe('how worlds end', () => {
  const unasked = { choice: 'takes the first drive unasked' } as const;

  it('an installer that takes the first drive erases the kept one in half of the orders', () => {
    const p = plan([stick, target, scans], unasked);
    const worlds = worldOf(p).count;
    // Orders, key, stick, set back, and whether the order forgets what could be unplugged.
    expect(worlds).toBe(6 * 2 * 2 * 2 * 2);
    // With the key missed the order is tried, and of it only the stick starts: every world comes to the list.
    expect(endingsOf(p)['kept drive erased']).toBe(worlds / 2);
    expect(setsOf(p)).toEqual(['unplug:scans']);
  });

  it('where the kept drive is soldered and cannot be copied no set does it, and a world is told that remains', () => {
    const soldered = plan([stick, target, { ...scans, unplug: null, bus: 'mmc' }], unasked);
    const { sets, remains } = setsFor(soldered, 'nothing lost');
    expect(sets).toEqual([]);
    expect(remains?.world.ending).toBe('kept drive erased');
    // Copied away first it may be erased.
    expect(
      setsOf(plan([stick, target, { ...scans, unplug: null, bus: 'mmc', copyMinutes: 30 }], unasked)),
    ).toEqual(['copy:scans']);
  });

  it('the preselected drive is the first inside one, and yes said unread takes it', () => {
    const preselects = { choice: 'preselects the first drive', lists: ['size', 'serial'] } as const;
    const p = plan([stick, { ...target, bus: 'usb', serial: 'S7' }, scans], {
      ...preselects,
      lists: ['size', 'serial'],
    });
    expect(endingsOf(p)['kept drive erased']).toBe(worldOf(p).count / 2);
    expect(setsOf(p)).toEqual(['serial', 'read', 'unplug:scans']);
  });

  it('twins by size and model are told apart by serial or label, not by reading', () => {
    const twin: Drive = { ...scans, bytes: 121e9 };
    const lists = ['size', 'model', 'serial', 'label'] as InstallerManner['lists'];
    const p = plan([stick, { ...target, serial: 'S7' }, { ...twin, serial: 'S8' }], { lists });
    expect(setsOf(p).sort()).toEqual(['label + read', 'serial', 'unplug:scans']);
    expect(endingsOf(p, ['read'])['kept drive erased']).toBe(worldOf(p).count / 2);
    // Two with the same serial: choosing by it is not offered.
    const same = plan([stick, { ...target, serial: 'S7' }, { ...twin, serial: 'S7' }], { lists });
    expect(precautionsFor(same).map((x) => x.id)).not.toContain('serial');
  });

  it('the largest is taken whatever its place', () => {
    const largest = { choice: 'takes the largest drive unasked' } as const;
    const p = plan([stick, target, scans], largest);
    expect(endingsOf(p)).toEqual({ 'kept drive erased': worldOf(p).count });
    expect(setsOf(p)).toEqual(['unplug:scans']);
  });

  it('a list that shows nothing is gone through by place: letters that shuffle', () => {
    const p = plan([stick, target, { ...scans, bytes: 80e9 }], { lists: [] });
    expect(endingsOf(p)['kept drive erased']).toBe(worldOf(p).count / 2);
  });

  it('a missed key starts what the order has; left in, a stick that stands first starts again', () => {
    const old: Drive = { ...scans, starts: { uefi: 'the old system', bios: null } };
    const p = plan([old, stick, target]);
    const { count } = worldOf(p);
    expect(endingsOf(p, ['read'])['another system starts']).toBe(count / 2);
    expect(endingsOf(p, ['read', 'key'])).toEqual({ 'right system starts': count });
    const first = plan(
      [old, stick, target],
      { entry: 'fallback path only' },
      { startBy: 'order', machine: { order: [['new'], ['scans'], ['stick']] } },
    );
    const { count: n } = worldOf(first);
    // Left in and the order not set back: a quarter.
    expect(endingsOf(first, ['read'])['installer starts again']).toBe(n / 4);
    expect(setsOf(first, 'right at once')).toContain('read + stick out');
  });

  it('a loader at the fallback path alone loses to an old system before it, and “target first” mends that', () => {
    const old: Drive = { ...scans, starts: { uefi: 'the old system', bios: null } };
    const p = plan([old, stick, target], { entry: 'fallback path only' });
    const held = ['read', 'key', 'stick out'];
    expect(endingsOf(p, held)).toEqual({ 'another system starts': worldOf(p).count });
    expect(endingsOf(p, [...held, 'target first'])).toEqual({ 'right system starts': worldOf(p).count });
  });

  it('unplugged and put back, an old system starts first again unless the order has forgotten it', () => {
    const old: Drive = { ...scans, starts: { uefi: 'the old system', bios: null } };
    const p = plan([old, target, stick], { entry: 'fallback path only' });
    const { count } = worldOf(p);
    const taken = ['unplug:scans', 'key', 'stick out'];
    expect(endingsOf(p, taken)).toEqual({
      'right system starts': count / 2,
      'another system starts': count / 2,
    });
    // A port that is switched off is no drive that was forgotten.
    const off = plan([{ ...old, portOff: true }, target, stick], { entry: 'fallback path only' });
    expect(endingsOf(off, ['port off:scans', 'key', 'stick out'])).toEqual({
      'another system starts': worldOf(off).count,
    });
  });

  it('a loader that goes to the first start part found alters a kept drive', () => {
    const p = plan([stick, target, { ...scans, startPart: true }], { loader: 'the first start part found' });
    expect(endingsOf(p, ['read'])['kept start altered']).toBe(worldOf(p).count / 2);
    expect(setsOf(p)).toContain('unplug:scans');
    // Under BIOS there is no such part.
    const bios = plan(
      [stick, target, { ...scans, startPart: true }],
      { loader: 'the first start part found' },
      { machine: { mode: 'bios' } },
    );
    expect(endingsOf(bios, ['read'])['kept start altered']).toBeUndefined();
  });

  it('Secure Boot refuses what is not signed; both modes give a stick two lines, of which one may start nothing', () => {
    const unsigned: Drive = { ...stick, signed: false, starts: { uefi: 'the installer', bios: null } };
    const p = plan([unsigned, target], {}, { machine: { secureBoot: 'on' } });
    expect(endingsOf(p)).toEqual({ 'nothing starts': worldOf(p).count });
    expect(setsOf(p, 'right at once')).toEqual(['secure off']);
    const both = plan([{ ...unsigned, signed: true }, target], {}, { machine: { mode: 'both' } });
    // The BIOS line starts nothing, and then the order does.
    expect(endingsOf(both)).toEqual({ 'right system starts': worldOf(both).count });
  });

  it('a key that nobody enrols in time keeps the new system from starting', () => {
    const enrols = rehearsalPlanSchema.parse({
      ...plan([stick, target], {}, { machine: { secureBoot: 'on' } }),
      installer: { ...plan([stick, target]).installer, enrols: true },
    });
    const { count } = worldOf(enrols);
    // Missed, the order is tried: a stick that was left in begins again, and else nothing starts.
    expect(endingsOf(enrols)).toEqual({
      'right system starts': count / 2,
      'installer starts again': count / 4,
      'nothing starts': count / 4,
    });
    expect(setsOf(enrols, 'right at once').sort()).toEqual(['enrol', 'secure off']);
  });

  it('a drive the firmware cannot start from is started by a chain loader', () => {
    const nvme: Drive = { ...target, bus: 'nvme' };
    const machine = { cannotStart: ['nvme'] };
    const alone = plan([stick, nvme], {}, { machine });
    expect(endingsOf(alone)['right system starts']).toBeUndefined();
    const chain: Drive = {
      id: 'chain',
      role: 'other',
      bus: 'mmc',
      starts: { uefi: 'a chain loader', bios: null },
      chainsTo: 'new',
      bytes: 100e6,
    };
    const chained = plan([stick, nvme, chain], { entry: 'fallback path only' }, { machine });
    expect(endingsOf(chained, ['read', 'stick out'])).toEqual({
      'right system starts': worldOf(chained).count,
    });
  });

  it('beside another system, who does not read takes the whole drive', () => {
    const beside: Drive = { ...target, matters: true, starts: { uefi: 'the old system', bios: null } };
    const p = plan(
      [stick, beside],
      { beside: true, ends: 'asks for a restart' },
      { machine: { power: 'mains' } },
    );
    expect(endingsOf(p)['kept drive erased']).toBeGreaterThan(0);
    expect(endingsOf(p)['half written, for good']).toBeGreaterThan(0);
    expect(setsOf(p)).toEqual(['read + stick out + power']);
  });

  it('a running machine that writes has its own drive in the list', () => {
    const p = plan(
      [
        { id: 'own', role: 'other', matters: true, bus: 'nvme', bytes: 500e9 },
        { ...target, bus: 'usb', serial: 'S7' },
      ],
      { choice: 'written straight to the final drive', lists: ['size', 'serial'] },
      { kind: 'write', machine: { power: 'mains' } },
    );
    expect(worldOf(p).count).toBe(2 * 2 * 3);
    expect(Object.keys(endingsOf(p)).sort()).toEqual([
      'half written, again',
      'kept drive erased',
      'nothing written',
      'written',
    ]);
    expect(setsOf(p)).toEqual(['serial', 'read']);
  });

  it('refuses what it cannot count exactly, with the number', () => {
    const many = Array.from({ length: 10 }, (_, i): Drive => ({ id: `d${i}`, role: 'other', bus: 'usb' }));
    const p = plan(
      [stick, target, ...many],
      { loader: null },
      { machine: { order: null, mode: null, power: 'mains' } },
    );
    expect(worldOf(p).count).toBeGreaterThan(1e14);
    expect(() => rehearse(p, [])).toThrow(RehearsalError);
  });
});

/** Plans by chance: what is open, what is there, and how the installer is. */
const anyPlan = fc
  .record({
    choice: fc.constantFrom(
      'asks for the drive',
      'preselects the first drive',
      'takes the first drive unasked',
    ),
    entry: fc.constantFrom('made', 'fallback path only'),
    startBy: fc.constantFrom('menu', 'order'),
    loader: fc.constantFrom('the chosen drive', 'the first start part found', null),
    beside: fc.boolean(),
    others: fc.array(
      fc.record({ matters: fc.boolean(), old: fc.boolean(), startPart: fc.boolean(), twin: fc.boolean() }),
      { maxLength: 2 },
    ),
    power: fc.constantFrom('mains', 'secured'),
  })
  .map(({ others, choice, entry, loader, beside, startBy, power }) =>
    plan(
      [
        stick,
        { ...target, serial: 'S' },
        ...others.map((o, i): Drive => ({
          ...scans,
          id: `o${i}`,
          matters: o.matters,
          startPart: o.startPart,
          bytes: o.twin ? 120e9 : 500e9,
          starts: { uefi: o.old ? 'old' : null, bios: null },
        })),
      ],
      {
        choice: choice as RehearsalPlan['installer']['choice'],
        entry: entry,
        loader: loader as InstallerManner['loader'],
        beside,
        ends: 'asks for a restart',
        lists: ['size', 'model', 'serial'],
      },
      { startBy: startBy, machine: { power } },
    ),
  );

describe('sets and what is told', () => {
  it('all worlds are counted, and every set that is answered reaches its aim and can spare nothing', () => {
    fc.assert(
      fc.property(anyPlan, fc.constantFrom(...aims), (p, aim) => {
        const stage = new Stage(p);
        const { right, again, lost, worlds } = tallyOf(stage, takenOf(stage, []));
        expect(right + again + lost).toBe(worlds);
        for (const { ids } of setsFor(p, aim).sets) {
          expect(missing(tallyOf(stage, takenOf(stage, ids)), aim)).toBe(0);
          for (const id of ids) {
            const fewer = ids.filter((x) => x !== id);
            expect(missing(tallyOf(stage, takenOf(stage, fewer)), aim)).toBeGreaterThan(0);
          }
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('each precaution says what it changes, and the wrong world is the shortest there is', () => {
    const p = plan([stick, target, scans], { choice: 'preselects the first drive' });
    const found = rehearse(p, []);
    const unplug = found.precautions.find((t) => t.precaution.id === 'unplug:scans');
    expect(unplug?.on).toBe(false);
    expect(unplug?.switched.lost).toBe(0);
    const wrong = wrongWorld(found);
    expect(wrong?.ending).toBe('kept drive erased');
    // Only one thing goes otherwise than is usual: the list is not read.
    expect(wrong?.departures).toBeLessThanOrEqual(2);
    expect(wrong?.frames.at(-1)?.looks.find((l) => l.drive === 'scans')?.look).toBe('erased');
    const long = shortNames(() => 'The parish scans of eighteen hundred and ninety, the only copy')('x');
    expect(long.length).toBeLessThanOrEqual(32);
    expect(long.endsWith('nly copy')).toBe(true);
    for (const t of found.told)
      for (const f of t.frames) expect(frameWords(f, namesIn(p)).title).not.toBe('');
    expect(rehearsalHeadline(found, namesIn(p))).toContain('scans');
    const safe = rehearse(p, ['unplug:scans', 'key', 'stick out']);
    expect(safe.tally.lost).toBe(0);
    expect(safe.precautions.find((t) => t.precaution.id === 'unplug:scans')?.switched.lost).toBeGreaterThan(
      0,
    );
    expect(Object.keys(endingWords)).toEqual(expect.arrayContaining(safe.tally.endings.map((e) => e.ending)));
  });

  it('what a person refuses is not offered', () => {
    const p = plan(
      [stick, target, scans],
      { choice: 'takes the first drive unasked' },
      { refused: ['unplug:scans'] },
    );
    expect(setsFor(p, 'nothing lost').sets).toEqual([]);
  });

  it('stops when it is asked to, and tells how far it is', () => {
    const p = plan(
      [
        stick,
        target,
        scans,
        { ...scans, id: 'b', bus: 'usb' },
        { ...scans, id: 'c', bus: 'usb' },
        { ...scans, id: 'd', bus: 'usb' },
      ],
      { loader: null, lists: [] },
      { machine: { order: null, mode: null, secureBoot: null, power: 'mains' } },
    );
    const shares: number[] = [];
    expect(() =>
      rehearse(p, [], { progress: (s) => shares.push(s), stopped: () => shares.length > 3 }),
    ).toThrow(RehearsalError);
    expect(shares.every((s, i) => s >= (shares[i - 1] ?? 0) && s <= 1)).toBe(true);
  });
});

describe('what is told of a rehearsal', () => {
  const first = plan(
    [{ ...scans, bytes: 480e9 }, target, stick],
    { choice: 'takes the first drive unasked' },
    {
      machine: { order: null },
    },
  );
  // How many scenarios there are says nothing of how likely one is.
  it('is that it can happen and how, with no count that reads as odds', () => {
    const found = rehearse(first, []);
    expect(found.tally.lost).toBeGreaterThan(0);
    const said = rehearsalHeadline(found, namesIn(first));
    expect(said).toContain('“scans” can be erased');
    expect(said).toContain(causeWords['taken first']);
    expect(said).not.toMatch(/\d/);
  });
  it.each([
    ['kept drive erased', 'taken first'],
    ['half written, again', 'cut while copying'],
  ] as const)('“%s” comes by “%s”', (ending, cause) => {
    const p = { ...first, machine: { ...first.machine, power: 'mains' as const } };
    const world = rehearse(p, []).told.find((t) => t.ending === ending);
    expect(world && causeOf(world)).toBe(cause);
  });
  // UEFI 2.10 §3.5.1.1: without an entry, firmware looks in one path alone; BIOS enters the one boot sector (common practice).
  it.each([
    ['bios', 'made', true],
    ['uefi', 'fallback path only', true],
    ['uefi', 'made', false],
  ] as const)(
    'a kept system beside the new one, under %s with the entry “%s”, loses what boots it: %s',
    (mode, entry, lost) => {
      const old = { ...target, matters: true, starts: { uefi: 'old', bios: 'old' } };
      const p = plan(
        [old, stick],
        { beside: true, entry, loader: 'the chosen drive' },
        { machine: { mode } },
      );
      const found = rehearse(p, ['read', 'key', 'stick out', 'menu']);
      const world = found.told.find((t) => t.ending === 'kept start altered');
      expect(world !== undefined).toBe(lost);
      if (world) expect(causeOf(world)).toBe('loader overwritten');
    },
  );
  it('has a cause for every bad scenario, and none for a good one', () => {
    fc.assert(
      fc.property(anyPlan, (p) => {
        for (const t of rehearse(p, []).told) expect(causeOf(t) === null).toBe(gradeOf(t.ending) === 'right');
      }),
      { numRuns: runs(60) },
    );
  });
  it('of a precaution is the same whether it is taken now or not: with it against without it', () => {
    fc.assert(
      fc.property(anyPlan, (p) => {
        const without = rehearse(p, []);
        for (const { precaution, effect } of without.precautions.slice(0, 4)) {
          const taken = rehearse(p, [precaution.id]);
          const again = taken.precautions.find((t) => t.precaution.id === precaution.id);
          expect(again?.effect).toEqual(effect);
          // What it rules out can happen without it, and does not with it.
          for (const e of effect.rulesOut) {
            expect(without.tally.endings.map((x) => x.ending)).toContain(e);
            expect(taken.tally.endings.map((x) => x.ending)).not.toContain(e);
          }
        }
      }),
      { numRuns: runs(24) },
    );
  });
});

describe('the plan of a box', () => {
  const bench = saltmarshHall();
  const box = (id: string, of: Bench = bench): Box => {
    const found = of.boxes.find((b) => b.id === id);
    if (!found) throw new Error(`no box ${id}`);
    return found;
  };
  const after = (act: ReturnType<typeof takePrecautions>): Bench => applyChanges(bench, act.changes);

  it('takes machine, drives, stick and installer as the stops have decided them', () => {
    const made = boxPlan(bench, box('film-night'));
    if ('code' in made) throw new Error(made.code);
    expect(made.plan.drives.map((d) => [d.id, d.role, d.matters])).toEqual([
      ['tern-ssd', 'other', true],
      ['loose-480', 'target', false],
      ['the stick', 'installer', false],
    ]);
    expect(made.plan.installer.choice).toBe('preselects the first drive');
    expect(made.assumed.map((a) => a.code)).toContain('stick not written');
    // A stick that was picked brings its look-alike of the shelf with it.
    const picked = boxPlan(bench, { ...box('film-night'), targetSerial: 'ST16-40A7-7C20' });
    if ('code' in picked) throw new Error(picked.code);
    expect(picked.plan.drives.map((d) => [d.id, d.role])).toEqual(
      expect.arrayContaining([
        ['blue', 'installer'],
        ['red', 'other'],
      ]),
    );
  });

  it('the writing of the stick is rehearsed as well, beside the writing machine’s own drive', () => {
    const made = boxPlan(
      bench,
      { ...box('film-night'), targetSerial: 'ST16-40A7-7C20' },
      'writing the stick',
    );
    if ('code' in made) throw new Error(made.code);
    expect(made.plan.kind).toBe('write');
    expect(made.plan.drives.map((d) => [d.role, d.matters])).toEqual([
      ['other', true],
      ['target', false],
      ['other', false],
    ]);
    const stage = new Stage(made.plan);
    // Our own writer asks for the serial; another does not.
    expect(tallyOf(stage, takenOf(stage, made.always)).lost).toBe(0);
    expect(tallyOf(stage, takenOf(stage, [])).lost).toBeGreaterThan(0);
  });

  it('a shelf full of sticks that look alike does not keep a plan from being rehearsed; those to keep come first', () => {
    const blue = bench.items.find((i) => i.id === 'blue');
    if (blue?.kind !== 'stick') throw new Error('no stick');
    const many = Array.from({ length: 200 }, (_, i) => ({
      ...blue,
      id: `s${i}`,
      serial: `ALIKE-${i}`,
      fate: i === 150 ? ('keep' as const) : ('may be lost' as const),
    }));
    const made = boxPlan(
      { ...bench, items: [...bench.items, ...many] },
      { ...box('film-night'), targetSerial: blue.serial },
    );
    if ('code' in made) throw new Error(made.code);
    expect(made.plan.drives.map((d) => d.id)).toContain('s150');
    expect(made.plan.drives.length).toBeLessThan(8);
  });

  it('says why there is none', () => {
    const none = (changed: Partial<Box>): string => {
      const made = boxPlan(bench, { ...box('film-night'), ...changed });
      return 'code' in made ? made.code : 'a plan';
    };
    expect(none({ machineId: null })).toBe('no machine');
    expect(none({ profileId: null })).toBe('no system');
    expect(none({ layout: null })).toBe('no target');
    const layout = box('film-night').layout;
    expect(none({ layout: layout && { ...layout, driveId: 'tern-ssd' } })).toBe('target is kept');
  });

  it('is a hazard and minutes of its box until a set of precautions is taken; what is refused is not taken', () => {
    const film = box('film-night');
    const codes = (of: Bench): string[] =>
      summaryOf(of, box('film-night', of))
        .hazards.filter((h) => h.stop === 'install')
        .map((h) => h.code);
    expect(codes(bench)).toContain('rehearsal loses a drive');
    const taken = after(takePrecautions(film, ['unplug:tern-ssd'], 'x'));
    expect(codes(taken)).not.toContain('rehearsal loses a drive');
    const hands = (of: Bench): number => summaryOf(untimed(of), box('film-night', untimed(of))).hands.low;
    // The machine is opened for the new drive anyway: unplugging the other takes a minute more.
    expect(hands(taken)).toBe(hands(bench) + 60);
    const tally = boxTally(taken, box('film-night', taken));
    if ('code' in tally) throw new Error(tally.code);
    expect([tally.tally?.lost, tally.loses]).toEqual([0, null]);
    const refused = applyChanges(
      taken,
      refusePrecaution(box('film-night', taken), 'unplug:tern-ssd', true, 'x').changes,
    );
    expect(box('film-night', refused)).toMatchObject({ precautions: [], refused: ['unplug:tern-ssd'] });
    expect(codes(refused)).toContain('rehearsal loses a drive');
  });
});
