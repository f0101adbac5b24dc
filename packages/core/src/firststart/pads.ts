import type { Pad } from '../model/firstStart';

/** A gamepad at one moment, as a browser tells it (Gamepad, W3C, “Gamepad interface”). */
export interface PadMoment {
  name: string;
  standard: boolean;
  /** How far each button is pressed, 0 to 1. */
  buttons: readonly number[];
  /** Each axis, -1 to 1. */
  axes: readonly number[];
}

/** Names of the buttons of the standard layout, by index (Gamepad, W3C, “Remapping”). */
export const standardButtons = [
  'lower face button',
  'right face button',
  'left face button',
  'upper face button',
  'left shoulder',
  'right shoulder',
  'left trigger',
  'right trigger',
  'select',
  'start',
  'left stick pressed',
  'right stick pressed',
  'cross up',
  'cross down',
  'cross left',
  'cross right',
  'middle',
] as const;

/** A button counts as pressed from here on, and an end of a stick as reached. Common practice, no source. */
const PRESSED = 0.5;
const END = 0.9;
/** So many readings make a rest; at sixty a second that is two seconds. */
export const REST_READINGS = 120;

/** A trial under way: what was seen of a pad until now. */
export interface PadTrial {
  name: string;
  standard: boolean;
  pressed: ReadonlySet<number>;
  /** The furthest each button went, and whether it was ever seen in between: then it is a trigger. */
  most: readonly number[];
  between: ReadonlySet<number>;
  least: readonly number[];
  furthest: readonly number[];
  /** Readings at rest, one list for each axis. */
  resting: readonly (readonly number[])[];
}

/** A trial of a pad of which nothing was seen yet. */
export const beginTrial = (pad: PadMoment): PadTrial => ({
  name: pad.name,
  standard: pad.standard,
  pressed: new Set(),
  most: pad.buttons.map(() => 0),
  between: new Set(),
  least: pad.axes.map(() => 0),
  furthest: pad.axes.map(() => 0),
  resting: pad.axes.map(() => []),
});

const inside = (n: number): number => Math.max(-1, Math.min(1, Number.isFinite(n) ? n : 0));

/** The trial after one more moment; `handsOff`: nobody touches it, and where its sticks rest is read. */
export function seen(trial: PadTrial, pad: PadMoment, handsOff: boolean): PadTrial {
  const pressed = new Set(trial.pressed);
  const between = new Set(trial.between);
  pad.buttons.forEach((value, i) => {
    if (value >= PRESSED) pressed.add(i);
    if (value > 0.05 && value < 0.95) between.add(i);
  });
  return {
    ...trial,
    pressed,
    between,
    most: pad.buttons.map((value, i) => Math.max(trial.most[i] ?? 0, Math.min(1, Math.max(0, value)))),
    least: handsOff ? trial.least : pad.axes.map((value, i) => Math.min(trial.least[i] ?? 0, inside(value))),
    furthest: handsOff
      ? trial.furthest
      : pad.axes.map((value, i) => Math.max(trial.furthest[i] ?? 0, inside(value))),
    resting: handsOff
      ? pad.axes.map((value, i) => [...(trial.resting[i] ?? []), inside(value)].slice(-REST_READINGS))
      : trial.resting,
  };
}

const mean = (all: readonly number[]): number =>
  all.length === 0 ? 0 : all.reduce((sum, x) => sum + x, 0) / all.length;

/** Where an axis rests and how far it strays from there. */
function restOf(all: readonly number[]): { rest: number; drift: number } {
  const rest = mean(all);
  return { rest, drift: all.reduce((most, x) => Math.max(most, Math.abs(x - rest)), 0) };
}

/** What a trial came to, as it is kept. `layout`: which index each named button answered with. */
export const padOf = (trial: PadTrial, layout: Readonly<Record<string, number>>, at: string): Pad => ({
  name: trial.name.slice(0, 300) || 'a pad without a name',
  standard: trial.standard,
  buttons: trial.most.length,
  pressed: [...trial.pressed].sort((a, b) => a - b),
  triggers: Object.fromEntries(
    [...trial.between].sort((a, b) => a - b).map((i) => [String(i), trial.most[i] ?? 0]),
  ),
  axes: trial.resting.map((all, i) => ({
    least: trial.least[i] ?? 0,
    most: trial.furthest[i] ?? 0,
    ...restOf(all),
  })),
  layout: { ...layout },
  at,
});

/** What is still to be done with a pad, or wrong with it. */
export type PadFinding =
  | { code: 'not pressed'; buttons: number[] }
  | { code: 'stick does not reach'; axis: number; end: 'least' | 'most'; at: number }
  | { code: 'trigger does not reach'; button: number; at: number }
  | { code: 'rests off the middle'; axis: number; at: number }
  | { code: 'drifts'; axis: number; by: number }
  | { code: 'not at rest yet' }
  | { code: 'not standard' };

/** Further from the middle than this at rest is felt in play. Common practice, no source. */
const OFF = 0.08;
const DRIFT = 0.05;

/** What is still open of a pad: every button once, sticks to all four ends, triggers to theirs, rest measured. */
export function padFindings(pad: Pad, rested: boolean): PadFinding[] {
  const missing = Array.from({ length: pad.buttons }, (_, i) => i).filter((i) => !pad.pressed.includes(i));
  return [
    ...(pad.standard ? [] : [{ code: 'not standard' as const }]),
    ...(missing.length > 0 ? [{ code: 'not pressed' as const, buttons: missing }] : []),
    ...pad.axes.flatMap((a, axis): PadFinding[] => [
      ...(a.least > -END
        ? [{ code: 'stick does not reach' as const, axis, end: 'least' as const, at: a.least }]
        : []),
      ...(a.most < END
        ? [{ code: 'stick does not reach' as const, axis, end: 'most' as const, at: a.most }]
        : []),
      ...(rested && Math.abs(a.rest) > OFF
        ? [{ code: 'rests off the middle' as const, axis, at: a.rest }]
        : []),
      ...(rested && a.drift > DRIFT ? [{ code: 'drifts' as const, axis, by: a.drift }] : []),
    ]),
    ...Object.entries(pad.triggers).flatMap(([button, most]): PadFinding[] =>
      most < END ? [{ code: 'trigger does not reach', button: Number(button), at: most }] : [],
    ),
    ...(rested ? [] : [{ code: 'not at rest yet' as const }]),
  ];
}

/** Means of readings carry the dust of their arithmetic, which is no drift. */
const DUST = 1e-6;

/** The dead zone that hides where its sticks rest and stray, in steps of one hundredth; at least one of them. */
export function deadZone(pad: Pad): number {
  const most = pad.axes.reduce((m, a) => Math.max(m, Math.abs(a.rest) + a.drift), 0);
  return Math.max(0.01, Math.ceil(most * 100 - DUST) / 100);
}

/** Where two pads differ: a program that learnt one does the wrong thing with the other. */
export type PadDifference =
  | { code: 'another name' }
  | { code: 'standard and not' }
  | { code: 'other count'; what: 'buttons' | 'axes'; a: number; b: number }
  | { code: 'answers otherwise'; button: string; a: number; b: number };

/** Two pads held against each other. */
export function comparePads(a: Pad, b: Pad): PadDifference[] {
  return [
    ...(a.name === b.name ? [] : [{ code: 'another name' as const }]),
    ...(a.standard === b.standard ? [] : [{ code: 'standard and not' as const }]),
    ...(a.buttons === b.buttons
      ? []
      : [{ code: 'other count' as const, what: 'buttons' as const, a: a.buttons, b: b.buttons }]),
    ...(a.axes.length === b.axes.length
      ? []
      : [{ code: 'other count' as const, what: 'axes' as const, a: a.axes.length, b: b.axes.length }]),
    ...Object.entries(a.layout).flatMap(([button, at]): PadDifference[] => {
      const other = b.layout[button];
      return other === undefined || other === at
        ? []
        : [{ code: 'answers otherwise', button, a: at, b: other }];
    }),
  ];
}
