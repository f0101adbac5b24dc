import { isStartType } from '../machine/content';
import type { Store } from '../model/bench';
import type { DriveThere, DriveWant } from '../model/layout';
import { MIB } from '../units/bytes';
import { canShrink } from './shrinks';
import { driveThere } from './usual';

/** Parts that stay, by number, with the bytes they are made smaller to (null: as they are). */
export type Kept = DriveWant['kept'];

/**
 * What stays where a new system goes beside what is there: everything, the largest part that can be made smaller to half of
 * itself. Empty where nothing is known to lie on the drive.
 */
export function besideOf(drive: Store): Kept {
  const { parts } = driveThere(drive);
  const [largest] = parts.filter(canShrink).sort((a, b) => b.bytes - a.bytes);
  return parts.map((p) => ({
    number: p.number,
    shrinkTo: p === largest ? Math.floor(p.bytes / 2 / MIB) * MIB : null,
  }));
}

/** Does every part of the drive stay? Where the place of one is not known nobody can say so. */
export const keepsAll = (drive: Store, kept: Kept): boolean => {
  const there = driveThere(drive).parts;
  return (
    there.length > 0 &&
    there.length === (drive.content?.parts.length ?? 0) &&
    there.every((p) => kept.some((k) => k.number === p.number))
  );
};

/** A want with what stays: the table it is in stays as well, and a start part that is there is shared. */
export function withKept(want: DriveWant, there: DriveThere, kept: Kept): DriveWant {
  if (kept.length === 0) return want;
  const staying = there.parts.filter((p) => kept.some((k) => k.number === p.number));
  // Two systems share one start part.
  const shared = staying.some((p) => isStartType(p.type));
  return {
    ...want,
    table: there.table === 'gpt' || there.table === 'mbr' ? there.table : want.table,
    kept,
    wants: want.wants.filter((w) => !(shared && w.use === 'start')),
  };
}
