import type { GateFault, GatePlan, Permit } from '../model/gate';
import type { Host, Network } from '../model/network';
import { checkGate, type GateFinding } from './check';
import { kindsOf } from './fates';
import { TooManyClasses } from './forest';
import { judgePlan, type Kept, type SeatHeld } from './promises';
import type { Ruleset } from './ruleset';
import { unusedRules, type Unused } from './unused';

/** All that is told of a plan's rules. */
export interface GateReport {
  rules: number;
  /** Kinds of packet that are told apart; null where they are too many. */
  kinds: bigint | null;
  kept: Kept[];
  seat: SeatHeld[];
  unused: Unused[];
  findings: GateFinding[];
}

/** A plan judged whole. `ruleset`: one that was read, in place of its own. */
export function gateReport(
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[] = [],
  ruleset?: Ruleset,
): GateReport {
  const before = checkGate(plan, networks);
  try {
    const found = judgePlan(plan, networks, { hosts, ...(ruleset ? { ruleset } : {}) });
    const { judged, judgement, kept, seat } = found;
    const unused = unusedRules(judged);
    return {
      rules: judged.gate.ruleset.chains.reduce((sum, c) => sum + c.rules.length, 0),
      kinds: kindsOf(judgement, judged),
      kept,
      seat,
      unused,
      findings: [...findingsOf(plan, { kept, seat, unused, ruleset: judged.gate.ruleset }), ...before],
    };
  } catch (error) {
    if (!(error instanceof TooManyClasses)) throw error;
    const finding: GateFinding = { grade: 'stop', fault: { code: 'too many classes' } };
    return { rules: 0, kinds: null, kept: [], seat: [], unused: [], findings: [finding, ...before] };
  }
}

/** Rules of a plan of which no part has anything to do, by what was decided: one word for all lines it makes. */
function idleSources(plan: GatePlan, unused: readonly Unused[], all: Ruleset): Permit[] {
  const idle = new Set(unused.filter((u) => u.why !== 'not so far').map((u) => u.rule));
  const busy = new Set<string>();
  for (const c of all.chains)
    for (const r of c.rules)
      if (r.from?.what === 'permit' && r.verdict.kind !== 'continue' && !idle.has(r.id)) busy.add(r.from.id);
  return plan.permits.filter((p) => p.on && !busy.has(p.id));
}

function findingsOf(
  plan: GatePlan,
  { kept, seat, unused, ruleset }: Pick<GateReport, 'kept' | 'seat' | 'unused'> & { ruleset: Ruleset },
): GateFinding[] {
  const out: GateFinding[] = [];
  const add = (grade: GateFinding['grade'], fault: GateFault): void => void out.push({ grade, fault });
  const zone = plan.zones.find((z) => z.id === plan.seat?.zone)?.name ?? '';
  for (const { port, verdict } of seat)
    if (verdict === 'fails' || verdict === 'limited') add('stop', { code: 'locked out', zone, port });
    else if (verdict === 'cannot say') add('stop', { code: 'seat not told', zone, port });
  const broken = kept.filter((k) => k.verdict === 'fails').length;
  if (broken > 0) add('stop', { code: 'promises broken', broken, of: kept.length });
  const open = kept.filter((k) => k.verdict === 'cannot say').length;
  if (open > 0) add('check', { code: 'promises not told', open });
  const idle = idleSources(plan, unused, ruleset);
  if (idle.length > 0)
    add('note', { code: 'rules without work', rules: idle.map((p) => (p.name === '' ? p.id : p.name)) });
  return out;
}
