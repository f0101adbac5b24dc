import { storesOf, type Bench, type Box, type Store } from '../model/bench';

/** The serial of what this box writes to: picked for the next write, else written last; null where neither is. */
export const targetSerial = (box: Box): string | null => box.targetSerial ?? box.written?.serial ?? null;

/** The shelf's record of that target; undefined where none is picked or the shelf does not have it. */
export function targetOf(bench: Bench, box: Box): Store | undefined {
  const serial = targetSerial(box);
  return serial === null ? undefined : storesOf(bench).find((s) => s.serial === serial);
}
