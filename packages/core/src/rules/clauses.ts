import { addressSpans, ofFamily } from '../units/addressLine';
import type { Family } from '../units/ip';
import { joinSpans, point, range, spansOf, type Spans } from '../units/spans';
import type { GatePlan, Hours, ServiceEntry, Side } from '../model/gate';
import { icmpTypes, PROTOCOL } from './protocols';
import type { Clause } from './ruleset';

/** Clauses that a list of services makes: one for each protocol, and one that asks nothing where there is none. */
export function serviceClauses(entries: readonly ServiceEntry[]): Clause[] {
  if (entries.length === 0) return [{ spans: {} }];
  const out: Clause[] = [];
  for (const name of ['tcp', 'udp', 'sctp', 'icmp', 'icmpv6'] as const) {
    const mine = entries.filter((e) => e.protocol === name);
    if (mine.length === 0) continue;
    const proto = point(PROTOCOL[name]);
    const isIcmp = name === 'icmp' || name === 'icmpv6';
    const whole = mine.some((e) => (isIcmp ? e.types.length === 0 : e.ports === null));
    const dport: Spans = isIcmp
      ? icmpTypes(...mine.flatMap((e) => e.types))
      : spansOf(mine.flatMap((e) => (e.ports ? [range(...e.ports)[0] ?? [0n, 0n]] : [])));
    out.push({ spans: whole ? { proto } : { proto, dport } });
  }
  return out;
}

/** Entries of service sets by their ids; undefined where a set is not there. */
export function servicesOf(plan: GatePlan, ids: readonly string[]): ServiceEntry[] {
  return ids.flatMap((i) => plan.services.find((s) => s.id === i)?.entries ?? []);
}

/** What a field is narrowed to in each family, with the names of sets; undefined where a side names no addresses. */
export function sideSpans(
  plan: GatePlan,
  side: Side,
): { of: (family: Family) => { spans: Spans; named: string | undefined } } | undefined {
  if (side.addresses.length === 0) return undefined;
  const sets = side.addresses.flatMap((i) => plan.addresses.find((a) => a.id === i) ?? []);
  const all = addressSpans(sets.flatMap((s) => s.entries));
  const [only] = sets;
  return {
    of: (family) => ({
      spans: ofFamily(all, family),
      named: sets.length === 1 && only ? setName(only.id, family) : undefined,
    }),
  };
}

/** What a set is called in rules: its id with the family behind it. */
export const setName = (id: string, family: Family): string =>
  `${id.replace(/[^A-Za-z0-9_]/g, '_').replace(/^(?=\d)/, 'n')}_${family}`;

const DAY = 86_400;
/** Clauses for hours: a span past midnight is two, the second of them on the days after. */
export function hoursClauses(hours: Hours | null): Clause[] {
  if (!hours) return [{ spans: {} }];
  const days = (list: readonly number[]): Clause['spans'] =>
    list.length === 0 || list.length === 7 ? {} : { day: joinSpans(...list.map((d) => point(d))) };
  const from = hours.from * 60;
  const to = hours.to * 60;
  if (from < to) return [{ spans: { ...days(hours.days), second: range(from, to - 1) } }];
  if (from === to) return [{ spans: days(hours.days) }];
  return [
    { spans: { ...days(hours.days), second: range(from, DAY - 1) } },
    ...(to === 0
      ? []
      : [{ spans: { ...days(hours.days.map((d) => (d + 1) % 7)), second: range(0, to - 1) } }]),
  ];
}
