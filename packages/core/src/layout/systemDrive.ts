import {
  findItem,
  findMachine,
  findProfile,
  storesIn,
  type Bench,
  type Box,
  type Store,
} from '../model/bench';
import { knownFact } from '../model/known';
import { isStore } from '../model/shelf';
import { holdsSystemOf } from '../plan/medium';
import { driveState } from '../system/places';
import { machineView } from '../system/view';
import { targetOf } from '../write/target';
import { writeWayOf } from '../write/way';
import { laidBox } from './forBox';

/** Is an image of this box’s system written straight to its final drive, without an installer? */
export const isWrittenStraight = (bench: Bench, box: Pick<Box, 'profileId'>): boolean =>
  findProfile(bench, box.profileId)?.installer === 'written straight to the final drive';

/** The drive inside that a system written straight would run from; undefined where the machine has none. */
export function innerDriveOf(bench: Bench, box: Box): Store | undefined {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile) return undefined;
  const own = storesIn(bench, machine.id).find((s) => s.kind === 'drive' && holdsSystemOf(s, box));
  if (own) return own;
  const { boot } = driveState(machineView(bench, machine, undefined, box), profile.needs.bootBytes);
  const drive = findItem(bench, boot?.id ?? null);
  return drive && isStore(drive) && drive.kind === 'drive' && drive.transport !== 'mmc' ? drive : undefined;
}

/**
 * The medium that the system of a box runs from, by what was decided: the one answer for the plan, the rehearsal, Opening and
 * the shelf. A stick that an image is written straight to is it where the machine has no drive inside; else it depends on the
 * way that was decided. Undefined where nobody has decided.
 */
export function systemDriveOf(bench: Bench, box: Box): Store | undefined {
  if (!isWrittenStraight(bench, box)) {
    const { drive, suggested } = laidBox(bench, box);
    return suggested ? undefined : (drive ?? undefined);
  }
  const target = targetOf(bench, box);
  if (target?.kind !== 'stick') return target;
  const inner = innerDriveOf(bench, box);
  if (!inner) return target;
  return writeWayOf(box) === 'installer stick' ? inner : undefined;
}

/**
 * How an image is written straight: to a stick, to a card, to a drive that hangs on USB by itself, or to a drive that comes out of
 * its machine and is written in an adapter. Null where there is an installer.
 */
export function straightWay(bench: Bench, box: Box): 'stick' | 'card' | 'external drive' | 'adapter' | null {
  if (!isWrittenStraight(bench, box)) return null;
  const target = targetOf(bench, box);
  if (target?.kind === 'stick' || target?.kind === 'card') return target.kind;
  if (target) return target.transport === 'usb' ? 'external drive' : 'adapter';
  if (writeWayOf(box) === 'adapter') return 'adapter';
  const machine = findMachine(bench, box.machineId);
  // A machine without a place for a drive runs from a card.
  return machine && knownFact(machine, 'ports.drives')?.value === 0 ? 'card' : 'stick';
}
