import { noGate, type GatePlan } from '../model/gate';
import type { Box, LogEntry } from '../model/bench';
import { edited, type Act } from '../model/changes';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

/** Changes what was decided of the rules of a box. */
export const editGate = (box: Box, changed: Partial<GatePlan>, label: string): Act =>
  updateBox(box, { gate: { ...(box.gate ?? noGate()), ...changed } }, label);

/** Notes that rules were given away, with what was promised of them. */
export function noteGiven(box: Box, says: string, stamp: Stamp): Act {
  const line: LogEntry = { kind: 'note', ...logBase(box, 'load', stamp), text: `${box.name}: ${says}` };
  return { label: `${box.name}: rules given away`, changes: [logged(line)] };
}

/** Takes a whole plan, with a line of the log that says why. */
export function takeGate(box: Box, plan: GatePlan, says: string, stamp: Stamp): Act {
  const line: LogEntry = {
    kind: 'decision',
    ...logBase(box, 'load', stamp),
    text: `Rules of ${box.name}: ${says}`,
  };
  return {
    label: `${box.name}: ${says}`,
    changes: [edited('boxes', box, { ...box, gate: plan }), logged(line)],
  };
}
