import { claimsOf } from '../plan/claims';
import { applyRepair } from '../system/repair';
import { asPart, type Part } from '../system/part';
import { machineView, type MachineView } from '../system/view';
import { isMachine, machinesOf, type Bench, type Box, type Profile } from '../model/bench';
import type { Weights } from '../model/settings';
import type { Wish } from '../model/wish';

/** Everything the solver knows: machines as the rules see them (with an id, without parts), parts, wishes, money. */
export interface Scene {
  machines: (MachineView & { id: string })[];
  parts: Part[];
  /** Machines with a price that could be bought. */
  forSale: (MachineView & { id: string; price: number })[];
  wishes: Wish[];
  profiles: Profile[];
  weights: Weights;
  /** What may still be spent, in the bench's currency. */
  budget: number;
}

const isDecided = (box: Box): boolean => box.machineId !== null && box.profileId !== null;

/** What the decided boxes have put aside that is still to be bought: spent already, so far as plans go. */
export const committed = (bench: Bench): number =>
  bench.boxes
    .filter(isDecided)
    .flatMap((b) => b.parts)
    .reduce((n, id) => {
      const item = bench.items.find((i) => i.id === id);
      const part = item && asPart(item);
      return n + (part?.price ?? 0);
    }, 0);

/**
 * The scene of a bench. A box that has its system decided keeps its machine: its wish is pinned there with that system,
 * and the parts put aside for it count as in it. Machines of boxes that answer no wish are left out.
 */
export function sceneOf(bench: Bench): Scene {
  const decided = bench.boxes.filter(isDecided);
  const outside = new Set(decided.filter((b) => b.wishId === null).map((b) => b.machineId));
  const reserved = new Set(claimsOf(bench).keys());
  const partOf = (id: string): Part | undefined => {
    const item = bench.items.find((i) => i.id === id);
    return item && asPart(item);
  };
  const machines = machinesOf(bench)
    .filter((m) => !outside.has(m.id))
    .map((m) => {
      const box = decided.find((b) => b.machineId === m.id);
      const parts = (box?.parts ?? []).flatMap((id) => partOf(id) ?? []);
      const view = parts.reduce<MachineView>(
        (v, part) => applyRepair(v, { kind: 'part', part, role: 'drive' }),
        machineView(bench, m, [], box ?? null),
      );
      return { ...view, id: m.id };
    });
  const wishes = bench.wishes.map((w): Wish => {
    const box = decided.find((b) => b.wishId === w.id);
    return box ? { ...w, pinned: box.machineId, profileId: box.profileId } : w;
  });
  const parts = bench.items.flatMap((i) => {
    const part = asPart(i);
    return !part || (reserved.has(i.id) && !part.offer) ? [] : [part];
  });
  const forSale = bench.items.filter(isMachine).flatMap((m) => {
    const { id, price } = m;
    return m.owned || price === null ? [] : [{ ...machineView(bench, m, []), id, price }];
  });
  return {
    machines,
    parts,
    forSale,
    wishes,
    profiles: bench.profiles,
    weights: bench.settings.weights,
    budget: Math.max(0, bench.settings.budget - committed(bench)),
  };
}
