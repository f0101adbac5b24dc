/**
 * Pools: every byte accounted for, failures against brute force over written blocks, block groups against a plain loop, and
 * worked examples. Real tools make the same pools in tests/oracle/pool.oracle.ts.
 */
import fc from 'fast-check';
import { poolAskSchema, poolDriveSchema, type PoolDrive, type PoolWay } from '@zb/core/model/storage';
import { checkOffer } from '@zb/core/storage/check';
import { poolSteps } from '@zb/core/storage/commands';
import { place, offer, offers, sameWay } from '@zb/core/storage/ways';
import { membersOf, rowsOf } from '@zb/core/storage/placed';
import { unreadableChance } from '@zb/core/storage/rebuild';
import { profilesOf, roomOf } from '@zb/core/storage/room';
import { survivalOf } from '@zb/core/storage/survives';
import { fillGroups, type Profile } from '@zb/core/storage/usable/groups';
import { recordSectors, regions } from '@zb/core/storage/usable/padded';
import { dataOffset, memberRoom } from '@zb/core/storage/usable/plain';
import { runs } from './runs';

const GIB = 1024 ** 3;
const MIB = 1024 ** 2;
/** Drives of a nominal size: SFF-8447, as all makers count (4 TB is 4 000 787 030 016 bytes). */
const nominal = (gb: number): number => (97_696_368 + 1_953_504 * (gb - 50)) * 512;
const drive = (id: string, bytes: number, more: Partial<PoolDrive> = {}): PoolDrive =>
  poolDriveSchema.parse({ id, name: id, bytes, serial: `SN-${id}-0001`, rotational: true, ...more });
const drives = (...bytes: number[]): PoolDrive[] => bytes.map((b, i) => drive(`d${i}`, b));
const four = drives(nominal(4000), nominal(4000), nominal(2000), nominal(1000));
const ask = (d: PoolDrive[]) => poolAskSchema.parse({ drives: d });
const way = (manner: PoolWay['manner'], shape: PoolWay['shape'], level = 1, spare = false): PoolWay => ({
  manner,
  shape,
  level,
  spare,
});

const someDrives = fc
  .array(fc.integer({ min: 3 * GIB, max: 22_000 * GIB }), { minLength: 1, maxLength: 7 })
  .map((b) => drives(...b));
/** Small enough that a loop over single groups is quick. */
const smallDrives = fc.array(fc.integer({ min: 3 * GIB, max: 300 * GIB }), { minLength: 1, maxLength: 6 });

it('of every way all bytes are accounted for, and no drive gives more than it has', () => {
  fc.assert(
    fc.property(someDrives, fc.boolean(), (d, spares) => {
      for (const o of offers(ask(d), { spares })) {
        const taken = o.room.takes.reduce((sum, t) => sum + t.bytes, 0);
        expect(o.room.usable + taken).toBe(o.room.raw);
        expect(o.room.raw).toBe(d.reduce((sum, x) => sum + x.bytes, 0));
        expect(o.room.takes.every((t) => t.bytes > 0)).toBe(true);
        for (const s of o.room.shares) {
          const { id, ...parts } = s;
          expect(Object.values(parts).every((n) => n >= 0)).toBe(true);
          expect(Object.values(parts).reduce((a, b) => a + b, 0)).toBe(d.find((x) => x.id === id)?.bytes);
        }
      }
    }),
    { numRuns: runs(60) },
  );
});

it('no other choice of the drives gives a way more room', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 3 * GIB, max: 9000 * GIB }), { minLength: 2, maxLength: 6 }),
      fc.constantFrom(
        way('plain', 'parity', 1),
        way('plain', 'mirror', 2),
        way('plain', 'pairs', 2),
        way('padded', 'parity', 1),
        way('padded', 'pairs', 2),
        way('groups', 'copies', 2),
      ),
      (sizes, want) => {
        const d = drives(...sizes);
        const found = place(want, d)?.room.usable ?? 0;
        // Data of a plain row begins on all members where it begins on the first: on a larger one some MiB later.
        const starts = sizes.map((b) => dataOffset(b, 512 * 1024));
        const later =
          want.manner === 'plain' ? sizes.length * (Math.max(...starts) - Math.min(...starts) + MIB) : 0;
        for (let set = 1; set < 1 << d.length; set += 1) {
          const some = d.filter((_, i) => (set >> i) & 1);
          const least = want.shape === 'parity' ? want.level + 2 : want.shape === 'pairs' ? 4 : 2;
          if (some.length < least || (want.shape === 'mirror' && some.length > 2)) continue;
          if (want.shape === 'pairs' && some.length % 2 === 1) continue;
          const room = roomOf({ way: want, rows: rowsOf(want, some), spare: null, left: [] });
          expect(room.usable).toBeLessThanOrEqual(found + later);
        }
      },
    ),
    { numRuns: runs(60) },
  );
});

/** “minimum size for each btrfs device”, as mkfs.btrfs 6.2 prints it for one drive, for all joined, and for every other way. */
const LEAST: Partial<Record<PoolWay['shape'], number>> = { single: 114_294_784, joined: 72_351_744 };

/** Groups one by one, told plainly: what fillGroups does in rounds. */
function plainly(sizes: readonly number[], data: Profile, metadata: Profile): number {
  const STRIPE = 65_536;
  const down = (n: number, u: number) => Math.floor(n / u) * u;
  const whole = sizes.map((s) => down(s, 4096));
  const free = whole.map((s) => s - MIB);
  const total = whole.reduce((a, b) => a + b, 0);
  let usable = 0;
  const group = (p: Profile, order: number[], stripe: number, chunk: number, count: boolean): boolean => {
    const per = p.onOne ? 2 : 1;
    let chosen = order.filter((i) => (free[i] ?? 0) >= STRIPE * per);
    if (p.most > 0) chosen = chosen.slice(0, p.most);
    if (chosen.length < p.least) return false;
    const pieces = p.parity > 0 ? chosen.length - p.parity : (chosen.length * per) / p.copies;
    let each = down(Math.min(...chosen.map((i) => Math.min(free[i] ?? 0, stripe * per))) / per, STRIPE);
    if (each * pieces > chunk)
      each = Math.min(down(Math.ceil(chunk / pieces / (16 * MIB)) * 16 * MIB, STRIPE), each);
    for (const i of chosen) free[i] = (free[i] ?? 0) - each * per;
    if (count) usable += each * pieces;
    return each > 0;
  };
  const last = sizes.map((_, i) => sizes.length - 1 - i);
  group(metadata, last, 8 * MIB, 8 * MIB, false);
  let want = total > 50 * GIB ? GIB : 256 * MIB;
  if (want > total * 0.1) want = Math.max(32 * MIB, down((total * 0.1) / metadata.copies, STRIPE));
  group(metadata, last, want, want, false);
  const chunk = Math.min(10 * GIB, down(total * 0.1, STRIPE));
  const stripe = Math.min(GIB, chunk);
  const per = data.onOne ? 2 : 1;
  for (;;) {
    const order = free
      .map((f, i) => ({ i, f, most: Math.min(f, stripe * per) }))
      .sort((a, b) => b.most - a.most || b.f - a.f || a.i - b.i)
      .map((x) => x.i);
    if (!group(data, order, stripe, chunk, true)) return usable;
  }
}

it('groups given in rounds are the groups given one by one', () => {
  fc.assert(
    fc.property(
      smallDrives,
      fc.constantFrom<PoolWay>(
        way('groups', 'single'),
        way('groups', 'joined'),
        way('groups', 'copies', 2),
        way('groups', 'copies', 3),
        way('groups', 'parity', 1),
        way('groups', 'parity', 2),
      ),
      (sizes, want) => {
        const { data, metadata } = profilesOf(want);
        const sorted = [...sizes].sort((a, b) => a - b);
        const made = fillGroups(sorted, data, metadata);
        const least = LEAST[want.shape] ?? 131_072_000;
        const truth = sorted.some((s) => s < least) ? 0 : plainly(sorted, data, metadata);
        expect(made.data.usable).toBe(truth);
      },
    ),
    { numRuns: runs(150) },
  );
});

/** Sets of `k` of `n` things. */
function* setsOf(n: number, k: number, from = 0): Generator<number[]> {
  if (k === 0) yield [];
  else for (let i = from; i <= n - k; i += 1) for (const rest of setsOf(n, k - 1, i + 1)) yield [i, ...rest];
}

/**
 * Whether everything can surely be read again, piece by piece: rows are one piece each; a block group may lie on any drives
 * it could have been given to.
 */
function readable(want: PoolWay, rows: number[][], gone: ReadonlySet<number>): boolean {
  const left = (on: readonly number[]): number => on.filter((i) => !gone.has(i)).length;
  if (want.manner !== 'groups')
    return rows.every((on) => left(on) >= (want.shape === 'parity' ? on.length - want.level : 1));
  const n = rows[0]?.length ?? 0;
  const wide = want.shape === 'parity' ? want.level + 1 : want.shape === 'copies' ? want.level : 1;
  // The narrowest groups are the ones that fewest failures hit; wider ones with parity are hit by as many.
  for (const on of setsOf(n, wide))
    if (left(on) < (want.shape === 'parity' ? on.length - want.level : 1)) return false;
  return true;
}

it('what survives which failures is what brute force over every combination finds', () => {
  fc.assert(
    fc.property(someDrives, (d) => {
      for (const o of offers(ask(d))) {
        const members = membersOf(o.pool);
        const rows = o.pool.rows.map((r) => r.map((x) => members.indexOf(x)));
        const by = members.map((_, k) =>
          [...setsOf(members.length, k + 1)].map((s) => readable(o.pool.way, rows, new Set(s))),
        );
        for (const f of o.survival.by) {
          const all = by[f.failed - 1] ?? [];
          expect([f.choices, f.survived]).toEqual([all.length, all.filter(Boolean).length]);
        }
        const surely = by.findIndex((all) => !all.every(Boolean));
        expect(o.survival.any).toBe(surely < 0 ? members.length : surely);
        expect(o.survival.most).toBe(by.findLastIndex((all) => all.some(Boolean)) + 1);
      }
    }),
    { numRuns: runs(40) },
  );
});

it('of twelve pairs one of each may fail', () => {
  const pairs = offer(way('plain', 'pairs', 2), ask(drives(...Array.from({ length: 24 }, () => 100 * GIB))));
  expect(pairs?.survival).toMatchObject({ any: 1, most: 12 });
  // One of each: 2 to the power of 12.
  expect(pairs?.survival.by[11]).toMatchObject({ failed: 12, survived: 4096 });
});

describe('a record on a row with parity', () => {
  /** Laid out line by line as vdev_raidz_map_alloc does (OpenZFS, from memory): parity first, then data over the other drives. */
  const byLine = (sectors: number, wide: number, parity: number): number => {
    let left = sectors;
    let used = 0;
    while (left > 0) {
      used += parity;
      const here = Math.min(left, wide - parity);
      used += here;
      left -= here;
    }
    while (used % (parity + 1) !== 0) used += 1;
    return used;
  };
  it('takes what it takes line by line', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 16 * MIB }),
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom<9 | 12>(9, 12),
        (bytes, parity, more, shift) => {
          const t = recordSectors(bytes, parity + more, parity, shift);
          expect(t.data + t.parity + t.padding).toBe(
            byLine(Math.ceil(bytes / 2 ** shift), parity + more, parity),
          );
        },
      ),
      { numRuns: runs(300) },
    );
  });
  /**
   * The table of parity and padding that the author of RAID-Z published with “How I learned to stop worrying and love
   * RAIDZ” (2014), sheet “RAIDZ parity cost”: per cent of the raw room that is not data, sectors of 4096 bytes. From memory.
   */
  it.each([
    [1, 5, 1, 50],
    [1, 5, 2, 50],
    [1, 5, 3, 25],
    [1, 5, 4, 33],
    [1, 5, 32, 20],
    [1, 6, 32, 20],
    [2, 6, 1, 67],
    [2, 6, 4, 33],
    [2, 6, 32, 33],
    [2, 8, 32, 29],
    [3, 8, 1, 75],
    [1, 4, 32, 27],
  ])('parity %i, %i wide, %i sectors: %i per cent', (parity, wide, sectors, percent) => {
    const t = recordSectors(sectors * 4096, wide, parity, 12);
    const all = t.data + t.parity + t.padding;
    expect(Math.round(((all - t.data) / all) * 100)).toBe(percent);
  });
  it('is dealt out in regions of at most 16 GiB, about two hundred of them', () => {
    expect(regions(4e12)).toEqual({ each: 16 * GIB, count: 232 });
    expect(regions(100 * GIB)).toEqual({ each: 512 * MIB, count: 200 });
    expect(regions(10 * GIB)).toEqual({ each: 512 * MIB, count: 20 });
  });
});

describe('a member of a row', () => {
  /** Figures of mdadm 4.2 on real drives (“Data Offset” of --examine, in sectors): common in published reports; from memory. */
  it.each([
    [nominal(4000), null, 264_192],
    [nominal(2000), 512 * 1024, 264_192],
    [nominal(1000), 512 * 1024, 264_192],
  ])('%i bytes: data begins at sector %#', (bytes, chunk, sectors) => {
    expect(dataOffset(bytes, chunk) / 512).toBe(sectors);
  });
  it('gives whole chunks, and never more than it has', () => {
    fc.assert(
      fc.property(fc.integer({ min: 8 * MIB, max: 30_000 * GIB }), (bytes) => {
        for (const chunk of [null, 512 * 1024]) {
          const room = memberRoom(bytes, chunk);
          expect(room + dataOffset(bytes, chunk)).toBeLessThanOrEqual(bytes);
          if (chunk !== null) expect(room % chunk).toBe(0);
        }
      }),
      { numRuns: runs(100) },
    );
  });
});

describe('a drive made good', () => {
  /** The usual worked examples of data sheets’ error rates: 1 − (1 − p)^n by the bit. */
  it.each([
    [4e12, 14, 0.274],
    [4e12, 15, 0.0315],
    [12.5e12, 14, 0.632],
  ])('%d bytes at one bit in 10^%i: a chance of %d', (bytes, exponent, chance) =>
    expect(unreadableChance(bytes, exponent)).toBeCloseTo(chance, 3),
  );
  it('of copies what it held is read once, of parity all the others; more than one failure borne mends a read fault', () => {
    const d = four.map((x) => ({ ...x, errorExponent: 15 }));
    const mirror = offer(way('plain', 'mirror', 2), ask(d));
    expect(mirror?.rebuild?.reads).toBe(memberRoom(nominal(4000), null));
    expect(mirror?.rebuild?.fault).toMatchObject({ exponent: 15, assumed: false, mended: false });
    const parity = offer(way('plain', 'parity', 1), ask(drives(nominal(4000), nominal(4000), nominal(4000))));
    expect(parity?.rebuild?.reads).toBe(2 * memberRoom(nominal(4000), 512 * 1024));
    expect(parity?.rebuild?.fault.assumed).toBe(true);
    expect(offer(way('plain', 'parity', 2), ask(four))?.rebuild?.fault.mended).toBe(true);
    expect(offer(way('groups', 'joined'), ask(four))?.rebuild).toBeUndefined();
  });
  it('takes longer while the pool is in use, and far longer onto a shingled drive', () => {
    const of = (d: PoolDrive[]) => offer(way('plain', 'mirror', 2), ask(d))?.rebuild;
    const pair = drives(nominal(4000), nominal(4000));
    const [plain, shingled] = [of(pair), of(pair.map((d) => ({ ...d, shingled: true })))];
    expect(plain?.busy.low).toBeGreaterThan(plain?.seconds.low ?? Infinity);
    expect(plain?.busy.high).toBeGreaterThan(2 * (plain?.seconds.high ?? Infinity));
    expect(shingled?.seconds.low).toBeGreaterThan(3 * (plain?.seconds.low ?? Infinity));
  });
  it('only what is used is made again where the manner knows what that is', () => {
    const half = { drives: four, filled: 0.5 };
    const whole = { drives: four, filled: 1 };
    const of = (w: PoolWay, a: typeof half) => offer(w, a)?.rebuild?.writes ?? 0;
    expect(of(way('groups', 'copies', 2), half) * 2).toBe(of(way('groups', 'copies', 2), whole));
    expect(of(way('plain', 'mirror', 2), half)).toBe(of(way('plain', 'mirror', 2), whole));
  });
});

describe('what is said of a pool before it is made', () => {
  const codes = (w: PoolWay, d: PoolDrive[]): string[] =>
    checkOffer(offer(w, ask(d)) as NonNullable<ReturnType<typeof offer>>).map((f) =>
      f.fault.code === 'write hole'
        ? `${f.grade} ${f.fault.code}: ${f.fault.closed}`
        : `${f.grade} ${f.fault.code}`,
    );
  const three = drives(nominal(4000), nominal(4000), nominal(4000), nominal(4000));
  // Linux, Documentation/driver-api/md/raid5-ppl.rst: the log of partial parity is for RAID 5 alone.
  it('is the write hole of plain parity, and by what it is closed; not of records with their own stripe, nor of copies', () => {
    expect(codes(way('plain', 'parity', 1), three)).toContain('check write hole: partial parity log');
    expect(codes(way('plain', 'parity', 2), three)).toContain('check write hole: journal');
    for (const w of [way('padded', 'parity', 1), way('plain', 'mirror', 2), way('groups', 'copies', 2)])
      expect(codes(w, three).filter((c) => c.includes('write hole'))).toEqual([]);
  });
  it('is which drives are shingled, and of which nobody has looked it up', () => {
    const said = (shingled: boolean | null, rotational = true) =>
      codes(
        way('plain', 'mirror', 2),
        three.map((d) => ({ ...d, shingled, rotational })),
      ).filter((c) => c.includes('shingled'));
    expect(said(true)).toEqual(['check shingled']);
    expect(said(null)).toEqual(['note shingled not known']);
    expect(said(false)).toEqual([]);
    expect(said(null, false)).toEqual([]);
  });
  // mdadm.conf(5): what is not named there is assembled under another name.
  it('has its rows recorded for the next boot after they are made and before they are mounted', () => {
    const made = offer(way('plain', 'pairs', 2), ask(three));
    const told = made && poolSteps(made.pool, { name: 'store', recordBytes: 131_072 });
    const steps = told && 'steps' in told ? told.steps : [];
    const order = steps.map((s) => s.code);
    expect(order.indexOf('record rows')).toBeGreaterThan(order.indexOf('make rows'));
    expect(order.indexOf('record rows')).toBeLessThan(order.indexOf('mount'));
    expect(steps.find((s) => s.code === 'record rows')?.text).toMatch(
      /mdadm --detail --scan[\s\S]*update-initramfs -u/,
    );
  });
});

it('the archive’s four drives: what a practitioner would reckon by hand', () => {
  const tib = (w: PoolWay) => (offer(w, ask(four))?.room.usable ?? 0) / 2 ** 40;
  // (4 + 4 + 2 + 1) / 2 TB, less what it keeps of itself.
  expect(tib(way('groups', 'copies', 2))).toBeCloseTo(5.0, 2);
  // All at the size of the smallest would be 3 TB; without it, at 2 TB each, 4 TB.
  expect(offer(way('plain', 'parity', 1), ask(four))?.pool.left.map((d) => d.id)).toEqual(['d3']);
  expect(tib(way('plain', 'parity', 1))).toBeGreaterThan(3.5);
  // 4 + 1 TB in pairs.
  expect(offer(way('plain', 'pairs', 2), ask(four))?.pool.rows.map((r) => r.map((d) => d.id))).toEqual([
    ['d0', 'd1'],
    ['d2', 'd3'],
  ]);
});

it('more drives never give less, and a way is taken again by its parts', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 100 * GIB, max: 9000 * GIB }), { minLength: 2, maxLength: 6 }),
      (sizes) => {
        const few = offers(ask(drives(...sizes.slice(1))));
        const many = offers(ask(drives(...sizes)));
        for (const o of few) {
          const again = many.find((m) => sameWay(m.pool.way, o.pool.way));
          // Regions get larger with their row: what falls off at its end can be one of them.
          const slack = o.pool.way.manner === 'padded' ? 40 * GIB : 2 * GIB;
          expect((again?.room.usable ?? 0) + slack).toBeGreaterThanOrEqual(o.room.usable);
          expect(o.growth.gives).toBeGreaterThanOrEqual(0);
        }
      },
    ),
    { numRuns: runs(60) },
  );
});

it('worn, alike, slow, removable and unequal drives are told', () => {
  const codes = (...d: PoolDrive[]): string[] => {
    const o = offer(way('groups', 'copies', 2), ask(d));
    return o ? checkOffer(o).map((f) => f.fault.code) : [];
  };
  const a = drive('a', 500 * GIB, { model: 'one', sectorBytes: 4096, rotational: false });
  expect(codes(a, { ...a, id: 'b', serial: 'SN-b' })).toContain('drives alike');
  expect(codes(a, { ...a, id: 'b', hours: 30_000 })).not.toContain('drives alike');
  expect(codes(a, { ...a, id: 'b', model: 'two', wear: 81 })).toContain('worn');
  expect(codes(a, { ...a, id: 'b', model: 'two', badSectors: 8 })).toContain('bad sectors');
  expect(codes(a, { ...a, id: 'b', model: 'two', removable: true })).toEqual(
    expect.arrayContaining(['removable in pool', 'slow drive']),
  );
  expect(codes(a, { ...a, id: 'b', model: 'two', bytes: 100 * GIB })).toContain('lost to smaller');
  expect(codes(a, { ...a, id: 'b', model: 'two', sectorBytes: 512 })).toContain('sectors of two sizes');
  const single = offer(way('groups', 'single'), ask([a]));
  expect(single && checkOffer(single).map((f) => f.fault.code)).toEqual(
    expect.arrayContaining(['survives none', 'cannot mend']),
  );
  const parity = offer(way('groups', 'parity', 1), ask(four));
  expect(parity && checkOffer(parity).map((f) => f.fault.code)).toContain('parity of groups');
});

it('a way that was placed survives what its rows survive', () => {
  const pool = {
    way: way('plain', 'pairs', 2),
    rows: rowsOf(way('plain', 'pairs', 2), four),
    spare: null,
    left: [],
  };
  expect(survivalOf(pool).by).toEqual([
    { failed: 1, choices: 4, survived: 4 },
    { failed: 2, choices: 6, survived: 4 },
    { failed: 3, choices: 4, survived: 0 },
  ]);
});
