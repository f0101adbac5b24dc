import { afterTranslation, programOf, type Fate, type Program, type Step } from './flatten';
import type { Node } from './forest';
import { routesOf, type Routes } from './routes';
import { packetStates, type PacketState, type Ruleset, type Topology } from './ruleset';
import { Universe, type PacketBox } from './universe';

/** A ruleset with the interfaces it stands between. */
export interface Gate {
  ruleset: Ruleset;
  topology: Topology;
}

/** What becomes of every packet, for one ruleset. */
export interface Judged {
  gate: Gate;
  routes: Routes;
  /** Of every state a diagram whose leaves are places in `fates`. */
  roots: ReadonlyMap<PacketState, Node>;
  /** Rules that some packet meets. */
  hit: ReadonlySet<string>;
  /** Rules that any packet could meet if no other stood before them. */
  possible: ReadonlySet<string>;
  steps: ReadonlyMap<PacketState, readonly Step[]>;
}

/** Rulesets judged over one cut of the header space, so that they can be compared. */
export interface Judgement {
  universe: Universe;
  /** Every way to end, by the leaf of a diagram; the first is “impossible”. */
  fates: readonly Fate[];
  judged: readonly Judged[];
}

const IMPOSSIBLE: Fate = { code: 'impossible', dnat: null, snat: null };

interface Drawn {
  gate: Gate;
  routes: Routes;
  ports: string[];
  programs: { program: Program; after: Step[][] }[];
}

function drawn(gate: Gate): Drawn {
  const routes = routesOf(gate.topology);
  const ports = gate.topology.ports.map((p) => p.name);
  const programs = packetStates.map((state) => {
    const program = programOf(gate.ruleset, routes, ports, state);
    const after = program.translations.map((_, nth) =>
      afterTranslation(gate.ruleset, routes, ports, nth, program),
    );
    return { program, after };
  });
  return { gate, routes, ports, programs };
}

/**
 * Every packet through every ruleset, exactly: classes are cut where a rule, a route or one of the `boxes` asked about begins or
 * ends. Throws TooManyClasses where rules cross each other so often that it cannot be held in memory.
 */
export function judgeRules(gates: readonly Gate[], boxes: readonly PacketBox[] = []): Judgement {
  const all = gates.map(drawn);
  const ports = [...new Set(all.flatMap((d) => d.ports))];
  function* steps(): Generator<Step> {
    for (const d of all)
      for (const p of d.programs) {
        yield* p.program.steps;
        for (const list of p.after) yield* list;
      }
  }
  const points: PacketBox[] = all.flatMap((d) =>
    d.programs.flatMap((p) =>
      p.program.translations.map((t): PacketBox => ({ spans: { daddr: [[t.to, t.to]] } })),
    ),
  );
  const universe = new Universe(ports, steps(), [...boxes, ...points]);
  const { forest } = universe;
  const fates: Fate[] = [IMPOSSIBLE];
  const numbers = new Map<string, number>([[JSON.stringify(IMPOSSIBLE), 0]]);
  const numberOf = (fate: Fate): number => {
    const key = JSON.stringify(fate);
    const there = numbers.get(key);
    if (there !== undefined) return there;
    numbers.set(key, fates.length);
    fates.push(fate);
    return fates.length - 1;
  };
  // Leaves of a list that is not yet at its end stand far behind those of fates.
  const TRANSLATED = 100_000;
  const judged = all.map(({ gate, routes, programs }): Judged => {
    const hit = new Set<string>();
    const possible = new Set<string>();
    const decide = (list: readonly Step[]): Node => {
      const met = new Uint8Array(list.length);
      const root = universe.decide(
        list,
        (act) => (act.kind === 'dnat' ? TRANSLATED + act.nth : numberOf(act.fate)),
        met,
      );
      list.forEach((s, i) => {
        if (s.rule === null) return;
        possible.add(s.rule);
        if (met[i] === 1) hit.add(s.rule);
      });
      return root;
    };
    const roots = new Map<PacketState, Node>();
    for (const { program, after } of programs) {
      let root = decide(program.steps);
      after.forEach((list, nth) => {
        const then = decide(list);
        root = forest.both(root, then, (a, b) => (a === TRANSLATED + nth ? b : a));
      });
      roots.set(program.state, root);
    }
    return {
      gate,
      routes,
      roots,
      hit,
      possible,
      steps: new Map(programs.map((p) => [p.program.state, p.program.steps])),
    };
  });
  return { universe, fates, judged };
}

/** How many kinds of packet a ruleset tells apart, over all states. */
export const kindsOf = ({ universe }: Judgement, judged: Judged): bigint =>
  [...judged.roots.values()].reduce((sum, root) => sum + universe.forest.boxes(root, (v) => v !== 0), 0n);
