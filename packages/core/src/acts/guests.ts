import { noGuests, type Guest, type GuestPlan } from '../model/guests';
import type { Box, LogEntry } from '../model/bench';
import { edited, type Act } from '../model/changes';
import { withItem, withoutItem } from '../units/list';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

/** Changes what was decided of the guests of a box. */
export const editGuests = (box: Box, changed: Partial<GuestPlan>, label: string): Act =>
  updateBox(box, { guests: { ...(box.guests ?? noGuests()), ...changed } }, label);

/** Adds a guest, or changes what is said of it. */
export const keepGuest = (box: Box, plan: GuestPlan, guest: Guest): Act =>
  editGuests(box, { guests: withItem(plan.guests, guest) }, `${guest.name} saved`);

/** Takes a guest away; its disks are no longer counted. */
export const dropGuest = (box: Box, plan: GuestPlan, guest: Guest): Act =>
  editGuests(box, { guests: withoutItem(plan.guests, guest.id) }, `${guest.name} taken away`);

/** Takes a whole plan, with a line of the log that says why. */
export function takeGuests(box: Box, plan: GuestPlan, says: string, stamp: Stamp): Act {
  const line: LogEntry = {
    kind: 'decision',
    ...logBase(box, 'load', stamp),
    text: `Guests of ${box.name}: ${says}`,
  };
  return {
    label: `${box.name}: ${says}`,
    changes: [edited('boxes', box, { ...box, guests: plan }), logged(line)],
  };
}
