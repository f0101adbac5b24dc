import type { Judgement } from '../../system/judge';
import { judgedShort } from './finding';

/** The finding a list of judgements amounts to, as a headline. */
export function fitHeadline(
  machine: string,
  purpose: string,
  judged: readonly (Judgement & { of: { purpose: string } })[],
  chosenId: string | null = null,
): string {
  const chosen = judged.find((j) => j.profileId === chosenId);
  if (chosen) {
    const name = chosen.profile;
    if (chosen.verdict === 'fits') return `${name} fits ${machine} as it stands`;
    if (chosen.verdict === 'fits after a change')
      return `${name} fits ${machine} after a change: ${judgedShort(chosen)}`;
    if (chosen.verdict === 'does not fit') return `${name} does not fit ${machine}: ${judgedShort(chosen)}`;
    return `Whether ${name} fits ${machine} cannot be said yet: ${judgedShort(chosen)}`;
  }
  const own = judged.filter((j) => j.of.purpose === purpose);
  if (own.length === 0) return `No profile for ${purpose} is on the bench yet`;
  const fits = own.filter((j) => j.verdict === 'fits');
  const change = own.filter((j) => j.verdict === 'fits after a change');
  const unknown = own.filter((j) => j.verdict === 'cannot say yet');
  const [best] = fits;
  if (best)
    return fits.length === 1
      ? `${best.profile} fits ${machine} as it stands`
      : `${fits.length} systems for ${purpose} fit ${machine} as it stands`;
  const [after] = change;
  if (after) return `${after.profile} fits ${machine} after a change: ${judgedShort(after)}`;
  if (unknown[0])
    return `Which system fits ${machine}? ${unknown[0].missing.length === 1 ? 'One answer is' : 'Some answers are'} missing`;
  return `${machine} cannot take ${purpose}: ${own[0] ? judgedShort(own[0]) : ''}`;
}
