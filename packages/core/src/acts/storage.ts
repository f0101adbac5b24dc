import type { Bench, Box, LogEntry, Store } from '../model/bench';
import { edited, type Act } from '../model/changes';
import type { Carried } from '../model/contentRules';
import type { MoveStep, Moving } from '../model/moving';
import { noPool, type BoxPool, type KeptThing, type PoolWay } from '../model/storage';
import { noSharing, type SharedFolder, type ShareUser, type Sharing } from '../model/sharing';
import { networksOf } from '../storage/share/forBox';
import { rightOf } from '../storage/share/rights';
import { withItem, withoutItem } from '../units/list';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

/** Changes what was decided of the pool of a box. */
export const editPool = (box: Box, changed: Partial<BoxPool>, label: string): Act =>
  updateBox(box, { pool: { ...(box.pool ?? noPool()), ...changed } }, label);

/** Takes a way, with a line of the log that says why. */
export function takeWay(box: Box, way: PoolWay, says: { way: string; because: string }, stamp: Stamp): Act {
  const line: LogEntry = {
    kind: 'decision',
    ...logBase(box, 'load', stamp),
    text: `Pool of ${box.name}: ${says.way}; ${says.because}`,
  };
  return {
    label: `${box.name}: ${says.way}`,
    changes: [edited('boxes', box, { ...box, pool: { ...(box.pool ?? noPool()), way } }), logged(line)],
  };
}

/** Adds something that must not be lost, or changes it. */
export function keepThing(box: Box, thing: KeptThing): Act {
  const there = box.things.some((t) => t.id === thing.id);
  return updateBox(
    box,
    { things: withItem(box.things, thing) },
    `“${thing.what}” ${there ? 'saved' : 'added'}`,
  );
}

/** Adds something that moves here, or changes how far it is. */
export function moveThing(box: Box, moved: Moving): Act {
  const there = box.moving.some((m) => m.id === moved.id);
  return updateBox(
    box,
    { moving: withItem(box.moving, moved) },
    `“${moved.what}” ${there ? 'saved' : 'to be moved'}`,
  );
}

/** Ticks a step of a move, or takes the tick back; a line of the log says when it was done. */
export function tickMove(
  box: Box,
  moved: Moving,
  step: MoveStep,
  on: boolean,
  says: string,
  stamp: Stamp,
): Act {
  const { [step]: _gone, ...rest } = moved.done;
  const act = moveThing(box, { ...moved, done: on ? { ...rest, [step]: stamp.now } : rest });
  if (!on) return act;
  const line: LogEntry = { kind: 'note', ...logBase(box, 'load', stamp), text: `${moved.what}: ${says}` };
  return { label: `${moved.what}: ${says}`, changes: [...act.changes, logged(line)] };
}

/** Takes a move off the list; servers stay as they are. */
export const dropMove = (box: Box, moved: Moving): Act =>
  updateBox(box, { moving: withoutItem(box.moving, moved.id) }, `“${moved.what}” no longer to be moved`);

/** Takes something off the list; its copies stay where they are. */
export const dropThing = (box: Box, thing: KeptThing): Act =>
  updateBox(box, { things: withoutItem(box.things, thing.id) }, `“${thing.what}” taken off the list`);

/** What a data sheet, a price or a look at a drive told of it. */
export const tellDrive = (
  store: Store,
  told: Partial<Pick<Store, 'sectorBytes' | 'errorExponent' | 'wear' | 'shingled' | 'price'>>,
): Act => ({
  label: `“${store.name}” saved`,
  changes: [edited('items', store, { ...store, ...told })],
});

/** Notes what was looked through for a box, and what was decided of it. */
export const noteCarried = (box: Box, carried: Carried): Act =>
  updateBox(box, { carried }, `“${carried.folder}” looked through`);

/** Notes that what was on a drive is wiped: its serial was typed by whoever did it. */
export function noteWiped(box: Box, store: Store, stamp: Stamp): Act {
  const line: LogEntry = {
    kind: 'note',
    ...logBase(box, 'load', stamp),
    text: `“${store.name}”, serial ${store.serial ?? ''}, wiped for the pool`,
  };
  const pool = box.pool ?? noPool();
  return {
    label: `“${store.name}” wiped`,
    changes: [
      edited('boxes', box, { ...box, pool: { ...pool, wiped: [...pool.wiped, store.serial ?? ''] } }),
      logged(line),
    ],
  };
}

/** Changes what was decided of the folders of a box; with the first one they are opened to the networks the box is in. */
export function editSharing(bench: Bench, box: Box, changed: Partial<Sharing>, label: string): Act {
  const before = box.sharing ?? { ...noSharing(), from: networksOf(bench, box) };
  return updateBox(box, { sharing: { ...before, ...changed } }, label);
}

const ORDER = ['none', 'read', 'write'] as const;

/** Somebody’s right in a folder, one step on: none, read, write, none. */
export function turnRight(bench: Bench, box: Box, folder: SharedFolder, who: ShareUser | 'guests'): Act {
  const sharing = box.sharing ?? noSharing();
  const now = rightOf(folder, who === 'guests' ? 'guest' : { user: who.id });
  const next = ORDER[(ORDER.indexOf(now) + 1) % ORDER.length] ?? 'none';
  const without = (ids: readonly string[]): string[] => ids.filter((i) => who === 'guests' || i !== who.id);
  const after: SharedFolder =
    who === 'guests'
      ? { ...folder, guests: next }
      : {
          ...folder,
          read: next === 'read' ? [...without(folder.read), who.id] : without(folder.read),
          write: next === 'write' ? [...without(folder.write), who.id] : without(folder.write),
        };
  const name = who === 'guests' ? 'guests' : who.name;
  return editSharing(
    bench,
    box,
    { folders: withItem(sharing.folders, after) },
    `${folder.name}, ${name}: ${next}`,
  );
}

/** Takes somebody off, with every right they had. */
export function dropUser(bench: Bench, box: Box, user: ShareUser): Act {
  const sharing = box.sharing ?? noSharing();
  const without = (ids: readonly string[]): string[] => ids.filter((i) => i !== user.id);
  return editSharing(
    bench,
    box,
    {
      users: withoutItem(sharing.users, user.id),
      folders: sharing.folders.map((f) => ({ ...f, read: without(f.read), write: without(f.write) })),
    },
    `“${user.name}” taken off`,
  );
}
