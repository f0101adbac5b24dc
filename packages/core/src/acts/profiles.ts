import { demoProfiles } from '../demo/profiles';
import type { Bench } from '../schema/bench';
import type { Act } from '../schema/changes';

/** Puts the made-up systems of the demo on a bench that has none of its own, so that fit can be tried at once. */
export function addSampleProfiles(bench: Bench): Act {
  const have = new Set(bench.profiles.map((p) => p.id));
  const fresh = demoProfiles.filter((p) => !have.has(p.id));
  return {
    label: `${fresh.length} sample systems put on the bench`,
    changes: fresh.map((to) => ({ in: 'profiles', id: to.id, to })),
  };
}
