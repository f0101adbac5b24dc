import { laidBox } from '../layout/forBox';
import { runsFromOther, systemDriveOf } from '../layout/systemDrive';
import { findItem, findMachine, hostsOfBox, type Bench, type Box, type Store } from '../model/bench';
import { isStore } from '../model/shelf';
import { writtenBytes } from '../model/written';
import { mayErase } from '../plan/medium';
import { writeStands } from '../plan/proof';
import type { Must } from '../runsheet/step';
import { writeWayOf } from '../write/way';
import { bootLadder } from '../starting/ladder';

const storeOf = (bench: Bench, id: string | null): Store | undefined => {
  const item = findItem(bench, id);
  return item && isStore(item) ? item : undefined;
};

/** Is a medium one that the step may write to: erasable, or one on which what must stay is left where it is? */
function mayBeWritten(bench: Bench, box: Box, store: Store | undefined): boolean | null {
  if (!store) return null;
  if (mayErase(store, box)) return true;
  const { drive, plan } = laidBox(bench, box);
  return drive?.id === store.id && (plan?.want.kept.length ?? 0) > 0;
}

function startsStick(bench: Bench, box: Box): boolean | null {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return null;
  const { result } = bootLadder(bench, box, machine, { moment: 'now', stickIn: true, target: null });
  return result === 'cannot say' ? null : result === 'the stick starts';
}

/**
 * Whether a condition of a step holds on a bench, as it is or as the plan foretells it: null where nobody knows.
 */
export function conditionHolds(bench: Bench, box: Box, { code, id }: Must): boolean | null {
  switch (code) {
    case 'medium is chosen':
    case 'adapter is at hand':
    case 'drives have serials':
      return id !== null;
    case 'stick is not the system drive':
      return id === null || systemDriveOf(bench, box)?.id !== id;
    case 'way is decided':
      return writeWayOf(box) !== null;
    case 'another system runs':
      return id === null ? null : runsFromOther(bench, box, { id }) !== undefined;
    case 'drive may be lost':
      return mayBeWritten(bench, box, storeOf(bench, id));
    case 'sum agrees': {
      const item = findItem(bench, id);
      const comparison = item?.kind === 'image' ? item.comparison : null;
      return comparison ? comparison.verdict === 'same' : null;
    }
    case 'stick is proven': {
      const stands = writeStands(bench, box);
      if (!stands) return null;
      if (stands.code === 'replaced' || stands.written.result === 'failed') return false;
      return stands.written.result === 'proven' ? true : null;
    }
    case 'image fits': {
      const store = storeOf(bench, id);
      const image = findItem(bench, box.imageId);
      if (!store || image?.kind !== 'image') return null;
      return writtenBytes(image) <= (store.realBytes ?? store.bytes);
    }
    case 'drive is in the machine': {
      const store = storeOf(bench, id);
      if (!store) return null;
      // What hangs outside on a port is there whenever it is plugged in.
      return store.in === box.machineId || store.transport === 'usb' || store.removable;
    }
    case 'address is settled':
      return hostsOfBox(bench, box.id).some((h) => h.address !== null);
    case 'stick starts':
      return startsStick(bench, box);
    case 'machine is off':
      return null;
  }
}
