import type { Judgement } from './judge';

/** A system with the release and variant that were judged, in words. */
export const systemTitle = (judged: Pick<Judgement, 'profile' | 'release' | 'variant'>): string =>
  `${judged.profile} ${judged.release.version}${judged.variant.name === 'standard' ? '' : `, ${judged.variant.name}`}`;
