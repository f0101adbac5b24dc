import type { Host, Network } from '../model/network';
import { formatIp } from '../units/ip';
import { argue } from './cutArgue';
import { countOrders, worldsOf, type Fates } from './cutCount';
import { cutScene, type CutScene, type CutWay } from './cutWorld';
import type { Pool } from './allot';

/** What a power cut does to the address of one host. */
export type CutFate =
  /** Whatever the order, it has the address it had. */
  | 'same'
  /** In some order it has another, or none. */
  | 'may move'
  /** It keeps its address, and in some order another is given the same. */
  | 'shared'
  /** Too many hosts to count, and no argument was found either way. */
  | 'perhaps'
  /** Nobody knows how it has its address. */
  | 'not told';

/** What a cut does to one host. */
export interface HostCut {
  id: string;
  fate: CutFate;
  /** The address it had before; null where nobody knows. */
  had: string | null;
  /** Worlds in which it is somewhere else, has none, or shares its address; null where they were not counted. */
  moved: bigint | null;
  none: bigint | null;
  shared: bigint | null;
  /** Where it may be afterwards, the first of many. */
  at: string[];
  /** A shortest order of returns that ends ill for it, by ids of hosts. */
  ill: string[] | null;
}

/** What a power cut does to a network: every machine comes back, in any order. */
export interface Cut {
  networkId: string;
  /** Worlds that were counted; null where they were too many, and argued instead. */
  worlds: bigint | null;
  /** Hosts whose order matters. */
  returning: number;
  /** What nobody has said and is played both ways. */
  open: ('how the server chooses' | 'whether the server remembers' | 'whether hosts ask again')[];
  hosts: HostCut[];
}

/** So many addresses are named; of the rest it matters only that they are others. */
const NAMED = 6;
const named = (at: Iterable<number>): string[] =>
  [...at]
    .sort((a, b) => a - b)
    .slice(0, NAMED)
    .map((value) => formatIp({ family: 4, value: BigInt(value) }));

interface Sum {
  moved: bigint;
  none: bigint;
  shared: bigint;
  at: Set<number>;
  ill: string[] | undefined;
}

function fateOf({ moved, none, shared }: Sum): CutFate {
  if (moved > 0n || none > 0n) return 'may move';
  return shared > 0n ? 'shared' : 'same';
}

const shorter = (a: string[] | undefined, b: string[] | undefined): string[] | undefined =>
  a && b ? (b.length < a.length ? b : a) : (a ?? b);

function counted(
  scene: CutScene,
  pools: readonly [CutWay, Pool][],
  progress?: (share: number) => void,
): Map<string, Sum> | undefined {
  const sums = new Map<string, Sum>(
    scene.returning.map((r) => [r.id, { moved: 0n, none: 0n, shared: 0n, at: new Set(), ill: undefined }]),
  );
  for (const [n, [way, pool]] of pools.entries()) {
    const fates = countOrders(scene.returning, pool, way, (share) => progress?.((n + share) / pools.length));
    if (!fates) return undefined;
    for (const [id, f] of fates) add(sums.get(id), f);
  }
  return sums;
}

function add(sum: Sum | undefined, f: Fates): void {
  if (!sum) return;
  sum.moved += f.moved;
  sum.none += f.none;
  sum.shared += f.clash;
  for (const a of f.at) sum.at.add(a);
  sum.ill = shorter(sum.ill, f.ill);
}

function argued(scene: CutScene, pools: readonly [CutWay, Pool][], seed: number): HostCut[] {
  const all = pools.map(([way, pool]) => argue(scene.returning, pool, way, seed));
  return scene.returning.map((r) => {
    const mine = all.flatMap((m) => m.get(r.id) ?? []);
    const fate: CutFate = mine.some((m) => m.is === 'may move')
      ? 'may move'
      : mine.some((m) => m.clash)
        ? 'shared'
        : mine.every((m) => m.is === 'same')
          ? 'same'
          : 'perhaps';
    return {
      id: r.id,
      fate,
      had: hadOf(r.had),
      moved: null,
      none: null,
      shared: null,
      at: named(mine.flatMap((m) => [...m.at])),
      ill: mine.reduce<string[] | undefined>((best, m) => shorter(best, m.ill), undefined) ?? null,
    };
  });
}

const hadOf = (had: number | undefined): string | null =>
  had === undefined ? null : formatIp({ family: 4, value: BigInt(had) });

function openOf({ network, returning, ways }: CutScene): Cut['open'] {
  const differ = <T>(of: (way: CutWay) => T): boolean => new Set(ways.map(of)).size > 1;
  return [
    ...(network.manner === 'not known' ? ['how the server chooses' as const] : []),
    ...(differ((w) => w.remembers) ? ['whether the server remembers' as const] : []),
    ...(returning.some((r) => r.asks && r.asksAgain === null) && ways.some((w) => !w.remembers)
      ? ['whether hosts ask again' as const]
      : []),
  ];
}

/** How long the power is gone, seconds; the seed of orders that are tried; and who is told how far it is, 0 to 1. */
export interface CutOptions {
  outageSeconds?: number;
  seed?: number;
  progress?: (share: number) => void;
}

/**
 * Cuts the power of a network: all its hosts return in every order, the pool hands out by the documented behaviour of common
 * servers, and each way of what nobody said is played. Counted exactly while the states can be gone through; beyond that a host
 * is shown to stay by argument, or to move by an order that moves it.
 */
export function cutPower(
  network: Network,
  hosts: readonly Host[],
  { outageSeconds = 600, seed = 1, progress }: CutOptions = {},
): Cut {
  const scene = cutScene(network, hosts, outageSeconds);
  const { returning, ways, pool } = scene;
  const plain = (ids: readonly string[], fate: CutFate): HostCut[] =>
    ids.map((id) => {
      const had = hosts.find((h) => h.id === id)?.address ?? null;
      return { id, fate, had, moved: 0n, none: 0n, shared: 0n, at: had === null ? [] : [had], ill: null };
    });
  const base = {
    networkId: network.id,
    returning: returning.length,
    open: openOf(scene),
  };
  const still = [...plain(scene.certain, 'same'), ...plain(scene.untold, 'not told')];
  if (!pool)
    return {
      ...base,
      worlds: 1n,
      hosts: [
        ...still,
        // Without a pool nobody is told where they get theirs.
        ...plain(
          returning.map((r) => r.id),
          'not told',
        ),
      ],
    };
  const pools = ways.map((way): [CutWay, Pool] => [way, { ...pool, manner: way.manner }]);
  const sums = counted(scene, pools, progress);
  if (!sums) return { ...base, worlds: null, hosts: [...still, ...argued(scene, pools, seed)] };
  return {
    ...base,
    worlds: ways.reduce((n, way) => n + worldsOf(returning, way), 0n),
    hosts: [
      ...still,
      ...returning.map((r): HostCut => {
        const sum = sums.get(r.id) ?? { moved: 0n, none: 0n, shared: 0n, at: new Set(), ill: undefined };
        return {
          id: r.id,
          fate: fateOf(sum),
          had: hadOf(r.had),
          moved: sum.moved,
          none: sum.none,
          shared: sum.shared,
          at: named(sum.at),
          ill: sum.ill ?? null,
        };
      }),
    ],
  };
}
