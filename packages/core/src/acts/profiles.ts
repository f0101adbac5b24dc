import type { Bench, Profile } from '../model/bench';
import type { Act } from '../model/changes';

/** Puts sample systems on a bench that has none of its own, so that fit can be tried at once. */
export function addSampleProfiles(bench: Bench, samples: readonly Profile[]): Act {
  const have = new Set(bench.profiles.map((p) => p.id));
  const fresh = samples.filter((p) => !have.has(p.id));
  return {
    label: `${fresh.length} sample systems put on the bench`,
    changes: fresh.map((to) => ({ in: 'profiles', id: to.id, to })),
  };
}
