import { canTake, judge, type Judgement } from '../system/judge';
import type { RuleFinding } from '../system/finding';
import type { Part } from '../system/part';
import type { Repair } from '../system/repairs';
import { systemsFor } from '../system/sheet';
import type { FactKey, FactValue } from '../model/facts';
import type { Profile, Purpose } from '../model/profile';
import type { Wish } from '../model/wish';
import { GIB } from '../units/bytes';
import { allowed } from './options';
import type { SolveLp } from './lp';
import { withRemedy, type Remedy } from './remedy';
import type { Scene } from './scene';
import { solveScene, type Solution } from './solve';
import { madeToMeasure } from './madeToMeasure';

/** Why a wish is left out; machines by name, money in the bench's currency. */
export type UnmetReason =
  | { code: 'no system'; purpose: Purpose }
  | { code: 'pinned or forbidden' }
  | { code: 'over budget'; budget: number; extra: number }
  | { code: 'free but lacking'; machine: string; budget: number; repairs: Repair[] }
  /** All that would do are given to other wishes; `wish` is null where its name is not known. */
  | { code: 'taken'; holders: { machine: string; wish: string | null }[] }
  | { code: 'parts used elsewhere' }
  | { code: 'not known yet'; machines: string[] }
  | { code: 'none can'; machines: { machine: string; binding: RuleFinding | null }[] };

/** A wish that no plan of this value meets, why, and what would. */
export interface Unmet {
  wishId: string;
  reason: UnmetReason;
  /** Null where nothing that was tried meets it. */
  remedy: Remedy | null;
}

const isMet = (s: Solution | undefined, wish: Wish): boolean =>
  s?.assignments.some((a) => a.wishId === wish.id) === true;

interface Context {
  scene: Scene;
  solution: Solution;
  wish: Wish;
  solveLp: SolveLp;
  seconds: number;
}

/** Solves again with the remedy in place, and keeps it only where the wish is then met. */
const tried = ({ scene, wish, solveLp, seconds }: Context, remedy: Remedy): Remedy | undefined =>
  isMet(solveScene(withRemedy(scene, wish, remedy), solveLp, seconds), wish) ? remedy : undefined;

/** Money no object: what would have to be bought so that this wish is met and none of the others is given up. */
function byBuying(c: Context): { remedy: Remedy; extra: number } | undefined {
  const met = [...c.solution.assignments.map((a) => a.wishId), c.wish.id];
  const rich = solveScene({ ...c.scene, budget: 1e6 }, c.solveLp, c.seconds, { met });
  if (!rich) return undefined;
  const counts = new Map<string, number>();
  for (const [sign, s] of [
    [1, rich],
    [-1, c.solution],
  ] as const)
    for (const p of s.assignments.flatMap((a) => a.parts).filter((x) => x.offer))
      counts.set(p.partId, (counts.get(p.partId) ?? 0) + sign * p.count);
  // What the plan buys anyway stays within the budget; only what comes on top is named.
  const parts = c.scene.parts.flatMap((part) =>
    Array.from({ length: Math.max(0, counts.get(part.id) ?? 0) }, (_, i) => ({
      ...part,
      id: `${part.id}#${i}`,
      offer: false,
      price: 0,
    })),
  );
  if (parts.length === 0) return undefined;
  const price = parts.reduce((n, p) => n + (c.scene.parts.find((x) => x.name === p.name)?.price ?? 0), 0);
  const remedy = tried(c, { kind: 'parts', parts, price });
  return remedy && { remedy, extra: c.solution.spent + price - c.scene.budget };
}

/** Answers that would help, tried where a question stands in the way: the best a machine could have. */
const HOPE: Partial<Record<FactKey, FactValue>> = {
  'cpu.arch': 'x86_64',
  'cpu.level': 'v3',
  'cpu.cores': 8,
  'cpu.virtualisation': true,
  'cpu.aes': true,
  'memory.bytes': 64 * GIB,
  'memory.free': 2,
  'memory.max': 128 * GIB,
  'graphics.family': 'in-kernel',
  'firmware.mode': 'uefi',
  'network.wired': 2,
  'network.wireless': 1,
  'ports.drives': 4,
  'ports.pcie': 1,
  'body.noise': 'silent',
  'power.idle': 4,
  'power.battery': true,
  'display.remote': true,
  'display.portrait': true,
};

/** Which answer would do for this profile: for years the middle of its window, for the rest the best there is. */
function hope(fact: FactKey, profile: Profile): FactValue | undefined {
  if (fact === 'cpu.arch') return profile.releases[0]?.archs[0];
  if (fact === 'firmware.mode') return profile.needs.firmware[0];
  if (fact !== 'cpu.year') return HOPE[fact];
  const [release] = profile.releases;
  return release?.newestYear ?? Math.max(release?.oldestYear ?? 0, 2018);
}

interface Candidate {
  machine: Scene['machines'][number];
  profile: Profile;
  judged: Judgement;
}

function candidates({ scene, wish }: Context): Candidate[] {
  return scene.machines
    .filter((m) => allowed(wish, m.id))
    .flatMap((machine) =>
      systemsFor(scene.profiles, wish).map((profile) => ({
        machine,
        profile,
        judged: judge({ ...machine, parts: scene.parts }, profile, {}, wish),
      })),
    );
}

/** Machines of the price list, cheapest first: the wish may take the bought one, or one that it sets free. */
function byBuyingAMachine(c: Context): Remedy | undefined {
  for (const machine of [...c.scene.forSale].sort((a, b) => a.price - b.price)) {
    const as = { code: 'price list' as const };
    const remedy = tried(c, { kind: 'machine', machine, price: machine.price, as });
    if (remedy) return remedy;
  }
  return undefined;
}

/** Machines that the plan leaves free come first: nothing has to be given up for them. */
const freeFirst = (c: Context, list: Candidate[]): Candidate[] => {
  const used = new Set(c.solution.assignments.map((a) => a.machineId));
  return [...list].sort((a, b) => Number(used.has(a.machine.id)) - Number(used.has(b.machine.id)));
};

function byAnswering(c: Context, list: Candidate[]): Remedy | undefined {
  const open = freeFirst(
    c,
    list.filter((x) => x.judged.verdict === 'cannot say yet'),
  ).sort((a, b) => a.judged.missing.length - b.judged.missing.length);
  for (const { machine, profile, judged } of open.slice(0, 4)) {
    const facts: Partial<Record<FactKey, FactValue>> = {};
    for (const { fact } of judged.missing) {
      const value = hope(fact, profile);
      if (value !== undefined) facts[fact] = value;
    }
    const [first] = judged.missing;
    const remedy =
      first &&
      tried(c, { kind: 'fact', machineId: machine.id, machine: machine.name, ask: first.fact, facts });
    if (remedy) return remedy;
  }
  return undefined;
}

const byAWire = (c: Context): Remedy | undefined => (c.wish.wire ? undefined : tried(c, { kind: 'wire' }));

function byOverruling(c: Context, list: Candidate[]): Remedy | undefined {
  const soft = freeFirst(
    c,
    list.filter(({ judged }) => {
      const no = judged.all.filter((f) => f.outcome === 'no');
      return no.length > 0 && no.every((f) => f.soft);
    }),
  );
  for (const { machine, profile, judged } of soft.slice(0, 3)) {
    const remedy = tried(c, {
      kind: 'overrule',
      machineId: machine.id,
      machine: machine.name,
      profileId: profile.id,
      findings: judged.all.filter((f) => f.outcome === 'no'),
    });
    if (remedy) return remedy;
  }
  return undefined;
}

/** Parts that neither shelf nor price list has, as the repairs name them, so far as the machine says what goes in. */
function byFetching(c: Context, list: Candidate[]): Remedy | undefined {
  const ready = freeFirst(
    c,
    list.filter((x) => x.judged.repairs.some((r) => r.kind === 'buy')),
  );
  for (const { machine, judged } of ready.slice(0, 3)) {
    const base = { name: 'to be bought', price: 0, offer: false };
    const parts = judged.repairs.flatMap((r, i): Part[] => {
      if (r.kind !== 'buy') return [];
      const id = `fetch-${machine.id}-${i}`;
      const drive = (n: number, bytes: number): Part => ({
        ...base,
        id: `${id}-${n}`,
        kind: 'drive',
        bytes,
        bus: machine.facts['ports.drives'] === 0 ? 'card' : 'sata',
        m2: null,
      });
      const { gives } = r;
      if (gives.kind === 'memory') {
        const type = machine.facts['memory.type'];
        const form = machine.facts['memory.form'];
        return typeof type === 'string' && (form === 'DIMM' || form === 'SO-DIMM')
          ? [{ ...base, id, kind: 'memory', bytes: gives.bytes, type, form }]
          : [];
      }
      if (gives.kind === 'boot') return [drive(0, gives.bytes)];
      if (gives.kind === 'drives') return Array.from({ length: gives.count }, (_, n) => drive(n, 1e12));
      const wiredPorts = gives.kind === 'wired' ? gives.count : 0;
      const sataPorts = gives.kind === 'ports' ? gives.count : 0;
      const goesIn = wiredPorts > 0 ? ('USB port' as const) : ('expansion slot' as const);
      return [{ ...base, id, kind: 'adapter', goesIn, wiredPorts, sataPorts }];
    });
    const purchases = judged.repairs.filter((r) => r.kind === 'buy');
    const remedy =
      parts.length > 0 && tried(c, { kind: 'fetch', machine: machine.name, purchases, parts, price: null });
    if (remedy) return remedy;
  }
  return undefined;
}

function byAnotherMachine(c: Context, list: Candidate[]): Remedy | undefined {
  const good = list.filter((x) => x.judged.verdict === 'fits');
  for (const { machine } of good.slice(0, 2)) {
    const twin = { ...machine, id: `second-${machine.id}`, name: `a second ${machine.name}` };
    const as = { code: 'like' as const, machine: machine.name };
    const remedy = tried(c, { kind: 'machine', machine: twin, price: null, as });
    if (remedy) return remedy;
  }
  for (const profile of systemsFor(c.scene.profiles, c.wish)) {
    const machine = madeToMeasure(profile, c.wish);
    if (!machine) continue;
    const { needs } = profile;
    const wire = !c.wish.wire && needs.wiredPorts > 0;
    const wants = {
      system: profile.name,
      archs: profile.releases[0]?.archs ?? [],
      cores: needs.cores,
      memoryBytes: needs.memoryBytes,
      drivePorts: needs.dataDrives + 1,
      wiredPorts: needs.wiredPorts,
      noise: c.wish.noise,
    };
    const as = { code: 'made to measure' as const, wants };
    const remedy = tried(c, { kind: 'machine', machine, price: null, as, ...(wire ? { wire } : {}) });
    if (remedy) return remedy;
  }
  return undefined;
}

/** Who has the machines that would do. */
function taken(c: Context, good: Candidate[]): UnmetReason {
  const named = new Map(c.scene.wishes.map((w) => [w.id, w]));
  const holders = [...new Set(good.map((g) => g.machine.id))].flatMap((id) => {
    const held = c.solution.assignments.find((a) => a.machineId === id);
    const machine = good.find((g) => g.machine.id === id)?.machine.name;
    return held && machine ? [{ machine, wish: named.get(held.wishId)?.name ?? null }] : [];
  });
  return holders.length > 0 ? { code: 'taken', holders } : { code: 'parts used elsewhere' };
}

function reasonOf(c: Context, list: Candidate[]): UnmetReason {
  const good = list.filter((x) => canTake(x.judged.verdict));
  const used = new Set(c.solution.assignments.map((a) => a.machineId));
  const free = good.find((g) => !used.has(g.machine.id));
  if (free)
    return {
      code: 'free but lacking',
      machine: free.machine.name,
      budget: c.scene.budget,
      repairs: free.judged.repairs,
    };
  if (good.length > 0) return taken(c, good);
  const open = list.filter((x) => x.judged.verdict === 'cannot say yet');
  if (open.length > 0)
    return { code: 'not known yet', machines: [...new Set(open.map((o) => o.machine.name))] };
  const machines = new Map(list.map((x) => [x.machine.name, x.judged.binding[0] ?? null]));
  return {
    code: 'none can',
    machines: [...machines].map(([machine, binding]) => ({ machine, binding })),
  };
}

/** Why each wish that is left out is left out, and what would meet it. */
export function unmetWishes(scene: Scene, solution: Solution, solveLp: SolveLp, seconds = 10): Unmet[] {
  const left = scene.wishes.filter((w) => !isMet(solution, w));
  return left.map((wish): Unmet => {
    const c: Context = { scene, solution, wish, solveLp, seconds };
    if (systemsFor(scene.profiles, wish).length === 0)
      return {
        wishId: wish.id,
        reason: { code: 'no system', purpose: wish.purpose },
        remedy: { kind: 'system', purpose: wish.purpose },
      };
    const list = candidates(c);
    const bound = wish.pinned !== null || wish.forbid.length > 0;
    const freed = bound && tried(c, { kind: 'free' });
    if (freed)
      return {
        wishId: wish.id,
        reason: { code: 'pinned or forbidden' },
        remedy: freed,
      };
    const bought = byBuying(c);
    if (bought && bought.extra > 0)
      return {
        wishId: wish.id,
        reason: { code: 'over budget', budget: scene.budget, extra: bought.extra },
        remedy: bought.remedy,
      };
    const remedy =
      bought?.remedy ??
      byAnswering(c, list) ??
      byFetching(c, list) ??
      byAWire(c) ??
      byBuyingAMachine(c) ??
      byOverruling(c, list) ??
      byAnotherMachine(c, list) ??
      null;
    return { wishId: wish.id, reason: reasonOf(c, list), remedy };
  });
}
