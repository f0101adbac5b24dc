import type { RuleFinding } from '../system/finding';
import type { Part } from '../system/part';
import type { Purchase } from '../system/repairs';
import type { MachineView } from '../system/view';
import { overruleKey } from '../system/wishRules';
import type { FactKey, FactValue } from '../model/facts';
import type { Purpose } from '../model/profile';
import type { Wish } from '../model/wish';
import type { Scene } from './scene';

/**
 * What would meet a wish that is left out. Every one reported was tried: applied to the scene and solved again. Prices in
 * the bench's currency; null where nobody noted one.
 */
export type Remedy =
  /** Parts of the price list, each as often as it is bought. */
  | { kind: 'parts'; parts: Part[]; price: number }
  /** Parts that neither shelf nor price list has. */
  | { kind: 'fetch'; machine: string; purchases: Purchase[]; parts: Part[]; price: null }
  /** A fact to find out, and the answers with which the machine would do. */
  | {
      kind: 'fact';
      machineId: string;
      machine: string;
      ask: FactKey;
      facts: Partial<Record<FactKey, FactValue>>;
    }
  | { kind: 'overrule'; machineId: string; machine: string; profileId: string; findings: RuleFinding[] }
  | { kind: 'free' }
  | { kind: 'wire' }
  /** A machine for this wish alone; `wire` where a wire has to be laid to it as well. */
  | {
      kind: 'machine';
      machine: MachineView & { id: string };
      price: number | null;
      /** Where it comes from: the price list, a second one like another, or one made to measure. */
      as:
        | { code: 'price list' }
        | { code: 'like'; machine: string }
        | { code: 'made to measure'; wants: Wanting };
      wire?: boolean;
    }
  | { kind: 'system'; purpose: Purpose };

/** What a machine has to have for a system and a wish; bytes of memory. */
export interface Wanting {
  system: string;
  archs: string[];
  cores: number;
  memoryBytes: number;
  drivePorts: number;
  wiredPorts: number;
  noise: Wish['noise'];
}

/** The scene with a remedy carried out. What was to be bought is then on the shelf. */
export function withRemedy(scene: Scene, wish: Wish, remedy: Remedy): Scene {
  const machine = (id: string, change: (m: MachineView) => Partial<MachineView>): Scene['machines'] =>
    scene.machines.map((m) => (m.id === id ? { ...m, ...change(m) } : m));
  switch (remedy.kind) {
    case 'parts':
    case 'fetch':
      return { ...scene, parts: [...scene.parts, ...remedy.parts] };
    case 'machine':
      return {
        ...scene,
        machines: [...scene.machines, remedy.machine],
        wishes: scene.wishes.map((w) =>
          w.id === wish.id
            ? {
                ...w,
                pinned: w.pinned === null ? null : remedy.machine.id,
                wire: w.wire || remedy.wire === true,
              }
            : { ...w, forbid: [...w.forbid, remedy.machine.id] },
        ),
      };
    case 'wire':
      return {
        ...scene,
        wishes: scene.wishes.map((w) => (w.id === wish.id ? { ...w, wire: true } : w)),
      };
    case 'free':
      return {
        ...scene,
        wishes: scene.wishes.map((w) => (w.id === wish.id ? { ...w, pinned: null, forbid: [] } : w)),
      };
    case 'fact': {
      const known = new Set(Object.keys(remedy.facts));
      return {
        ...scene,
        machines: machine(remedy.machineId, (m) => ({
          facts: { ...m.facts, ...remedy.facts },
          assumed: new Set([...(m.assumed ?? [])].filter((k) => !known.has(k))),
        })),
      };
    }
    case 'overrule':
      return {
        ...scene,
        machines: machine(remedy.machineId, (m) => ({
          overruled: [
            ...(m.overruled ?? []),
            ...remedy.findings.flatMap(({ rule }) =>
              [remedy.profileId, overruleKey(wish)].map((profileId) => ({
                profileId,
                rule,
                reason: 'tried',
              })),
            ),
          ],
        })),
      };
    case 'system':
      return scene;
  }
}
