import { addressSpans, familySpans, formatRange, ofFamily } from '../../units/addressLine';
import type { Family } from '../../units/ip';
import { inSpans, lessSpans, type Spans } from '../../units/spans';
import type { GatePlan } from '../../model/gate';
import { nftInterface, nftName, nftString } from '../../formats/writer/nft';
import { setName } from '../clauses';
import { protocolName } from '../protocols';
import type { Chain, Clause, Names, Rate, Rule, Ruleset, RuleVerdict } from '../ruleset';

const FAMILIES: readonly Family[] = [4, 6];
const IP: Record<Family, string> = { 4: 'ip', 6: 'ip6' };

const braces = (list: readonly string[]): string =>
  list.length === 1 ? (list[0] ?? '') : `{ ${list.join(', ')} }`;
const names = (key: string, n: Names): string =>
  `${key} ${n.not ? '!= ' : ''}${braces(n.names.map(nftInterface))}`;

/** Ranges of one family without what the line gives: a filter knows no such address by itself. */
const plain = (spans: Spans, family: Family): Spans =>
  ofFamily(spans, family).filter(([from]) =>
    inSpans(addressSpans(family === 4 ? ['0.0.0.0/0'] : ['::/0']), from),
  );

/** An address field: by its set, as “local”, as all but a few, or as the ranges it has. */
function addressWords(field: 'saddr' | 'daddr', spans: Spans, named: string | undefined): string[] {
  if (named === 'local') return [`fib ${field} type local`];
  const family = FAMILIES.find((f) => ofFamily(spans, f).length > 0) ?? 4;
  const key = `${IP[family]} ${field}`;
  if (named !== undefined) return [`${key} @${nftName(named)}`];
  const whole = familySpans(family);
  const mine = ofFamily(spans, family);
  const rest = lessSpans(whole, mine);
  if (rest.length === 0) return [`meta nfproto ipv${family}`];
  // Strange sources are “all but ours”: said so, it reads as it is meant.
  const inverse = plain(rest, family);
  if (inverse.length < plain(mine, family).length) return [`${key} != ${braces(inverse.map(formatRange))}`];
  return [`${key} ${braces(plain(mine, family).map(formatRange))}`];
}

const small = (spans: Spans): string[] => spans.map(([a, b]) => (a === b ? String(a) : `${a}-${b}`));

/** Protocol and port, or the types of ICMP; whole types alone can be said of it. */
function protocolWords(spans: Clause['spans']): string[] {
  const { proto, dport, sport } = spans;
  if (!proto) return [];
  const numbers = proto.flatMap(([a, b]) => (a === b ? [Number(a)] : []));
  const [only] = numbers;
  const name = only === undefined ? undefined : protocolName(only);
  if (numbers.length !== 1 || name === undefined) return [`meta l4proto ${braces(small(proto))}`];
  if (name === 'icmp' || name === 'icmpv6')
    return dport
      ? [`${name} type ${braces(small(dport.map(([a, b]) => [a / 256n, b / 256n] as const)))}`]
      : [`meta l4proto ${name === 'icmpv6' ? 'ipv6-icmp' : 'icmp'}`];
  if (typeof name === 'number' || (!dport && !sport)) return [`meta l4proto ${name}`];
  return [
    ...(sport ? [`${name} sport ${braces(small(sport))}`] : []),
    ...(dport ? [`${name} dport ${braces(small(dport))}`] : []),
  ];
}

const DAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const clock = (s: bigint): string => {
  const n = Number(s);
  return [n / 3600, (n / 60) % 60, n % 60].map((v) => String(Math.floor(v)).padStart(2, '0')).join(':');
};
const timeWords = ({ day, second }: Clause['spans']): string[] => [
  ...(day
    ? [`meta day ${braces(day.flatMap(([a, b]) => DAYS.slice(Number(a), Number(b) + 1)).map(nftString))}`]
    : []),
  ...(second ? [`meta hour ${braces(second.map(([a, b]) => `"${clock(a)}"-"${clock(b)}"`))}`] : []),
];

const rateWords = (r: Rate): string =>
  `limit rate ${r.over === true ? 'over ' : ''}${r.count}/${r.per} burst ${r.burst} packets`;

/** What a clause asks, in the order in which it is cheapest to look. */
export function clauseWords(c: Clause): string[] {
  const { spans, named } = c;
  const address = (f: 'saddr' | 'daddr'): string[] => {
    const s = spans[f];
    return s ? addressWords(f, s, named?.[f]) : [];
  };
  return [
    ...(c.iif ? [names('iifname', c.iif)] : []),
    ...(c.oif ? [names('oifname', c.oif)] : []),
    ...(c.states ? [`ct state ${braces([...c.states])}`] : []),
    ...(c.translated === undefined ? [] : [`ct status ${c.translated ? '' : '!= '}dnat`]),
    ...[...new Set([...address('saddr'), ...address('daddr')])],
    ...protocolWords(spans),
    ...timeWords(spans),
    ...(c.rate ? [rateWords(c.rate)] : []),
  ];
}

function verdictWords(v: RuleVerdict): string {
  switch (v.kind) {
    case 'accept':
    case 'drop':
    case 'return':
      return v.kind;
    case 'reject':
      return 'reject with icmpx admin-prohibited';
    case 'continue':
      return '';
    case 'jump':
    case 'goto':
      return `${v.kind} ${v.chain.split('/')[1] ?? v.chain}`;
    case 'dnat':
      return `dnat ip to ${v.to ?? ''}${v.port === null ? '' : `:${v.port}`}`;
    case 'redirect':
      return v.port === null ? 'redirect' : `redirect to :${v.port}`;
    case 'snat':
      return `snat ip to ${v.to}`;
    case 'masquerade':
      return 'masquerade';
    case 'unknown':
      return `# ${v.what}`;
  }
}

/** One rule as a line; a rule of several clauses is as many. */
export const ruleLines = (rule: Rule): string[] =>
  rule.when.map((c) =>
    [
      ...clauseWords(c),
      // Everything but what is only logged is counted, so that a reading tells what was never hit.
      ...(rule.log === null ? ['counter'] : [`log prefix ${nftString(rule.log).replace(/"$/, ' "')}`]),
      verdictWords(rule.verdict),
      ...(rule.comment === '' ? [] : [`comment ${nftString(rule.comment)}`]),
    ]
      .filter((t) => t !== '')
      .join(' '),
  );

const hookLine = ({ hook }: Chain): string[] =>
  hook ? [`type ${hook.type} hook ${hook.at} priority ${hook.priority}; policy ${hook.policy};`] : [];

/** Every named set that a rule asks, with what is in it. */
function setsOf(ruleset: Ruleset): Map<string, Spans> {
  const out = new Map<string, Spans>();
  for (const chain of ruleset.chains)
    for (const rule of chain.rules)
      for (const { named, spans } of rule.when)
        for (const field of ['saddr', 'daddr'] as const) {
          const name = named?.[field];
          const what = spans[field];
          if (name !== undefined && name !== 'local' && what) out.set(name, what);
        }
  return out;
}

function setLines(name: string, spans: Spans, says: string | undefined): string[] {
  const family = FAMILIES.find((f) => ofFamily(spans, f).length > 0) ?? 4;
  return [
    `\tset ${nftName(name)} {`,
    `\t\ttype ipv${family}_addr`,
    '\t\tflags interval',
    ...(says === undefined ? [] : [`\t\tcomment ${nftString(says)}`]),
    `\t\telements = { ${plain(spans, family).map(formatRange).join(',\n\t\t             ')} }`,
    '\t}',
  ];
}

/** Chains before those that lead to them, which a filter must know already. */
const ordered = (chains: readonly Chain[]): Chain[] => [
  ...chains.filter((c) => !c.hook),
  ...chains.filter((c) => c.hook),
];

/** The table as nftables takes it (nft(8)); all of it replaces what stood there before in one step, or nothing does. */
export function writeNft(ruleset: Ruleset, plan: GatePlan): string {
  const [first] = ruleset.chains;
  const table = first?.table ?? 'gate';
  const says = new Map(
    plan.addresses.flatMap((a) => FAMILIES.map((f) => [setName(a.id, f), a.name] as const)),
  );
  return [
    '#!/usr/sbin/nft -f',
    '# The rules of this gate. The table is declared, deleted and made anew in one transaction:',
    '# either all of it takes hold, or what was there before stays.',
    `table inet ${table} {}`,
    `delete table inet ${table}`,
    '',
    `table inet ${table} {`,
    ...[...setsOf(ruleset)].flatMap(([name, spans]) => setLines(name, spans, says.get(name))),
    ...ordered(ruleset.chains).flatMap((c) => [
      `\tchain ${nftName(c.name)} {`,
      ...hookLine(c).map((l) => `\t\t${l}`),
      ...c.rules.flatMap(ruleLines).map((l) => `\t\t${l}`),
      '\t}',
    ]),
    '}',
    '',
  ].join('\n');
}
