import type { Claim } from '../plan/claims';

/** Which box holds something, as a short mark: “reserved for Film night”. */
export const claimWords = ({ as, boxName }: Pick<Claim, 'as' | 'boxName'>): string =>
  as === 'in use' ? `in use by ${boxName}` : `reserved for ${boxName}`;

/** The same of one item, with what to do. */
export const heldWords = (item: string, claim: Pick<Claim, 'as' | 'boxName'>): string =>
  claim.as === 'in use'
    ? `“${item}” is in use by the box “${claim.boxName}”. Select another, or retire that box first.`
    : `“${item}” is reserved for the box “${claim.boxName}”. Select another, or release it there first.`;
