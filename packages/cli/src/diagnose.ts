import { causeCodes, causeOf } from '@zb/core/diagnose/causes';
import {
  lookCodes,
  looks,
  moments,
  seenAt,
  type Answered,
  type LookCode,
  type Moment,
  type Symptom,
} from '@zb/core/diagnose/codes';
import { suspectsOf } from '@zb/core/diagnose/forBox';
import { expectedBits, likelihood, nextLook, rank, spread } from '@zb/core/diagnose/reason';
import { causeWords } from '@zb/core/words/diagnose/causes';
import { groundWords, lookWords, symptomWords } from '@zb/core/words/diagnose/looks';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** What is asked of `zb diagnose`. */
export interface DiagnoseAsked {
  seen: string[];
  at?: string;
  answer?: string[];
}

const among = <T extends string>(all: readonly T[], what: string, given: string): T => {
  const found = all.find((x) => x === given);
  if (found === undefined) throw new InputError(`${what} is one of: ${all.join(', ')}; not ${given}`);
  return found;
};

function answerFrom(text: string): Answered {
  const [name = '', ...rest] = text.split('=');
  const look: LookCode = among(lookCodes, 'a look', name);
  const said = rest.join('=');
  // Nothing behind the sign: it could not be told.
  return {
    look,
    answer: said === '' ? null : among<string>(looks[look].answers, `what ${look} found`, said),
  };
}

/** The moment at which all that was seen can be seen: the one that was given, else the first of them. */
function momentFor(seen: readonly Symptom[], at: string | undefined): Moment {
  if (at !== undefined) return among(moments, '--at', at);
  const found = moments.find((m) => seen.every((s) => seenAt[m].includes(s)));
  if (!found) throw new InputError('what was seen is not seen at one moment; say which with --at');
  return found;
}

/** What `zb diagnose` prints: causes with their shares (0 to 1) and grounds, and the next look with its bits. */
export function diagnoseOutput(text: string, id: string, asked: DiagnoseAsked) {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const all = [...new Set(Object.values(seenAt).flat())];
  const seen = asked.seen.map((s) => among(all, '--seen', s));
  const moment = momentFor(seen, asked.at);
  const strange = seen.find((s) => !seenAt[moment].includes(s));
  if (strange !== undefined)
    throw new InputError(`“${strange}” is not seen ${moment}; seen then: ${seenAt[moment].join(', ')}`);
  const answered = (asked.answer ?? []).map(answerFrom);
  const suspects = suspectsOf(bench, box, moment);
  const ranked = rank(suspects, moment, seen, answered);
  const next = nextLook(ranked, moment, answered);
  return {
    moment,
    seen: seen.map((s) => ({ symptom: s, words: symptomWords(s) })),
    answered,
    causes: ranked.map((r) => ({
      ...r,
      ...causeWords(r.cause),
      grounds: (suspects.find((s) => s.cause === r.cause)?.grounds ?? []).map((g) => ({
        ...g,
        words: groundWords(g),
      })),
    })),
    next: next && { ...next, words: lookWords(next.look), answers: looks[next.look].answers },
  };
}

/** What `zb diagnose --tables` prints: all that its shares are worked out from, so that they can be worked out elsewhere. */
export function diagnoseTables(text: string, id: string) {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  return moments.map((moment) => {
    const suspects = suspectsOf(bench, box, moment);
    return {
      moment,
      symptoms: seenAt[moment],
      suspects: suspects.map((s) => ({
        cause: s.cause,
        weight: s.weight,
        shows: Object.fromEntries(spread(seenAt[moment], s.shows)),
      })),
      looks: lookCodes
        .filter((l) => (looks[l].moments as readonly string[]).includes(moment))
        .map((look) => ({
          look,
          minutes: looks[look].minutes,
          answers: looks[look].answers,
          of: Object.fromEntries(
            causeCodes
              .filter((c) => causeOf(c).at.includes(moment))
              .map((c) => [c, looks[look].answers.map((a) => likelihood(c, look, a))]),
          ),
          bits: expectedBits(rank(suspects, moment, [], []), look),
        })),
    };
  });
}
