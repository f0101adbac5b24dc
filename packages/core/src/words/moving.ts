import type { MoveFault, MoveStep } from '../model/moving';
import type { MoveState } from '../storage/moving';
import { formatDay } from '../units/date';
import { list } from './text';

const STEPS: Record<MoveStep, { title: string; what: string }> = {
  freeze: {
    title: 'Nobody writes to the old one',
    what: 'Stop the service on the old server, not the database: what is written from now on would stay behind.',
  },
  'back up': { title: 'Back it up', what: 'On the old server; write its sum down.' },
  copy: { title: 'Carry the backup over', what: 'Then take its sum again, on the new one.' },
  restore: { title: 'Bring it back', what: 'On the new server, into a place that is empty.' },
  count: { title: 'Count on both', what: 'Rows of every table, or files: the same here and there.' },
  switch: {
    title: 'Let the new one take over',
    what: 'Its address or name goes to the new server; the old one is switched off, whole.',
  },
  keep: { title: 'Let the old one go', what: 'When its days are over and nobody missed a thing.' },
};
/** A step of a move, and what is done in it. */
export const moveStepWords = (step: MoveStep): { title: string; what: string } => STEPS[step];

/** Whether one can still go back. */
export function backWords({ back, keepUntil }: MoveState): string {
  if (back === 'free') return 'You can go back: the old one is as it was.';
  if (back === 'none') return 'The old one is let go.';
  return `You can go back until ${keepUntil === null ? 'the old one is let go' : formatDay(keepUntil)}, and lose what was written to the new one since.`;
}

/** What stands against going on. */
export function moveFaultWords(f: MoveFault): string {
  switch (f.code) {
    case 'still written to':
      return `“${f.what}” was backed up while somebody could still write to it: stop the service and back it up again.`;
    case 'sums differ':
      return `The backup of “${f.what}” did not arrive as it was made. Carry it over again; nothing was brought back from it.`;
    case 'sum not known':
      return `Whether the backup of “${f.what}” arrived as it was made, nobody has looked: take its sum on both.`;
    case 'counts differ':
      return `“${f.what}” has not as much here as there: ${list(f.of)}. Do not switch; find out what is missing.`;
    case 'nothing counted':
      return `Nothing of “${f.what}” was counted on both sides.`;
    case 'out of order':
      return `Of “${f.what}” “${STEPS[f.step].title}” is done and “${STEPS[f.before].title}” is not.`;
    case 'old one may go':
      return `The old “${f.what}” was kept until ${formatDay(f.day)}: let it go, or keep it longer.`;
  }
}
