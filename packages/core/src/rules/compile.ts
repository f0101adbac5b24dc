import { addressSpans, familySpans, ofFamily } from '../units/addressLine';
import type { Family } from '../units/ip';
import { joinSpans, lessSpans, point, range, sharedSpans, type Spans } from '../units/spans';
import { GATE, type Forward, type GatePlan, type Permit, type Zone } from '../model/gate';
import type { Network } from '../model/network';
import { HEARD_BY_THE_GATE, NEVER_SENT_ON } from './bogons';
import { hoursClauses, serviceClauses, servicesOf, sideSpans } from './clauses';
import { icmpTypes, PROTOCOL } from './protocols';
import { routesOf } from './routes';
import type { Chain, Clause, Names, Rule, RuleSource, Ruleset, RuleVerdict, UsualRule } from './ruleset';
import { neverFrom } from './neverFrom';
import { behindZone, interfacesOf, prefixesOf, topologyOf } from './topology';

/** The table of a gate of ours. */
export const TABLE = 'gate';

/** A part of a name that rules may carry. */
const safe = (t: string): string => t.replace(/[^A-Za-z0-9_]/g, '_');
/** The chain of a crossing. */
export const crossingChain = (from: string, to: string): string => `${TABLE}/${safe(from)}_to_${safe(to)}`;

const only = (...names: string[]): Names => ({ names, not: false });
const ACCEPT: RuleVerdict = { kind: 'accept' };
const DROP: RuleVerdict = { kind: 'drop' };
const RETURN: RuleVerdict = { kind: 'return' };
const FAMILIES: readonly Family[] = [4, 6];

const both = (a: Clause, b: Clause): Clause => ({
  ...a,
  ...b,
  spans: { ...a.spans, ...b.spans },
  ...(a.named || b.named ? { named: { ...a.named, ...b.named } } : {}),
});
const product = (...lists: readonly Clause[][]): Clause[] =>
  lists.reduce((out, list) => out.flatMap((a) => list.map((b) => both(a, b))), [{ spans: {} }]);

class Writer {
  private readonly rules: Rule[] = [];
  constructor(private readonly chain: string) {}

  get name(): string {
    return this.chain.slice(TABLE.length + 1);
  }

  add(
    from: RuleSource,
    id: string,
    clauses: readonly Clause[],
    verdict: RuleVerdict,
    comment: string,
    log = false,
  ): this {
    clauses.forEach((clause, i) => {
      const nth = clauses.length > 1 ? `.${i + 1}` : '';
      // What is logged is told at most so often, or a flood fills the disk with itself.
      if (log)
        this.rules.push({
          id: `${id}${nth}.log`,
          when: [{ ...clause, rate: { count: 10, per: 'minute', burst: 5 } }],
          verdict: { kind: 'continue' },
          from,
          comment,
          log: `${this.name} `,
          counted: null,
        });
      this.rules.push({
        id: `${id}${nth}`,
        when: [clause],
        verdict,
        from,
        comment,
        log: null,
        counted: null,
      });
    });
    return this;
  }

  usual(code: UsualRule, clauses: readonly Clause[], verdict: RuleVerdict): this {
    return this.add(
      { what: 'usual', code },
      `${this.chain}:${safe(code)}.${this.rules.length}`,
      clauses,
      verdict,
      code,
    );
  }

  done(hook: Chain['hook'] = null): Chain {
    return {
      id: this.chain,
      table: TABLE,
      name: this.name,
      family: null,
      hook,
      rules: this.rules,
    };
  }
}

/** Clauses of a permit; addresses make one for each family that both sides have. */
function permitClauses(plan: GatePlan, permit: Permit): Clause[] {
  const from = sideSpans(plan, permit.from);
  const to = sideSpans(plan, permit.to);
  const services = serviceClauses(servicesOf(plan, permit.services));
  const wanted = permit.family === null ? FAMILIES : [permit.family];
  const addresses: Clause[] =
    from || to
      ? wanted.flatMap((f): Clause[] => {
          const s = from?.of(f);
          const d = to?.of(f);
          if (s?.spans.length === 0 || d?.spans.length === 0) return [];
          const named = { ...(s?.named ? { saddr: s.named } : {}), ...(d?.named ? { daddr: d.named } : {}) };
          return [
            {
              spans: { ...(s ? { saddr: s.spans } : {}), ...(d ? { daddr: d.spans } : {}) },
              ...(Object.keys(named).length > 0 ? { named } : {}),
            },
          ];
        })
      : permit.family === null
        ? [{ spans: {} }]
        : [{ spans: { saddr: familySpans(permit.family), daddr: familySpans(permit.family) } }];
  const rate: Clause[] = permit.rate ? [{ spans: {}, rate: permit.rate }] : [{ spans: {} }];
  return product(addresses, services, hoursClauses(permit.hours), rate).filter(fits);
}

/** ICMP of one family with addresses of the other meets nothing, and no filter takes such a line. */
function fits({ spans: { saddr, daddr, proto } }: Clause): boolean {
  const address = saddr ?? daddr;
  if (!address || !proto) return true;
  const six = ofFamily(address, 6).length > 0;
  if (sharedSpans(proto, point(PROTOCOL.icmp)).length > 0) return !six;
  return sharedSpans(proto, point(PROTOCOL.icmpv6)).length === 0 || six;
}

/** Rules of one crossing, in the order in which they were decided. */
function crossing(plan: GatePlan, from: string, to: string, forwards: readonly Forward[]): Chain {
  const w = new Writer(crossingChain(from, to));
  for (const f of forwards)
    w.add(
      { what: 'forward', id: f.id },
      `forward ${f.id}`,
      forwardTargets(plan, f).map((c) => ({ ...c, translated: true })),
      ACCEPT,
      f.name,
    );
  for (const p of plan.permits)
    if (p.on && p.from.zone === from && p.to.zone === to)
      w.add(
        { what: 'permit', id: p.id },
        `permit ${p.id}`,
        permitClauses(plan, p),
        p.does === 'let in' ? ACCEPT : refusalOf(plan, from),
        p.name,
        p.log,
      );
  return w.done();
}

const refusalOf = (plan: GatePlan, zone: string): RuleVerdict =>
  plan.zones.find((z) => z.id === zone)?.tells === true ? { kind: 'reject' } : DROP;

/** What a forwarded port is once its destination is translated. */
function forwardTargets(plan: GatePlan, f: Forward): Clause[] {
  const ports = f.toPort === null ? range(...f.ports) : range(f.toPort, f.toPort);
  return product(sourceClauses(plan, f), [
    { spans: { daddr: addressSpans([f.to]), proto: point(PROTOCOL[f.protocol]), dport: ports } },
  ]);
}

function sourceClauses(plan: GatePlan, f: Forward): Clause[] {
  const side = sideSpans(plan, { zone: '', addresses: f.sources });
  if (!side) return [{ spans: {} }];
  const { spans, named } = side.of(4);
  return spans.length === 0
    ? []
    : [{ spans: { saddr: spans }, ...(named ? { named: { saddr: named } } : {}) }];
}

const ND_WITHOUT_ADDRESS = icmpTypes(135, 143, 133, 131, 132);

/** Sources that cannot be where they come from (RFC 2827 §3), and what never goes in the open (RFC 6890). */
function sourcesChain(plan: GatePlan, networks: readonly Network[]): Chain {
  const w = new Writer(`${TABLE}/sources`);
  if (plan.strictSources) {
    w.usual(
      'no address yet',
      [
        {
          spans: {
            saddr: addressSpans(['0.0.0.0']),
            daddr: addressSpans(['255.255.255.255']),
            proto: point(PROTOCOL.udp),
            dport: point(67),
          },
        },
        { spans: { saddr: addressSpans(['::']), proto: point(PROTOCOL.icmpv6), dport: ND_WITHOUT_ADDRESS } },
        { spans: { saddr: addressSpans(['fe80::/10']) } },
      ],
      RETURN,
    );
    const outside = plan.zones.filter((z) => z.kind === 'outside');
    for (const port of topologyOf(plan, networks).ports) {
      if (port.outside || port.prefixes.length === 0) continue;
      const mine = addressSpans(port.prefixes);
      w.usual(
        'strange source',
        FAMILIES.map((f): Clause => ({
          iif: only(port.name),
          spans: { saddr: lessSpans(familySpans(f), ofFamily(mine, f)) },
        })),
        DROP,
      );
    }
    for (const zone of outside) {
      const names = interfacesOf(plan, zone.id);
      if (names.length === 0) continue;
      const never = neverFrom(plan, networks, zone.id);
      w.usual(
        'strange source',
        FAMILIES.map((f): Clause => ({
          iif: only(...names),
          spans: { saddr: ofFamily(never, f) },
          named: { saddr: `never_from_${safe(zone.id)}_${f}` },
        })),
        DROP,
      );
    }
  }
  return w.done({ at: 'prerouting', type: 'filter', priority: -300, policy: 'accept' });
}

function arriveChain(plan: GatePlan, own: Spans): Chain {
  const w = new Writer(`${TABLE}/arrive`);
  for (const zone of plan.zones.filter((z) => z.kind === 'outside'))
    for (const f of plan.forwards) {
      const names = interfacesOf(plan, zone.id);
      if (!f.on || names.length === 0) continue;
      w.add(
        { what: 'forward', id: f.id },
        `arrive ${f.id}`,
        product([{ iif: only(...names), spans: {} }], sourceClauses(plan, f), [
          {
            spans: { daddr: ofFamily(own, 4), proto: point(PROTOCOL[f.protocol]), dport: range(...f.ports) },
            named: { daddr: 'local' },
          },
        ]),
        { kind: 'dnat', to: f.to, port: f.toPort },
        f.name,
      );
    }
  return w.done({ at: 'prerouting', type: 'nat', priority: -100, policy: 'accept' });
}

const KNOWN: Clause = { states: ['established', 'related'], spans: {} };
const STRAY: Clause = { states: ['invalid'], spans: {} };
const HEARD: Clause = { spans: { proto: point(PROTOCOL.icmpv6), dport: icmpTypes(...HEARD_BY_THE_GATE) } };
const udp = (port: number, more: Clause['spans'] = {}): Clause => ({
  spans: { proto: point(PROTOCOL.udp), dport: point(port), ...more },
});

/** From each zone to its chain, and the last word on what none of them let in. */
function dispatch(w: Writer, plan: GatePlan, to: (zone: Zone) => { clause: Clause; chain: string }[]): void {
  for (const zone of plan.zones) {
    const names = interfacesOf(plan, zone.id);
    if (names.length === 0) continue;
    for (const { clause, chain } of to(zone))
      w.usual('way to a crossing', [{ ...clause, iif: only(...names) }], { kind: 'jump', chain });
    if (zone.tells)
      w.add(
        { what: 'zone', id: zone.id },
        `${zone.id} is told.${w.name}`,
        [{ iif: only(...names), spans: {} }],
        { kind: 'reject' },
        zone.name,
      );
  }
}

/** Rules of a plan as one ruleset. */
export function compileGate(plan: GatePlan, networks: readonly Network[]): Ruleset {
  const topology = topologyOf(plan, networks);
  const routes = routesOf(topology);
  const zones = plan.zones.filter((z) => interfacesOf(plan, z.id).length > 0);
  const outside = zones.filter((z) => z.kind === 'outside');
  const inner = zones.filter((z) => z.kind !== 'outside');
  const forwards = plan.forwards.filter((f) => f.on);
  const leads = (f: Forward, zone: Zone): boolean =>
    sharedSpans(addressSpans([f.to]), behindZone(plan, routes, zone.id)).length > 0;

  const input = new Writer(`${TABLE}/input`)
    .usual('known conversations', [KNOWN], ACCEPT)
    .usual('the gate to itself', [{ iif: only('lo'), spans: {} }], ACCEPT)
    .usual('neighbours', [HEARD], ACCEPT)
    .usual('belongs to none', [STRAY], DROP);
  const serving = inner.flatMap((z) => interfacesOf(plan, z.id));
  if (serving.length > 0)
    input.usual(
      'gives addresses',
      [
        { ...udp(67), iif: only(...serving) },
        { ...udp(547), iif: only(...serving) },
      ],
      ACCEPT,
    );
  const facing = outside.flatMap((z) => interfacesOf(plan, z.id));
  if (facing.length > 0)
    input.usual(
      'gets an address',
      [
        { ...udp(68, { sport: point(67) }), iif: only(...facing) },
        { ...udp(546, { saddr: addressSpans(['fe80::/10']) }), iif: only(...facing) },
      ],
      ACCEPT,
    );
  dispatch(input, plan, (zone) => [{ clause: { spans: {} }, chain: crossingChain(zone.id, GATE) }]);

  const forward = new Writer(`${TABLE}/forward`)
    .usual('known conversations', [KNOWN], ACCEPT)
    .usual('belongs to none', [STRAY], DROP);
  if (facing.length > 0 && plan.strictSources) {
    const never = lessSpans(
      addressSpans(NEVER_SENT_ON),
      addressSpans(outside.flatMap((z) => prefixesOf(plan, networks, z.id))),
    );
    forward.usual(
      'never in the open',
      FAMILIES.map((f): Clause => ({
        oif: only(...facing),
        spans: { daddr: ofFamily(never, f) },
        named: { daddr: `never_sent_on_${f}` },
      })),
      { kind: 'reject' },
    );
  }
  dispatch(forward, plan, (zone) =>
    zones
      .filter((z) => z.id !== zone.id)
      .map((z) => ({
        clause: { oif: only(...interfacesOf(plan, z.id)), spans: {} },
        chain: crossingChain(zone.id, z.id),
      })),
  );

  const output = new Writer(`${TABLE}/output`)
    .usual('known conversations', [KNOWN], ACCEPT)
    .usual('the gate to itself', [{ oif: only('lo'), spans: {} }], ACCEPT)
    .usual('neighbours', [HEARD], ACCEPT)
    .usual(
      'asks for an address',
      [udp(67), udp(547), udp(68, { sport: point(67) }), udp(546, { sport: point(547) })],
      ACCEPT,
    );
  for (const z of zones)
    output.usual('way to a crossing', [{ oif: only(...interfacesOf(plan, z.id)), spans: {} }], {
      kind: 'jump',
      chain: crossingChain(GATE, z.id),
    });

  const leave = new Writer(`${TABLE}/leave`);
  if (plan.translates && facing.length > 0) {
    const mine = ofFamily(joinSpans(...inner.map((z) => addressSpans(prefixesOf(plan, networks, z.id)))), 4);
    if (mine.length > 0)
      leave.add(
        { what: 'usual', code: 'leaves as the gate' },
        'leave as the gate',
        [{ oif: only(...facing), spans: { saddr: mine } }],
        { kind: 'masquerade' },
        'leaves as the gate',
      );
  }
  const sides = [...zones.map((z) => z.id), GATE];
  const crossings = sides.flatMap((from) =>
    sides
      .filter((to) => to !== from)
      .map((to) => {
        const source = zones.find((z) => z.id === from);
        const target = zones.find((z) => z.id === to);
        const mine = source?.kind === 'outside' && target ? forwards.filter((f) => leads(f, target)) : [];
        return crossing(plan, from, to, mine);
      }),
  );
  return {
    strange: [],
    chains: [
      sourcesChain(plan, networks),
      arriveChain(plan, routes.own),
      input.done({ at: 'input', type: 'filter', priority: 0, policy: 'drop' }),
      forward.done({ at: 'forward', type: 'filter', priority: 0, policy: 'drop' }),
      output.done({ at: 'output', type: 'filter', priority: 0, policy: 'drop' }),
      leave.done({ at: 'postrouting', type: 'nat', priority: 100, policy: 'accept' }),
      ...crossings,
    ],
  };
}
