import type { Channel, Profile, Release, Variant } from '../model/profile';
import { judge, type Judgement } from './judge';
import { optionOf, releasesInOrder, supportDays, usualChannel, type OptionChoice } from './options';
import type { MachineView } from './view';

/** One release on the card of the release schools. */
export interface ReleaseCase {
  release: Release;
  channel: Channel;
  /** What it means for this machine. */
  judged: Judgement;
  /** Days until support ends, negative where it has; undefined where no end is noted. */
  supportDays: number | undefined;
  taken: boolean;
}

/** The card of the release schools: what each release and variant means for this machine. */
export interface ReleaseCard {
  releases: ReleaseCase[];
  variants: { variant: Variant; judged: Judgement; taken: boolean }[];
  /** The bench's own default. */
  usual: Channel;
}

/** True where the judgement is of exactly this option and did not have to switch to another. */
const stays = (judged: Judgement, release: Release, variant: Variant): boolean =>
  judged.release.id === release.id && judged.variant.id === variant.id;

/** A judgement of one option that counts another option as no help: what this very release or variant is worth here. */
function strictly(view: MachineView, profile: Profile, release: Release, variant: Variant): Judgement {
  const only = { ...profile, releases: [release], variants: [variant] };
  return judge(view, only);
}

/**
 * The card of the release schools for one system on one machine: each release with its school's case, its verdict here
 * and its support, and each variant for the release taken. `now` is an ISO moment.
 */
export function releaseCard(
  view: MachineView,
  profile: Profile,
  choice: OptionChoice,
  now: string,
): ReleaseCard {
  const judged = judge(view, profile, choice);
  const chosen = optionOf(profile, choice);
  const at = stays(judged, chosen.release, chosen.variant)
    ? chosen
    : { release: judged.release, variant: judged.variant };
  const releases = releasesInOrder(profile).map((release) => ({
    release,
    channel: release.channel,
    judged: strictly(view, profile, release, at.variant),
    supportDays: supportDays(release, now),
    taken: release.id === at.release.id,
  }));
  const variants = profile.variants.map((variant) => ({
    variant,
    judged: strictly(view, profile, at.release, variant),
    taken: variant.id === at.variant.id,
  }));
  return { releases, variants, usual: usualChannel(profile.purpose) };
}
