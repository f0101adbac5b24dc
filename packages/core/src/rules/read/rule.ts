import { addressSpans, familyAt, familySpans } from '../../units/addressLine';
import { sharedSpans, type Spans } from '../../units/spans';
import {
  packetStates,
  type Clause,
  type Field,
  type Names,
  type Rate,
  type Rule,
  type RuleVerdict,
} from '../ruleset';
import { bare, byOperator, lookOf, member, spansFrom, type Json } from './values';

/** A set or map by its name. */
export interface NamedSet {
  type: string | readonly string[];
  elements: readonly Json[];
  /** It changes by itself. */
  moves: boolean;
  map: boolean;
}

/** What a rule is read with. */
export interface Reading {
  id: string;
  comment: string;
  chainOf: (name: string) => string;
  setOf: (name: string) => NamedSet | undefined;
}

/** A rule while it is read: clauses that all hold what was read so far. */
interface Draft {
  clauses: Clause[];
  anyPorts: boolean;
  log: string | null;
  counted: number | null;
  ended: RuleVerdict | null;
  out: Rule[];
}

/** A clause narrowed by another; undefined where nothing meets both. */
function narrowed(c: Clause, by: Clause): Clause | undefined {
  const spans: Partial<Record<Field, Spans>> = { ...c.spans };
  for (const [field, s] of Object.entries(by.spans) as [Field, Spans][]) {
    const before = spans[field];
    spans[field] = before ? sharedSpans(before, s) : s;
  }
  const states =
    by.states && c.states ? c.states.filter((s) => by.states?.includes(s)) : (by.states ?? c.states);
  const unknown = [c.unknown, by.unknown].filter((u) => u !== undefined).join('; ');
  const named = { ...c.named, ...by.named };
  return {
    ...c,
    ...by,
    spans,
    ...(states ? { states } : {}),
    ...(unknown === '' ? {} : { unknown }),
    ...(Object.keys(named).length > 0 ? { named } : {}),
  };
}

const narrow = (d: Draft, by: readonly Clause[]): void => {
  d.clauses = d.clauses.flatMap((c) => by.flatMap((b) => narrowed(c, b) ?? []));
};

/** A part that is not understood, in few words. */
const odd = (what: Json): string => {
  const text = typeof what === 'string' ? what : JSON.stringify(what);
  return text.length > 120 ? `${text.slice(0, 119)}…` : text;
};

function elementsOf(right: Json, at: Reading): { list: readonly Json[]; name?: string } | undefined {
  if (typeof right === 'string' && right.startsWith('@')) {
    const set = at.setOf(right);
    return set && !set.moves ? { list: set.elements, name: right.slice(1) } : undefined;
  }
  const set = member(right, 'set');
  return { list: Array.isArray(set) ? set : Array.isArray(right) ? right : [right] };
}

/** Names of interfaces; undefined where it is not about them. */
function namesClause(key: Json, op: Json, right: Json, at: Reading): Clause | undefined {
  const which =
    key === 'iifname' || key === 'iif' ? 'iif' : key === 'oifname' || key === 'oif' ? 'oif' : undefined;
  const list = elementsOf(right, at)?.list.map(bare);
  if (!which || !list?.every((n) => typeof n === 'string') || (op !== '==' && op !== '!=' && op !== 'in'))
    return undefined;
  const n: Names = { names: list, not: op === '!=' };
  return { [which]: n, spans: {} };
}

/** States of the tracker, or that the destination was translated. */
function trackerClause(key: Json, op: Json, right: Json, at: Reading): Clause | undefined {
  const list = elementsOf(right, at)?.list.map(bare);
  if (!list) return undefined;
  if (key === 'state') {
    const states = packetStates.filter((s) => list.includes(s));
    if (states.length !== list.length) return undefined;
    if (op === '!=') return { states: packetStates.filter((s) => !states.includes(s)), spans: {} };
    return op === '==' || op === 'in' ? { states, spans: {} } : undefined;
  }
  return key === 'status' && op === 'in' && list.length === 1 && list[0] === 'dnat'
    ? { translated: true, spans: {} }
    : undefined;
}

function familyClause(key: Json, op: Json, right: Json): Clause | undefined {
  const four = (key === 'nfproto' && right === 'ipv4') || (key === 'protocol' && right === 'ip');
  const six = (key === 'nfproto' && right === 'ipv6') || (key === 'protocol' && right === 'ip6');
  if ((!four && !six) || op !== '==') return undefined;
  const all = familySpans(four ? 4 : 6);
  return { spans: { saddr: all, daddr: all } };
}

/** One field as a clause, or every element of several fields side by side. */
function fieldClauses(left: Json, op: Json, right: Json, at: Reading, d: Draft): Clause[] | undefined {
  const concat = member(left, 'concat');
  if (Array.isArray(concat))
    return op === '==' || op === 'in' ? concatClauses(concat, right, at, d) : undefined;
  const look = lookOf(left);
  const elements = elementsOf(right, at);
  if (!look || !elements) return undefined;
  const spans = spansFrom(look, elements.list, () => undefined);
  const turned = spans && byOperator(look, op, spans);
  if (!turned) return undefined;
  if (look.anyPorts === true) d.anyPorts = true;
  const found = narrowed({ spans: look.given }, { spans: { [look.field]: turned } });
  return (
    found && [
      elements.name !== undefined && op !== '!='
        ? { ...found, named: { [look.field]: elements.name } }
        : found,
    ]
  );
}

function concatClauses(parts: readonly Json[], right: Json, at: Reading, d: Draft): Clause[] | undefined {
  const elements = elementsOf(right, at);
  if (!elements) return undefined;
  const out: Clause[] = [];
  for (const raw of elements.list) {
    const values = member(bare(raw), 'concat');
    if (!Array.isArray(values) || values.length !== parts.length) return undefined;
    let clause: Clause | undefined = { spans: {} };
    for (const [i, part] of parts.entries()) {
      const by = matchClauses(part, '==', values[i], at, d);
      if (by?.length !== 1) return undefined;
      clause = clause && narrowed(clause, by[0] as Clause);
    }
    if (clause) out.push(clause);
  }
  return out;
}

/** Clauses that a match makes; undefined where it is not understood. */
function matchClauses(left: Json, op: Json, right: Json, at: Reading, d: Draft): Clause[] | undefined {
  const meta = member(member(left, 'meta'), 'key');
  const ct = member(left, 'ct');
  const fib = member(left, 'fib');
  const one =
    meta !== undefined
      ? (namesClause(meta, op, right, at) ?? familyClause(meta, op, right))
      : ct !== undefined && member(ct, 'dir') === undefined
        ? trackerClause(member(ct, 'key'), op, right, at)
        : fib !== undefined
          ? localClause(fib, op, right)
          : undefined;
  return one ? [one] : fieldClauses(left, op, right, at, d);
}

/** “fib daddr type local”: resolved to the addresses of the gate by whoever knows them. */
function localClause(fib: Json, op: Json, right: Json): Clause | undefined {
  const flags = member(fib, 'flags');
  const field = Array.isArray(flags) && flags.length === 1 ? (flags[0] as Json) : flags;
  const known = member(fib, 'result') === 'type' && (op === '==' || op === 'in') && right === 'local';
  return known && (field === 'daddr' || field === 'saddr')
    ? { spans: {}, named: { [field]: 'local' } }
    : undefined;
}

const PLAIN = ['accept', 'drop', 'return', 'continue'] as const;
/** Statements that change nothing of where a packet goes. */
const HARMLESS = ['counter', 'comment', 'meter'];

function verdictOf(s: Json, at: Reading): RuleVerdict | undefined {
  for (const kind of PLAIN) if (member(s, kind) !== undefined) return { kind };
  if (member(s, 'reject') !== undefined) return { kind: 'reject' };
  for (const kind of ['jump', 'goto'] as const) {
    const target = member(member(s, kind), 'target');
    if (typeof target === 'string') return { kind, chain: at.chainOf(target) };
  }
  if (member(s, 'masquerade') !== undefined) return { kind: 'masquerade' };
  const port = (v: Json): number | null | undefined =>
    v === undefined ? null : typeof v === 'number' ? v : undefined;
  const dnat = member(s, 'dnat');
  if (dnat !== undefined) {
    const to = member(dnat, 'addr');
    const p = port(member(dnat, 'port'));
    if (typeof to === 'string' && addressSpans([to]).length === 1 && p !== undefined)
      return { kind: 'dnat', to, port: p };
    return { kind: 'unknown', what: odd(s) };
  }
  const snat = member(s, 'snat');
  if (snat !== undefined) {
    const to = member(snat, 'addr');
    return typeof to === 'string' ? { kind: 'snat', to } : { kind: 'unknown', what: odd(s) };
  }
  const redirect = member(s, 'redirect');
  if (redirect !== undefined) {
    const p = port(member(redirect, 'port'));
    return p === undefined ? { kind: 'unknown', what: odd(s) } : { kind: 'redirect', port: p };
  }
  return undefined;
}

function rateOf(limit: Json): Rate | undefined {
  const [count, per, burst] = ['rate', 'per', 'burst'].map((k) => member(limit, k));
  const unit = (['second', 'minute', 'hour', 'day'] as const).find((u) => u === per);
  // A rate in bytes is no rate in packets.
  if (typeof count !== 'number' || !unit || member(limit, 'rate_unit') !== undefined) return undefined;
  return {
    count,
    per: unit,
    burst: typeof burst === 'number' ? burst : 5,
    ...(member(limit, 'inv') === true ? { over: true } : {}),
  };
}

/** A mark, or the size of segments, changes nothing of where a packet goes by itself; whoever matches a mark is told of. */
const quietChange = (mangle: Json): boolean => {
  const key = member(mangle, 'key');
  return (
    member(key, 'meta') !== undefined ||
    member(key, 'ct') !== undefined ||
    member(key, 'tcp option') !== undefined
  );
};

function vmapRules(vmap: Json, at: Reading, d: Draft): boolean {
  const data = member(vmap, 'data');
  const elements = elementsOf(data, at);
  if (!elements) return false;
  const lines = elements.list.map((pair): [Json, Json] | undefined =>
    Array.isArray(pair) ? [pair[0], pair[1]] : undefined,
  );
  const rules: Rule[] = [];
  for (const [i, line] of lines.entries()) {
    const verdict = line && verdictOf(line[1], at);
    const by = line && matchClauses(member(vmap, 'key'), '==', line[0], at, d);
    if (!verdict || !by) return false;
    rules.push(
      ruleOf(
        { ...d, clauses: d.clauses.flatMap((c) => by.flatMap((b) => narrowed(c, b) ?? [])) },
        `${at.id}.${i + 1}`,
        at,
        verdict,
      ),
    );
  }
  d.out.push(...rules);
  return true;
}

const WITH_PORTS = [6n, 17n, 33n, 132n, 136n];
const ruleOf = (d: Draft, id: string, at: Reading, verdict: RuleVerdict): Rule => ({
  id,
  when: d.clauses.map((c): Clause =>
    d.anyPorts && !c.spans.proto?.every(([a, b]) => a === b && WITH_PORTS.includes(a))
      ? { ...c, unknown: [c.unknown, 'ports of any protocol'].filter((u) => u !== undefined).join('; ') }
      : c,
  ),
  verdict,
  from: null,
  comment: at.comment,
  log: d.log,
  counted: d.counted,
});

/** One statement of a rule. */
function take(s: Json, at: Reading, d: Draft): void {
  const match = member(s, 'match');
  if (match !== undefined) {
    const [left, op, right] = ['left', 'op', 'right'].map((k) => member(match, k));
    const by = matchClauses(left, op, right, at, d);
    narrow(d, by ?? [{ spans: {}, unknown: odd(match) }]);
    return;
  }
  const limit = member(s, 'limit');
  if (limit !== undefined) {
    const rate = rateOf(limit);
    narrow(d, [rate ? { spans: {}, rate } : { spans: {}, unknown: odd(s) }]);
    return;
  }
  const log = member(s, 'log');
  if (log !== undefined) {
    const prefix = member(log, 'prefix');
    d.log = typeof prefix === 'string' ? prefix : '';
    return;
  }
  const counter = member(s, 'counter');
  if (counter !== undefined) {
    const packets = member(counter, 'packets');
    d.counted = typeof packets === 'number' ? packets : null;
    return;
  }
  const vmap = member(s, 'vmap');
  if (vmap !== undefined) {
    if (!vmapRules(vmap, at, d)) d.ended = { kind: 'unknown', what: odd(s) };
    return;
  }
  const mangle = member(s, 'mangle');
  if (HARMLESS.some((k) => member(s, k) !== undefined) || (mangle !== undefined && quietChange(mangle)))
    return;
  d.ended = verdictOf(s, at) ?? { kind: 'unknown', what: odd(s) };
  // An address of a family is given to packets of that family alone.
  const to = d.ended.kind === 'dnat' || d.ended.kind === 'snat' ? d.ended.to : null;
  const place = to === null ? undefined : addressSpans([to])[0]?.[0];
  if (place !== undefined) {
    const all = familySpans(familyAt(place));
    narrow(d, [{ spans: { saddr: all, daddr: all } }]);
  }
}

/** Statements of one rule as rules of ours: one, or with a map to verdicts as many as it has lines. */
export function readRule(statements: readonly Json[], at: Reading): Rule[] {
  const d: Draft = {
    clauses: [{ spans: {} }],
    anyPorts: false,
    log: null,
    counted: null,
    ended: null,
    out: [],
  };
  for (const s of statements) take(s, at, d);
  const ended = d.ended ?? (d.out.length === 0 ? { kind: 'continue' as const } : null);
  return ended ? [...d.out, ruleOf(d, at.id, at, ended)] : d.out;
}
