import { besidePlan, type Beside } from '@zb/core/rules/beside';
import { NftReadError, readNftJson } from '@zb/core/rules/read/nftJson';
import type { Told } from './elsewhere';
import type { GateJob } from './gateWorker';

/** What is asked of the thread: a plan, and what a gate printed. */
export interface BesideJob extends GateJob {
  text: string;
}
/** Why nothing was held beside it. */
export type BesideFault = NftReadError['why'] | 'stopped';

const tell = (told: Told<Beside, BesideFault>): void => self.postMessage(told);

self.onmessage = ({ data: { plan, networks, hosts, text } }: MessageEvent<BesideJob>): void => {
  try {
    tell({ found: besidePlan(plan, networks, hosts, readNftJson(text)) });
  } catch (error) {
    if (error instanceof NftReadError) tell({ fault: error.why });
    else tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
