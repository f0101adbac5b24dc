import { findings } from '../system/judge';
import { releasesInOrder } from '../system/options';
import { lacksOf, type Lacks, type Needing } from '../system/repair';
import { score } from '../system/score';
import { systemsFor } from '../system/sheet';
import type { Wish } from '../model/wish';
import type { Scene } from './scene';

/** One way a wish could be met by a machine: a system with release and variant, and the parts it would lack. */
export interface Option {
  wish: number;
  machine: number;
  profileId: string;
  releaseId: string;
  variantId: string;
  /** Points from 0 to 100. */
  score: number;
  /** What meeting the wish this way is worth: importance × (100 + score). */
  value: number;
  lacks: Lacks;
  needing: Needing;
}

/** Whether a wish may have this machine, by what is pinned and forbidden. */
export const allowed = (wish: Wish, machineId: string): boolean =>
  (wish.pinned === null || wish.pinned === machineId) && !wish.forbid.includes(machineId);

/** What meeting a wish is worth to a plan: importance × (100 + points of the score). */
export const worth = (wish: Wish, points: number): number => wish.importance * (100 + points);

const lacksNoMore = (a: Lacks, b: Lacks): boolean =>
  a.memoryBytes <= b.memoryBytes &&
  a.drives <= b.drives &&
  (a.bootBytes ?? 0) <= (b.bootBytes ?? 0) &&
  a.sataPorts <= b.sataPorts &&
  a.wired <= b.wired;

/** Ways of one wish on one machine, without those that are worth no more and lack no less than another. */
function ways(scene: Scene, wish: number, machine: number): Option[] {
  const w = scene.wishes[wish];
  const view = scene.machines[machine];
  if (!w || !view || !allowed(w, view.id)) return [];
  const out: Option[] = [];
  for (const profile of systemsFor(scene.profiles, w)) {
    const points = score(view, profile, scene.weights, 0).total;
    for (const release of releasesInOrder(profile))
      for (const variant of profile.variants) {
        const all = findings(view, { profile, release, variant, wish: w });
        if (all.some((f) => f.outcome === 'no' || f.outcome === 'ask')) continue;
        const { bootBytes, dataDrives } = profile.needs;
        const option: Option = {
          wish,
          machine,
          profileId: profile.id,
          releaseId: release.id,
          variantId: variant.id,
          score: points,
          value: worth(w, points),
          lacks: lacksOf(all),
          needing: { bootBytes, dataDrives },
        };
        if (
          !out.some(
            (o) => o.value >= option.value && lacksNoMore(o.lacks, option.lacks) && sameStay(o, option),
          )
        )
          out.push(option);
      }
  }
  return out;
}

/** Whether the same drives stay in the machine, so that the same places are free. */
const sameStay = (a: Option, b: Option): boolean =>
  a.needing.bootBytes === b.needing.bootBytes && a.needing.dataDrives === b.needing.dataDrives;

/** Every machine and system that could meet a wish, with what it is worth. */
export const optionsOf = (scene: Scene): Option[] =>
  scene.wishes.flatMap((_, w) => scene.machines.flatMap((__, m) => ways(scene, w, m)));
