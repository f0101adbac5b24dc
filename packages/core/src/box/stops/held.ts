import type { Store } from '../../model/bench';
import type { Stop } from '../../model/stops';
import type { Claim } from '../../plan/claims';
import { hazard, type Hazard } from '../hazard';

/** Another box has reserved a medium that this one wants, or its system runs from it. */
export const heldHazard = (stop: Stop, store: Pick<Store, 'id' | 'name'>, claim: Claim): Hazard =>
  hazard(
    'held by another box',
    'stop',
    stop,
    { item: store.name, box: claim.boxName, as: claim.as },
    { store: store.id },
  );
