import type { Host, Network } from '../model/network';
import { formatIp, type Ip } from '../units/ip';
import { firstOf, lastOf, reservedEnds } from '../units/prefix';
import { boxesBegin } from './next';
import { addressOf, inPool, ipOf, parsed } from './parsed';

/** What a stretch of addresses is for. */
export type StretchKind = 'network' | 'broadcast' | 'gateway' | 'host' | 'pool' | 'kept for boxes' | 'free';

/** Addresses in a row that are alike. */
export interface Stretch {
  kind: StretchKind;
  from: string;
  to: string;
  /** How many there are. */
  count: number;
  /** Hosts that live there, by id. */
  hosts: string[];
}

/** The whole of a network's IPv4 addresses in order, nothing left out, nothing twice; empty where it has no prefix. */
export function streetOf(network: Network, hosts: readonly Host[]): Stretch[] {
  const p = parsed(network);
  if (!p.prefix) return [];
  const [low, high] = [firstOf(p.prefix).value, lastOf(p.prefix).value];
  const at = new Map<bigint, string[]>();
  for (const h of hosts) {
    const ip = addressOf(h);
    if (h.networkId !== network.id || ip?.family !== 4 || ip.value < low || ip.value > high) continue;
    const there = at.get(ip.value);
    if (there) there.push(h.id);
    else at.set(ip.value, [h.id]);
  }
  const byId = new Map(hosts.map((h) => [h.id, h]));
  const ends = reservedEnds(p.prefix);
  const boxes = boxesBegin(network)?.value;
  const pool = p.pool && p.pool.to >= low && p.pool.from <= high ? p.pool : undefined;
  // Of those in the pool only such stand out as are not simply handed out.
  const lodger = (value: bigint): boolean =>
    inPool(p, { family: 4, value }) &&
    (at.get(value) ?? []).every((id) => {
      const h = byId.get(id);
      return h !== undefined && h.boxId === null && (h.manner === 'pool' || h.manner === 'not known');
    });
  const kindAt = (value: bigint): StretchKind => {
    if (value === ends?.network.value) return 'network';
    if (value === ends?.broadcast.value) return 'broadcast';
    if (value === p.gateway?.value) return 'gateway';
    if (at.has(value) && !lodger(value)) return 'host';
    if (inPool(p, { family: 4, value })) return 'pool';
    const keptTo = pool && boxes !== undefined && pool.from > boxes ? pool.from : undefined;
    return boxes !== undefined && value >= boxes && (keptTo === undefined || value < keptTo)
      ? 'kept for boxes'
      : 'free';
  };
  // A kind changes only at these: a prefix may hold millions that are alike.
  const borders = new Set<bigint>([low, low + 1n, high]);
  for (const value of at.keys()) borders.add(value).add(value + 1n);
  for (const ip of [p.gateway, ipOf(network.boxesFrom)])
    if (ip?.family === 4) borders.add(ip.value).add(ip.value + 1n);
  if (boxes !== undefined) borders.add(boxes);
  if (pool) borders.add(pool.from).add(pool.to + 1n);
  const starts = [...borders].filter((v) => v >= low && v <= high).sort((a, b) => (a < b ? -1 : 1));
  const out: Stretch[] = [];
  starts.forEach((from, i) => {
    const to = (starts[i + 1] ?? high + 1n) - 1n;
    const kind = kindAt(from);
    const inside = [...at].filter(([v]) => v >= from && v <= to).flatMap(([, ids]) => ids);
    const before = out.at(-1);
    const joins = before?.kind === kind && kind !== 'host' && kind !== 'gateway';
    if (before && joins) {
      before.to = text(to);
      before.count += Number(to - from) + 1;
      before.hosts.push(...inside);
    } else out.push({ kind, from: text(from), to: text(to), count: Number(to - from) + 1, hosts: inside });
  });
  return out;
}

const text = (value: bigint): string => formatIp({ family: 4, value } satisfies Ip);

/**
 * The street with no more stretches than can be drawn: hosts in a row become one stretch, and where that is not enough also
 * what lies between them. A host of `keep` stays by itself.
 */
export function shortened(street: readonly Stretch[], most: number, keep: ReadonlySet<string>): Stretch[] {
  if (street.length <= most) return [...street];
  const alone = (s: Stretch): boolean =>
    s.kind === 'gateway' || s.kind === 'pool' || s.hosts.some((id) => keep.has(id));
  const out: Stretch[] = [];
  for (const s of street) {
    const before = out.at(-1);
    if (before && !alone(before) && !alone(s) && before.kind !== 'network' && s.kind !== 'broadcast') {
      before.to = s.to;
      before.count += s.count;
      before.hosts = [...before.hosts, ...s.hosts];
      if (before.hosts.length > 0) before.kind = 'host';
    } else out.push({ ...s });
  }
  return out;
}
