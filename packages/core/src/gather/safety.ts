import { knownFact } from '../model/known';
import { storesIn, type Bench, type Machine } from '../model/bench';
import { isBlank } from '../model/content';

/** Something that can hurt on a machine; words/gather.ts says how. `drives` names those it is about. */
export interface SafetyNote {
  key: 'cell' | 'mains' | 'charger' | 'rack' | 'button' | 'static' | 'data';
  drives: string[];
}

const ON_MAINS: readonly Machine['form'][] = ['tower', 'office desktop', 'old desktop', 'rack server'];

/** What can hurt on this machine, and where the last word is somebody else's. Common practice; local code decides. */
export function safetyNotes(bench: Bench, machine: Machine, opens: boolean): SafetyNote[] {
  const notes: SafetyNote[] = [];
  const note = (key: SafetyNote['key'], drives: string[] = []): void => void notes.push({ key, drives });
  const battery = knownFact(machine, 'power.battery')?.value;
  if (battery === true || machine.form === 'handheld' || machine.form === 'laptop') note('cell');
  if (ON_MAINS.includes(machine.form)) note('mains');
  else if (opens) note('charger');
  if (machine.form === 'rack server') note('rack');
  if (machine.form === 'handheld' && opens) note('button');
  if (opens) note('static');
  const foreign = storesIn(bench, machine.id).filter(
    (s) => s.fate !== 'keep' && !isBlank(s.content) && s.kind !== 'stick',
  );
  if (foreign.length > 0)
    note(
      'data',
      foreign.map((s) => s.name),
    );
  return notes;
}
