import { storesOf, type Bench, type Box, type Store } from '../model/bench';
import { isFreeFor } from '../plan/claims';
import { LOADER_PART_BYTES } from '../system/chainLoader';
import { targetSerial } from './target';

/**
 * Sticks and cards that may become the chain loader of a box: erasable, large enough, in nobody else's hands, and not its own
 * installer's. The one that is chosen stays among them once it is made.
 */
export const chainSticks = (bench: Bench, box: Box): Store[] =>
  storesOf(bench).filter(
    (s) =>
      s.id === box.chain?.stickId ||
      (s.removable &&
        s.fate === 'may be lost' &&
        s.bytes >= LOADER_PART_BYTES &&
        (s.serial === null || s.serial !== targetSerial(box)) &&
        isFreeFor(bench, box, s)),
  );
