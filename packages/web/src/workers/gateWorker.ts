import type { GatePlan } from '@zb/core/model/gate';
import type { Host, Network } from '@zb/core/model/network';
import { repairsOf, seatRepair, type Repair } from '@zb/core/rules/repair';
import { gateReport, type GateReport } from '@zb/core/rules/report';
import type { Told } from './elsewhere';

/** What is asked of the thread. */
export interface GateJob {
  plan: GatePlan;
  networks: Network[];
  hosts: Host[];
}

/** Rules judged, with what would mend them, and how long judging took. */
export interface GateJudged {
  report: GateReport;
  repairs: Record<string, Repair[]>;
  seatRepairs: Repair[];
  /** Seconds. */
  seconds: number;
}

const tell = (told: Told<GateJudged, 'stopped'>): void => self.postMessage(told);

self.onmessage = ({ data: { plan, networks, hosts } }: MessageEvent<GateJob>): void => {
  try {
    const begun = performance.now();
    const report = gateReport(plan, networks, hosts);
    const seconds = (performance.now() - begun) / 1000;
    const broken = report.kept.filter((k) => k.verdict === 'fails');
    const repairs: Record<string, Repair[]> = {};
    broken.forEach((k, i) => {
      tell({ share: (1 + i) / (2 + broken.length) });
      repairs[k.promise.id] = repairsOf(plan, networks, hosts, report.kept, k);
    });
    tell({
      found: { report, repairs, seatRepairs: seatRepair(plan, networks, hosts, report.seat), seconds },
    });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
