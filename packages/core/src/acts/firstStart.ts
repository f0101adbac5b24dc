import { noFirst, type FirstRecord, type Pad } from '../model/firstStart';
import type { Box, LogEntry } from '../model/bench';
import { edited, type Act } from '../model/changes';
import { formatDuration } from '../units/duration';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

const record = (box: Box): FirstRecord => box.first ?? noFirst();
const put = (box: Box, changed: Partial<FirstRecord>, label: string): Act =>
  updateBox(box, { first: { ...record(box), ...changed } }, label);
/** The same with a line of the log beside it. */
function told(box: Box, changed: Partial<FirstRecord>, text: string, stamp: Stamp): Act {
  const line: LogEntry = { kind: 'note', ...logBase(box, 'first-start', stamp), text };
  return {
    label: text,
    changes: [edited('boxes', box, { ...box, first: { ...record(box), ...changed } }), logged(line)],
  };
}

/** Ticks a line, or takes the tick back. */
export const tickFirst = (box: Box, key: string, done: boolean, label: string): Act => {
  const { done: all } = record(box);
  return put(box, { done: done ? [...new Set([...all, key])] : all.filter((k) => k !== key) }, label);
};

/** Leaves a line out, or takes it in again. */
export const leaveFirst = (box: Box, key: string, leave: boolean, label: string): Act => {
  const { left } = record(box);
  return put(box, { left: leave ? [...new Set([...left, key])] : left.filter((k) => k !== key) }, label);
};

/** Notes what was set at a line; an empty text forgets it. */
export const setFirst = (box: Box, key: string, value: string, label: string): Act => {
  const rest = Object.fromEntries(Object.entries(record(box).set).filter(([k]) => k !== key));
  return put(box, { set: value === '' ? rest : { ...rest, [key]: value } }, label);
};

/** The power button was pressed: from now on the first start is timed. */
export const beginFirst = (box: Box, stamp: Stamp): Act =>
  put(box, { began: stamp.now, seconds: null }, 'First start begun');

/** It answers: the first start took so many seconds. */
export function firstAnswered(box: Box, stamp: Stamp): Act {
  const { began } = record(box);
  const seconds = began === null ? 0 : Math.max(0, (Date.parse(stamp.now) - Date.parse(began)) / 1000);
  return told(box, { seconds }, `First start of ${box.name} took ${formatDuration(seconds)}`, stamp);
}

/** A round of updates: how much was offered, and how long it took where that was measured. */
export function addRound(box: Box, offered: number | null, seconds: number | null, stamp: Stamp): Act {
  const { rounds } = record(box);
  const n = rounds.length + 1;
  const text =
    offered === 0
      ? `Updates of ${box.name}: nothing is offered any more`
      : `Round ${n} of updates of ${box.name}${offered === null ? '' : `: ${offered} offered`}${seconds === null ? '' : `, ${formatDuration(seconds)}`}`;
  return told(box, { rounds: [...rounds, { at: stamp.now, seconds, offered }] }, text, stamp);
}

/** Takes the last round back. */
export const dropRound = (box: Box): Act =>
  put(box, { rounds: record(box).rounds.slice(0, -1) }, 'Last round of updates taken back');

/** Notes that a password was set: where it is written down and who knows it. The password itself goes nowhere. */
export function passwordSet(box: Box, kept: string, knows: string, replaced: boolean, stamp: Stamp): Act {
  return told(
    box,
    { password: { kept, knows, replaced, at: stamp.now } },
    `Password of ${box.name} set; written down: ${kept}; known to: ${knows}`,
    stamp,
  );
}

/** Files of drivers that were fetched, put in place of those known before. */
export const keepBundle = (box: Box, bundle: FirstRecord['bundle'], stickId: string | null): Act =>
  put(box, { bundle, stickId }, 'Drivers fetched beforehand');

/** Keeps a gamepad with the box, in place of an earlier trial of one that calls itself the same. */
export const keepPad = (box: Box, pad: Pad): Act =>
  put(
    box,
    { pads: [...record(box).pads.filter((p) => p.name !== pad.name), pad] },
    `“${pad.name}” tried and kept`,
  );

/** Takes a gamepad away. */
export const dropPad = (box: Box, name: string): Act =>
  put(box, { pads: record(box).pads.filter((p) => p.name !== name) }, `“${name}” taken away`);
