import type { GatePlan } from '../model/gate';
import type { Host, Network } from '../model/network';
import { compareRules, type Comparison } from './compare';
import { compileGate } from './compile';
import { TooManyClasses } from './forest';
import type { NftReading } from './read/nftJson';
import { gateReport, type GateReport } from './report';
import type { Ruleset } from './ruleset';
import { groundOf } from './sides';
import { topologyOf } from './topology';

/** Rules that run, held against the plan: what they promise by themselves, and which packets change fate. */
export interface Beside {
  theirs: GateReport;
  /** As it was read. */
  ruleset: Ruleset;
  /** Null where classes are too many to be compared. */
  changes: Comparison | null;
  unknown: NftReading['unknown'];
  strange: readonly string[];
}

/** Rules that were read from a gate, beside the plan: from theirs to ours. */
export function besidePlan(
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[],
  reading: NftReading,
): Beside {
  const topology = topologyOf(plan, networks);
  const { known } = groundOf(plan, networks, hosts);
  let changes: Comparison | null;
  try {
    changes = compareRules(
      { ruleset: reading.ruleset, topology },
      { ruleset: compileGate(plan, networks), topology },
      known,
    );
  } catch (error) {
    if (!(error instanceof TooManyClasses)) throw error;
    changes = null;
  }
  return {
    ruleset: reading.ruleset,
    theirs: gateReport(plan, networks, hosts, reading.ruleset),
    changes,
    unknown: reading.unknown,
    strange: reading.ruleset.strange,
  };
}
