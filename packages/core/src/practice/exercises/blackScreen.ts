import { causeCodes, causeOf, type CauseCode } from '../../diagnose/causes';
import {
  lookCodes,
  looks,
  moments,
  seenAt,
  type Answered,
  type LookCode,
  type Moment,
  type Symptom,
} from '../../diagnose/codes';
import { nextLook, rank, type Ranked, type Suspect } from '../../diagnose/reason';
import type { PracticeAct } from '../../model/practice';
import { pick, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

/** So many wrong cures, and the evening is over. */
const PATIENCE = 2;
/** Minutes that a cure takes which does not help. */
const CURE = 15;

const suspectsAt = (moment: Moment): Suspect[] =>
  causeCodes
    .filter((c) => causeOf(c).at.includes(moment))
    .map((cause) => ({ cause, weight: causeOf(cause).weight, shows: causeOf(cause).shows }));

/** What a look finds where this cause is behind it: the answer that is most often found. */
function answerOf(cause: CauseCode, look: LookCode): string {
  const { answers, usual } = looks[look];
  const shares: Readonly<Record<string, number>> = causeOf(cause).looks[look] ?? {};
  const best = [...answers].sort((a, b) => (shares[b] ?? 0) - (shares[a] ?? 0))[0] ?? '';
  return (shares[best] ?? 0) > 0 ? best : (usual ?? best);
}

/** Follows the look that tells most until a cause is left. */
function follow(
  cause: CauseCode,
  moment: Moment,
  symptom: Symptom,
): { found: CauseCode | undefined; looked: number } {
  const answered: Answered[] = [];
  const suspects = suspectsAt(moment);
  for (;;) {
    const ranked = rank(suspects, moment, [symptom], answered);
    const next = nextLook(ranked, moment, answered);
    if (!next) return { found: ranked[0]?.cause, looked: answered.length };
    answered.push({ look: next.look, answer: answerOf(cause, next.look) });
  }
}

/** Something looks different, and one cause is behind it: found by looking, not by trying cures. */
class BlackScreen implements Scene {
  private readonly moment: Moment;
  private readonly symptom: Symptom;
  private readonly cause: CauseCode;
  private readonly par: number;
  private readonly answered: Answered[] = [];
  private readonly tried: CauseCode[] = [];

  constructor(random: Random) {
    for (;;) {
      const moment = pick(random, moments);
      const { cause } = pick(random, suspectsAt(moment));
      const shown = seenAt[moment].filter((s) => (causeOf(cause).shows[s] ?? 0) > 0);
      if (shown.length === 0) continue;
      const symptom = pick(random, shown);
      const { found, looked } = follow(cause, moment, symptom);
      // What no look can tell apart is no exercise.
      if (found !== cause || looked < 2) continue;
      this.moment = moment;
      this.symptom = symptom;
      this.cause = cause;
      this.par = looked;
      return;
    }
  }

  private ranked(): Ranked[] {
    return rank(suspectsAt(this.moment), this.moment, [this.symptom], this.answered);
  }

  panels(): Panel[] {
    const seen = new Map(this.answered.map((a) => [a.look, a.answer ?? '']));
    return [
      {
        kind: 'table',
        title: said('looks'),
        heads: ['look', 'found'].map((h) => said(`head ${h}`)),
        rows: lookCodes
          .filter((l) => looks[l].moments.includes(this.moment))
          .map((l): Row => {
            const found = seen.get(l);
            return {
              id: l,
              cells: [said('a look', { look: l }), found === undefined ? '–' : found],
              offers: found === undefined ? [offer('take a look', l, { look: l })] : [],
            };
          }),
        offers: [],
      },
      {
        kind: 'table',
        title: said('causes'),
        heads: ['cause', 'cure'].map((h) => said(`head ${h}`)),
        rows: suspectsAt(this.moment).map(({ cause }): Row => ({
          id: cause,
          cells: [said('a cause', { cause }), this.tried.includes(cause) ? said('did not help') : '–'],
          offers: this.tried.includes(cause) ? [] : [offer('cure', cause, { cause })],
        })),
        offers: [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [
          said('seen', { symptom: this.symptom, moment: this.moment }),
          said('paper par', { count: this.par }),
        ],
      },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const look = lookCodes.find((l) => l === act.on);
    if (act.do === 'take a look' && look) {
      tale.takes(looks[look].minutes);
      const answer = answerOf(this.cause, look);
      this.answered.push({ look, answer });
      tale.tell('looked', { look, answer });
      // Two looks to spare: whoever looks at everything finds it as well, and the evening is gone.
      if (this.answered.length > this.par + 2) tale.slip('one look more', { count: this.answered.length });
      return;
    }
    const cause = causeCodes.find((c) => c === act.on);
    if (!cause) return;
    if (cause === this.cause) {
      if (this.answered.length === 0) tale.fault('cured unseen', { cause });
      return tale.reach('cured', { cause });
    }
    tale.takes(CURE);
    this.tried.push(cause);
    if (this.tried.length >= PATIENCE)
      tale.lose('wrong cures', { cause, right: this.cause }, said('an evening'));
    else tale.fault('wrong cure', { cause });
  }

  hint() {
    const ranked = this.ranked();
    const next = nextLook(ranked, this.moment, this.answered);
    return next
      ? said('hint look at', { look: next.look })
      : said('hint cause', { cause: ranked[0]?.cause ?? '' });
  }
}

export const blackScreen: Exercise = {
  id: 'it-looks-different',
  stop: 'first-start',
  begin: (random) => new BlackScreen(random),
};
