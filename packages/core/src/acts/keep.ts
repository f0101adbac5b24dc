import type { Chore } from '../keeping/chores';
import { findItem, findMachine, hostsOfBox, type Bench, type Box } from '../model/bench';
import { edited, type Act, type Change } from '../model/changes';
import { noKeep, retiredSchema, type KeepRecord, type Retired } from '../model/keep';
import { isStore } from '../model/shelf';
import { choreTitle, machineEndWords } from '../words/keep';
import { withNothing } from '../plan/medium';
import { logBase, logged } from './base';
import type { Stamp } from './stamp';

const keptOf = (box: Box): KeepRecord => box.kept ?? noKeep();
const ownOf = (box: Box, key: string): KeepRecord['chores'][string] =>
  keptOf(box).chores[key] ?? { everyDays: null, off: false, done: [] };
const withChore = (box: Box, key: string, own: KeepRecord['chores'][string]): Box => ({
  ...box,
  kept: { ...keptOf(box), chores: { ...keptOf(box).chores, [key]: own } },
});
/** So many days on which something was done are kept. */
const DAYS_KEPT = 400;

/** What another stop keeps of the same thing says the same day: the two cannot disagree. */
function mirrored(box: Box, { code, key }: Pick<Chore, 'code' | 'key'>, day: string): Partial<Box> {
  const id = key.slice(key.indexOf(':') + 1);
  const thing = (change: (t: Box['things'][number]) => Box['things'][number]): Partial<Box> => ({
    things: box.things.map((t) => (t.id === id ? change(t) : t)),
  });
  switch (code) {
    case 'read through':
      return box.pool ? { pool: { ...box.pool, scrubbed: day } } : {};
    case 'bring back':
      return thing((t) => ({ ...t, restored: day }));
    case 'back up':
      return thing((t) => ({
        ...t,
        copies: t.copies.map((c) => (c.where === 'this pool' ? c : { ...c, at: day })),
      }));
    default:
      return {};
  }
}

/** Something that comes round was done on a day (ISO 8601). */
export function doneChore(box: Box, chore: Chore, day: string, stamp: Stamp): Act {
  const own = ownOf(box, chore.key);
  const title = choreTitle(chore);
  const done = [...new Set([...own.done, day])].sort().slice(-DAYS_KEPT);
  return {
    label: `Done: ${title}`,
    keeping: true,
    changes: [
      edited('boxes', box, { ...withChore(box, chore.key, { ...own, done }), ...mirrored(box, chore, day) }),
      logged({ kind: 'note', ...logBase(box, 'keep', stamp), text: `Done: ${title}` }),
    ],
  };
}

/** How often something is done here: days, null as usual; or not at all. */
export const setChore = (box: Box, chore: Chore, how: { everyDays: number | null; off: boolean }): Act => ({
  label: how.off ? `Not done here: ${choreTitle(chore)}` : `How often: ${choreTitle(chore)}`,
  keeping: true,
  changes: [edited('boxes', box, withChore(box, chore.key, { ...ownOf(box, chore.key), ...how }))],
});

/** Opens a finished box again, with the reason, or closes it; null closes. */
export function openAgain(box: Box, because: string | null, stamp: Stamp): Act {
  const text = because === null ? 'Closed again' : `Opened again: ${because.trim()}`;
  return {
    label: because === null ? `${box.name} closed again` : `${box.name} opened again`,
    keeping: true,
    changes: [
      edited('boxes', box, {
        ...box,
        kept: {
          ...keptOf(box),
          opened: because === null ? null : { at: stamp.now, because: because.trim().slice(0, 500) },
        },
      }),
      logged({ kind: 'note', ...logBase(box, 'keep', stamp), text }),
    ],
  };
}

/** What becomes of the shelf’s record of a drive. */
function driveGoes(
  bench: Bench,
  { id, end }: Retired['drives'][number],
  away: boolean,
  now: string,
): Change[] {
  const drive = findItem(bench, id);
  if (!drive || !isStore(drive)) return [];
  switch (end) {
    case 'clear':
    case 'purge':
      return [edited('items', drive, { ...withNothing(drive, now), owned: drive.owned && !away })];
    case 'destroy':
      return [edited('items', drive, { ...drive, in: null, owned: false })];
    case 'kept as it is':
      return [edited('items', drive, { ...drive, in: null })];
    case 'stays in it':
      return away ? [edited('items', drive, { ...drive, owned: false })] : [];
  }
}

/**
 * Retires a box: what became of its drives and its machine goes to the shelf’s records, its addresses are free. What was done
 * and decided of it stays to be read.
 */
export function retire(bench: Bench, box: Box, how: Omit<Retired, 'at'>, stamp: Stamp): Act {
  const retired = retiredSchema.parse({ ...how, at: stamp.now });
  const machine = findMachine(bench, box.machineId);
  const away = retired.machine !== 'back to the shelf';
  const drives = retired.drives.map((d) => `${d.name}: ${d.end}${d.readBack ? ', read back' : ''}`);
  return {
    label: `${box.name} retired`,
    keeping: true,
    changes: [
      edited('boxes', box, { ...box, kept: { ...keptOf(box), retired } }),
      ...retired.drives.flatMap((d) => driveGoes(bench, d, away, stamp.now)),
      ...(machine && away ? [edited('items', machine, { ...machine, owned: false })] : []),
      ...hostsOfBox(bench, box.id).map((h): Change => ({ in: 'hosts', id: h.id, to: null })),
      logged({
        kind: 'note',
        ...logBase(box, 'keep', stamp),
        text: [`Retired: ${retired.because}`, machineEndWords(retired.machine), ...drives]
          .join('. ')
          .slice(0, 4000),
      }),
    ],
  };
}
