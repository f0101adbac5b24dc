import type { ProbeResult } from '../model/standIns';
import { formatIec } from '../units/bytes';

/** What a probe of a stick's real size found. */
export const probeWords = ({ claimed, real, writes }: ProbeResult): string =>
  real < claimed
    ? `It claims ${formatIec(claimed)} and holds ${formatIec(real)}: what is written beyond is lost. Found with ${writes} small writes. Do not use it.`
    : `All of its ${formatIec(claimed)} answer, as far as ${writes} small writes from front to end can tell. What was there has been put back.`;
