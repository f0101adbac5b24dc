import { laidBox } from '../layout/forBox';
import { straightWay, systemDriveOf } from '../layout/systemDrive';
import { placeBefore } from '../model/opening';
import { findMachine, storesOf, type Bench, type Box, type Machine, type Store } from '../model/bench';
import type { Memory } from '../model/shelf';
import { goesInside, placeFor } from './place';

/** What goes in and out of a machine for a box: one answer for Opening, rehearsal, Gather and the run sheet. */
export interface Moves {
  /** Drives that go in, and stay in. */
  goesIn: Store[];
  /** Drives that come out as a precaution, and go back in once the system is on. */
  comesOut: Store[];
  /** Drives that come out because what goes in needs their place; they stay out. */
  makesRoom: Store[];
  /** Drives that come out to be written in an adapter, and go back in. */
  written: Store[];
  /** Memory modules that go in. */
  memory: Memory[];
}

const none = (): Moves => ({ goesIn: [], comesOut: [], makesRoom: [], written: [], memory: [] });

/** The bench with things elsewhere; `at` undefined leaves one where it is. */
function placed(
  bench: Bench,
  at: (item: { id: string; in: string | null }) => string | null | undefined,
): Bench {
  return {
    ...bench,
    items: bench.items.map((i) => {
      const to = 'in' in i ? at(i) : undefined;
      return to === undefined || !('in' in i) ? i : { ...i, in: to };
    }),
  };
}

/** The bench with some things out of a machine and others in it. */
export function moved(
  bench: Bench,
  machine: Machine,
  out: readonly { id: string }[],
  into: readonly { id: string }[],
): Bench {
  const among = (list: readonly { id: string }[], id: string): boolean => list.some((x) => x.id === id);
  return placed(bench, ({ id }) => (among(out, id) ? null : among(into, id) ? machine.id : undefined));
}

/** Drives that were in the machine before this box's work moved any. */
export const storesBefore = (bench: Bench, box: Box, machineId: string): Store[] =>
  storesOf(bench).filter((s) => placeBefore(box, s) === machineId);

/** The fewest drives that must come out so that a drive finds a place; undefined where none helps. */
function roomFor(
  bench: Bench,
  machine: Machine,
  drive: Store,
  stays: (s: Store) => boolean,
): Store[] | undefined {
  const may = storesOf(bench).filter((s) => s.in === machine.id && s.kind === 'drive' && !stays(s));
  for (let count = 1; count <= may.length; count += 1) {
    const out = may.slice(0, count);
    if (placeFor(moved(bench, machine, out, []), machine, drive).code === 'fits') return out;
  }
  return undefined;
}

const lately = new WeakMap<Box, { bench: Bench; moves: Moves }>();

/** What goes in and out of the machine of a box, by what was decided; worked out once for each state of the bench. */
export function movesOf(bench: Bench, box: Box): Moves {
  const before = lately.get(box);
  if (before?.bench === bench) return before.moves;
  const anything = Object.keys(box.opening?.moved ?? {}).length > 0;
  const moves = findMoves(anything ? placed(bench, (i) => placeBefore(box, i)) : bench, box);
  lately.set(box, { bench, moves });
  return moves;
}

function findMoves(bench: Bench, box: Box): Moves {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return none();
  const stores = storesOf(bench);
  const target = systemDriveOf(bench, box);
  const aside = stores.filter((s) => box.parts.includes(s.id));
  const wanted = [...new Set([...(target ? [target] : []), ...aside])];
  // What is only suggested for the system does not make room either.
  const needed = new Set([
    ...wanted.map((s) => s.id),
    laidBox(bench, box).drive?.id,
    ...(box.pool?.drives ?? []),
  ]);
  const stays = (s: Store): boolean => needed.has(s.id) || s.installed?.boxId === box.id;
  const goesIn: Store[] = [];
  const makesRoom: Store[] = [];
  let now = bench;
  for (const store of wanted) {
    let room: Store[] = [];
    if (!goesInside(now, machine, store)) {
      const full = store.kind === 'drive' && store.in !== machine.id && store.transport !== 'usb';
      const found =
        full && placeFor(now, machine, store).code === 'ports are taken'
          ? roomFor(now, machine, store, stays)
          : undefined;
      if (!found) continue;
      room = found;
    }
    makesRoom.push(...room);
    goesIn.push(store);
    now = moved(now, machine, room, [store]);
  }
  const comesOutToBeWritten =
    target !== undefined &&
    target.in === machine.id &&
    target.attachment !== 'soldered' &&
    straightWay(bench, box) === 'adapter';
  const unplugged = new Set(box.precautions.flatMap((p) => (p.startsWith('unplug:') ? [p.slice(7)] : [])));
  return {
    goesIn,
    comesOut: stores.filter(
      (s) => s.in === machine.id && unplugged.has(s.id) && !makesRoom.includes(s) && s !== target,
    ),
    makesRoom,
    written: comesOutToBeWritten ? [target] : [],
    memory: bench.items.filter(
      (i): i is Memory => i.kind === 'memory' && box.parts.includes(i.id) && i.in !== machine.id,
    ),
  };
}
