import type { Bench, Box } from '../model/bench';
import { findMachine } from '../model/bench';
import type { Profile, Release } from '../model/profile';
import { judge, type Judgement } from '../system/judge';
import { machineView } from '../system/view';

/** A release of a system for guests, and whether this machine's processor takes it. */
export interface HostRelease {
  profile: Profile;
  release: Release;
  judged: Judgement;
  /** It is the one that was chosen for the box. */
  chosen: boolean;
}

/** Which release of which host system goes with the processor of a box: newer ones let older processors go. */
export function hostReleases(bench: Bench, box: Box): HostRelease[] {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return [];
  const view = machineView(bench, machine);
  return bench.profiles
    .filter((p) => p.purpose === 'virtual machines')
    .flatMap((profile) =>
      profile.releases.map((release): HostRelease => {
        // One release alone: the judgement must not step over to another.
        const alone = { ...profile, releases: [release] };
        return {
          profile,
          release,
          judged: judge(view, alone, { releaseId: release.id }),
          chosen: box.profileId === profile.id && box.releaseId === release.id,
        };
      }),
    );
}
