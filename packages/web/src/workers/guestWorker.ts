import loadHighs from 'highs';
import wasm from 'highs/runtime?url';
import { solverFrom } from '@zb/core/assign/highs';
import type { Pot } from '@zb/core/guests/pot';
import { waysToFit, type WaysToFit } from '@zb/core/guests/trim';
import type { GuestPlan } from '@zb/core/model/guests';
import type { Told } from './elsewhere';

/** What is asked of the thread. */
export interface GuestJob {
  plan: GuestPlan;
  pot: Pot;
}

const solver = loadHighs({ locateFile: () => wasm });
const tell = (told: Told<WaysToFit, 'stopped'>): void => self.postMessage(told);

self.onmessage = ({ data: { plan, pot } }: MessageEvent<GuestJob>): void => {
  solver
    .then((highs) => tell({ found: waysToFit(plan, pot, solverFrom(highs)) }))
    .catch((error: unknown) => tell({ failed: error instanceof Error ? error.message : String(error) }));
};
