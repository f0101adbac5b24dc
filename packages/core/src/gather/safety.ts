import { knownFact } from '../model/known';
import { storesIn, type Bench, type Machine } from '../model/bench';
import { isBlank } from '../model/content';

export interface SafetyNote {
  key: string;
  text: string;
}

const ON_MAINS: readonly Machine['form'][] = ['tower', 'office desktop', 'old desktop', 'rack server'];

/** What can hurt on this machine, and where the last word is somebody else's. Common practice; local code decides. */
export function safetyNotes(bench: Bench, machine: Machine, opens: boolean): SafetyNote[] {
  const notes: SafetyNote[] = [];
  const note = (key: string, text: string): void => void notes.push({ key, text });
  const battery = knownFact(machine, 'power.battery')?.value;
  if (battery === true || machine.form === 'handheld' || machine.form === 'laptop')
    note(
      'cell',
      'A lithium cell is inside: never pierce, bend or charge a swollen one; disconnect it before other work where it can be. Old cells go to battery recycling.',
    );
  if (ON_MAINS.includes(machine.form))
    note(
      'mains',
      'The mains supply stays closed: its capacitors hold charge after the plug is out. Unplug before opening; anything behind the socket is for a licensed electrician under local code.',
    );
  else if (opens) note('mains', 'Never work on an opened device while its charger is plugged in.');
  if (machine.form === 'rack server')
    note(
      'rack',
      'Rack servers are heavy and rails are sharp: two people. Racks and fixed wiring follow local code.',
    );
  if (machine.form === 'handheld' && opens)
    note(
      'button',
      'A handheld can switch itself on when its button is pressed during the work; ribbon cables tear, so lay the cover beside it and never pull.',
    );
  if (opens)
    note(
      'static',
      'Touch bare metal of the case before touching boards and modules; one screw often stays in the cover, so keep the screws by hole.',
    );
  const foreign = storesIn(bench, machine.id).filter(
    (s) => s.fate !== 'keep' && !isBlank(s.content) && s.kind !== 'stick',
  );
  if (foreign.length > 0)
    note(
      'data',
      `Other people’s data may be on ${foreign.map((s) => `“${s.name}”`).join(', ')}: ask, then erase before reuse.`,
    );
  return notes;
}
