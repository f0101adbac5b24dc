import { firmwareOf } from '../machine/firmware';
import { laidBox } from '../layout/forBox';
import { following } from '../units/grammar';
import {
  findItem,
  findMachine,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type Store,
} from '../model/bench';
import type { Content } from '../model/content';
import { edited, type Change } from '../model/changes';
import type { MediumBefore } from '../model/medium';
import type { OpeningRecord } from '../model/opening';
import { movesOf, placeBefore } from '../opening/moves';
import { holdsSystemOf, unseenContent, withSystem } from '../plan/medium';
import { targetOf } from '../write/target';

/** The drive that takes the system of a box, by what was decided; undefined where nobody has. */
function systemDriveOf(bench: Bench, box: Box): Store | undefined {
  const profile = findProfile(bench, box.profileId);
  return profile?.installer === 'written straight to the final drive'
    ? targetOf(bench, box)
    : (laidBox(bench, box).drive ?? undefined);
}

/** What lies on the drive after the install: the layout as it was worked out, else no more than the system's name. */
function installedContent(bench: Bench, box: Box, drive: Store, system: string, at: string): Content {
  const { plan, sheet } = laidBox(bench, box);
  const seen = unseenContent(system, at);
  if (!plan || !sheet) return seen;
  const machine = findMachine(bench, box.machineId);
  const firmware = (machine && firmwareOf(machine)) ?? null;
  const { table, tableId, parts } = sheet.layout;
  const was = drive.content?.parts ?? [];
  const stays = plan.want.kept.length > 0;
  return {
    ...seen,
    table,
    tableId,
    sectorSize: plan.drive.sectorSize,
    parts: parts
      .filter((p) => p.kind !== 'extended')
      .map((p) => {
        const before = p.fate === 'new' ? undefined : was.find((w) => w.start === p.start);
        return {
          ...(before ?? {
            label: p.name,
            uuid: null,
            attributes: null,
            name: p.name,
            filesystem: p.filesystem,
          }),
          start: p.start,
          bytes: p.bytes,
          type: following('partitionType', p.type) ?? '',
          partitionId: before?.partitionId ?? null,
          mount: p.mount,
        };
      }),
    starts: [
      { by: 'told', firmware, path: '', title: system.slice(0, 300) },
      ...(stays ? (drive.content?.starts ?? []) : []),
    ],
  };
}

/** A medium as it was, by which an act is taken back. */
const before = (store: Store, revision: number): MediumBefore => ({
  id: store.id,
  revision,
  content: store.content,
  holds: store.holds,
  fate: store.fate,
  retentionOrigin: store.retentionOrigin,
  wholeImage: store.wholeImage,
  installed: store.installed,
});

/**
 * What installing the system of a box does to the shelf: its drive holds that system, and is kept, for every box. Nothing
 * where no drive is decided, or it holds the system already. `was` is what takes it back.
 */
export function installOnShelf(
  bench: Bench,
  box: Box,
  at: string,
): { changes: Change[]; was: MediumBefore[] } {
  const drive = systemDriveOf(bench, box);
  const profile = findProfile(bench, box.profileId);
  if (!drive || !profile || holdsSystemOf(drive, box)) return { changes: [], was: [] };
  const content = installedContent(bench, box, drive, profile.name, at);
  const now = withSystem(drive, content, {
    boxId: box.id,
    boxName: box.name,
    system: profile.name,
    at,
    by: 'word',
  });
  return { changes: [edited('items', drive, now)], was: [before(drive, now.revision)] };
}

/** Puts back what a mistaken tick has changed on the shelf; a medium that has changed again since is left as it is. */
export const takenBack = (bench: Bench, was: readonly MediumBefore[]): Change[] =>
  was.flatMap(({ id, revision, ...old }) => {
    const store = storesOf(bench).find((s) => s.id === id);
    return store?.revision === revision
      ? [edited('items', store, { ...store, ...old, revision: store.revision + 1 })]
      : [];
  });

/** What a step moves on the shelf, and where the box keeps that things had been before. */
export interface Moved {
  changes: Change[];
  moved: OpeningRecord['moved'];
}

/** The item that a step of opening a machine puts in or takes out; undefined of all other steps. */
function movedBy(key: string): { id: string; goes: 'in' | 'out' } | undefined {
  const at = key.indexOf(':');
  const [act, id] = [key.slice(0, at), key.slice(at + 1)];
  if (at < 0) return undefined;
  if (act === 'out') return { id, goes: 'out' };
  return act === 'in' || act === 'memory' ? { id, goes: 'in' } : undefined;
}

/** Puts an item where a step has put it, and says where it had been; or takes that back. */
export function moveOnShelf(bench: Bench, box: Box, key: string, done: boolean): Moved {
  const moved = box.opening?.moved ?? {};
  const step = movedBy(key);
  const item = step && findItem(bench, step.id);
  if (!step || !item || !('in' in item) || box.machineId === null) return { changes: [], moved };
  const to = done ? (step.goes === 'in' ? box.machineId : null) : placeBefore(box, item);
  const { [item.id]: _, ...rest } = moved;
  return {
    changes: item.in === to ? [] : [edited('items', item, { ...item, in: to })],
    moved: done ? { ...rest, [item.id]: placeBefore(box, item) } : rest,
  };
}

/** Puts what was taken out as a precaution back into the machine, or takes it out again. */
export function backOnShelf(bench: Bench, box: Box, done: boolean): Moved {
  const { machineId } = box;
  const moved = { ...(box.opening?.moved ?? {}) };
  if (machineId === null) return { changes: [], moved };
  const changes: Change[] = [];
  for (const { id } of movesOf(bench, box).comesOut) {
    const item = storesOf(bench).find((s) => s.id === id);
    const to = done ? machineId : null;
    if (!item || item.in === to) continue;
    changes.push(edited('items', item, { ...item, in: to }));
    if (done) delete moved[id];
    else moved[id] = machineId;
  }
  return { changes, moved };
}
