import { inSpans, joinSpans, lessSpans, sharedSpans, type Spans } from '../units/spans';
import { impossible } from './protocols';
import { isNamed, leavingBy, type Routes } from './routes';
import type { Chain, Clause, Field, Hook, PacketState, Rule, Ruleset } from './ruleset';
import { addressSpans, familySpans } from '../units/addressLine';

/** Where a packet comes in: an interface of the gate by its place in the list, the gate itself, or one that is not known. */
export const SELF = 'the gate';
/** An interface that rules may name and the plan does not know. */
export const ELSEWHERE = 'elsewhere';

/** How a packet ends. */
export type FateCode = 'impossible' | 'refused by the kernel' | 'no way' | 'dropped' | 'refused' | 'passes';

/** How a packet ends, with what was translated on its way. */
export interface Fate {
  code: FateCode;
  /** Destination it was translated to, and the rule that did. */
  dnat: { rule: string; to: string; port: number | null } | null;
  /** Source it leaves with; null where it keeps its own. */
  snat: string | null;
}

/** What a step does with the packets that meet it. */
export type StepAct =
  | { kind: 'end'; fate: Fate }
  | { kind: 'skip'; to: { ix: number } }
  | { kind: 'mark' }
  | { kind: 'dnat'; nth: number };

/** One line of a list that is gone through from the top: what a packet must be, and what becomes of it. */
export interface Step {
  rule: string | null;
  /** Interfaces by name; undefined: any. */
  iif?: readonly string[];
  spans: Partial<Record<Field, Spans>>;
  /** Conditions that are not in the packet: below a rate, or a part nobody understands; with ! before it, that it is not so. */
  flags: readonly string[];
  act: StepAct;
}

/** A destination that is translated: the rule, and to what. */
export interface Translation {
  rule: string;
  to: bigint;
  text: string;
  port: number | null;
}

/** Steps of a ruleset for packets of one state, with the translations that may take place. */
export interface Program {
  state: PacketState;
  steps: Step[];
  translations: Translation[];
}

/** The name of the condition that a rule is below its rate. */
export const rateFlag = (rule: string): string => `rate ${rule}`;
/** The name of the condition that a part nobody understands matches. */
export const unknownFlag = (rule: string, what: string): string => `unknown ${rule}: ${what}`;
/** Whether it is one of the latter. */
export const isUnknown = (flag: string): boolean => flag.startsWith('unknown ');

const fate = (code: FateCode, more: Partial<Fate> = {}): StepAct => ({
  kind: 'end',
  fate: { code, dnat: null, snat: null, ...more },
});

interface Around {
  rulesetPorts: readonly string[];
  routes: Routes;
  byId: ReadonlyMap<string, Chain>;
  state: PacketState;
  translated: boolean;
  tracked: boolean;
  snat: boolean;
  steps: Step[];
  translations: Translation[] | null;
}

/** A step's conditions joined with a clause's; undefined where nothing meets both. */
function met(base: Pick<Step, 'iif' | 'spans' | 'flags'>, clause: Clause, ruleId: string, a: Around) {
  if (clause.states && !(a.tracked && clause.states.includes(a.state))) return undefined;
  if (clause.translated !== undefined && clause.translated !== a.translated) return undefined;
  let iif = base.iif;
  if (clause.iif) {
    const wanted = clause.iif;
    iif = (iif ?? [...a.rulesetPorts, SELF, ELSEWHERE]).filter((n) => isNamed(wanted, n));
    if (iif.length === 0) return undefined;
  }
  const spans: Partial<Record<Field, Spans>> = { ...base.spans };
  const narrow = (field: Field, by: Spans): boolean => {
    const before = spans[field];
    const now = before ? sharedSpans(before, by) : by;
    spans[field] = now;
    return now.length > 0;
  };
  for (const [field, by] of Object.entries(clause.spans) as [Field, Spans][])
    if (!narrow(field, by)) return undefined;
  for (const field of ['saddr', 'daddr'] as const)
    if (clause.named?.[field] === 'local' && !narrow(field, a.routes.own)) return undefined;
  if (clause.oif && !narrow('daddr', leavingBy(a.routes, clause.oif))) return undefined;
  const flags = [
    ...base.flags,
    ...(clause.rate ? [`${clause.rate.over === true ? '!' : ''}${rateFlag(ruleId)}`] : []),
    ...(clause.unknown === undefined ? [] : [unknownFlag(ruleId, clause.unknown)]),
  ];
  return { ...(iif ? { iif } : {}), spans, flags };
}

const MOST_JUMPS = 16;

function emitRule(
  rule: Rule,
  base: Pick<Step, 'iif' | 'spans' | 'flags'>,
  ends: { accepted: { ix: number }; returned: { ix: number } },
  depth: number,
  a: Around,
): void {
  for (const clause of rule.when) {
    const at = met(base, clause, rule.id, a);
    if (!at) continue;
    const add = (act: StepAct, flags = at.flags): void =>
      void a.steps.push({ rule: rule.id, ...at, flags, act });
    const { verdict } = rule;
    switch (verdict.kind) {
      case 'accept':
        add({ kind: 'skip', to: ends.accepted });
        break;
      case 'drop':
        add(fate('dropped'));
        break;
      case 'reject':
        add(fate('refused'));
        break;
      case 'return':
        add({ kind: 'skip', to: ends.returned });
        break;
      case 'continue':
        add({ kind: 'mark' });
        break;
      case 'unknown': {
        const flag = unknownFlag(rule.id, verdict.what);
        add({ kind: 'mark' });
        add(fate('dropped'), [...at.flags, flag]);
        break;
      }
      case 'jump':
      case 'goto': {
        add({ kind: 'mark' });
        const chain = a.byId.get(verdict.chain);
        if (!chain || depth >= MOST_JUMPS) break;
        const after = { ix: -1 };
        const returned = verdict.kind === 'jump' ? after : ends.returned;
        emitRules(chain, at, { accepted: ends.accepted, returned }, depth + 1, a);
        // Whoever comes to the end of a chain that was gone to is where its caller returns to.
        if (verdict.kind === 'goto') add({ kind: 'skip', to: ends.returned });
        after.ix = a.steps.length;
        break;
      }
      case 'dnat':
      case 'redirect': {
        if (!a.translations) {
          add({ kind: 'skip', to: ends.accepted });
          break;
        }
        const to = verdict.kind === 'dnat' ? verdict.to : null;
        const place = to === null ? a.routes.own[0]?.[0] : addressSpans([to])[0]?.[0];
        if (place === undefined) break;
        const { port } = verdict;
        a.translations.push({ rule: rule.id, to: place, text: to ?? 'the gate', port });
        add({ kind: 'dnat', nth: a.translations.length - 1 });
        break;
      }
      case 'snat':
      case 'masquerade':
        if (a.snat) add(fate('passes', { snat: verdict.kind === 'snat' ? verdict.to : 'its own' }));
        else add({ kind: 'mark' });
        break;
    }
  }
}

function emitRules(
  chain: Chain,
  base: Pick<Step, 'iif' | 'spans' | 'flags'>,
  ends: { accepted: { ix: number }; returned: { ix: number } },
  depth: number,
  a: Around,
): void {
  const within =
    chain.family === null
      ? base
      : met(base, { spans: { saddr: familySpans(chain.family), daddr: familySpans(chain.family) } }, '', a);
  if (within) for (const rule of chain.rules) emitRule(rule, within, ends, depth, a);
}

const CONNTRACK = -200;

/** Chains of a hook, in the order in which packets pass them; those that translate sources come last. */
const chainsAt = (ruleset: Ruleset, at: Hook, type: 'filter' | 'nat'): Chain[] =>
  ruleset.chains
    .filter((c) => c.hook?.at === at && c.hook.type === type)
    .sort((a, b) => (a.hook?.priority ?? 0) - (b.hook?.priority ?? 0));

function emitHook(chains: readonly Chain[], base: Pick<Step, 'iif' | 'spans' | 'flags'>, a: Around): void {
  for (const chain of chains) {
    const end = { ix: -1 };
    const policy = { ix: -1 };
    a.tracked = (chain.hook?.priority ?? 0) > CONNTRACK || chain.hook?.type === 'nat';
    emitRules(chain, base, { accepted: end, returned: policy }, 0, a);
    policy.ix = a.steps.length;
    const all = chain.family === null ? undefined : familySpans(chain.family);
    const mine = all ? met(base, { spans: { saddr: all, daddr: all } }, '', a) : base;
    if (chain.hook?.policy === 'drop' && mine)
      a.steps.push({ rule: `policy ${chain.id}`, ...mine, act: fate('dropped') });
    end.ix = a.steps.length;
  }
}

/** A step for a packet whose destination is now this one; undefined where it no longer meets it. */
function translatedStep(step: Step, by: Translation): Step | undefined {
  const { daddr, dport, ...rest } = step.spans;
  if (daddr && !inSpans(daddr, by.to)) return undefined;
  if (by.port === null) return { ...step, spans: { ...rest, ...(dport ? { dport } : {}) } };
  return dport && !inSpans(dport, BigInt(by.port)) ? undefined : { ...step, spans: rest };
}

function arriving(ruleset: Ruleset, ports: readonly string[], a: Around): void {
  for (const c of impossible(a.state))
    a.steps.push({ rule: null, spans: c.spans, flags: [], act: fate('impossible') });
  ruleset.strange.forEach((what) =>
    a.steps.push({ rule: null, spans: {}, flags: [unknownFlag('', what)], act: fate('dropped') }),
  );
  const base = { iif: [...ports, ELSEWHERE], spans: {}, flags: [] };
  const filters = chainsAt(ruleset, 'prerouting', 'filter');
  emitHook(
    filters.filter((c) => (c.hook?.priority ?? 0) <= -100),
    base,
    a,
  );
  if (a.state === 'new') emitHook(chainsAt(ruleset, 'prerouting', 'nat'), base, a);
  emitHook(
    filters.filter((c) => (c.hook?.priority ?? 0) > -100),
    base,
    a,
  );
}

function onwards(ruleset: Ruleset, routes: Routes, ports: readonly string[], a: Around): void {
  const arrived = { iif: [...ports, ELSEWHERE], flags: [] };
  for (const n of routes.never)
    a.steps.push({ rule: null, ...arrived, spans: n, act: fate('refused by the kernel') });
  for (const [iif, saddr] of routes.strange)
    a.steps.push({ rule: null, iif: [iif], flags: [], spans: { saddr }, act: fate('refused by the kernel') });
  emitHook(chainsAt(ruleset, 'input', 'filter'), { ...arrived, spans: { daddr: routes.local } }, a);
  const elsewhere = joinSpans(...routes.behind.values());
  const nowhere = lessSpans(joinSpans(familySpans(4), familySpans(6)), joinSpans(elsewhere, routes.local));
  a.steps.push({ rule: null, ...arrived, spans: { daddr: routes.local }, act: fate('passes') });
  for (const iif of arrived.iif) {
    const back = routes.behind.get(iif) ?? [];
    for (const spans of [
      { saddr: routes.stays, daddr: lessSpans(elsewhere, back) },
      { saddr: routes.nobody, daddr: back },
    ])
      a.steps.push({ rule: null, iif: [iif], flags: [], spans, act: fate('refused by the kernel') });
  }
  a.steps.push({ rule: null, spans: { daddr: nowhere }, flags: [], act: fate('no way') });
  emitHook(chainsAt(ruleset, 'forward', 'filter'), { ...arrived, spans: { daddr: elsewhere } }, a);
  const own = { iif: [SELF], spans: {}, flags: [] };
  emitHook(chainsAt(ruleset, 'output', 'filter'), own, a);
  const leaving = { spans: { daddr: elsewhere }, flags: [] };
  emitHook(chainsAt(ruleset, 'postrouting', 'filter'), leaving, a);
  if (a.state === 'new') {
    a.snat = true;
    emitHook(chainsAt(ruleset, 'postrouting', 'nat'), leaving, a);
    a.snat = false;
  }
  a.steps.push({ rule: null, spans: {}, flags: [], act: fate('passes') });
}

/** What a list is begun with: nothing said yet, and translations wanted in `translations`. */
const aroundOf = (
  ruleset: Ruleset,
  routes: Routes,
  rulesetPorts: readonly string[],
  state: PacketState,
  translations: Translation[],
): Around => ({
  rulesetPorts,
  routes,
  byId: new Map(ruleset.chains.map((c) => [c.id, c])),
  state,
  translated: false,
  tracked: true,
  snat: false,
  steps: [],
  translations,
});

/**
 * A ruleset as one list for packets of a state: prerouting, then by the route input or forward, output, postrouting. Packets
 * whose destination is translated end at `dnat`; `afterTranslation` makes the list for them.
 */
export function programOf(
  ruleset: Ruleset,
  routes: Routes,
  ports: readonly string[],
  state: PacketState,
): Program {
  const translations: Translation[] = [];
  const a = aroundOf(ruleset, routes, ports, state, translations);
  arriving(ruleset, ports, a);
  a.translations = null;
  onwards(ruleset, routes, ports, a);
  return { state, steps: a.steps, translations };
}

/** The list for packets that met the `nth` translation: all others end as impossible, and what follows sees the new destination. */
export function afterTranslation(
  ruleset: Ruleset,
  routes: Routes,
  ports: readonly string[],
  nth: number,
  program: Program,
): Step[] {
  const by = program.translations[nth];
  if (!by) return [];
  const a = aroundOf(ruleset, routes, ports, 'new', []);
  arriving(ruleset, ports, a);
  const rest = { ix: a.steps.length + 1 };
  const before = a.steps.map((s): Step =>
    s.act.kind !== 'dnat'
      ? s
      : { ...s, act: s.act.nth === nth ? { kind: 'skip', to: rest } : fate('impossible') },
  );
  before.push({ rule: null, spans: {}, flags: [], act: fate('impossible') });
  const b: Around = { ...a, translated: true, translations: null, steps: [] };
  onwards(ruleset, routes, ports, b);
  // Steps that no longer meet stay as ones that nothing meets, so that places in the list stay what they are.
  const after = b.steps.map((s): Step => {
    const now = translatedStep(s, by);
    const act: StepAct =
      s.act.kind === 'skip'
        ? { kind: 'skip', to: { ix: s.act.to.ix + before.length } }
        : s.act.kind === 'end' && s.act.fate.code === 'passes'
          ? { kind: 'end', fate: { ...s.act.fate, dnat: { rule: by.rule, to: by.text, port: by.port } } }
          : s.act;
    return now ? { ...now, act } : { ...s, spans: { proto: [] }, act };
  });
  return [...before, ...after];
}
