import { machine, profile, release, store } from '@zb/core/demo/make';
import { owning, plainAdapter } from '@zb/core/model/blank';
import { emptyBench, type Bench } from '@zb/core/model/bench';
import type { FactKey, FactValue } from '@zb/core/model/facts';
import type { Purpose } from '@zb/core/model/profile';
import type { ShelfItem, Store } from '@zb/core/model/shelf';
import type { Wish } from '@zb/core/model/wish';

/** Shelves by seed, so that one that fails can be made again. Everything on them is made up. */
export interface Sizes {
  machines: number;
  wishes: number;
  parts: number;
  offers: number;
}

export type Pick = (n: number) => number;
export function picker(seed: number): Pick {
  let x = (Math.imul(seed, 2654435761) ^ 0x5bd1e995) >>> 0;
  return (n) => {
    x ^= x << 13;
    x >>>= 0;
    x ^= x >>> 17;
    x ^= x << 5;
    x >>>= 0;
    return x % n;
  };
}

const GIB = 1024 ** 3;
const of = <T>(pick: Pick, list: readonly T[]): T => list[pick(list.length)] as T;

const PURPOSES: readonly Purpose[] = ['games', 'firewall', 'file store', 'virtual machines'];

/** Four systems whose needs pull at different parts. */
const systems = [
  profile(
    'p-games',
    'Arcade',
    'games',
    '',
    [release('1'), release('2', { cpuLevel: 'v3', channel: 'newest' })],
    {
      memoryBytes: 4 * GIB,
      bootBytes: 16e9,
      graphics: true,
    },
  ),
  profile(
    'p-gate',
    'Gate',
    'firewall',
    '',
    [release('1', { cpuLevel: 'v2' })],
    { wiredPorts: 2 },
    { secureBoot: 'signed' },
  ),
  profile('p-store', 'Store', 'file store', '', [release('1')], {
    memoryBytes: 8 * GIB,
    bootBytes: 16e9,
    dataDrives: 2,
    wiredPorts: 1,
  }),
  profile('p-host', 'Host', 'virtual machines', '', [release('1')], {
    cores: 4,
    memoryBytes: 16 * GIB,
    bootBytes: 32e9,
    virtualisation: true,
  }),
  profile('p-host-small', 'Small host', 'virtual machines', '', [release('1')], {
    memoryBytes: 4 * GIB,
    virtualisation: true,
  }),
];

const M2: NonNullable<Store['m2']>[] = [
  { length: '2280', key: 'M', lanes: 4 },
  { length: '2230', key: 'M', lanes: 4 },
  { length: '2280', key: 'B+M', lanes: 0 },
];

function drive(pick: Pick, id: string, more: Partial<Store> = {}): Store {
  const bytes = of(pick, [8e9, 32e9, 240e9, 1e12]);
  const kind = pick(4);
  if (kind === 3) {
    const m2 = of(pick, M2);
    return store('drive', id, `Drive ${id}`, bytes, id, {
      transport: m2.lanes === 0 ? 'sata' : 'nvme',
      shape: 'M.2',
      m2,
      ...more,
    });
  }
  return store('drive', id, `Drive ${id}`, bytes, id, {
    shape: kind === 2 ? '3.5 inch' : '2.5 inch',
    ...more,
  });
}

function part(pick: Pick, id: string, bought: boolean): ShelfItem {
  const price = bought ? { owned: false, price: of(pick, [7, 12, 18, 32]) } : owning;
  const kind = pick(4);
  if (kind === 0)
    return {
      kind: 'memory',
      id,
      name: `Module ${id}`,
      bytes: of(pick, [4, 8, 16]) * GIB,
      type: of(pick, ['DDR3', 'DDR4']),
      form: 'DIMM',
      checked: null,
      in: null,
      notes: '',
      ...price,
    };
  if (kind === 1) {
    const wired = pick(2) === 0;
    return {
      kind: 'adapter',
      id,
      name: `Adapter ${id}`,
      from: '',
      to: '',
      notes: '',
      ...plainAdapter,
      goesIn: wired && pick(2) === 0 ? 'USB port' : 'expansion slot',
      wiredPorts: wired ? 1 + pick(2) : 0,
      sataPorts: wired ? 0 : 2,
      ...price,
    };
  }
  return drive(pick, id, price);
}

export function randomBench(seed: number, sizes: Sizes): Bench {
  const pick = picker(seed);
  const items: ShelfItem[] = [];
  for (let i = 0; i < sizes.machines; i += 1) {
    const id = `m${i}`;
    const facts: Partial<Record<FactKey, FactValue>> = {
      'cpu.arch': pick(9) === 0 ? 'aarch64' : 'x86_64',
      'cpu.bits': '64',
      'cpu.level': of(pick, ['v1', 'v2', 'v3']),
      'cpu.cores': of(pick, [2, 4, 8]),
      'cpu.mhz': 1600 + 200 * pick(12),
      'cpu.year': 2008 + pick(15),
      'cpu.virtualisation': pick(4) !== 0,
      'memory.bytes': of(pick, [2, 4, 8]) * GIB,
      'memory.free': pick(3),
      'memory.type': of(pick, ['DDR3', 'DDR4']),
      'memory.form': 'DIMM',
      'memory.max': of(pick, [16, 32]) * GIB,
      'firmware.mode': 'uefi',
      'firmware.secureBoot': of(pick, ['on', 'off']),
      'graphics.family': of(pick, ['in-kernel', 'none', 'in-kernel']),
      'network.wired': pick(3),
      'network.wireless': pick(2),
      'ports.sata': pick(4),
      'ports.m2': pick(2) === 0 ? [] : [of(pick, ['M 2280 nvme x4', 'M 2230 nvme x4', 'B 2280 sata x2'])],
      'ports.pcie': pick(2),
      'ports.usb': 1 + pick(4),
      'power.idle': 4 + pick(60),
      'body.noise': of(pick, ['silent', 'quiet', 'audible']),
    };
    // Now and then something is not known.
    if (pick(6) === 0) delete facts[of(pick, Object.keys(facts) as FactKey[])];
    const form = of(pick, ['tower', 'office desktop', 'mini PC', 'laptop'] as const);
    items.push(machine(id, `Machine ${i}`, form, '', facts, {}, 1));
    const inside = pick(3);
    for (let d = 0; d < inside; d += 1)
      items.push(
        drive(pick, `${id}d${d}`, {
          in: id,
          fate: pick(6) === 0 ? 'keep' : 'may be lost',
          shape: '2.5 inch',
          transport: 'sata',
          m2: null,
        }),
      );
  }
  for (let i = 0; i < sizes.parts; i += 1) items.push(part(pick, `part${i}`, false));
  for (let i = 0; i < sizes.offers; i += 1) items.push(part(pick, `offer${i}`, true));
  const wishes = Array.from({ length: sizes.wishes }, (_, i): Wish => {
    const forbid = pick(5) === 0 ? [`m${pick(sizes.machines)}`] : [];
    return {
      id: `w${i}`,
      name: `Wish ${i}`,
      purpose: of(pick, PURPOSES),
      profileId: null,
      importance: 1 + pick(5),
      noise: of(pick, ['quiet', 'audible', 'loud'] as const),
      wire: pick(4) !== 0,
      wattsMax: pick(5) === 0 ? 40 : null,
      hoursPerDay: 8,
      features: [],
      pinned: pick(8) === 0 ? `m${pick(sizes.machines)}` : null,
      forbid,
      notes: '',
    };
  });
  const bench = emptyBench('Made by a seed');
  return {
    ...bench,
    items,
    wishes,
    profiles: systems,
    settings: { ...bench.settings, budget: of(pick, [0, 15, 30, 60]) },
  };
}
