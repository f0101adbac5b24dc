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
import { placeBefore } from '../model/opening';
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

/** A medium of the machine from which it boots a system now, other than this drive; undefined where none is known. */
export const runsFromOther = (
  bench: Bench,
  { machineId }: Pick<Box, 'machineId'>,
  drive: Pick<Store, 'id'>,
): Store | undefined =>
  machineId === null
    ? undefined
    : storesIn(bench, machineId).find((s) => s.id !== drive.id && (s.content?.starts?.length ?? 0) > 0);

/** The bench with what was set aside in its machine, and before the plan takes anything out: the same throughout the plan. */
function asPlanned(bench: Bench, box: Box): Bench {
  if (box.parts.length === 0 && Object.keys(box.opening?.moved ?? {}).length === 0) return bench;
  return {
    ...bench,
    items: bench.items.map((i) => {
      if (!('in' in i)) return i;
      const to = i.kind === 'drive' && box.parts.includes(i.id) ? box.machineId : placeBefore(box, i);
      return to === i.in ? i : { ...i, in: to };
    }),
  };
}

/** The drive inside that a system written straight would run from; undefined where the machine has none. */
export function innerDriveOf(bench: Bench, box: Box): Store | undefined {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile) return undefined;
  const own = storesIn(bench, machine.id).find((s) => s.kind === 'drive' && holdsSystemOf(s, box));
  if (own) return own;
  const { boot } = driveState(
    machineView(asPlanned(bench, box), machine, undefined, box),
    profile.needs.bootBytes,
  );
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

/** How an image is written straight. */
export type StraightWay = 'stick' | 'card' | 'external drive' | 'adapter' | 'in place';

/**
 * How an image is written straight: to a stick, to a card, to a drive that hangs on USB by itself, to a drive that comes out of
 * its machine and is written in an adapter, or in place, by the system that its machine runs now. Null where there is an
 * installer.
 */
export function straightWay(bench: Bench, box: Box): StraightWay | null {
  if (!isWrittenStraight(bench, box)) return null;
  const target = targetOf(bench, box);
  if (target?.kind === 'stick' || target?.kind === 'card') return target.kind;
  const decided = writeWayOf(box) === 'running system' ? 'in place' : 'adapter';
  if (target) return target.transport === 'usb' ? 'external drive' : decided;
  if (writeWayOf(box) !== 'installer stick' && writeWayOf(box) !== null) return decided;
  const machine = findMachine(bench, box.machineId);
  // A machine without a place for a drive runs from a card.
  return machine && knownFact(machine, 'ports.drives')?.value === 0 ? 'card' : 'stick';
}
