/** A header space small enough to try every packet of it: addresses, ports and interfaces of three bits. */
import fc from 'fast-check';
import { addressSpans } from '@zb/core/units/addressLine';
import { joinSpans, point, range, type Spans } from '@zb/core/units/spans';
import { gatePlanSchema, type GatePlan } from '@zb/core/model/gate';
import { networkSchema, type Network } from '@zb/core/model/network';
import { ELSEWHERE, SELF } from '@zb/core/rules/flatten';
import { PROTOCOL } from '@zb/core/rules/protocols';
import type {
  Chain,
  Clause,
  PacketState,
  Rule,
  Ruleset,
  RuleVerdict,
  Topology,
} from '@zb/core/rules/ruleset';
import type { NumberedPacket } from '@zb/core/rules/walk';

/** Two networks and a way out. */
export const SMALL: Topology = {
  ports: [
    { name: 'a', own: ['10.0.0.1'], fromLine: false, prefixes: ['10.0.0.0/30'], outside: false },
    { name: 'b', own: ['10.0.0.5'], fromLine: false, prefixes: ['10.0.0.4/31'], outside: false },
    { name: 'c', own: [], fromLine: true, prefixes: [], outside: true },
  ],
  reversePath: false,
};

const threeBits = fc
  .tuple(fc.nat(7), fc.nat(7))
  .map(([a, b]): readonly [number, number] => (a <= b ? [a, b] : [b, a]));
const address = fc
  .array(threeBits, { minLength: 1, maxLength: 2 })
  .map((list): Spans => joinSpans(...list.map(([a, b]) => addressSpans([`10.0.0.${a}-10.0.0.${b}`]))));
const portRange = threeBits.map(([a, b]): Spans => range(a, b));
const maybe = <T>(a: fc.Arbitrary<T>, weight = 2): fc.Arbitrary<T | undefined> =>
  fc.oneof({ weight, arbitrary: fc.constant(undefined) }, { weight: 1, arbitrary: a });
const names = fc
  .tuple(fc.subarray(['a', 'b', 'c'], { minLength: 1 }), fc.boolean())
  .map(([list, not]) => ({ names: list, not }));

const clause = (withOut: boolean): fc.Arbitrary<Clause> =>
  fc
    .record({
      iif: maybe(names),
      oif: withOut ? maybe(names) : fc.constant(undefined),
      saddr: maybe(address),
      daddr: maybe(address),
      proto: maybe(fc.constantFrom(point(6), point(17))),
      sport: maybe(portRange, 4),
      dport: maybe(portRange),
      states: maybe(fc.subarray<PacketState>(['new', 'established', 'invalid'], { minLength: 1 }), 4),
      translated: maybe(fc.boolean(), 6),
      unknown: maybe(fc.constantFrom('a mark', 'a helper'), 12),
    })
    .map(({ iif, oif, states, translated, unknown, ...spans }): Clause => ({
      ...(iif ? { iif } : {}),
      ...(oif ? { oif } : {}),
      ...(states ? { states } : {}),
      ...(translated === undefined ? {} : { translated }),
      ...(unknown === undefined ? {} : { unknown }),
      spans: Object.fromEntries(Object.entries(spans).filter(([, v]) => v !== undefined)),
    }));

const verdicts = (chains: readonly string[]): fc.Arbitrary<RuleVerdict> =>
  fc.oneof(
    fc.constantFrom<RuleVerdict>(
      { kind: 'accept' },
      { kind: 'drop' },
      { kind: 'reject' },
      { kind: 'return' },
      { kind: 'continue' },
    ),
    ...(chains.length > 0
      ? [
          fc.record({
            kind: fc.constantFrom('jump' as const, 'goto' as const),
            chain: fc.constantFrom(...chains),
          }),
        ]
      : []),
  );

const ruleList = (
  prefix: string,
  chains: readonly string[],
  withOut: boolean,
  most: number,
): fc.Arbitrary<Rule[]> =>
  fc
    .array(fc.tuple(fc.array(clause(withOut), { minLength: 1, maxLength: 2 }), verdicts(chains)), {
      maxLength: most,
    })
    .map((list) =>
      list.map(([when, verdict], i): Rule => ({
        id: `${prefix}${i}`,
        when,
        verdict,
        from: null,
        comment: '',
        log: null,
        counted: null,
      })),
    );

const hook = (at: NonNullable<Chain['hook']>['at'], priority: number): fc.Arbitrary<Chain['hook']> =>
  fc
    .constantFrom('accept' as const, 'drop' as const)
    .map((policy) => ({ at, type: 'filter' as const, priority, policy }));

const chain = (
  name: string,
  h: fc.Arbitrary<Chain['hook']>,
  rules: fc.Arbitrary<Rule[]>,
): fc.Arbitrary<Chain> =>
  fc
    .tuple(h, rules)
    .map(([of, list]) => ({ id: `t/${name}`, table: 't', name, family: null, hook: of, rules: list }));

const dnat = fc
  .array(
    fc.tuple(
      clause(false),
      fc.nat(7).map((n) => `10.0.0.${n}`),
      maybe(fc.nat(7)),
    ),
    { maxLength: 3 },
  )
  .map((list) =>
    list.map(([when, to, port], i): Rule => ({
      id: `d${i}`,
      when: [when],
      verdict: { kind: 'dnat', to, port: port ?? null },
      from: null,
      comment: '',
      log: null,
      counted: null,
    })),
  );

/** Any ruleset over it: two chains at the same hook, chains that are gone to, translations. */
export const smallRuleset: fc.Arbitrary<Ruleset> = fc
  .tuple(
    chain('raw', hook('prerouting', -300), ruleList('r', [], false, 3)),
    fc.tuple(dnat, fc.constantFrom('accept' as const)).map(([rules, policy]): Chain => ({
      id: 't/dnat',
      table: 't',
      name: 'dnat',
      family: null,
      hook: { at: 'prerouting', type: 'nat', priority: -100, policy },
      rules,
    })),
    chain('forward', hook('forward', 0), ruleList('f', ['t/x', 't/y'], true, 6)),
    chain('later', hook('forward', 10), ruleList('l', ['t/y'], true, 3)),
    chain('input', hook('input', 0), ruleList('i', ['t/y'], false, 4)),
    chain('output', hook('output', 0), ruleList('o', [], true, 3)),
    chain('x', fc.constant(null), ruleList('x', ['t/y'], true, 4)),
    chain('y', fc.constant(null), ruleList('y', [], true, 3)),
  )
  .map((chains) => ({ chains, strange: [] }));

const BASE = addressSpans(['10.0.0.0'])[0]?.[0] ?? 0n;
/** The eight addresses, and one that stands for all others: no rule tells those apart. */
export const ADDRESSES: readonly bigint[] = [
  ...Array.from({ length: 8 }, (_, i) => BASE + BigInt(i)),
  addressSpans(['99.0.0.1'])[0]?.[0] ?? 0n,
];
/** The eight ports, and one that stands for all others. */
export const PORTS = [0, 1, 2, 3, 4, 5, 6, 7, 9] as const;

/** Every packet of one state: TCP and UDP, all interfaces and one that nobody named, addresses and ports of three bits with the rest as one more. */
export function* allPackets(
  state: PacketState,
  sports: readonly number[] = PORTS,
): Generator<NumberedPacket> {
  const nothing = new Set<string>();
  for (const iif of ['a', 'b', 'c', SELF, ELSEWHERE])
    for (const proto of [PROTOCOL.tcp, PROTOCOL.udp])
      for (const saddr of ADDRESSES)
        for (const daddr of ADDRESSES)
          for (const sport of sports)
            for (const dport of PORTS)
              yield {
                iif,
                proto,
                saddr,
                daddr,
                sport,
                dport,
                state,
                day: 3,
                second: 43_200,
                over: nothing,
                matches: nothing,
              };
}

/** Networks and a plan over the same space, for promises. */
export const SMALL_NETWORKS: Network[] = [
  networkSchema.parse({ id: 'na', name: 'na', prefix: '10.0.0.0/30', gateway: '10.0.0.1' }),
  networkSchema.parse({ id: 'nb', name: 'nb', prefix: '10.0.0.4/31', gateway: '10.0.0.5' }),
];
const side = (zone: string) => ({ zone, addresses: [] });
/** A plan with two services of three bits, and these promises. */
export const smallPlan = (promises: readonly object[]): GatePlan =>
  gatePlanSchema.parse({
    zones: [
      { id: 'za', name: 'A', kind: 'inside' },
      { id: 'zb', name: 'B', kind: 'inside' },
      { id: 'zc', name: 'C', kind: 'outside' },
    ],
    ports: [
      { id: 'a', device: 'a', zoneId: 'za', networkId: 'na' },
      { id: 'b', device: 'b', zoneId: 'zb', networkId: 'nb' },
      { id: 'c', device: 'c', zoneId: 'zc' },
    ],
    services: [
      { id: 's1', name: 's1', entries: [{ protocol: 'tcp', ports: [2, 5] }] },
      {
        id: 's2',
        name: 's2',
        entries: [
          { protocol: 'udp', ports: [6, 7] },
          { protocol: 'tcp', ports: [0, 0] },
        ],
      },
    ],
    promises,
  });
/** Any promise over it that is about packets of the small space alone. */
export const smallPromise = fc
  .record({
    kind: fc.constantFrom('reaches', 'closed'),
    from: fc.constantFrom('za', 'zb', 'zc'),
    to: fc.constantFrom('za', 'zb'),
    services: fc.constantFrom(['s1'], ['s2'], ['s1', 's2']),
    forwards: fc.boolean(),
  })
  .filter((p) => p.from !== p.to && !(p.kind === 'reaches' && p.from === 'zc'))
  .map((p) => ({
    id: 'p',
    kind: p.kind,
    from: side(p.from),
    to: p.kind === 'closed' ? [side(p.to)] : side(p.to),
    services: p.services,
    ...(p.kind === 'closed' ? { forwards: p.forwards } : {}),
  }));
