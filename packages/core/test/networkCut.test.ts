/**
 * What a power cut does, against a second reckoning that walks every order and every manner of asking by itself, world after
 * world. How a server chooses is held against the real one in tests/oracle/dhcp.oracle.ts.
 */
import fc from 'fast-check';
import { allot, hardwareHash, type Pool } from '@zb/core/network/allot';
import { cutPower } from '@zb/core/network/cut';
import { argue } from '@zb/core/network/cutArgue';
import { countOrders, worldsOf } from '@zb/core/network/cutCount';
import { cutScene, type CutWay, type Returning } from '@zb/core/network/cutWorld';
import { blankNetwork, hostSchema, type Host, type Network } from '@zb/core/model/network';
import { runs } from './runs';

const card = (n: number): string =>
  `02:00:00:00:${Math.floor(n / 256)
    .toString(16)
    .padStart(2, '0')}:${(n % 256).toString(16).padStart(2, '0')}`;

/** The worlds one by one: an order of arrivals, and for each host whether it asks for what it had. */
function* worlds(
  returning: readonly Returning[],
  way: CutWay,
): Generator<{ order: Returning[]; again: Map<string, boolean> }> {
  function* orders(left: readonly Returning[]): Generator<Returning[]> {
    if (left.length === 0) yield [];
    for (const r of left) for (const rest of orders(left.filter((x) => x !== r))) yield [r, ...rest];
  }
  const open = returning.filter((r) => r.asks && r.asksAgain === null && !way.remembers);
  for (const order of orders(returning))
    for (let bits = 0; bits < 1 << open.length; bits += 1)
      yield {
        order,
        again: new Map(returning.map((r) => [r.id, r.asksAgain ?? ((bits >> open.indexOf(r)) & 1) === 1])),
      };
}

/** One world, told plainly: who is where in the end, and who was given an address that somebody stands at. */
function play(order: readonly Returning[], again: ReadonlyMap<string, boolean>, pool: Pool, way: CutWay) {
  const leases = new Map<number, string>();
  if (way.remembers) for (const r of order) if (r.asks && r.had !== undefined) leases.set(r.had, r.id);
  const standing = new Map<number, string>();
  const at = new Map<string, number | undefined>();
  const clash = new Set<string>();
  const arrived = new Set<string>();
  for (const r of order) {
    arrived.add(r.id);
    if (!r.asks) {
      at.set(r.id, r.had);
      if (r.had === undefined) continue;
      const owner = leases.get(r.had);
      if (owner !== undefined && arrived.has(owner)) clash.add(r.id);
      standing.set(r.had, r.id);
      continue;
    }
    const busy = new Set([...leases.keys(), ...(way.looks ? standing.keys() : [])]);
    const last = leases.size > 0 ? Math.max(...leases.keys()) : undefined;
    const mine =
      way.remembers && r.had !== undefined
        ? r.had
        : !way.remembers &&
            again.get(r.id) === true &&
            r.had !== undefined &&
            !busy.has(r.had) &&
            !pool.kept.has(r.had)
          ? r.had
          : allot(pool, r.hardware, busy, last);
    at.set(r.id, mine);
    if (mine === undefined) continue;
    leases.set(mine, r.id);
    const there = standing.get(mine);
    if (there !== undefined) clash.add(there);
  }
  return { at, clash };
}

const arbitrary = fc
  .record({
    size: fc.integer({ min: 2, max: 7 }),
    kept: fc.array(fc.integer({ min: 0, max: 6 }), { maxLength: 2 }),
    manner: fc.constantFrom('by hardware address' as const, 'in order' as const),
    remembers: fc.boolean(),
    looks: fc.boolean(),
    hosts: fc.array(
      fc.record({
        card: fc.integer({ min: 1, max: 60_000 }),
        had: fc.option(fc.integer({ min: 0, max: 6 }), { nil: undefined }),
        asks: fc.oneof(
          { weight: 4, arbitrary: fc.constant(true) },
          { weight: 1, arbitrary: fc.constant(false) },
        ),
        asksAgain: fc.constantFrom(true, false, null),
      }),
      { minLength: 1, maxLength: 4 },
    ),
  })
  .map(({ size, kept, manner, remembers, looks, hosts }) => {
    const from = 0x0a000064;
    const pool: Pool = {
      from,
      to: from + size - 1,
      manner,
      kept: new Set(kept.filter((k) => k < size).map((k) => from + k)),
    };
    const taken = new Set<number>();
    const returning = hosts.map((h, i): Returning => {
      // Two hosts never had the same address, and nobody had one that was kept for another.
      const had =
        h.had === undefined || h.had >= size || taken.has(h.had) || pool.kept.has(from + h.had)
          ? undefined
          : from + h.had;
      if (h.had !== undefined) taken.add(h.had);
      return { id: `h${i}`, hardware: card(h.card), had, asks: h.asks, asksAgain: h.asksAgain };
    });
    return { pool, returning, way: { manner, remembers, looks } satisfies CutWay };
  });

test('every world counted, as they are when each is played by itself', () => {
  fc.assert(
    fc.property(arbitrary, ({ pool, returning, way }) => {
      const counted = countOrders(returning, pool, way);
      const own = new Map(
        returning.map((r) => [r.id, { same: 0n, moved: 0n, none: 0n, clash: 0n, at: new Set<number>() }]),
      );
      let count = 0n;
      for (const { order, again } of worlds(returning, way)) {
        count += 1n;
        const { at, clash } = play(order, again, pool, way);
        for (const r of returning) {
          const mine = own.get(r.id);
          if (!mine) continue;
          const where = at.get(r.id);
          if (where === undefined && r.asks) mine.none += 1n;
          else if (where !== undefined && r.had !== undefined && where !== r.had) mine.moved += 1n;
          else if (where !== undefined) mine.same += 1n;
          if (where !== undefined) mine.at.add(where);
          if (clash.has(r.id)) mine.clash += 1n;
        }
      }
      expect(worldsOf(returning, way)).toBe(count);
      for (const r of returning) {
        const { ill, ...rest } = counted?.get(r.id) ?? { ill: undefined };
        expect({ id: r.id, ...rest }).toEqual({ id: r.id, ...own.get(r.id) });
        const mine = own.get(r.id);
        // An order that ends ill is named exactly where there is one.
        expect(ill !== undefined).toBe(mine !== undefined && mine.moved + mine.none + mine.clash > 0n);
        if (ill) expect(ill).toContain(r.id);
      }
    }),
    { numRuns: runs(300) },
  );
});

test('what is argued of many never says “same” of a host that moves, nor “may move” of one that does not', () => {
  fc.assert(
    fc.property(arbitrary, ({ pool, returning, way }) => {
      const counted = countOrders(returning, pool, way);
      const said = argue(returning, pool, way, 7);
      for (const r of returning) {
        const truth = counted?.get(r.id);
        const mine = said.get(r.id);
        const moves = truth !== undefined && truth.moved + truth.none > 0n;
        if (mine?.is === 'same') expect({ moves, clash: truth?.clash }).toEqual({ moves: false, clash: 0n });
        if (mine?.is === 'may move') expect(moves).toBe(true);
        if (mine?.clash) expect(truth?.clash).toBeGreaterThan(0n);
      }
    }),
    { numRuns: runs(300) },
  );
});

const NETWORK: Network = {
  ...blankNetwork('n', 'Home'),
  prefix: '192.0.2.0/24',
  gateway: '192.0.2.1',
  pool: { from: '192.0.2.100', to: '192.0.2.199' },
  leaseSeconds: 3600,
  manner: 'by hardware address',
  remembers: false,
};
const host = (id: string, more: Partial<Host>): Host => ({
  ...hostSchema.parse({
    id,
    name: id,
    networkId: 'n',
    hardware: card(id.length * 7 + id.charCodeAt(0)),
    manner: 'pool',
  }),
  ...more,
});

test('who is reserved, fixed outside the pool, or the router itself is where it was, whatever happens', () => {
  const hosts = [
    host('router', { manner: 'fixed', address: '192.0.2.1' }),
    host('kept', { manner: 'reservation', address: '192.0.2.150' }),
    host('fixed', { manner: 'fixed', address: '192.0.2.9' }),
    host('other', { address: '192.0.2.101' }),
    host('unknown', { manner: 'not known', address: '192.0.2.77' }),
  ];
  const cut = cutPower(NETWORK, hosts);
  const fate = (id: string) => cut.hosts.find((h) => h.id === id)?.fate;
  expect(['router', 'kept', 'fixed'].map(fate)).toEqual(['same', 'same', 'same']);
  expect(fate('unknown')).toBe('not told');
  expect(cut.returning).toBe(1);
  expect(cut.hosts).toHaveLength(hosts.length);
});

test('a cut that lasts longer than the lease forgets it, whatever the server keeps', () => {
  const kept = { ...NETWORK, remembers: true };
  const hosts = [host('a', { address: '192.0.2.100', asksAgain: false })];
  const elsewhere = 100 + (hardwareHash(hosts[0]?.hardware ?? '') % 100) !== 100;
  expect(elsewhere).toBe(true);
  expect(cutPower(kept, hosts).hosts[0]?.fate).toBe('same');
  expect(cutPower(kept, hosts, { outageSeconds: 3600 }).hosts[0]?.fate).toBe('may move');
});

test('what nobody said is played both ways, and said', () => {
  const open = { ...NETWORK, manner: 'not known' as const, remembers: null };
  const cut = cutPower(open, [host('a', { address: '192.0.2.100' }), host('b', { address: '192.0.2.101' })]);
  expect(cut.open).toEqual([
    'how the server chooses',
    'whether the server remembers',
    'whether hosts ask again',
  ]);
  // Two manners, looking or not; with leases remembered two orders, without them two orders times four manners of asking.
  expect(cut.worlds).toBe(4n * (2n + 8n));
});

test('eight hosts are counted exactly; sixty are argued, the same for the same seed', () => {
  const many = (n: number): Host[] =>
    Array.from({ length: n }, (_, i) =>
      host(`h${i}`, { hardware: card(i * 977 + 5), address: `192.0.2.${100 + i}`, asksAgain: false }),
    );
  const eight = cutPower(NETWORK, many(8));
  expect(eight.worlds).toBe(40_320n);
  for (const h of eight.hosts) expect((h.moved ?? 0n) <= 40_320n).toBe(true);
  const sixty = cutPower({ ...NETWORK, manner: 'in order' }, many(60), { seed: 3 });
  expect(sixty.worlds).toBeNull();
  expect(sixty.hosts.some((h) => h.fate === 'may move')).toBe(true);
  expect(cutPower({ ...NETWORK, manner: 'in order' }, many(60), { seed: 3 })).toEqual(sixty);
});

test('a full pool leaves the last without an address', () => {
  const small = { ...NETWORK, pool: { from: '192.0.2.100', to: '192.0.2.101' } };
  const cut = cutPower(
    small,
    ['a', 'bb', 'ccc'].map((id) => host(id, { asksAgain: false })),
  );
  expect(cut.worlds).toBe(6n);
  // In each order exactly one of three is left over.
  expect(cut.hosts.reduce((n, h) => n + (h.none ?? 0n), 0n)).toBe(6n);
});

test('without a pool nothing is told of those that ask', () => {
  expect(cutPower({ ...NETWORK, pool: null }, [host('a', {})]).hosts).toMatchObject([{ fate: 'not told' }]);
  expect(cutScene({ ...NETWORK, pool: null }, [host('a', {})], 60).pool).toBeUndefined();
});
