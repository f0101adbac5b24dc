import { spaceIn } from '../layout/space/spaceIn';
import type { PoolDrive, PoolWay } from '../model/storage';
import { MIB } from '../units/bytes';
import { asNamed, boundBy, type PlacedPool } from './placed';
import { fillGroups, FRONT, type Given, type Profile } from './usable/groups';
import { keptBack, leafRoom, rowRoom, shiftOf } from './usable/padded';
import { CHUNK, dataOffset, memberRoom, volumeRoom } from './usable/plain';

/** What takes the difference between all bytes of all drives and what is yours. */
export const poolTakes = [
  'copy',
  'parity',
  'padding',
  'lost to smaller',
  'left out',
  'spare',
  'own tables',
  'not a whole unit',
  'kept back',
  'metadata',
  'file system',
] as const;
/** What takes of a pool’s bytes. */
export type PoolTake = (typeof poolTakes)[number];

/** What lies on one drive of a pool, in bytes; together its size. */
export interface DriveShare {
  id: string;
  data: number;
  copy: number;
  parity: number;
  lost: number;
  own: number;
  spare: number;
  left: number;
}

/** The room of a pool. Bytes; `usable` and all that is taken are together all bytes of all drives. */
export interface PoolRoom {
  raw: number;
  usable: number;
  takes: { what: PoolTake; bytes: number }[];
  shares: DriveShare[];
}

/** What each drive gives to the pool, in bytes, by its id: data and what keeps it. */
export const givenBy = ({ shares }: PoolRoom): Map<string, number> =>
  new Map(shares.map((s) => [s.id, s.data + s.copy + s.parity]));

class Tally {
  private readonly of = new Map<PoolTake, number>();
  add(what: PoolTake, bytes: number): void {
    if (bytes !== 0) this.of.set(what, (this.of.get(what) ?? 0) + bytes);
  }
  list(): PoolRoom['takes'] {
    return poolTakes.flatMap((what) => {
      const bytes = this.of.get(what) ?? 0;
      return bytes === 0 ? [] : [{ what, bytes }];
    });
  }
}

/** Of what a drive gives, the parts of data and of what keeps it, by how often or with how much parity it is kept. */
function share(
  drive: PoolDrive,
  gives: number,
  lost: number,
  way: { copies: number; parity: number },
): DriveShare {
  const copy = Math.round(gives * (1 - 1 / way.copies));
  const parity = Math.round(gives * way.parity);
  return {
    id: drive.id,
    data: gives - copy - parity,
    copy,
    parity,
    lost,
    own: drive.bytes - gives - lost,
    spare: 0,
    left: 0,
  };
}

const beside = (drive: PoolDrive, as: 'spare' | 'left'): DriveShare => ({
  id: drive.id,
  data: 0,
  copy: 0,
  parity: 0,
  lost: 0,
  own: 0,
  spare: as === 'spare' ? drive.bytes : 0,
  left: as === 'left' ? drive.bytes : 0,
});

type Made = Pick<PoolRoom, 'usable' | 'shares'>;

/** Nothing can be made of these drives: one of them is too small for its tool. */
const NOT_MADE: Made = { usable: 0, shares: [] };

/** Rows of md, volumes over them where there are several, and ext4 with nothing kept for its administrator (mke2fs(8), -m 0). */
function plainRoom({ way, rows }: PlacedPool, tally: Tally): Made {
  const shares: DriveShare[] = [];
  let volume = 0;
  for (const row of rows) {
    const chunk = way.shape === 'parity' ? CHUNK : null;
    const kept = row.length > 1;
    const first = row[0]?.bytes ?? 0;
    // A drive for itself has a table with one part: a MiB before it, and a MiB in which the second table lies.
    const give = (d: PoolDrive): number =>
      kept
        ? memberRoom(d.bytes, chunk, first)
        : way.shape === 'joined'
          ? volumeRoom(d.bytes)
          : Math.max(0, Math.floor(d.bytes / MIB) * MIB - 2 * MIB);
    if (row.some((d) => give(d) === 0)) return NOT_MADE;
    const each = kept ? Math.min(...row.map(give)) : 0;
    const parity = way.shape === 'parity' ? way.level : 0;
    const copies = kept && parity === 0 ? row.length : 1;
    for (const d of row) {
      const gives = kept ? each : give(d);
      const lost = kept ? give(d) - each : 0;
      const front = kept ? dataOffset(first, chunk) : way.shape === 'joined' ? MIB : 2 * MIB;
      shares.push(share(d, gives, lost, { copies, parity: parity / row.length }));
      tally.add('lost to smaller', lost);
      tally.add('own tables', Math.min(front, d.bytes));
      tally.add('not a whole unit', d.bytes - Math.min(front, d.bytes) - gives - lost);
    }
    const whole = kept ? each * (row.length - parity) : give(row[0] as PoolDrive);
    const holds = copies > 1 ? each : whole;
    tally.add('copy', copies > 1 ? each * (copies - 1) : 0);
    tally.add('parity', each * parity);
    const dealt = way.shape === 'pairs' ? volumeRoom(holds) : holds;
    tally.add('own tables', way.shape === 'pairs' ? Math.min(MIB, holds) : 0);
    tally.add('not a whole unit', way.shape === 'pairs' ? Math.max(0, holds - MIB - dealt) : 0);
    volume += dealt;
  }
  const usable = spaceIn('ext4', volume)?.free ?? 0;
  tally.add('file system', volume - usable);
  return { usable, shares };
}

/** Sectors as the pool keeps them: by its largest; 4096 bytes where nobody looked, as common practice has it. */
export const sectorOf = (drives: readonly PoolDrive[]): 512 | 4096 =>
  drives.every((d) => d.sectorBytes === 512) ? 512 : 4096;

function paddedRoom({ way, rows }: PlacedPool, tally: Tally): Made {
  const shares: DriveShare[] = [];
  const shift = shiftOf(sectorOf(rows.flat()));
  let room = 0;
  for (const row of rows) {
    const leaf = Math.min(...row.map((d) => leafRoom(d.bytes)));
    if (leaf === 0) return NOT_MADE;
    const parity = way.shape === 'parity' ? way.level : 0;
    const copies = parity > 0 ? 1 : row.length;
    const r = rowRoom(leaf, row.length, parity, copies, shift);
    for (const d of row) {
      const lost = leafRoom(d.bytes) - leaf;
      const kept = (r.parity + r.padding) / r.dealt || 0;
      shares.push(share(d, leaf, lost, { copies, parity: kept }));
      tally.add('lost to smaller', lost);
      tally.add('own tables', d.bytes - leaf - lost);
    }
    tally.add('copy', (r.dealt / copies) * (copies - 1));
    tally.add('parity', r.parity);
    tally.add('padding', r.padding);
    tally.add('own tables', r.logged);
    tally.add('not a whole unit', leaf * row.length - r.dealt - r.logged);
    room += r.usable;
  }
  const back = keptBack(room);
  tally.add('kept back', back);
  return { usable: room - back, shares };
}

const once: Profile = { copies: 1, parity: 0, least: 1, most: 1 };
const twice: Profile = { copies: 2, parity: 0, least: 2, most: 2 };
const onOne: Profile = { copies: 2, parity: 0, least: 1, most: 1, onOne: true };

/** Block groups of a way: of files, and of what the file system keeps of itself, which is kept at least twice. */
export function profilesOf({ shape, level }: PoolWay): { data: Profile; metadata: Profile } {
  const copies = (n: number): Profile => ({ copies: n, parity: 0, least: n, most: n });
  if (shape === 'single') return { data: once, metadata: onOne };
  if (shape === 'joined') return { data: once, metadata: twice };
  if (shape === 'parity')
    return {
      data: { copies: 1, parity: level, least: level + 1, most: 0 },
      // Parity is not for what is written in small pieces; as many copies as survive as many drives.
      metadata: copies(level + 1),
    };
  return { data: copies(level), metadata: copies(level) };
}

function groupsRoom(pool: PlacedPool, tally: Tally): Made {
  const { way } = pool;
  const row = asNamed(pool);
  const { data, metadata } = profilesOf(way);
  const made = fillGroups(
    row.map((d) => d.bytes),
    data,
    metadata,
  );
  const of = (g: Given, i: number): number => g.on[i] ?? 0;
  const given = made.data.on.reduce((sum, n) => sum + n, 0);
  const kept = given === 0 ? 0 : (given - made.data.usable) / given;
  const shares = row.map((d, i): DriveShare => {
    const lost = made.free[i] ?? 0;
    const gives = of(made.data, i);
    tally.add('lost to smaller', lost);
    tally.add('own tables', Math.min(d.bytes, FRONT));
    tally.add('metadata', of(made.metadata, i));
    tally.add('not a whole unit', d.bytes - Math.min(d.bytes, FRONT) - lost - gives - of(made.metadata, i));
    const one = share(d, gives, lost, { copies: 1, parity: 0 });
    const keeps = Math.round(gives * kept);
    return { ...one, data: gives - keeps, ...(way.shape === 'parity' ? { parity: keeps } : { copy: keeps }) };
  });
  tally.add(way.shape === 'parity' ? 'parity' : 'copy', given - made.data.usable);
  return { usable: made.data.usable, shares };
}

/** The room of a pool, exactly: what is yours, and what takes the rest. */
export function roomOf(pool: PlacedPool): PoolRoom {
  const tally = new Tally();
  const { manner } = pool.way;
  const made =
    manner === 'plain'
      ? plainRoom(pool, tally)
      : manner === 'padded'
        ? paddedRoom(pool, tally)
        : groupsRoom(pool, tally);
  const idle = [
    ...(pool.spare ? [beside(pool.spare, 'spare')] : []),
    ...pool.left.map((d) => beside(d, 'left')),
  ];
  for (const s of idle) {
    tally.add('spare', s.spare);
    tally.add('left out', s.left);
  }
  const drives = [...boundBy(pool), ...pool.left];
  return {
    raw: drives.reduce((sum, d) => sum + d.bytes, 0),
    usable: made.usable,
    takes: tally.list(),
    shares: [...made.shares, ...idle],
  };
}
