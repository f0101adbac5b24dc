import { canTake, judge, type Judgement } from '../system/judge';
import type { Part } from '../system/part';
import { systemsFor } from '../system/sheet';
import { factDefinition, type FactKey, type FactValue } from '../model/facts';
import type { Profile } from '../model/profile';
import type { Wish } from '../model/wish';
import { factText } from '../machine/text';
import { GIB } from '../units/bytes';
import { allowed } from './options';
import type { SolveLp } from './lp';
import { withRemedy, type Remedy } from './remedy';
import type { Scene } from './scene';
import { solveScene, type Solution } from './solve';
import { madeToMeasure } from './madeToMeasure';

export interface Unmet {
  wishId: string;
  because: string;
  /** Null where nothing that was tried meets it. */
  remedy: Remedy | null;
}

const isMet = (s: Solution | undefined, wish: Wish): boolean =>
  s?.assignments.some((a) => a.wishId === wish.id) === true;

const money = (n: number): string => n.toFixed(2);

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
  const names = [...new Set(parts.map((p) => p.name))].map((name) => {
    const n = parts.filter((p) => p.name === name).length;
    return n > 1 ? `${n} × “${name}”` : `“${name}”`;
  });
  const remedy = tried(c, {
    kind: 'parts',
    text: `Buy ${names.join(' and ')}, ${money(price)}.`,
    parts,
    price,
  });
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
    const text = `Buy “${machine.name}”, ${money(machine.price)}.`;
    const remedy = tried(c, { kind: 'machine', text, machine, price: machine.price });
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
    const answers = (Object.entries(facts) as [FactKey, FactValue][]).map(
      ([k, v]) => `${factDefinition(k).label.toLowerCase()} ${factText(k, v)}`,
    );
    const [first] = judged.missing;
    const text = `Find out about ${machine.name}: ${first?.ask ?? ''} With ${answers.join(', ')} it would do.`;
    const remedy = tried(c, { kind: 'fact', text, machineId: machine.id, facts });
    if (remedy) return remedy;
  }
  return undefined;
}

const byAWire = (c: Context): Remedy | undefined =>
  c.wish.wire ? undefined : tried(c, { kind: 'wire', text: 'Lay a network wire to where it is to stand.' });

function byOverruling(c: Context, list: Candidate[]): Remedy | undefined {
  const soft = freeFirst(
    c,
    list.filter(({ judged }) => {
      const no = judged.all.filter((f) => f.outcome === 'no');
      return no.length > 0 && no.every((f) => f.soft);
    }),
  );
  for (const { machine, profile, judged } of soft.slice(0, 3)) {
    const no = judged.all.filter((f) => f.outcome === 'no');
    const remedy = tried(c, {
      kind: 'overrule',
      text: `Set a limit aside on ${machine.name}: ${no.map((f) => f.because).join(' ')}`,
      machineId: machine.id,
      profileId: profile.id,
      rules: no.map((f) => f.rule),
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
    const base = { price: 0, offer: false };
    const parts = judged.repairs.flatMap((r, i): Part[] => {
      if (r.kind !== 'buy') return [];
      const id = `fetch-${machine.id}-${i}`;
      const name = r.text.replace(/\.$/, '');
      const drive = (n: number, bytes: number): Part => ({
        ...base,
        id: `${id}-${n}`,
        name,
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
          ? [{ ...base, id, name, kind: 'memory', bytes: gives.bytes, type, form }]
          : [];
      }
      if (gives.kind === 'boot') return [drive(0, gives.bytes)];
      if (gives.kind === 'drives') return Array.from({ length: gives.count }, (_, n) => drive(n, 1e12));
      const wiredPorts = gives.kind === 'wired' ? gives.count : 0;
      const sataPorts = gives.kind === 'ports' ? gives.count : 0;
      const goesIn = wiredPorts > 0 ? ('USB port' as const) : ('expansion slot' as const);
      return [{ ...base, id, name, kind: 'adapter', goesIn, wiredPorts, sataPorts }];
    });
    const words = judged.repairs.flatMap((r) => (r.kind === 'buy' ? [r.text] : []));
    const text = `For ${machine.name}: ${words.join(' ')} No price is noted for it.`;
    const remedy = parts.length > 0 && tried(c, { kind: 'parts', text, parts, price: null });
    if (remedy) return remedy;
  }
  return undefined;
}

function byAnotherMachine(c: Context, list: Candidate[]): Remedy | undefined {
  const good = list.filter((x) => x.judged.verdict === 'fits');
  for (const { machine } of good.slice(0, 2)) {
    const twin = { ...machine, id: `second-${machine.id}`, name: `a second ${machine.name}` };
    const text = `Find a second machine like ${machine.name}.`;
    const remedy = tried(c, { kind: 'machine', text, machine: twin, price: null });
    if (remedy) return remedy;
  }
  for (const profile of systemsFor(c.scene.profiles, c.wish)) {
    const machine = madeToMeasure(profile, c.wish);
    if (!machine) continue;
    const { needs } = profile;
    const wire = !c.wish.wire && needs.wiredPorts > 0;
    const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
    const asks = [
      profile.releases[0]?.archs.join(' or '),
      count(needs.cores, 'core'),
      `${needs.memoryBytes / GIB} GiB of memory`,
      count(needs.dataDrives + 1, 'drive port'),
      needs.wiredPorts > 0 ? `${needs.wiredPorts} wired` : null,
      c.wish.noise === 'loud' ? null : `${c.wish.noise} at most`,
    ];
    const text = `Find a machine for ${profile.name}: ${asks.filter(Boolean).join(', ')}${wire ? '; and lay a network wire to it' : ''}.`;
    const remedy = tried(c, { kind: 'machine', text, machine, price: null, ...(wire ? { wire } : {}) });
    if (remedy) return remedy;
  }
  return undefined;
}

/** Who has the machines that would do, and why they keep them. */
function takenWords(c: Context, good: Candidate[]): string {
  const named = new Map(c.scene.wishes.map((w) => [w.id, w]));
  const holders = [...new Set(good.map((g) => g.machine.id))].flatMap((id) => {
    const held = c.solution.assignments.find((a) => a.machineId === id);
    const name = good.find((g) => g.machine.id === id)?.machine.name;
    return held && name ? [`${name} (${named.get(held.wishId)?.name ?? 'another wish'} needs it more)`] : [];
  });
  return holders.length > 0
    ? `All that would do are taken: ${holders.slice(0, 3).join(', ')}.`
    : 'The machines that would do lack parts that are used elsewhere.';
}

function because(c: Context, list: Candidate[]): string {
  const good = list.filter((x) => canTake(x.judged.verdict));
  const used = new Set(c.solution.assignments.map((a) => a.machineId));
  const free = good.filter((g) => !used.has(g.machine.id));
  if (free.length > 0) {
    const [g] = free;
    const repair = g?.judged.repairs.map((r) => r.text).join(' ') ?? '';
    return `${g?.machine.name} is free and would do after a change, but what it needs is used elsewhere or over the budget of ${money(c.scene.budget)}. ${repair}`.trim();
  }
  if (good.length > 0) return takenWords(c, good);
  const open = list.filter((x) => x.judged.verdict === 'cannot say yet');
  if (open.length > 0)
    return `No machine is known to do; about ${[...new Set(open.map((o) => o.machine.name))].slice(0, 3).join(', ')} it cannot be said yet.`;
  const short = list.map((x) => `${x.machine.name}: ${x.judged.short}`);
  return `No machine on the shelf can. ${[...new Set(short)].slice(0, 4).join('; ')}.`;
}

/** Why each wish that is left out is left out, and what would meet it. */
export function unmetWishes(scene: Scene, solution: Solution, solveLp: SolveLp, seconds = 10): Unmet[] {
  const left = scene.wishes.filter((w) => !isMet(solution, w));
  return left.map((wish): Unmet => {
    const c: Context = { scene, solution, wish, solveLp, seconds };
    if (systemsFor(scene.profiles, wish).length === 0)
      return {
        wishId: wish.id,
        because: `No system for ${wish.purpose} is on the bench.`,
        remedy: { kind: 'system', text: `Put a profile of a system for ${wish.purpose} on the bench.` },
      };
    const list = candidates(c);
    const bound = wish.pinned !== null || wish.forbid.length > 0;
    const freed =
      bound && tried(c, { kind: 'free', text: 'Take back what is pinned and forbidden for this wish.' });
    if (freed)
      return {
        wishId: wish.id,
        because: 'What is pinned or forbidden for it leaves no machine that would do.',
        remedy: freed,
      };
    const bought = byBuying(c);
    if (bought && bought.extra > 0)
      return {
        wishId: wish.id,
        because: `The budget of ${money(scene.budget)} is ${money(bought.extra)} short of meeting it beside the others.`,
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
    return { wishId: wish.id, because: because(c, list), remedy };
  });
}
