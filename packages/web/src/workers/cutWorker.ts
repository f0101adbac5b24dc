import type { Host, Network } from '@zb/core/model/network';
import { cutPower, type Cut } from '@zb/core/network/cut';
import type { Told } from './elsewhere';

/** What is asked of the thread. */
export interface CutJob {
  network: Network;
  hosts: Host[];
  outageSeconds: number;
}

/** So often it tells how far it is. */
const EVERY_MS = 100;
const tell = (told: Told<Cut, 'stopped'>): void => self.postMessage(told);

self.onmessage = ({ data }: MessageEvent<CutJob>): void => {
  let before = performance.now();
  const progress = (share: number): void => {
    const now = performance.now();
    if (now - before < EVERY_MS) return;
    before = now;
    tell({ share });
  };
  try {
    tell({ found: cutPower(data.network, data.hosts, { outageSeconds: data.outageSeconds, progress }) });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
