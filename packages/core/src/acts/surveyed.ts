import { emptyBench, findMachine, type Bench, type Machine } from '../model/bench';
import { applyChanges } from '../model/changes';
import type { Survey } from '../machine/types';
import { addItem, applySurvey, blankMachine } from './shelf';
import type { Stamp } from './stamp';

/** A bench with nothing on it but a machine that this survey was pasted into, by the same acts as on a page. */
export function surveyedBench(survey: Survey, stamp: Stamp): { bench: Bench; machine: Machine } {
  const blank = blankMachine('this machine', 'office desktop', stamp);
  const bare = applyChanges(emptyBench(), addItem(blank).changes);
  const bench = applyChanges(bare, applySurvey(bare, blank, survey, stamp, null).changes);
  return { bench, machine: findMachine(bench, blank.id) ?? blank };
}
