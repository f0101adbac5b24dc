import type { Part } from '../system/part';
import type { MachineView } from '../system/view';
import { overruleKey } from '../system/wishRules';
import type { FactKey, FactValue } from '../model/facts';
import type { Wish } from '../model/wish';
import type { Scene } from './scene';

/** What would meet a wish that is left out. Every one reported was tried: applied to the scene and solved again. */
export type Remedy =
  | { kind: 'parts'; text: string; parts: Part[]; price: number | null }
  | { kind: 'fact'; text: string; machineId: string; facts: Partial<Record<FactKey, FactValue>> }
  | { kind: 'overrule'; text: string; machineId: string; profileId: string; rules: string[] }
  | { kind: 'free'; text: string }
  | { kind: 'wire'; text: string }
  /** A machine for this wish alone; `wire` where a wire has to be laid to it as well. */
  | {
      kind: 'machine';
      text: string;
      machine: MachineView & { id: string };
      price: number | null;
      wire?: boolean;
    }
  | { kind: 'system'; text: string };

/** The scene with a remedy carried out. What was to be bought is then on the shelf. */
export function withRemedy(scene: Scene, wish: Wish, remedy: Remedy): Scene {
  const machine = (id: string, change: (m: MachineView) => Partial<MachineView>): Scene['machines'] =>
    scene.machines.map((m) => (m.id === id ? { ...m, ...change(m) } : m));
  switch (remedy.kind) {
    case 'parts':
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
            ...remedy.rules.flatMap((rule) =>
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
