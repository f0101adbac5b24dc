import { STEP_LENGTH } from '../model/run';
import type { StepWhat } from './what';

/** What only counts how far a step is: it changes by being done, and makes no other step of it. */
const PROGRESS: Partial<Record<StepWhat['code'], readonly string[]>> = {
  'compare the sum': ['sha256', 'image'],
  'first start': ['set'],
  answer: ['value'],
  measure: ['runs'],
  'password on paper': ['kept'],
  'enter setup': ['key'],
  'try the menu key': ['key', 'form'],
  'save and leave': ['form'],
  'start the stick': ['form'],
  'choose the drive': ['kept'],
  'let it install': ['kept', 'out'],
  set: ['from'],
  'stick in': ['others'],
};
const OPENING = ['photos', 'out', 'back'];

const without = (of: object, fields: readonly string[]): object =>
  Object.fromEntries(Object.entries(of).filter(([k]) => !fields.includes(k)));

/** What a step is, as it is kept with what was done: the same text as long as the same thing is to be done. */
export function lasting(what: StepWhat): string {
  const kept = without(what, PROGRESS[what.code] ?? []);
  const text = JSON.stringify(what.code === 'open' ? { ...kept, what: without(what.what, OPENING) } : kept);
  return text.slice(0, STEP_LENGTH);
}
