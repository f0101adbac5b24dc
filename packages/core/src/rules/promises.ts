import type { GatePlan, GatePromise } from '../model/gate';
import type { Host, Network } from '../model/network';
import { caveatsOf, type Caveat } from './caveats';
import { compileGate } from './compile';
import { judgeRules, type Judged, type Judgement } from './fates';
import type { Ruleset } from './ruleset';
import { sampleOf } from './sample';
import { groundOf, type Ground } from './sides';
import { topologyOf } from './topology';
import { deciding, unanswered, type Broken, type PromiseVerdict } from './answers';
import { boxesOfPromises, boxesOfSeat, demandsOf, seatDemand, type Demand } from './demands';
import { walkPacket, type NumberedPacket, type Walk } from './walk';

/** A promise, whether it is kept, and a packet that breaks it with its way. */
export interface Kept {
  promise: GatePromise;
  verdict: PromiseVerdict;
  packet: NumberedPacket | null;
  walk: Walk | null;
  /** Parts that were not understood and decide it. */
  because: string[];
  /** What the verdict does not cover. */
  caveats: Caveat[];
}

function heldDemand(j: Judgement, judged: Judged, d: Demand): Broken | undefined {
  const { universe, fates } = j;
  const { forest } = universe;
  const unknowns = universe.flagDims('unknown');
  const rates = universe.flagDims('rate');
  const left = universe.setOf(d.but ?? []);
  const asked = forest.both(universe.setOf(d.boxes), left, (a, b) => (b === 1 ? 0 : a));
  const fromThere = d.translated ? universe.setOf([{ iif: d.translated.from, spans: {} }]) : undefined;
  const found: Broken[] = [];
  for (const state of d.states) {
    const root = judged.roots.get(state);
    if (root === undefined) continue;
    const breaks = (v: number): boolean => {
      const fate = fates[v];
      return fate !== undefined && d.broken(fate);
    };
    let bad = forest.both(asked, root, (a, v) => (a === 1 && breaks(v) ? 1 : 0));
    const { translated } = d;
    if (translated && fromThere !== undefined) {
      const also = forest.both(fromThere, root, (a, v) => {
        const fate = fates[v];
        return a === 1 && fate && translated.met(fate) ? 1 : 0;
      });
      bad = forest.both(bad, also, (a, b) => a | b);
    }
    if (!forest.any(bad)) continue;
    const below = d.needsAll
      ? forest.both(bad, universe.belowRates(), (a, b) => a & b)
      : forest.chosen(bad, rates, 'some');
    const sure = forest.chosen(below, unknowns, 'every');
    if (forest.any(sure)) found.push({ verdict: 'fails', node: sure, state, because: [] });
    else if (forest.any(below))
      found.push({ verdict: 'cannot say', node: below, state, because: deciding(j, below) });
    else found.push({ verdict: 'limited', node: bad, state, because: [] });
  }
  const rank: readonly PromiseVerdict[] = ['fails', 'cannot say', 'limited'];
  return rank.flatMap((v) => found.filter((f) => f.verdict === v))[0];
}

/** Every promise against a judged ruleset: over all packets, with one that breaks it. */
export function checkPromises(
  ground: Ground,
  promises: readonly GatePromise[],
  j: Judgement,
  judged: Judged,
): Kept[] {
  return promises.map((promise): Kept => {
    const demands = demandsOf(ground, promise);
    const caveats = caveatsOf(ground, promise);
    const found =
      promise.kind === 'answers'
        ? unanswered(ground, j, judged)
        : demands.flatMap((d) => heldDemand(j, judged, d) ?? []);
    const worst =
      found.find((f) => f.verdict === 'fails') ?? found.find((f) => f.verdict === 'cannot say') ?? found[0];
    if (!worst) {
      const about = promise.kind === 'answers' || demands.some((d) => d.boxes.length > 0);
      return {
        promise,
        verdict: about ? 'holds' : 'about nothing',
        packet: null,
        walk: null,
        because: [],
        caveats,
      };
    }
    const packet = sampleOf(j.universe, worst.node, worst.state, ground.known);
    const walk = packet && walkPacket(judged.gate.ruleset, judged.routes, packet);
    return { promise, verdict: worst.verdict, packet, walk, because: worst.because, caveats };
  });
}

/** Whether a port of the gate stays in reach of whoever gives the rules away. */
export type SeatHeld = Omit<Kept, 'promise' | 'caveats'> & { port: number };

/** Whether somebody who sits there still reaches the page: for each port a verdict, with a packet where it does not. */
export function seatHolds(ground: Ground, j: Judgement, judged: Judged): SeatHeld[] {
  const { seat } = ground.plan;
  if (!seat) return [];
  return seat.ports.map((port) => {
    const demand = seatDemand(ground, seat, port);
    const found = heldDemand(j, judged, demand);
    const nobody = demand.boxes.length === 0;
    const packet = found ? sampleOf(j.universe, found.node, found.state, ground.known) : null;
    return {
      port,
      verdict: found?.verdict ?? (nobody ? 'fails' : 'holds'),
      packet,
      walk: packet && walkPacket(judged.gate.ruleset, judged.routes, packet),
      because: found?.because ?? [],
    };
  });
}

/** A plan judged with all its promises. `ruleset`: another than its own, such as one that was read. */
export function judgePlan(
  plan: GatePlan,
  networks: readonly Network[],
  { ruleset = compileGate(plan, networks), hosts = [] }: { ruleset?: Ruleset; hosts?: readonly Host[] } = {},
): { ground: Ground; judgement: Judgement; judged: Judged; kept: Kept[]; seat: SeatHeld[] } {
  const ground = groundOf(plan, networks, hosts);
  const promises = plan.promises.filter((p) => p.on);
  const judgement = judgeRules(
    [{ ruleset, topology: topologyOf(plan, networks) }],
    [...boxesOfPromises(ground, promises), ...boxesOfSeat(ground)],
  );
  const judged = judgement.judged[0] as Judged;
  return {
    ground,
    judgement,
    judged,
    kept: checkPromises(ground, promises, judgement, judged),
    seat: seatHolds(ground, judgement, judged),
  };
}
