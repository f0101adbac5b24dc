/**
 * Guests from one pot: sums against adding up one by one, ten sets by hand, the smallest change against trying every change,
 * share-outs over sockets against every share-out, what is written and what is read. virt-xml-validate and isoinfo take what is
 * written in tests/oracle/guests.oracle.ts.
 */
import fc from 'fast-check';
import loadHighs from 'highs';
import { solverFrom } from '@zb/core/assign/highs';
import type { SolveLp } from '@zb/core/assign/lp';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { bookingGuests } from '@zb/core/demo/guests';
import { checkGuests } from '@zb/core/guests/check';
import { draftGuests, guestsOf } from '@zb/core/guests/forBox';
import { potOf } from '@zb/core/guests/pot';
import { DomainReadError } from '@zb/core/guests/read/domain';
import { leftOf, readHost } from '@zb/core/guests/read/tables';
import { takeSeen } from '@zb/core/guests/read/take';
import { hostReleases } from '@zb/core/guests/releases';
import { changedPlan, mendGuests, setFits, type Change } from '@zb/core/guests/repair';
import { placeOnSockets } from '@zb/core/guests/sockets';
import { commitGrade, coreSum, memorySum, poolSums } from '@zb/core/guests/sums';
import { trimEverywhere } from '@zb/core/guests/trim';
import { turnsOf } from '@zb/core/guests/turns';
import { forecastOf } from '@zb/core/guests/volume';
import { domainXml } from '@zb/core/guests/write/domain';
import { guestFiles } from '@zb/core/guests/write/forms';
import { seedFiles, seedIso } from '@zb/core/guests/write/seed';
import { guestDraftOf, guestOfDraft, seedDraftOf, seedOfDraft } from '@zb/core/model/guestDraft';
import { guestPlanSchema, type Guest, type GuestPlan } from '@zb/core/model/guests';
import { readDomains } from '@zb/core/guests/read/domain';
import { runs } from './runs';

const MIB = 1024 ** 2;
const GIB = 1024 ** 3;
let solve: SolveLp;
beforeAll(async () => {
  solve = solverFrom(await loadHighs());
});

const KNOWN = { cores: 4, threads: 8, memory: 16 * GIB };
/** A plan of guests with memory in GiB; the host keeps 2 GiB and nothing for each guest. */
const plan = (guests: (Partial<Guest> & { gib: number })[], more: object = {}): GuestPlan =>
  guestPlanSchema.parse({
    pot: { baseBytes: 2 * GIB, cacheBytes: 0, perGuestBytes: 0 },
    pools: [{ id: 'p', name: 'p', bytes: 100 * GIB }],
    guests: guests.map(({ gib, ...g }, i) => ({
      id: `g${i}`,
      name: `g${i}`,
      cores: 1,
      memoryBytes: gib * GIB,
      ...g,
    })),
    ...more,
  });
const disk = (gib: number, more: object = {}) => ({
  id: `d${gib}`,
  bytes: gib * GIB,
  poolId: 'p',
  thin: false,
  ...more,
});
const codes = (p: GuestPlan, known = KNOWN): string[] =>
  checkGuests(p, potOf(p, known), true).map((f) => `${f.grade} ${f.fault.code}`);

/** Ten sets by hand, with the arithmetic beside each: what is left of memory, and what is said. */
const BY_HAND: { what: string; of: GuestPlan; free: number; says: string[] }[] = [
  { what: '16 − 2 − (4 + 4) = 6', of: plan([{ gib: 4 }, { gib: 4 }]), free: 6, says: [] },
  { what: '16 − 2 − (8 + 6) = 0', of: plan([{ gib: 8 }, { gib: 6 }]), free: 0, says: [] },
  {
    what: '16 − 2 − (8 + 7) = −1',
    of: plan([{ gib: 8 }, { gib: 7 }]),
    free: -1,
    says: ['stop too little memory'],
  },
  {
    what: '14 − (8 + 8) = −2; floors 14 − (6 + 4) = 4; in turn: 8, then 6 + 8 = 14',
    of: plan([
      { gib: 8, floorBytes: 6 * GIB },
      { gib: 8, floorBytes: 4 * GIB },
    ]),
    free: -2,
    says: ['check fits only given back', 'check all at once do not fit'],
  },
  {
    what: 'the same, the second begins with 8 beside a first that gives back to 7 alone: 15 of 14',
    of: plan([
      { gib: 8, floorBytes: 7 * GIB },
      { gib: 8, floorBytes: 4 * GIB },
    ]),
    free: -2,
    says: ['stop in turn do not fit', 'check fits only given back', 'check all at once do not fit'],
  },
  { what: 'one put aside: 14 − 8 = 6', of: plan([{ gib: 8 }, { gib: 12, on: false }]), free: 6, says: [] },
  {
    what: '9 cores on 8 threads less one: 9 / 7 = 1.3',
    of: plan([{ gib: 1, cores: 9 }]),
    free: 13,
    says: ['stop more cores than threads'],
  },
  {
    what: '5 × 6 = 30 cores on 7: 4.3',
    of: plan(Array.from({ length: 5 }, () => ({ gib: 1, cores: 6 }))),
    free: 9,
    says: ['note cores over-committed'],
  },
  {
    what: 'disks 60 + 50 of 100',
    of: plan([
      { gib: 1, disks: [disk(60)] as never },
      { gib: 1, disks: [disk(50)] as never },
    ]),
    free: 12,
    says: ['stop pool too small'],
  },
  {
    what: 'thin 80 + 80 of 100, 30 + 30 written: promised 1.6 times, 40 free',
    of: plan([
      { gib: 1, disks: [disk(80, { thin: true, usedBytes: 30 * GIB })] as never },
      { gib: 1, disks: [disk(80, { thin: true, usedBytes: 30 * GIB })] as never },
    ]),
    free: 12,
    says: ['note promised twice'],
  },
];

describe('sets by hand', () => {
  it.each(BY_HAND)('$what', ({ of, free, says }) => {
    expect(memorySum(of, potOf(of, KNOWN))?.free).toBe(free * GIB);
    expect(codes(of)).toEqual(says);
  });
  it('have the grade that is usual for so many cores to a thread', () => {
    // Common practice, no source: 1, 2, 4, 8.
    expect([1, 1.01, 2, 2.5, 4, 4.1, 8, 8.1].map(commitGrade)).toEqual([
      'none',
      'light',
      'light',
      'usual',
      'usual',
      'heavy',
      'heavy',
      'too much',
    ]);
  });
});

const guestArbitrary = (most: number): fc.Arbitrary<GuestPlan['guests']> =>
  fc
    .array(
      fc.record({
        on: fc.boolean(),
        cores: fc.integer({ min: 1, max: 6 }),
        memory: fc.integer({ min: 1, max: 8 }),
        least: fc.option(fc.integer({ min: 1, max: 8 })),
        weight: fc.integer({ min: 1, max: 10 }),
        disks: fc.array(
          fc.record({
            gib: fc.integer({ min: 1, max: 40 }),
            pool: fc.constantFrom('p', 'q'),
            thin: fc.boolean(),
            used: fc.option(fc.integer({ min: 0, max: 10 })),
          }),
          { maxLength: 2 },
        ),
      }),
      { minLength: 1, maxLength: most },
    )
    .map((list) =>
      guestPlanSchema.shape.guests.parse(
        list.map((g, i) => ({
          id: `g${i}`,
          name: `g${i}`,
          on: g.on,
          cores: g.cores,
          memoryBytes: g.memory * GIB,
          leastBytes: g.least === null ? null : Math.min(g.least, g.memory) * GIB,
          weight: g.weight,
          disks: g.disks.map((d, j) => ({
            id: `d${i}${j}`,
            bytes: d.gib * GIB,
            poolId: d.pool,
            thin: d.thin,
            usedBytes: d.used === null ? null : Math.min(d.used, d.gib) * GIB,
          })),
        })),
      ),
    );
const POOLS = [
  { id: 'p', name: 'p', bytes: 40 * GIB },
  { id: 'q', name: 'q', bytes: 30 * GIB, thin: false },
];
const small = (guests: GuestPlan['guests']): GuestPlan =>
  guestPlanSchema.parse({
    pot: { memoryBytes: 14 * GIB, baseBytes: 2 * GIB, cacheBytes: 0, perGuestBytes: 0, threads: 8 },
    pools: POOLS,
    guests,
  });

describe('sums', () => {
  it('are those of adding up one by one', () => {
    fc.assert(
      fc.property(guestArbitrary(6), (guests) => {
        const p = small(guests);
        const pot = potOf(p, KNOWN);
        let most = 0;
        let cores = 0;
        for (const g of guests) {
          if (!g.on) continue;
          most += g.memoryBytes;
          cores += g.cores;
        }
        expect(memorySum(p, pot)?.free).toBe(12 * GIB - most);
        expect(coreSum(p, pot)?.cores).toBe(cores);
        for (const s of poolSums(p)) {
          let taken = 0;
          for (const g of guests)
            for (const d of g.disks)
              if (d.poolId === s.pool.id) taken += d.thin && s.pool.thin ? (d.usedBytes ?? 0) : d.bytes;
          expect(s.free).toBe(s.pool.bytes - taken);
        }
      }),
      { numRuns: runs(100) },
    );
  });
  it('of a pool that grows foretell the day it is full, as day after day does', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            gib: fc.integer({ min: 1, max: 60 }),
            used: fc.integer({ min: 0, max: 20 }),
            grows: fc.integer({ min: 0, max: 3 }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        (list) => {
          const p = plan([
            {
              gib: 1,
              disks: list.map((d, i) => ({
                id: `d${i}`,
                bytes: d.gib * GIB,
                poolId: 'p',
                thin: true,
                usedBytes: Math.min(d.used, d.gib) * GIB,
                growsPerDay: d.grows * GIB,
              })),
            },
          ]);
          const [sum] = poolSums(p);
          const used = list.map((d) => Math.min(d.used, d.gib));
          let day = 0;
          const total = (): number => used.reduce((s, u) => s + u, 0);
          while (total() < 100 && day < 400) {
            list.forEach((d, i) => (used[i] = Math.min(d.gib, (used[i] ?? 0) + d.grows)));
            day += 1;
          }
          if (total() < 100) expect(sum?.daysLeft).toBeNull();
          else expect(Math.abs((sum?.daysLeft ?? -9) - day)).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: runs(100) },
    );
  });
});

/** Every change to every guest, memory in whole GiB: what touches fewest, then matters least, then changes least. `only`: these guests are touched, and no others. */
function byTrying(
  p: GuestPlan,
  only?: ReadonlySet<string>,
): { touched: number; weight: number; mebibytes: number } | null {
  const pot = potOf(p, KNOWN);
  let best: { touched: number; weight: number; mebibytes: number } | null = null;
  const options = p.guests.map((g): { changes: Change[]; mebibytes: number }[] => {
    const out: { changes: Change[]; mebibytes: number }[] = [
      { changes: [{ kind: 'left out', guest: g.id }], mebibytes: g.memoryBytes / MIB },
    ];
    const memory = [0];
    if (g.on)
      for (let m = GIB; m <= g.memoryBytes - (g.leastBytes ?? g.memoryBytes); m += GIB) memory.push(m);
    let disks: { changes: Change[]; mebibytes: number }[] = [{ changes: [], mebibytes: 0 }];
    for (const d of g.disks) {
      const pool = p.pools.find((x) => x.id === d.poolId);
      const ways: { changes: Change[]; mebibytes: number }[] = [{ changes: [], mebibytes: 0 }];
      if (!(d.thin && pool?.thin) && pool?.thin && d.usedBytes !== null && d.usedBytes < d.bytes)
        ways.push({ changes: [{ kind: 'disk thin', guest: g.id, disk: d.id, saves: 0 }], mebibytes: 0 });
      for (const x of p.pools)
        if (x.id !== d.poolId)
          ways.push({
            changes: [{ kind: 'disk moved', guest: g.id, disk: d.id, from: d.poolId, to: x.id, bytes: 0 }],
            mebibytes: (d.thin && x.thin ? (d.usedBytes ?? 0) : d.bytes) / MIB,
          });
      disks = disks.flatMap((a) =>
        ways.map((w) => ({ changes: [...a.changes, ...w.changes], mebibytes: a.mebibytes + w.mebibytes })),
      );
    }
    for (const m of memory)
      for (const d of disks) {
        const changes: Change[] = [
          ...(m > 0
            ? [{ kind: 'less memory' as const, guest: g.id, from: g.memoryBytes, to: g.memoryBytes - m }]
            : []),
          ...d.changes,
        ];
        out.push({ changes, mebibytes: m / MIB + d.mebibytes });
      }
    return out;
  });
  const rec = (i: number, changes: Change[], touched: number, weight: number, mebibytes: number): void => {
    if (
      best &&
      (touched > best.touched ||
        (touched === best.touched &&
          (weight > best.weight || (weight === best.weight && mebibytes >= best.mebibytes))))
    )
      return;
    const of = options[i];
    const g = p.guests[i];
    if (!of || !g) {
      if (setFits(changedPlan(p, changes), pot)) best = { touched, weight, mebibytes };
      return;
    }
    for (const o of of) {
      const any = o.changes.length > 0;
      if (only && any !== only.has(g.id)) continue;
      rec(
        i + 1,
        [...changes, ...o.changes],
        touched + (any ? 1 : 0),
        weight + (any ? g.weight : 0),
        mebibytes + o.mebibytes,
      );
    }
  };
  rec(0, [], 0, 0, 0);
  return best;
}

describe('the smallest change', () => {
  it('is that of trying every one', () => {
    fc.assert(
      fc.property(guestArbitrary(3), (guests) => {
        const p = small(guests);
        const pot = potOf(p, KNOWN);
        const found = mendGuests(p, pot, solve);
        if (setFits(p, pot)) return expect(found.code).toBe('fits already');
        const best = byTrying(p);
        if (found.code !== 'mended') return expect([found.code, best]).toEqual(['cannot be mended', null]);
        const { touched, weight, mebibytes, plan: after } = found.mended;
        expect({ touched, weight }).toEqual({ touched: best?.touched, weight: best?.weight });
        // Of the guests that are touched, as little is changed as will do.
        expect(mebibytes).toBe(byTrying(p, new Set(found.mended.changes.map((c) => c.guest)))?.mebibytes);
        expect(setFits(after, pot)).toBe(true);
      }),
      { numRuns: runs(120) },
    );
  });
  it('of the booking host leaves its trial out, and takes it back where there is more memory', () => {
    const p = bookingGuests();
    const pot = potOf(p, { cores: 6, threads: 6, memory: 8 * GIB });
    const found = mendGuests(p, pot, solve);
    expect(found.code === 'mended' && found.mended.changes).toEqual([{ kind: 'left out', guest: 'trial' }]);
    expect(mendGuests(p, potOf(p, { cores: 6, threads: 6, memory: 16 * GIB }), solve).code).toBe(
      'fits already',
    );
  });
  // What is short lies between what whole MiB can give and what a guest can spare: the last half of one makes it fit.
  it('is found to the byte, and “no change” is said only where no byte is left to give', () => {
    const left = 14 * GIB;
    const of = (short: number): GuestPlan =>
      plan([{ gib: 0, memoryBytes: left + short, leastBytes: left + short - 2.5 * MIB }]);
    for (const short of [2.5 * MIB, 2.5 * MIB - 1, 2.25 * MIB, 2 * MIB + 1]) {
      const p = of(short);
      const found = mendGuests(p, potOf(p, KNOWN), solve);
      expect(found.code === 'mended' && found.mended.changes.map((c) => c.kind)).toEqual(['less memory']);
    }
    const p = of(2.5 * MIB + 1);
    const found = mendGuests(p, potOf(p, KNOWN), solve);
    expect(found.code === 'mended' && found.mended.changes.map((c) => c.kind)).toEqual(['left out']);
  });
  it('of disks is found to the byte', () => {
    const d = { id: 'd', poolId: 'p', thin: false, growsPerDay: 0 };
    const p = plan([{ gib: 1, disks: [{ ...d, bytes: 100 * GIB + 700_000, usedBytes: 100 * GIB }] }], {
      pools: [{ id: 'p', name: 'p', bytes: 100 * GIB, thin: true }],
    });
    const found = mendGuests(p, potOf(p, KNOWN), solve);
    expect(found.code === 'mended' && found.mended.changes.map((c) => c.kind)).toEqual(['disk thin']);
  });
});

describe('a little less for every guest', () => {
  it('takes the same share of what each can spare, leaves nobody out, and fits', () => {
    fc.assert(
      fc.property(guestArbitrary(4), (guests) => {
        const p = small(guests);
        const pot = potOf(p, KNOWN);
        const found = trimEverywhere(p, pot, solve);
        const short = -(memorySum(p, pot)?.free ?? 0);
        const spare = p.guests
          .filter((g) => g.on)
          .map((g) => g.memoryBytes - Math.min(g.memoryBytes, g.leastBytes ?? g.memoryBytes));
        const all = spare.reduce((a, b) => a + b, 0);
        if (short <= 0 || all < short || spare.filter((s) => s > 0).length < 2)
          return expect(found).toBeNull();
        if (found === null) return;
        expect(setFits(found.plan, pot)).toBe(true);
        expect(found.changes.map((c) => c.kind)).not.toContain('left out');
        const less = found.changes.flatMap((c) => (c.kind === 'less memory' ? [c] : []));
        expect(less).toHaveLength(spare.filter((s) => s > 0).length);
        for (const c of less) {
          const g = p.guests.find((x) => x.id === c.guest);
          const mine = (g?.memoryBytes ?? 0) - (g?.leastBytes ?? 0);
          // To the next MiB, and never below what it works with.
          expect(Math.abs((c.from - c.to) / mine - short / all)).toBeLessThanOrEqual(MIB / mine);
          expect(c.to).toBeGreaterThanOrEqual(g?.leastBytes ?? 0);
        }
      }),
      { numRuns: runs(120) },
    );
  });
  // By hand: 14 GiB for 8 + 8; 2 short, and they can spare 4 and 2: two thirds from the first, one third from the second.
  it('is two thirds and one third where one can spare twice as much as the other', () => {
    const p = plan([
      { gib: 8, leastBytes: 4 * GIB },
      { gib: 8, leastBytes: 6 * GIB },
    ]);
    expect(
      trimEverywhere(p, potOf(p, KNOWN), solve)?.changes.map(
        (c) => c.kind === 'less memory' && (c.from - c.to) / MIB,
      ),
    ).toEqual([1366, 683]);
  });
});

it('guests go onto sockets wherever some share-out does, and nowhere else', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 7 }),
      fc.integer({ min: 2, max: 3 }),
      (sizes, sockets) => {
        const p = plan(
          sizes.map((gib) => ({ gib })),
          {
            pot: {
              baseBytes: 0,
              cacheBytes: 0,
              perGuestBytes: 0,
              sockets,
              nodeBytes: Array.from({ length: sockets }, () => 10 * GIB),
            },
          },
        );
        const placed = placeOnSockets(p, potOf(p, { ...KNOWN, memory: sockets * 10 * GIB }));
        let some = false;
        for (let k = 0; k < sockets ** sizes.length && !some; k += 1) {
          const room = Array.from({ length: sockets }, () => 10);
          let rest = k;
          for (const s of sizes) {
            room[rest % sockets] = (room[rest % sockets] ?? 0) - s;
            rest = Math.floor(rest / sockets);
          }
          some = room.every((r) => r >= 0);
        }
        expect(placed.left.length === 0).toBe(some);
        expect(placed.proven).toBe(true);
      },
    ),
    { numRuns: runs(100) },
  );
});

it('guests begin in turn, and each turn is told with what it lacks', () => {
  const p = plan([
    { gib: 6, order: 20, delaySeconds: 40, floorBytes: 4 * GIB },
    { gib: 8, order: 10, delaySeconds: 60 },
    { gib: 3, order: 30 },
    { gib: 9, autostart: false },
  ]);
  const turns = turnsOf(p, potOf(p, KNOWN));
  // 14 GiB: 8; then 8 + 6 = 14; then 8 + 4 + 3 = 15, one short; at once 8 + 6 + 3 = 17, three short.
  expect(turns.map((t) => [t.guest.id, t.at, t.short / GIB, t.shortAtOnce / GIB])).toEqual([
    ['g1', 0, 0, 0],
    ['g0', 60, 0, 0],
    ['g2', 100, 1, 3],
  ]);
});

describe('devices', () => {
  const devices = [
    { id: 'a', name: 'card a', address: '0000:03:00.0', group: 7 },
    { id: 'b', name: 'card b', address: '0000:03:00.1', group: 7 },
    { id: 'h', name: 'disks', address: '0000:00:17.0', group: 9, host: true },
  ];
  const of = (handed: string[][], pot: object = { handing: true }): string[] =>
    codes(
      plan(
        handed.map((d) => ({ gib: 1, devices: d })),
        { devices, pot: { baseBytes: 0, cacheBytes: 0, perGuestBytes: 0, ...pot } },
      ),
    );
  it('have one owner, and groups are not parted', () => {
    expect(of([['a', 'b']])).toEqual([]);
    expect(of([['a'], ['a']])).toEqual(expect.arrayContaining(['stop device twice', 'stop group parted']));
    expect(of([['a'], ['b']])).toEqual(['stop group parted']);
    expect(of([['h']])).toEqual(['stop device of the host']);
    expect(of([['a']], { handing: false })).toEqual(['stop no handing']);
    expect(of([['a']], { handing: null })).toEqual(['check handing not known']);
    expect(of([['x']])).toEqual(['stop not there']);
  });
});

describe('what is written', () => {
  const p = bookingGuests();
  const pot = potOf(p, KNOWN);
  const booking = p.guests[0] as Guest;
  it('of a guest is read back as it was decided', () => {
    const [seen] = readDomains(domainXml(p, pot, booking));
    expect(seen).toMatchObject({ name: 'booking', cores: 2, memoryBytes: 2.5 * GIB });
    expect(seen?.disks.map((d) => d.file)).toContain('/srv/guests/booking-0.qcow2');
    const odd = { ...booking, purpose: `<&"'> ]]> \u0001` };
    expect(readDomains(domainXml(p, pot, odd))).toHaveLength(1);
  });
  it('of a first boot has keys or a hash, and no password', () => {
    const text = seedFiles(booking)
      .map((f) => f.text)
      .join('');
    expect(text).toContain('lock_passwd: true');
    expect(text).toContain('ssh_pwauth: false');
    const form = seedDraftOf(booking);
    expect(seedOfDraft.safeParse({ ...form, hash: 'let me in' }).success).toBe(false);
    expect(seedOfDraft.safeParse({ ...form, hash: '$6$abcdefgh$0123456789abcdef' }).success).toBe(true);
    expect(seedOfDraft.parse(form)).toEqual(booking.seed);
    const iso = seedIso(booking);
    expect(iso.length % 2048).toBe(0);
  });
  it('is a file for each guest, network and seed', () => {
    expect(guestFiles(p, pot).map((f) => f.path)).toEqual(
      expect.arrayContaining([
        'guests.md',
        'guests/weather.xml',
        'networks/trials.xml',
        'seeds/booking-seed.iso',
      ]),
    );
  });
  it('of a guest’s form comes back as it was', () => {
    for (const g of p.guests) expect(guestOfDraft(g).parse(guestDraftOf(g))).toEqual(g);
    expect(guestOfDraft(booking).safeParse({ ...guestDraftOf(booking), memory: '3' }).success).toBe(false);
  });
});

describe('a running host', () => {
  // Shapes of virsh(1): nodeinfo, list --all, dominfo, pool-list --details.
  const TEXT = `
CPU model:           x86_64
CPU(s):              8
CPU frequency:       3600 MHz
CPU socket(s):       1
Core(s) per socket:  4
Thread(s) per core:  2
NUMA cell(s):        1
Memory size:         16384000 KiB

 Id   Name            State
--------------------------------
 1    booking         running
 -    trial           shut off

Id:             1
Name:           booking
State:          running
CPU(s):         2
Max memory:     2097152 KiB
Used memory:    2097152 KiB

 Name      State    Autostart   Persistent   Capacity     Allocation   Available
-----------------------------------------------------------------------------------
 default   running  yes         yes          233.18 GiB   61.40 GiB    171.78 GiB
something else entirely
`;
  it('is read with what it has left', () => {
    const host = readHost(TEXT);
    expect(host).toMatchObject({ threads: 8, cores: 4, sockets: 1, memoryBytes: 16_384_000 * 1024 });
    expect(host.guests.map((g) => [g.name, g.running, g.cores])).toEqual([
      ['booking', true, 2],
      ['trial', false, null],
    ]);
    expect(host.unread).toEqual(['something else entirely', 'CPU model:           x86_64'].slice(0, 1));
    const left = leftOf(host, GIB, 0);
    // 16,384,000 KiB − 1 GiB − 2 GiB.
    expect(left.memory).toBe(16_384_000 * 1024 - 3 * GIB);
    expect(left.pools).toEqual([{ name: 'default', free: Math.round(171.78 * GIB) }]);
    const taken = takeSeen(guestPlanSchema.parse({}), host);
    expect(taken.guests.map((g) => [g.name, g.on])).toEqual([
      ['booking', true],
      ['trial', false],
    ]);
  });
  it('is refused where nothing of one is there, and never followed outside itself', () => {
    for (const t of ['', 'hello', '<html/>', '<domain><name>x</name>'])
      expect(() => readHost(t)).toThrow(DomainReadError);
    expect(() =>
      readDomains('<!DOCTYPE d [<!ENTITY a SYSTEM "file:///etc/passwd">]><domain><name>&a;</name></domain>'),
    ).toThrow(DomainReadError);
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (t) => {
        try {
          readHost(`Name: a\nCPU(s): 1\n${t}`);
        } catch (error) {
          expect(error).toBeInstanceOf(DomainReadError);
        }
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('on the bench', () => {
  const bench = saltmarshHall();
  const box = bench.boxes.find((b) => b.id === 'booking-host');
  it('the booking host has a guest too many', () => {
    const found = box && guestsOf(bench, box);
    expect(found?.findings[0]).toMatchObject({ grade: 'stop', fault: { code: 'too little memory' } });
    expect(found?.findings.map((f) => f.fault.code)).toContain('volume fills');
  });
  it('newer releases of a host system may let its processor go', () => {
    const found = box ? hostReleases(bench, box) : [];
    expect(found.length).toBeGreaterThan(1);
    expect(new Set(found.map((r) => r.release.id)).size).toBe(found.length);
    for (const r of found) expect(r.judged.release.id).toBe(r.release.id);
  });
  it('a pot is laid out of what is known', () => {
    expect(box && draftGuests(bench, box).nets.length).toBeGreaterThan(0);
  });
  it('two readings of a volume foretell when it is full', () => {
    const p = (readings: [string, number][]): GuestPlan =>
      guestPlanSchema.parse({
        volume: {
          bytes: 100 * GIB,
          readings: readings.map(([at, gib], i) => ({ id: `r${i}`, at, usedBytes: gib * GIB })),
        },
      });
    // 30 GiB in 30 days, 40 GiB left.
    expect(
      forecastOf(
        p([
          ['2026-10-01', 30],
          ['2026-10-31', 60],
        ]),
      )?.days,
    ).toBe(40);
    expect(
      forecastOf(
        p([
          ['2026-10-31', 60],
          ['2026-10-01', 30],
        ]),
      )?.days,
    ).toBe(40);
    expect(
      forecastOf(
        p([
          ['2026-10-01', 60],
          ['2026-10-31', 30],
        ]),
      )?.days,
    ).toBeNull();
    expect(forecastOf(p([['2026-10-01', 60]]))?.perDay).toBeNull();
    expect(forecastOf(p([]))).toBeUndefined();
  });
});
