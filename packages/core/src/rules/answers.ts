import { honestBoxes, passes, stops } from './demands';
import { sharedSpans, type Spans } from '../units/spans';
import { isUnknown, SELF } from './flatten';
import type { Judged, Judgement } from './fates';
import type { Node } from './forest';
import { hasPorts } from './protocols';
import type { PacketState } from './ruleset';
import type { Ground } from './sides';
import { topologyOf } from './topology';
import type { PacketBox, Universe } from './universe';

/** Whether a promise is kept. `limited`: as long as no more come than a rule lets in; `cannot say`: a part nobody understands decides. */
export type PromiseVerdict = 'holds' | 'fails' | 'limited' | 'cannot say' | 'about nothing';

/** Packets that break something, and how surely. */
export interface Broken {
  verdict: PromiseVerdict;
  node: Node;
  state: PacketState;
  because: string[];
}

/** Parts that are not understood and that some class of the set depends on. */
export function deciding({ universe }: Judgement, node: Node): string[] {
  const names = new Set<string>();
  for (const { box } of universe.forest.each(node, (v) => v === 1)) {
    const { on, off } = universe.ranges(box).flags;
    [...on, ...off].filter(isUnknown).forEach((f) => names.add(f.slice(f.indexOf(': ') + 2)));
    if (names.size > 20) break;
  }
  return [...names];
}

/** Conversations looked at one by one before it is given up. */
const MOST_ANSWERS = 20_000;

/** Packets of known conversations that are stopped although what began the conversation passes: answers, and what follows its first packet. */
export function unanswered(ground: Ground, j: Judgement, judged: Judged): Broken[] {
  const { universe, fates } = j;
  const { forest } = universe;
  const known = judged.roots.get('established');
  const begun = judged.roots.get('new');
  if (known === undefined || begun === undefined) return [];
  const honest = universe.setOf(honestBoxes(ground));
  const stopped = forest.both(honest, known, (a, v) => (a === 1 && fates[v] && stops(fates[v]) ? 1 : 0));
  const lets = forest.both(honest, begun, (a, v) => (a === 1 && fates[v] && passes(fates[v]) ? 1 : 0));
  const found = (node: Node, because: string[] = []): Broken => ({
    verdict: because.length > 0 ? 'cannot say' : 'fails',
    node,
    state: 'established',
    because,
  });
  const onwards = forest.both(stopped, lets, (a, b) => a & b);
  if (forest.any(onwards)) return [found(onwards, deciding(j, onwards))];
  let looked = 0;
  for (const { box } of forest.each(stopped, (v) => v === 1)) {
    if ((looked += 1) > MOST_ANSWERS) return [found(stopped, ['more classes of answers than are looked at'])];
    const { iif, spans, flags } = universe.ranges(box);
    const back = backwards(ground, iif, spans);
    if (back.length === 0) continue;
    const met = forest.both(universe.setOf(back), lets, (a, b) => a & b);
    if (!forest.any(met)) continue;
    const unsure = [...flags.on, ...flags.off].filter(isUnknown);
    const names = unsure.map((f) => f.slice(f.indexOf(': ') + 2));
    return [found(answerTo(universe, met, spans), names)];
  }
  return [];
}

/** What an answer of those ranges answers: source and destination changed about, come in where the answer goes to. */
function backwards(
  { routes, plan, networks }: Ground,
  iif: readonly string[],
  spans: Record<'saddr' | 'daddr' | 'proto' | 'sport' | 'dport', readonly [bigint, bigint]>,
): PacketBox[] {
  const to: Spans = [spans.daddr];
  const from: Spans = [spans.saddr];
  const sides = [
    ...topologyOf(plan, networks).ports.map((p) => ({ name: p.name, of: routes.behind.get(p.name) ?? [] })),
    { name: SELF, of: routes.own },
  ];
  return sides.flatMap(({ name, of }): PacketBox[] => {
    const saddr = sharedSpans(to, of);
    if (saddr.length === 0) return [];
    return sides.flatMap((s): PacketBox[] => {
      if (!iif.includes(s.name)) return [];
      const daddr = sharedSpans(from, s.of);
      const withPorts = spans.proto[0] === spans.proto[1] && hasPorts(Number(spans.proto[0]));
      return daddr.length === 0
        ? []
        : [
            {
              iif: [name],
              spans: {
                saddr,
                daddr,
                proto: [spans.proto],
                ...(withPorts ? { sport: [spans.dport], dport: [spans.sport] } : {}),
              },
            },
          ];
    });
  });
}

/** The answers among packets whose conversations may begin: the ranges of the answer, as a set. */
function answerTo(
  universe: Universe,
  begun: Node,
  spans: Record<'saddr' | 'daddr' | 'proto' | 'sport' | 'dport', readonly [bigint, bigint]>,
): Node {
  for (const { box } of universe.forest.each(begun, (v) => v === 1)) {
    const first = universe.ranges(box).spans;
    return universe.setOf([
      {
        spans: {
          saddr: sharedSpans([spans.saddr], [first.daddr]),
          daddr: sharedSpans([spans.daddr], [first.saddr]),
          proto: [spans.proto],
          sport: [spans.sport],
          dport: [spans.dport],
        },
      },
    ]);
  }
  return universe.setOf([]);
}
