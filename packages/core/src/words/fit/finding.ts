import { factDefinition } from '../../model/facts';
import type { RuleFinding } from '../../system/finding';
import type { Judgement } from '../../system/judge';
import type { Margin } from '../../system/reason';
import { formatIec } from '../../units/bytes';
import { plural } from '../text';
import { repairsWords } from './repairs';
import { reasonWords, windowWords } from './reasons';

/** A finding as a person reads it. `short` is for a crossing; `margin` and `repair` are empty where there is none. */
export interface FindingWords {
  because: string;
  short: string;
  margin: string;
  repair: string;
}

function marginWords(m: Margin): string {
  switch (m.of) {
    case 'bytes':
      return `needs ${formatIec(m.need)}, has ${formatIec(m.have)}`;
    case 'ports':
      return `needs ${plural(m.need, 'port')}, has ${m.have}`;
    case 'years':
      return `${windowWords(m.oldest, m.newest)}; it is from ${m.have}`;
    default:
      return `needs ${m.need}, has ${m.have}`;
  }
}

function shortWords(f: RuleFinding, short: string): string {
  if (f.overruled !== undefined) return 'limit set aside';
  if (f.assumed) return `${short || factDefinition(f.assumed).label}, assumed`;
  if (f.instead) return `${f.instead.release ?? `“${f.instead.variant ?? ''}”`} instead`;
  const part = f.rule === 'boot drive' ? f.mends?.[0] : undefined;
  return part?.kind === 'part' ? `“${part.part.name}” as boot drive` : short;
}

/** Says a finding of fit. */
export function findingWords(f: RuleFinding): FindingWords {
  const { because, short } = reasonWords(f.rule, f.reason);
  const more =
    f.overruled !== undefined
      ? ` Set aside: ${f.overruled}`
      : f.assumed
        ? ` That rests on an assumption: ${factDefinition(f.assumed).label.toLowerCase()} is what such machines usually have.`
        : '';
  return {
    because: `${because}${more}`,
    short: shortWords(f, short),
    margin: f.margin ? marginWords(f.margin) : '',
    repair: repairsWords(f.mends ?? []),
  };
}

/** A verdict with the first reasons it rests on, as a decision keeps it. */
export const verdictWords = (judged: Pick<Judgement, 'verdict' | 'binding'>): string =>
  `${judged.verdict}: ${judged.binding
    .slice(0, 3)
    .map((f) => findingWords(f).because)
    .join(' ')}`;

/** The one reason a crossing shows; empty where nothing is worth naming. */
export const judgedShort = (judged: Pick<Judgement, 'binding'>): string => {
  const [first] = judged.binding;
  return first ? findingWords(first).short : '';
};
