import type { GuardRefusal } from '../write/guard';
import { heldWords } from './claim';
import { formatBoth, formatExact, formatIec } from '../units/bytes';

/** Why nothing is written to a target, and what to do. */
export function refusalWords(r: GuardRefusal): string {
  switch (r.rule) {
    case 'holds what matters':
      return `“${r.name}” is marked to keep: ${r.holds || 'its content'}. Nothing is written to it.`;
    case 'not decided':
      return `Whether what is on “${r.name}” may be lost is not decided: ${r.holds || 'empty, as far as known'}. Decide it first.`;
    case 'two records':
      return `${r.count} things on the shelf carry this serial. Correct the shelf first.`;
    case 'lies about its capacity':
      return `A read-back found that it holds about ${formatIec(r.real)}, not the ${formatIec(r.claims)} it claims.`;
    case 'too small':
      return `It holds ${formatExact(r.bytes)} (${formatBoth(r.bytes)}); the image needs ${formatExact(r.needs)} (${formatBoth(r.needs)}).`;
    case 'no serial':
      return 'It reports no serial of four characters or more, so it cannot be named for certain. Use another.';
    case 'cannot be told apart':
      return `Another one attached has the same ${r.same === 'serial' ? 'size and serial' : 'size and the last four of the serial'}. Take one of the two out and look again.`;
    case 'held by another box':
      return heldWords(r.name, r.claim);
    case 'is being written':
      return 'A write to it is under way or waits for its turn.';
  }
}
