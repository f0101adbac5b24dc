import { inSpans, type Spans } from '../units/spans';
import { SELF } from './flatten';
import { isNamed, wayTo, type Routes } from './routes';
import type { Chain, Clause, Field, Hook, PacketState, Rule, Ruleset } from './ruleset';
import { addressSpans, familyAt } from '../units/addressLine';

/** A packet as numbers: addresses as places on the line, ICMP type × 256 + code as its destination port. */
export interface NumberedPacket {
  iif: string;
  saddr: bigint;
  daddr: bigint;
  proto: number;
  sport: number;
  dport: number;
  state: PacketState;
  /** Day of the week from Sunday = 0, and second of the day. */
  day: number;
  second: number;
  /** Rules whose rate is used up, and parts nobody understands that match. */
  over: ReadonlySet<string>;
  matches: ReadonlySet<string>;
}

/** Why a packet does not meet a rule: the field that differs. */
export type Differs = Field | 'iif' | 'oif' | 'state' | 'translated' | 'rate' | 'not understood' | 'family';

/** A rule that a packet came to, and what became of it there. */
export interface WalkStep {
  hook: Hook;
  chain: string;
  rule: string;
  /** It met the rule; otherwise what differs. */
  met: boolean;
  differs: Differs | null;
  /** What the rule did. */
  did: Rule['verdict']['kind'] | null;
}

/** The way of a packet through a gate. */
export interface Walk {
  steps: WalkStep[];
  end: 'passes' | 'dropped' | 'refused' | 'refused by the kernel' | 'no way';
  /** The rule that decided, or `policy <chain>`; null where the kernel did, or no rule stood against it. */
  by: string | null;
  /** Where it goes: an interface; null: it ends at the gate; undefined: nowhere. */
  out: string | null | undefined;
  /** Destination and port that it was given. */
  translated: { daddr: bigint; dport: number; rule: string } | null;
  /** Source that it leaves with: an address, or the gate's own. */
  leavesAs: string | null;
  /** Parts that were not understood on its way: what is told is then not certain. */
  unsure: string[];
}

const spansMeet = (spans: Partial<Record<Field, Spans>>, p: NumberedPacket): Field | null => {
  for (const [field, ranges] of Object.entries(spans) as [Field, Spans][])
    if (!inSpans(ranges, BigInt(p[field]))) return field;
  return null;
};

/** What of a clause a packet differs in; null where it meets it. */
function differsFrom(
  clause: Clause,
  p: NumberedPacket,
  at: { tracked: boolean; translated: boolean; out: string | null | undefined; rule: string; own: Spans },
): Differs | null {
  if (clause.iif && !isNamed(clause.iif, p.iif)) return 'iif';
  if (clause.oif && !(typeof at.out === 'string' && isNamed(clause.oif, at.out))) return 'oif';
  if (clause.states && !(at.tracked && clause.states.includes(p.state))) return 'state';
  if (clause.translated !== undefined && clause.translated !== at.translated) return 'translated';
  for (const field of ['saddr', 'daddr'] as const)
    if (clause.named?.[field] === 'local' && !inSpans(at.own, p[field])) return field;
  const field = spansMeet(clause.spans, p);
  if (field) return field;
  if (clause.rate && p.over.has(at.rule) !== (clause.rate.over === true)) return 'rate';
  if (clause.unknown !== undefined && !p.matches.has(`${at.rule}: ${clause.unknown}`))
    return 'not understood';
  return null;
}

type Outcome = 'accept' | 'drop' | 'reject' | 'return' | 'end';
const MOST_JUMPS = 16;

class Walker {
  readonly steps: WalkStep[] = [];
  readonly unsure = new Set<string>();
  by: string | null = null;
  translated: Walk['translated'] = null;
  leavesAs: string | null = null;
  out: string | null | undefined = undefined;

  constructor(
    private readonly ruleset: Ruleset,
    private readonly routes: Routes,
    public packet: NumberedPacket,
  ) {}

  private chain(chain: Chain, hook: Hook, tracked: boolean, depth: number): Outcome {
    if (chain.family !== null && chain.family !== familyAt(this.packet.daddr)) return 'end';
    for (const rule of chain.rules) {
      let differs: Differs | null = 'family';
      for (const clause of rule.when) {
        differs = differsFrom(clause, this.packet, {
          tracked,
          translated: this.translated !== null,
          out: this.out,
          rule: rule.id,
          own: this.routes.own,
        });
        if (clause.unknown !== undefined && (differs === null || differs === 'not understood'))
          this.unsure.add(clause.unknown);
        if (differs === null) break;
      }
      const met = differs === null;
      const { verdict } = rule;
      this.steps.push({ hook, chain: chain.id, rule: rule.id, met, differs, did: met ? verdict.kind : null });
      if (!met) continue;
      const found = this.verdict(rule, hook, tracked, depth);
      if (found) return found;
    }
    return 'end';
  }

  /** What follows from a rule that was met; undefined where the next one is looked at. */
  private verdict(rule: Rule, hook: Hook, tracked: boolean, depth: number): Outcome | undefined {
    const { verdict } = rule;
    switch (verdict.kind) {
      case 'accept':
      case 'drop':
      case 'reject':
        this.by = rule.id;
        return verdict.kind;
      case 'return':
        return 'return';
      case 'continue':
        return undefined;
      case 'unknown':
        this.unsure.add(verdict.what);
        if (!this.packet.matches.has(`${rule.id}: ${verdict.what}`)) return undefined;
        this.by = rule.id;
        return 'drop';
      case 'jump':
      case 'goto': {
        const to = this.ruleset.chains.find((c) => c.id === verdict.chain);
        if (!to || depth >= MOST_JUMPS) return undefined;
        const found = this.chain(to, hook, tracked, depth + 1);
        if (found === 'end' || found === 'return') return verdict.kind === 'goto' ? 'return' : undefined;
        return found;
      }
      case 'dnat':
      case 'redirect': {
        const to = verdict.kind === 'dnat' ? verdict.to : null;
        const daddr = to === null ? this.routes.own[0]?.[0] : addressSpans([to])[0]?.[0];
        if (daddr === undefined) return undefined;
        const dport = verdict.port ?? this.packet.dport;
        this.translated = { daddr, dport, rule: rule.id };
        return 'accept';
      }
      case 'snat':
        this.leavesAs = verdict.to;
        return 'accept';
      case 'masquerade':
        this.leavesAs = 'its own';
        return 'accept';
    }
  }

  /** All chains of a hook; undefined where the packet is let on. */
  hook(
    at: Hook,
    type: 'filter' | 'nat',
    within: (priority: number) => boolean = () => true,
  ): Walk['end'] | undefined {
    const chains = this.ruleset.chains
      .filter((c) => c.hook?.at === at && c.hook.type === type && within(c.hook.priority))
      .sort((a, b) => (a.hook?.priority ?? 0) - (b.hook?.priority ?? 0));
    for (const c of chains) {
      if (c.hook && c.family !== null && c.family !== familyAt(this.packet.daddr)) continue;
      const tracked = type === 'nat' || (c.hook?.priority ?? 0) > -200;
      const found = this.chain(c, at, tracked, 0);
      if (found === 'drop') return 'dropped';
      if (found === 'reject') return 'refused';
      if (found !== 'accept' && c.hook?.policy === 'drop') {
        this.by = `policy ${c.id}`;
        return 'dropped';
      }
      if (type === 'nat' && (this.translated || this.leavesAs)) return undefined;
    }
    return undefined;
  }
}

/**
 * One packet through the rules, chain by chain, as the kernel takes it: translation of the destination, the route, the way to
 * the gate or through it, translation of the source. Rules are looked at one after the other; nothing of the classes is used.
 */
export function walkPacket(ruleset: Ruleset, routes: Routes, packet: NumberedPacket): Walk {
  const w = new Walker(ruleset, routes, packet);
  ruleset.strange.forEach((s) => w.unsure.add(s));
  const done = (end: Walk['end']): Walk => ({
    steps: w.steps,
    end,
    by: w.by,
    out: end === 'passes' ? w.out : undefined,
    translated: w.translated,
    leavesAs: end === 'passes' ? w.leavesAs : null,
    unsure: [...w.unsure],
  });
  const self = packet.iif === SELF;
  if (!self) {
    const before =
      w.hook('prerouting', 'filter', (p) => p <= -100) ??
      (packet.state === 'new' ? w.hook('prerouting', 'nat') : undefined);
    if (before) return done(before);
    if (w.translated) w.packet = { ...packet, daddr: w.translated.daddr, dport: w.translated.dport };
    const late = w.hook('prerouting', 'filter', (p) => p > -100);
    if (late) return done(late);
    const { saddr, daddr } = w.packet;
    const never = routes.never.some(
      (n) => (!n.saddr || inSpans(n.saddr, saddr)) && (!n.daddr || inSpans(n.daddr, daddr)),
    );
    if (never || inSpans(routes.strange.get(packet.iif) ?? [], saddr)) return done('refused by the kernel');
  }
  w.out = wayTo(routes, w.packet.daddr);
  if (w.out === null && !self) return done(w.hook('input', 'filter') ?? 'passes');
  if (w.out === undefined) return done('no way');
  const unfit = w.out === packet.iif ? routes.nobody : routes.stays;
  if (!self && inSpans(unfit, w.packet.saddr)) return done('refused by the kernel');
  const through = w.hook(self ? 'output' : 'forward', 'filter');
  if (through) return done(through);
  if (w.out === null) return done('passes');
  const last = w.hook('postrouting', 'filter');
  if (last) return done(last);
  if (packet.state === 'new') w.hook('postrouting', 'nat');
  return done('passes');
}

/** Differences that say only that a rule is about another way. */
const ELSEWHERE: ReadonlySet<Differs | null> = new Set<Differs | null>(['iif', 'oif', 'family']);

/** The rules of a way that could have been about it, and how many were about other ways; what every gate has is told where it was met. */
export function wayLines(walk: Walk, ruleset: Ruleset): { lines: WalkStep[]; passed: number } {
  const usual = new Set(
    ruleset.chains.flatMap((c) => c.rules.filter((r) => r.from?.what === 'usual').map((r) => r.id)),
  );
  const lines = walk.steps.filter((s) => s.met || !(ELSEWHERE.has(s.differs) || usual.has(s.rule)));
  return { lines, passed: walk.steps.length - lines.length };
}
