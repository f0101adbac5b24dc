import type { Asks, Hurt, Need, WayBack } from '../../runsheet/traits';
import type { Evidence } from '../../runsheet/evidence';
import type { Must } from '../../runsheet/step';
import type { Plan } from '../../box/plan';
import type { RunSheet } from '../../box/runSheet';
import { formatSpan } from '../../units/duration';
import { plural } from '../text';
import { runStepWords } from './step';

const NEEDS: Record<Need, string> = {
  monitor: 'monitor',
  keyboard: 'keyboard',
  stick: 'stick',
  writer: 'the writing machine',
  wire: 'network wire',
  tools: 'tools',
};
/** What a step takes up. */
export const needWords = (n: Need): string => NEEDS[n];

const HURTS: Record<Hurt, string> = {
  'what is on the drive is lost': 'What is on the drive is lost.',
  mains: 'Mains: the supply stays closed, its capacitors hold charge.',
  'lithium cells': 'Lithium cell: never pierce, bend or charge a swollen one.',
  'ribbon cables': 'Ribbon cables tear: lay the cover beside, never pull.',
  'the old system may not start': 'What is installed may not start until this is set back.',
  'you may lock yourself out': 'You may lock yourself out: keep keyboard and monitor on it.',
  'what others use is gone meanwhile': 'Others use it: say beforehand that it is away.',
};
/** What can hurt. */
export const hurtWords = (h: Hurt): string => HURTS[h];

const BACK: Record<WayBack, string> = {
  'nothing to take back': 'Nothing to take back.',
  'set it back as noted': 'Back: set it as it was noted.',
  'put it back': 'Back: put it where it was.',
  'do it again': 'Back: do it again.',
  'from a copy alone': 'There is no way back but a copy.',
};
/** How a step is taken back. */
export const backWords = (b: WayBack): string => BACK[b];

const ASKS: Record<Asks, string> = {
  setting: 'As it read before',
  photo: 'What the photo shows',
  serial: 'Serial as it is printed',
  figure: 'What was measured',
  words: 'What was found',
};
/** What is written down in a step. */
export const asksWords = (a: Asks): string => ASKS[a];

/** A condition that must hold first. */
export function mustWords({ code, of }: Must): string {
  switch (code) {
    case 'medium is chosen':
      return `It is chosen: ${of}.`;
    case 'stick is not the system drive':
      return `${of === '' ? 'The installer’s medium' : `“${of}”`} is not the drive that the system goes on.`;
    case 'way is decided':
      return `It is decided how the system reaches ${of === '' ? 'its drive' : `“${of}”`}: by a stick, or in an adapter.`;
    case 'adapter is at hand':
      return `An adapter that puts ${of === '' ? 'the drive' : `“${of}”`} on USB is on the shelf.`;
    case 'another system runs':
      return `The machine runs from another drive than ${of === '' ? 'the one that is written' : `“${of}”`}.`;
    case 'drive may be lost':
      return `What is on ${of === '' ? 'the drive' : `“${of}”`} may be lost.`;
    case 'sum agrees':
      return 'The image is the one that was published.';
    case 'stick is proven':
      return `${of === '' ? 'The stick' : `“${of}”`} was read back and proven.`;
    case 'image fits':
      return `The image fits on ${of === '' ? 'the stick' : `“${of}”`}.`;
    case 'drive is in the machine':
      return `${of === '' ? 'The drive' : `“${of}”`} is in the machine.`;
    case 'address is settled':
      return `The address of ${of} is decided: the installer asks for it.`;
    case 'drives have serials':
      return `Each drive of the pool has a serial of its own: ${of}.`;
    case 'stick starts':
      return `${of} boots from the stick.`;
    case 'machine is off':
      return `${of} is off, and nothing is plugged in that does not belong there.`;
  }
}

const EVIDENCE: Record<Evidence, string> = {
  measured: 'measured',
  shown: 'seen in the bench',
  photo: 'a photo shows it',
  word: 'by your word',
};
/** What shows that a step is done. */
export const evidenceWords = (e: Evidence): string => EVIDENCE[e];

/** What heads the run sheet of a box. */
export function runSheetHeadline({ sheet, reaches }: Pick<Plan, 'sheet' | 'reaches'>): string {
  const { steps, next, box } = sheet;
  if (steps.length === 0) return `${box} has no steps yet: choose a machine first`;
  if (!next) {
    const open = steps.filter((s) => s.state === 'not recorded').length;
    if (open > 0)
      return `No step of ${box} is left, but ${plural(open, 'step')} ${open === 1 ? 'is' : 'are'} not recorded`;
    if (steps.some((s) => s.state === 'waits')) return `The steps of ${box} wait for each other`;
    return reaches === false
      ? `All ${plural(steps.length, 'step')} of ${box} are done, and the plan has not reached its end`
      : `All ${plural(steps.length, 'step')} of ${box} are done`;
  }
  return `Step ${next.number} of ${steps.length}: ${runStepWords(next.what).title}`;
}

/** What is left of the work of a box. */
export const leftWords = ({ hands, alone }: Pick<RunSheet, 'hands' | 'alone'>): string =>
  `${formatSpan(hands)} of yours, ${formatSpan(alone)} alone`;
