import type { Channel, Profile, Purpose, Release, Variant } from '../model/profile';

/** Servers want the fewest surprises, desktops and games the newest hardware support. Common practice, no source. */
const USUAL: Record<Purpose, Channel> = {
  games: 'newest',
  film: 'newest',
  desktop: 'newest',
  music: 'long support',
  firewall: 'long support',
  'file store': 'long support',
  'virtual machines': 'long support',
};

/** The channel the bench takes for a purpose where nobody decided. */
export const usualChannel = (purpose: Purpose): Channel => USUAL[purpose];

/** Fallbacks in order: a development build only where there is nothing else. */
const ORDER: Record<Channel, Channel[]> = {
  'long support': ['long support', 'newest', 'development'],
  newest: ['newest', 'long support', 'development'],
  development: ['development', 'newest', 'long support'],
};

/** Releases in the order they are considered for this profile's purpose; later ones of a channel first as listed. */
export function releasesInOrder(profile: Profile): Release[] {
  const order = ORDER[USUAL[profile.purpose]];
  return [...profile.releases].sort((a, b) => order.indexOf(a.channel) - order.indexOf(b.channel));
}

/** The release and variant somebody chose; null or absent where the usual ones count. */
export interface OptionChoice {
  releaseId?: string | null | undefined;
  variantId?: string | null | undefined;
}

const firstOf = <T>(list: readonly T[]): T => {
  const [first] = list;
  if (first === undefined) throw new RangeError('A profile has at least one release and one variant.');
  return first;
};

/** The release and variant that count: those chosen, else the usual ones. An unknown choice counts as none. */
export function optionOf(
  profile: Profile,
  choice: OptionChoice = {},
): { release: Release; variant: Variant } {
  return {
    release: profile.releases.find((r) => r.id === choice.releaseId) ?? firstOf(releasesInOrder(profile)),
    variant: profile.variants.find((v) => v.id === choice.variantId) ?? firstOf(profile.variants),
  };
}

/** Days from a moment to the end of support; undefined where no end is known. */
export function supportDays(release: Release, now: string): number | undefined {
  if (release.supportEnd === null) return undefined;
  return Math.round(
    (Date.parse(`${release.supportEnd}T00:00:00Z`) - Date.parse(`${now.slice(0, 10)}T00:00:00Z`)) /
      86_400_000,
  );
}

/** A system in the tab line of a box: name, release, and the channel where it is not the newest. */
export function profileLine(profile: Profile, choice: OptionChoice): string {
  const { release, variant } = optionOf(profile, choice);
  const words = { 'long support': ' long support', newest: '', development: ' development build' };
  return `${profile.name} ${release.version}${words[release.channel]}${variant.name === 'standard' ? '' : `, ${variant.name}`}`;
}
