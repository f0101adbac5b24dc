import { startsMachine, type BoxLayout, type PartWant } from '../model/layout';
import { GIB, MIB } from '../units/bytes';
import type { LaidBox } from './forBox';
import { leastOf, unitsFor } from './place';
import type { DriveStratum } from './strata';
import { UNIT } from './table';

/** A border between two parts that can be moved: the size of the one before it, from its least to its most. Bytes. */
export interface Border {
  /** Ids of the wants before and behind it. */
  before: string;
  behind: string;
  names: [string, string];
  bytes: number;
  least: number;
  most: number;
  /** One step of a key; sizes snap to it. */
  step: number;
}

/** The same in whole units, as parts are laid. */
const leastUnits = (w: PartWant): number => unitsFor(leastOf(w)) * UNIT;

/** The borders of a box's layout that can be moved, in the order of the parts. */
export function bordersOf({ plan, sheet }: LaidBox): Border[] {
  if (!plan || !sheet || sheet.layout.problems.length > 0) return [];
  const parts = sheet.layout.parts.filter((p) => p.kind !== 'extended');
  return parts.flatMap((p, i): Border[] => {
    const next = parts[i + 1];
    const [before, behind] = [p, next].map((x) => plan.want.wants.find((w) => w.id === x?.want));
    if (!next || !before || !behind || startsMachine(before) || startsMachine(behind)) return [];
    // A hole, or the record of a logical part, between them is no part of either.
    const both = p.bytes + next.bytes;
    const most = both - leastUnits(behind);
    const least = leastUnits(before);
    if (most <= least) return [];
    const step = both >= 16 * GIB ? GIB : 64 * MIB;
    return [
      {
        before: before.id,
        behind: behind.id,
        names: [p.name, next.name],
        bytes: p.bytes,
        least,
        most,
        step,
      },
    ];
  });
}

/** Where a border is drawn, 0 to 1 from the bottom: above the part behind it. */
export function heightOf(b: Border, strata: readonly DriveStratum[]): number {
  const behind = strata.findIndex((s) => s.part === b.behind);
  return strata.slice(0, behind + 1).reduce((sum, s) => sum + s.share, 0);
}

/** A size brought to whole steps, within what the border allows. */
const snapped = (b: Border, bytes: number): number =>
  Math.min(b.most, Math.max(b.least, Math.round(bytes / b.step) * b.step));

/** The sizes a person gave once a border is moved: the part before it gets them, the one behind what is left of both. */
export function movedBorder({ plan, sheet, decided }: LaidBox, b: Border, bytes: number): BoxLayout['sizes'] {
  const to = snapped(b, bytes);
  const behind = sheet?.layout.parts.find((p) => p.want === b.behind);
  const takesRest = plan?.want.wants.find((w) => w.id === b.behind)?.size.kind === 'rest';
  return {
    ...decided.sizes,
    [b.before]: { kind: 'fixed', bytes: to },
    ...(takesRest || !behind
      ? {}
      : { [b.behind]: { kind: 'fixed' as const, bytes: Math.max(UNIT, behind.bytes - (to - b.bytes)) } }),
  };
}
