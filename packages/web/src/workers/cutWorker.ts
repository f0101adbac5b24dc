import type { Host, Network } from '@zb/core/model/network';
import { cutPower, type Cut } from '@zb/core/network/cut';
import type { Told } from './elsewhere';
import { paced } from './paced';

/** What is asked of the thread. */
export interface CutJob {
  network: Network;
  hosts: Host[];
  outageSeconds: number;
}

const tell = (told: Told<Cut, 'stopped'>): void => self.postMessage(told);

self.onmessage = ({ data }: MessageEvent<CutJob>): void => {
  const progress = paced((share) => tell({ share }));
  try {
    tell({ found: cutPower(data.network, data.hosts, { outageSeconds: data.outageSeconds, progress }) });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
