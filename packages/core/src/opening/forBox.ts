import { laidBox } from '../layout/forBox';
import { hasBattery } from '../machine/power';
import { schematic, type PlaceGroup } from '../machine/schematic';
import {
  findMachine,
  findProfile,
  photosOf,
  storesOf,
  type Bench,
  type Box,
  type Machine,
  type Store,
} from '../model/bench';
import { isBlank } from '../model/content';
import { noOpening, onTray, type OpeningRecord } from '../model/opening';
import { openingEffort, stepMinutes, type Effort } from './effort';
import { goesInside, placeFor, type PlaceVerdict } from './place';

/** One step, as data; words/opening.ts says it. `key` is stable within a box. */
export interface OpeningStep {
  key: string;
  what: OpeningWhat;
  /** Minutes of a person. Common practice, no source. */
  minutes: number;
  /** It is done: ticked, or seen from what is kept. */
  done: boolean;
}

/** What is done in a step. */
export type OpeningWhat =
  | { code: 'erase first'; drive: string; id: string }
  | { code: 'power off' }
  | { code: 'unplug the mains' }
  | { code: 'look at the cells' }
  | { code: 'photograph'; photos: number }
  | { code: 'take the cover off'; screws: number; ribbons: boolean }
  | { code: 'unplug the battery' }
  | { code: 'take out'; drive: string }
  | { code: 'put in'; drive: string; place: PlaceVerdict }
  | { code: 'put in memory'; name: string }
  | { code: 'plug the battery in' }
  | { code: 'count the screws'; out: number; back: number }
  | { code: 'look in setup'; drives: string[] };

/** Opening a machine for a box: what goes in and out, the steps, the tray, and its places before and afterwards. */
export interface Opening {
  machine: string;
  effort: Effort;
  goesOut: Store[];
  goesIn: Store[];
  steps: OpeningStep[];
  /** Minutes of all steps, and of those that are left. */
  minutes: number;
  left: number;
  record: OpeningRecord;
  readonly before: PlaceGroup[];
  readonly after: PlaceGroup[];
}

/** Why nothing is opened. */
export type NoOpening = { code: 'no machine' } | { code: 'stays closed' };

const isInner = (s: Store): boolean => s.kind === 'drive' && s.transport !== 'usb';

/** What goes into the machine for this box: the drive of its system and drives put aside, where they are not in it yet. */
function goingIn(bench: Bench, box: Box, machine: Machine): Store[] {
  const straight = findProfile(bench, box.profileId)?.installer === 'written straight to the final drive';
  const target = straight
    ? storesOf(bench).find((s) => s.serial !== null && s.serial === box.targetSerial)
    : laidBox(bench, box).drive;
  const aside = storesOf(bench).filter((s) => box.parts.includes(s.id));
  return [...new Set([...(target ? [target] : []), ...aside])].filter((s) => goesInside(bench, machine, s));
}

/** The bench after the moves, so that the same drawing shows both. */
function moved(bench: Bench, machine: Machine, out: readonly Store[], into: readonly Store[]): Bench {
  const at = (id: string): string | null | undefined =>
    out.some((s) => s.id === id) ? null : into.some((s) => s.id === id) ? machine.id : undefined;
  return {
    ...bench,
    items: bench.items.map((i) => {
      const to = at(i.id);
      return to === undefined || !('in' in i) ? i : { ...i, in: to };
    }),
  };
}

/** What has to be done to a machine's inside for a box; or why it stays closed. */
export function openingOf(bench: Bench, box: Box): Opening | NoOpening {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return { code: 'no machine' };
  const record = box.opening ?? noOpening();
  const unplugged = new Set(box.precautions.flatMap((p) => (p.startsWith('unplug:') ? [p.slice(7)] : [])));
  const goesOut = storesOf(bench).filter((s) => s.in === machine.id && unplugged.has(s.id));
  const goesIn = goingIn(bench, box, machine);
  const memory = bench.items.filter(
    (i) => i.kind === 'memory' && box.parts.includes(i.id) && i.in !== machine.id,
  );
  if (goesOut.length + goesIn.length + memory.length === 0) return { code: 'stays closed' };

  const effort = openingEffort(machine);
  const battery = hasBattery(machine);
  const photos = photosOf(bench, machine.id).length;
  const { out, back } = onTray(record.tray);
  const step = (key: string, minutes: number, what: OpeningWhat, seen = false): OpeningStep => ({
    key,
    what,
    minutes,
    done: seen || record.done.includes(key),
  });
  const steps: OpeningStep[] = [
    // Other people's data on a donated drive: NIST SP 800-88 Rev. 1, before it is used again.
    ...goesIn
      .filter((s) => s.fate === 'may be lost' && !isBlank(s.content))
      .map((s) => step(`erase:${s.id}`, stepMinutes.erase, { code: 'erase first', drive: s.name, id: s.id })),
    step('off', stepMinutes.off, { code: 'power off' }),
    step('mains', stepMinutes.mains, { code: 'unplug the mains' }),
    ...(battery ? [step('cells', stepMinutes.cells, { code: 'look at the cells' })] : []),
    step('cover', effort.minutes / 2, {
      code: 'take the cover off',
      screws: effort.screws,
      ribbons: effort.ribbons,
    }),
    step('photo', stepMinutes.photo, { code: 'photograph', photos }, photos > 0),
    ...(battery ? [step('battery', stepMinutes.battery, { code: 'unplug the battery' })] : []),
    ...goesOut.map((s) => step(`out:${s.id}`, stepMinutes.out, { code: 'take out', drive: s.name })),
    ...goesIn.map((s) =>
      step(`in:${s.id}`, stepMinutes.in, {
        code: 'put in',
        drive: s.name,
        place: placeFor(bench, machine, s),
      }),
    ),
    ...memory.map((m) => step(`memory:${m.id}`, stepMinutes.in, { code: 'put in memory', name: m.name })),
    ...(battery ? [step('battery back', stepMinutes.battery, { code: 'plug the battery in' })] : []),
    step('screws', effort.minutes / 2, { code: 'count the screws', out, back }, out > 0 && out === back),
    step('setup', stepMinutes.setup, {
      code: 'look in setup',
      drives: [
        ...storesOf(bench).filter((s) => s.in === machine.id && !unplugged.has(s.id) && isInner(s)),
        ...goesIn,
      ].map((s) => s.name),
    }),
  ];
  const sum = (list: readonly OpeningStep[]): number => list.reduce((n, s) => n + s.minutes, 0);
  return {
    machine: machine.name,
    effort,
    goesOut,
    goesIn,
    steps,
    minutes: sum(steps),
    left: sum(steps.filter((s) => !s.done)),
    record,
    // The ledger of every page asks for the minutes alone.
    get before() {
      return schematic(bench, machine.id);
    },
    get after() {
      return schematic(moved(bench, machine, goesOut, goesIn), machine.id);
    },
  };
}
