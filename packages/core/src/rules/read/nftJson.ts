import { z } from 'zod';
import type { Chain, Hook, Ruleset } from '../ruleset';
import { hooks } from '../ruleset';
import { readRule, type NamedSet } from './rule';

/** Why a ruleset cannot be read at all. */
export class NftReadError extends Error {
  constructor(readonly why: 'not JSON' | 'no ruleset' | 'too large') {
    super(why);
  }
}

const family = z.enum(['ip', 'ip6', 'inet', 'arp', 'bridge', 'netdev']);
const chainSchema = z.object({
  family,
  table: z.string().max(200),
  name: z.string().max(200),
  type: z.string().optional(),
  hook: z.string().optional(),
  prio: z.number().optional(),
  policy: z.string().optional(),
});
const ruleSchema = z.object({
  family,
  table: z.string(),
  chain: z.string(),
  handle: z.number(),
  comment: z.string().optional(),
  expr: z.array(z.record(z.string(), z.unknown())).max(200),
});
const setSchema = z.object({
  family,
  table: z.string(),
  name: z.string(),
  type: z.union([z.string(), z.array(z.string())]),
  elem: z.array(z.unknown()).max(200_000).optional(),
  flags: z.array(z.string()).optional(),
});
const fileSchema = z.object({ nftables: z.array(z.record(z.string(), z.unknown())).max(200_000) });

/** What was read: the rules, and every part nobody here understands, by where it stands. */
export interface NftReading {
  ruleset: Ruleset;
  /** Rules with a part that is not understood. */
  unknown: { rule: string; what: string }[];
}

const familyOf = (f: z.infer<typeof family>): 4 | 6 | null => (f === 'ip' ? 4 : f === 'ip6' ? 6 : null);

/**
 * What `nft -j list ruleset` prints (libnftables-json(5)): tables of ip, ip6 and inet, filter, route and nat chains, matches of
 * interfaces, addresses, protocols, ports, ICMP types, states, hours and days, sets, maps to verdicts, rates, logs, counters and the
 * usual verdicts. Everything else is named, and stays in the rules as something that may or may not match. Throws NftReadError.
 */
export function readNftJson(text: string): NftReading {
  if (text.length > 64 * 1024 * 1024) throw new NftReadError('too large');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new NftReadError('not JSON');
  }
  const file = fileSchema.safeParse(value);
  if (!file.success) throw new NftReadError('no ruleset');
  const chains: (Chain & { rules: Chain['rules'][number][] })[] = [];
  const strange: string[] = [];
  const unknown: NftReading['unknown'] = [];
  const sets = new Map<string, NamedSet>();
  for (const item of file.data.nftables) {
    const set = setSchema.safeParse(item['set'] ?? item['map']);
    // A set that changes by itself holds what nobody knows beforehand.
    if (set.success)
      sets.set(`${set.data.family} ${set.data.table} @${set.data.name}`, {
        type: set.data.type,
        elements: set.data.elem ?? [],
        moves: (set.data.flags ?? []).some((f) => f === 'dynamic' || f === 'timeout'),
        map: item['map'] !== undefined,
      });
  }
  for (const item of file.data.nftables) {
    if (item['flowtable'] !== undefined) strange.push('a flow table');
    const found = chainSchema.safeParse(item['chain']);
    if (!found.success) continue;
    const c = found.data;
    if (c.family === 'arp' || c.family === 'bridge' || c.family === 'netdev') {
      if (c.hook !== undefined) strange.push(`table ${c.family} ${c.table}`);
      continue;
    }
    const hook = hooks.find((h): h is Hook => h === c.hook);
    if (c.hook !== undefined && !hook) strange.push(`hook ${c.hook} of ${c.table}`);
    chains.push({
      id: `${c.family} ${c.table}/${c.name}`,
      table: c.table,
      name: c.name,
      family: familyOf(c.family),
      hook: hook
        ? {
            at: hook,
            type: c.type === 'nat' ? 'nat' : 'filter',
            priority: c.prio ?? 0,
            policy: c.policy === 'drop' ? 'drop' : 'accept',
          }
        : null,
      rules: [],
    });
  }
  const byId = new Map(chains.map((c) => [c.id, c]));
  for (const item of file.data.nftables) {
    if (item['rule'] === undefined) continue;
    const found = ruleSchema.safeParse(item['rule']);
    if (!found.success) {
      strange.push('a rule of another shape');
      continue;
    }
    const r = found.data;
    const chain = byId.get(`${r.family} ${r.table}/${r.chain}`);
    if (!chain) continue;
    const id = `${r.table}/${r.chain} ${r.handle}`;
    const rules = readRule(r.expr, {
      id,
      comment: r.comment ?? '',
      chainOf: (name) => `${r.family} ${r.table}/${name}`,
      setOf: (name) => sets.get(`${r.family} ${r.table} ${name}`),
    });
    for (const rule of rules) {
      chain.rules.push(rule);
      for (const c of rule.when) if (c.unknown !== undefined) unknown.push({ rule: id, what: c.unknown });
      if (rule.verdict.kind === 'unknown') unknown.push({ rule: id, what: rule.verdict.what });
    }
  }
  return { ruleset: { chains, strange: [...new Set(strange)] }, unknown };
}
