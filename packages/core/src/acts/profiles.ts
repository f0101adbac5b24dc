import type { Bench, ImageItem, Profile } from '../model/bench';
import { edited, type Act } from '../model/changes';
import { profileFromImage } from '../system/fromImage';
import { notSaid } from '../system/notSaid';
import { benchNote } from './note';
import type { Stamp } from './stamp';

/** Puts sample systems on a bench that has none of its own, so that fit can be tried at once. */
export function addSampleProfiles(bench: Bench, samples: readonly Profile[]): Act {
  const have = new Set(bench.profiles.map((p) => p.id));
  const fresh = samples.filter((p) => !have.has(p.id));
  return {
    label: `${fresh.length} sample systems put on the bench`,
    changes: fresh.map((to) => ({ in: 'profiles', id: to.id, to })),
  };
}

/** Begins a system from what an image says of itself; undefined where the image was never read. */
export function beginFromImage(image: ImageItem, stamp: Stamp): (Act & { profile: Profile }) | undefined {
  const profile = profileFromImage(image, stamp.id());
  if (!profile) return undefined;
  const open = notSaid(profile).length;
  return {
    profile,
    label: `System begun from ${image.name}`,
    changes: [
      { in: 'profiles', id: profile.id, to: profile },
      benchNote(
        'choose',
        `“${profile.name}” begun from ${image.name}; ${open} values are still to say.`,
        stamp,
      ),
    ],
  };
}

/** Notes what a system's images call themselves, so that its next image is known by it. */
export const callIt = (profile: Profile, says: string): Act => ({
  label: `“${says}” is ${profile.name}`,
  changes: [edited('profiles', profile, { ...profile, calls: [...profile.calls, says] })],
});
