import { causeCodes } from '../../diagnose/causes';
import { lookCodes, moments, symptoms } from '../../diagnose/codes';
import type { Part, Said, Values } from '../../practice/said';
import type { Offer } from '../../practice/scene';
import { formatSi } from '../../units/bytes';
import { formatDay } from '../../units/date';
import { causeWords } from '../diagnose/causes';
import { lookWords, momentWords, symptomWords } from '../diagnose/looks';
import { capital, within } from '../text';
import { common } from './common';
import { tables } from './exercises';
import { rigTable } from './machines';
import type { PracticeTable } from './table';

const tableOf = (exercise: string): PracticeTable => tables[exercise] ?? rigTable;
const entryOf = (exercise: string, code: string): PracticeTable[string] | undefined =>
  tableOf(exercise)[code] ?? common[code];

const among = <T extends string>(all: readonly T[], words: (one: T) => string) => {
  return (text: string): string | undefined => {
    const one = all.find((x) => x === text);
    return one === undefined ? undefined : words(one);
  };
};

/** Values that are codes themselves, by their name. */
const CODED: Readonly<Record<string, (code: string) => string | undefined>> = {
  look: among(lookCodes, lookWords),
  cause: among(causeCodes, (c) => causeWords(c).title),
  right: among(causeCodes, (c) => causeWords(c).title),
  symptom: among(symptoms, symptomWords),
  moment: among(moments, momentWords),
};

function valueWords(exercise: string, key: string, value: string | number): string {
  if (key === 'bytes' && typeof value === 'number') return formatSi(value);
  if (key === 'day') return formatDay(String(value));
  const text = String(value);
  const coded = CODED[key]?.(text);
  if (coded !== undefined) return coded;
  // Things and settings have names of their own.
  const named = ['thing', 'setting', 'on', 'part'].includes(key) ? entryOf(exercise, text) : undefined;
  return typeof named === 'string' ? named : text;
}

const filled = (exercise: string, text: string, values: Values): string =>
  text.replaceAll(/\{(\w+)\}/g, (_, key: string) => valueWords(exercise, key, values[key] ?? ''));

/** A code of an exercise as it is read. Throws where nobody wrote words for it. */
export function practiceWords(exercise: string, { code, values }: Said): string {
  const entry = entryOf(exercise, code);
  if (entry === undefined) throw new RangeError(`${exercise}: no words for “${code}”`);
  return filled(exercise, typeof entry === 'string' ? entry : entry[0], values);
}

/** Why what happened matters; empty where it does not need a reason. */
export function practiceWhy(exercise: string, { code, values }: Said): string {
  const entry = entryOf(exercise, code);
  return entry === undefined || typeof entry === 'string' ? '' : filled(exercise, entry[1], values);
}

/** A part of a table or a screen. */
export const partWords = (exercise: string, part: Part): string =>
  typeof part === 'string' ? part : practiceWords(exercise, part);

const actEntry = (exercise: string, { act }: Offer): string => {
  const entry = entryOf(exercise, `act ${act.do}`);
  if (typeof entry !== 'string') throw new RangeError(`${exercise}: no words for “act ${act.do}”`);
  return entry;
};
const actValues = ({ act, values }: Offer): Values => ({
  ...(act.on === undefined ? {} : { on: act.on }),
  ...values,
});

/** What an act is called: the only one of this name while it is on offer. */
export const offerWords = (exercise: string, o: Offer): string =>
  filled(exercise, actEntry(exercise, o), actValues(o));

/** What it is called within the line of the thing it is done to: the same without the name of that. */
export const offerWordsInLine = (exercise: string, o: Offer): string =>
  filled(
    exercise,
    actEntry(exercise, o).replace(
      /(?: in bay|:)? \{(name|place|bay|look|cause|thing|setting|address)\}$/,
      '',
    ),
    actValues(o),
  );

/** What would have been lost, after “lost: ”. */
export const lossWords = (exercise: string, what: Said): string => within(practiceWords(exercise, what));

/** A hint as a sentence. */
export const hintWords = (exercise: string, hint: Said): string => capital(practiceWords(exercise, hint));
