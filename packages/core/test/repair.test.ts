import { solverFrom, type Highs } from '@zb/core/assign/highs';
import { lpText } from '@zb/core/assign/lp';
import { buildModel } from '@zb/core/assign/model';
import { optionsOf } from '@zb/core/assign/options';
import { withRemedy } from '@zb/core/assign/remedy';
import { sceneOf } from '@zb/core/assign/scene';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { profile, release } from '@zb/core/demo/make';
import { judge, otherWays } from '@zb/core/system/judge';
import type { Part } from '@zb/core/system/part';
import { applyRepair } from '@zb/core/system/repair';
import type { MachineView } from '@zb/core/system/view';
import { findingWords } from '@zb/core/words/fit/finding';
import { repairWords } from '@zb/core/words/fit/repairs';
import { overruleKey } from '@zb/core/system/wishRules';
import type { Profile } from '@zb/core/model/profile';
import type { Wish } from '@zb/core/model/wish';

const GIB = 1024 ** 3;
const must = <T>(v: T | undefined): T => {
  if (v === undefined) throw new Error('missing');
  return v;
};

let n = 0;
const base = (name: string, price = 0): Pick<Part, 'id' | 'name' | 'price' | 'offer'> => ({
  id: `${name}-${(n += 1)}`,
  name,
  price,
  offer: price > 0,
});
const ram = (gib: number, price = 0, type = 'DDR4', form: 'DIMM' | 'SO-DIMM' = 'DIMM'): Part => ({
  ...base(`${gib} GB ${type} ${form}`, price),
  kind: 'memory',
  bytes: gib * GIB,
  type,
  form,
});
const drive = (name: string, bytes: number, more: Partial<Extract<Part, { kind: 'drive' }>> = {}): Part => ({
  ...base(name),
  kind: 'drive',
  bytes,
  bus: 'sata',
  m2: null,
  ...more,
});
const adapter = (name: string, more: Partial<Extract<Part, { kind: 'adapter' }>>): Part => ({
  ...base(name),
  kind: 'adapter',
  goesIn: 'expansion slot',
  wiredPorts: 0,
  sataPorts: 0,
  ...more,
});
const view = (facts: MachineView['facts'] = {}, more: Partial<MachineView> = {}): MachineView => ({
  name: 'M',
  form: 'tower',
  facts: {
    'cpu.arch': 'x86_64',
    'cpu.bits': '64',
    'cpu.level': 'v2',
    'cpu.cores': 4,
    'memory.bytes': 4 * GIB,
    'memory.free': 1,
    'memory.type': 'DDR4',
    'memory.form': 'DIMM',
    'firmware.mode': 'bios',
    'network.wired': 1,
    'ports.sata': 2,
    'ports.m2': [],
    'ports.pcie': 1,
    'ports.usb': 4,
    'power.idle': 20,
    'body.noise': 'quiet',
    ...facts,
  },
  drives: [{ name: 'boot', bytes: 64e9, transport: 'sata', removable: false, fate: 'may be lost' as const }],
  parts: [],
  ...more,
});
const wants = (needs: Partial<Profile['needs']>): Profile =>
  profile('p', 'P', 'file store', '', [release('1')], needs);
const named = (v: MachineView, p: Profile): string[] =>
  judge(v, p).repairs.map((r) =>
    r.kind === 'part' ? r.part.name : r.kind === 'buy' ? `buy: ${repairWords(r)}` : repairWords(r),
  );

// The trade's own rules (common practice, no source), as mistakes are made against them.
describe('the part that truly goes in', () => {
  const eight = wants({ memoryBytes: 8 * GIB });
  it('memory of the right type and form, the cheapest first, own before bought', () => {
    const parts = [ram(8, 0, 'DDR3'), ram(8, 0, 'DDR4', 'SO-DIMM'), ram(8, 20), ram(4, 5), ram(16)];
    expect(named(view({}, { parts }), eight)).toEqual(['16 GB DDR4 DIMM']);
    expect(named(view({}, { parts: parts.slice(0, 4) }), eight)).toEqual(['4 GB DDR4 DIMM']);
    expect(named(view({}, { parts: parts.slice(0, 2) }), eight)[0]).toMatch(/^buy: Fetch 4 GiB of DDR4 DIMM/);
  });

  it('where no slot is free a smaller module makes room, and the most it takes is kept', () => {
    const full = view(
      { 'memory.free': 0, 'memory.max': 16 * GIB },
      { modules: [2 * GIB, 2 * GIB], parts: [ram(4), ram(8)] },
    );
    // 4 in place of 2 is 6: not enough. 8 in place of 2 is 10.
    expect(named(full, eight)).toEqual(['8 GB DDR4 DIMM']);
    const tight = { ...full, facts: { ...full.facts, 'memory.max': 9 * GIB }, parts: [ram(8)] };
    expect(named(tight, eight)[0]).toMatch(/^buy/);
    expect(judge(view({ 'memory.form': 'soldered' }), eight).verdict).toBe('does not fit');
    expect(judge(view({ 'memory.max': 4 * GIB }), eight).binding[0]?.reason).toMatchObject({
      code: 'memory at its most',
      most: 4 * GIB,
    });
    const unsure = view({ 'memory.free': 0 });
    expect(judge(unsure, eight).missing.map((m) => m.fact)).toEqual(['memory.max']);
  });

  it('drives by port, shape, length and key', () => {
    const boot = wants({ bootBytes: 100e9 });
    const short = { length: '2230' as const, key: 'M' as const, lanes: 4 as const };
    const parts = [
      drive('short M.2', 256e9, { bus: 'nvme', m2: short, shape: 'M.2' }),
      drive('M.2 without a name', 200e9, { bus: 'nvme', m2: null, shape: 'M.2' }),
      drive('large', 4e12, { shape: '3.5 inch' }),
      drive('card', 128e9, { bus: 'card' }),
    ];
    expect(named(view({}, { parts }), boot)).toEqual(['large']);
    expect(named(view({}, { parts, form: 'mini PC' }), boot)[0]).toMatch(/^buy: Fetch a drive/);
    // Firmware in BIOS mode does not start from NVMe (common practice, no source).
    const slot = { 'ports.m2': ['M 2230 nvme x4'] };
    expect(named(view(slot, { parts, form: 'mini PC' }), boot)[0]).toMatch(/^buy: Fetch a drive/);
    const uefi = { ...slot, 'firmware.mode': 'uefi', 'firmware.secureBoot': 'off' };
    expect(named(view(uefi, { parts, form: 'mini PC' }), boot)).toEqual(['short M.2']);
    expect(named(view({ 'ports.m2': ['M 2280 nvme x4'] }, { parts, form: 'mini PC' }), boot)[0]).toMatch(
      /^buy/,
    );
    expect(
      named(view({ 'ports.drives': 0, 'ports.sata': 0 }, { parts, form: 'board', drives: [] }), boot),
    ).toEqual(['card']);
  });

  it('a mirror: drives into free ports, and a card where ports are missing', () => {
    const mirror = wants({ dataDrives: 2 });
    const two = [drive('a', 1e12), drive('b', 1e12)];
    expect(named(view({ 'ports.sata': 3 }, { parts: two }), mirror)).toEqual(['a', 'b']);
    const card = adapter('SATA card', { sataPorts: 2 });
    expect(named(view({ 'ports.sata': 2 }, { parts: [...two, card] }), mirror)).toEqual([
      'SATA card',
      'a',
      'b',
    ]);
    expect(judge(view({ 'ports.sata': 2, 'ports.pcie': 0 }, { parts: [...two, card] }), mirror).verdict).toBe(
      'does not fit',
    );
    const unknown = view({ 'ports.sata': 2 }, { parts: [card] });
    delete unknown.facts['ports.pcie'];
    expect(judge(unknown, mirror).missing.map((m) => m.fact)).toEqual(['ports.pcie']);
  });

  it('network ports by card or by USB; one slot takes one card', () => {
    const gate = wants({ wiredPorts: 2, dataDrives: 2 });
    const parts = [
      adapter('network card', { wiredPorts: 2 }),
      adapter('SATA card', { sataPorts: 2 }),
      adapter('USB network', { goesIn: 'USB port', wiredPorts: 1 }),
      drive('a', 1e12),
      drive('b', 1e12),
    ];
    // The slot goes to the ports that only a card can bring.
    expect(named(view({}, { parts }), gate)).toEqual(['SATA card', 'a', 'b', 'USB network']);
  });

  it('other ways come after the cheapest, and never name a part twice', () => {
    const parts = [ram(16), ram(8, 20), ram(4, 30)];
    const machine = view({}, { parts });
    const first = judge(machine, eight);
    const ways = otherWays(machine, eight, first);
    const names = [first.repairs, ...ways.map((w) => w.repairs)].map((rs) =>
      rs.map((r) => (r.kind === 'part' ? r.part.name : r.kind)),
    );
    expect(names).toEqual([['16 GB DDR4 DIMM'], ['8 GB DDR4 DIMM'], ['4 GB DDR4 DIMM'], ['buy']]);
    expect(ways.map((w) => w.cost)).toEqual([20, 30, null]);
    for (const w of ways) expect(judge(w.repairs.reduce(applyRepair, machine), eight).verdict).toBe('fits');
    const enough = view({ 'memory.bytes': 8 * GIB });
    expect(otherWays(enough, eight, judge(enough, eight))).toEqual([]);
  });

  it('what is put aside for this machine is taken before anything else', () => {
    const parts = [ram(8), { ...ram(16), reserved: true }];
    expect(named(view({}, { parts }), wants({ memoryBytes: 8 * GIB }))).toEqual(['16 GB DDR4 DIMM']);
  });

  it('an assumed type names no part: nothing is bought on a guess', () => {
    const guess = view({}, { parts: [ram(8)], assumed: new Set(['memory.type' as const]) });
    expect(named(guess, wants({ memoryBytes: 8 * GIB }))[0]).toMatch(/^buy/);
  });

  it('a setting changes the fact it mends', () => {
    const uefi = view({ 'firmware.mode': 'uefi', 'firmware.secureBoot': 'on' });
    const judged = judge(uefi, wants({}));
    expect(judged.repairs).toMatchObject([{ kind: 'setting', set: 'firmware.secureBoot', value: 'off' }]);
    expect(applyRepair(uefi, must(judged.repairs[0])).facts['firmware.secureBoot']).toBe('off');
    const unknown = view({ 'firmware.mode': 'uefi' });
    expect(judge(unknown, wants({})).repairs).toHaveLength(1);
  });
});

// Noise, watts and wires where it stands: common practice, no source.
describe('where it is to stand', () => {
  const wish = (more: Partial<Wish>): Wish => ({
    id: 'w',
    name: 'W',
    purpose: 'file store',
    profileId: null,
    importance: 3,
    noise: 'loud',
    wire: true,
    wattsMax: null,
    hoursPerDay: 24,
    features: [],
    pinned: null,
    forbid: [],
    notes: '',
    ...more,
  });
  const p = wants({});
  it.each([
    ['silent wanted, quiet is not enough', {}, { noise: 'silent' as const }, 'noise', 'does not fit'],
    ['quiet wanted', {}, { noise: 'quiet' as const }, 'noise', 'fits'],
    [
      'no fan is silent',
      { 'body.noise': undefined, 'body.fan': false },
      { noise: 'silent' as const },
      'noise',
      'fits',
    ],
    [
      'noise not known',
      { 'body.noise': undefined },
      { noise: 'audible' as const },
      'noise',
      'cannot say yet',
    ],
    ['too many watts', {}, { wattsMax: 15 }, 'watts', 'does not fit'],
    ['watts not known', { 'power.idle': undefined }, { wattsMax: 15 }, 'watts', 'cannot say yet'],
    ['no wire and no wireless', { 'network.wireless': 0 }, { wire: false }, 'place', 'does not fit'],
    ['no wire, wireless there', { 'network.wireless': 1 }, { wire: false }, 'place', 'fits'],
    [
      'a remote line wanted',
      { 'display.remote': false },
      { features: ['remote-control line'] },
      'features',
      'does not fit',
    ],
    [
      'ciphers wanted and there',
      { 'cpu.aes': true },
      { features: ['ciphers in hardware'] },
      'features',
      'fits',
    ],
    ['a battery wanted, nobody looked', {}, { features: ['battery'] }, 'features', 'cannot say yet'],
  ] as [string, MachineView['facts'], Partial<Wish>, string, string][])(
    '%s',
    (_what, facts, more, rule, verdict) => {
      const machine = view(JSON.parse(JSON.stringify({ ...facts })) as MachineView['facts']);
      for (const [key, value] of Object.entries(facts))
        if (value === undefined) delete machine.facts[key as 'body.noise'];
      const judged = judge(machine, p, {}, wish(more));
      expect(judged.verdict).toBe(verdict);
      const found = judged.all.find((f) => f.rule === rule);
      expect(found && findingWords(found).because).toMatch(/./);
    },
  );
  it('a limit of the place is soft, and set aside for this wish alone', () => {
    const w = wish({ noise: 'silent' });
    const aside = view(
      {},
      { overruled: [{ profileId: overruleKey(w), rule: 'noise', reason: 'behind a door' }] },
    );
    expect(judge(aside, p, {}, w).verdict).toBe('fits');
    expect(judge(aside, p, {}, wish({ id: 'other', noise: 'silent' })).verdict).toBe('does not fit');
  });
  it('a system that serves wants a wire where it stands', () =>
    expect(judge(view(), wants({ wiredPorts: 1 }), {}, wish({ wire: false })).binding[0]?.reason.code).toBe(
      'no wire there',
    ));
});

describe('the model for the solver', () => {
  it('is written in the LP format, whole and relaxed', () => {
    const model = {
      objective: [
        { name: 'x', by: 3 },
        { name: 'y', by: -0.5 },
      ],
      rows: [
        {
          terms: [
            { name: 'x', by: 1 },
            { name: 'y', by: -2 },
          ],
          sign: '<=' as const,
          is: 4,
        },
        { terms: [], sign: '<=' as const, is: 0 },
      ],
      binary: ['x'],
      whole: [{ name: 'y', most: 4 }],
    };
    expect(
      lpText(model)
        .split('\n')
        .map((l) => l.trim()),
    ).toEqual(
      'Maximize|obj: + 3 x|- 0.500000000 y|Subject To|r0: + 1 x|- 2 y <= 4|Bounds|0 <= nothing <= 0|0 <= y <= 4|Binary|x|General|y|End|'.split(
        '|',
      ),
    );
    expect(lpText(model, true)).not.toMatch(/Binary|General/);
    expect(lpText(model, true)).toMatch(/0 <= x <= 1/);
  });

  it('reads what a solver answers, and takes no half-told column for a value', () => {
    const told = (Status: string): Highs => ({
      solve: () => ({
        Status,
        ObjectiveValue: 7,
        Columns: { x: { Primal: 1 }, y: {}, z: { Primal: Number.NaN } },
      }),
    });
    expect(solverFrom(told('Optimal'))('', 1)).toEqual({
      status: 'optimal',
      objective: 7,
      values: new Map([['x', 1]]),
    });
    expect(solverFrom(told('Infeasible'))('', 1).status).toBe('infeasible');
    expect(solverFrom(told('Time limit reached'))('', 1).status).toBe('stopped');
  });

  it('equal parts are one variable, and options worth no more than another are left out', () => {
    const scene = sceneOf(saltmarshHall());
    const twice = {
      ...scene,
      parts: scene.parts.flatMap((p) => (p.offer ? [p] : [p, { ...p, id: `${p.id}-2`, name: 'twin' }])),
    };
    expect(buildModel(twice).placings.length).toBe(buildModel(scene).placings.length);
    const seen = optionsOf(scene).map((o) => `${o.wish} ${o.machine} ${o.profileId}`);
    expect(new Set(seen).size).toBe(seen.length);
  });

  it('a remedy changes only what it names', () => {
    const scene = sceneOf(saltmarshHall());
    const wish = must(scene.wishes.find((w) => w.id === 'w-desk'));
    const other = withRemedy(scene, wish, {
      kind: 'fact',
      machineId: 'skerry',
      machine: 'Skerry',
      ask: 'cpu.cores',
      facts: { 'cpu.cores': 4 },
    });
    expect(other.machines.find((m) => m.id === 'skerry')?.facts['cpu.cores']).toBe(4);
    expect(other.machines.filter((m) => m.id !== 'skerry')).toEqual(
      scene.machines.filter((m) => m.id !== 'skerry'),
    );
    const machine = { ...must(scene.machines[0]), id: 'fresh' };
    const bought = withRemedy(scene, wish, {
      kind: 'machine',
      machine,
      price: 95,
      as: { code: 'price list' },
    });
    // It is for this wish alone.
    expect(bought.wishes.filter((w) => !w.forbid.includes('fresh')).map((w) => w.id)).toEqual(['w-desk']);
    expect(withRemedy(scene, wish, { kind: 'system', purpose: 'desktop' })).toBe(scene);
  });
});
