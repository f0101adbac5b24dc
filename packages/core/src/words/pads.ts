import { standardButtons, type PadDifference, type PadFinding } from '../firststart/pads';
import type { Pad } from '../model/firstStart';
import { list } from './text';
import { formatPercent } from '../units/number';

const AXES = [
  'left stick, left and right',
  'left stick, up and down',
  'right stick, left and right',
  'right stick, up and down',
];
/** What a program calls a button: by name in the standard layout, else by number. */
export const buttonWords = (i: number, standard: boolean): string =>
  (standard ? standardButtons[i] : undefined) ?? `button ${i}`;
/** What an axis is. */
export const axisWords = (i: number): string => AXES[i] ?? `axis ${i}`;

const END_WORDS = [
  { least: 'left', most: 'right' },
  { least: 'up', most: 'down' },
] as const;

/** What is still to be done, or wrong. */
export function padFindingWords(f: PadFinding, pad: Pick<Pad, 'standard'>): string {
  switch (f.code) {
    case 'not pressed':
      return `Press once: ${list(f.buttons.map((b) => buttonWords(b, pad.standard)))}.`;
    case 'stick does not reach':
      return `Push the ${f.axis < 2 ? 'left' : 'right'} stick all the way ${END_WORDS[f.axis % 2]?.[f.end] ?? ''}: it went ${formatPercent(Math.abs(f.at))}.`;
    case 'trigger does not reach':
      return `The ${buttonWords(f.button, pad.standard)} goes to ${formatPercent(f.at)} only: pull it through.`;
    case 'rests off the middle':
      return `The ${axisWords(f.axis)} rests at ${formatPercent(f.at)}: it will creep without a dead zone.`;
    case 'drifts':
      return `The ${axisWords(f.axis)} strays by ${formatPercent(f.by)} at rest: it is worn.`;
    case 'not at rest yet':
      return 'Lay it down and measure where its sticks rest.';
    case 'not standard':
      return 'Its layout is not the standard one: programs see numbers, and each has to be taught.';
  }
}

/** Where two pads differ. */
export function padDifferenceWords(d: PadDifference): string {
  switch (d.code) {
    case 'another name':
      return 'They call themselves differently: programs keep a mapping for each.';
    case 'standard and not':
      return 'One has the standard layout, the other has not.';
    case 'other count':
      return `One has ${d.a} ${d.what}, the other ${d.b}.`;
    case 'answers otherwise':
      return `The ${d.button} is number ${d.a} on one, ${d.b} on the other.`;
  }
}

/** What a pad came to, short. */
export const padWords = (pad: Pad, zone: number): string =>
  `${pad.pressed.length} of ${pad.buttons} buttons, ${pad.axes.length} axes, dead zone ${formatPercent(zone)}`;
