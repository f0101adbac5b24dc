import { supplyOf, type Supply } from '../machine/power';
import { findMachine, photosOf, type Bench, type Box, type Store } from '../model/bench';
import { isBlank } from '../model/content';
import type { Effect } from '../plan/effect';
import { noOpening, onTray, type OpeningRecord } from '../model/opening';
import { openingEffort, stepMinutes, type Effort } from './effort';
import { moved, movesOf, storesBefore } from './moves';
import { placeFor, type PlaceVerdict } from './place';

/** One step, as data; words/opening.ts says it. `key` is stable within a box. */
export interface OpeningStep {
  key: string;
  what: OpeningWhat;
  /** Minutes of a person. Common practice, no source. */
  minutes: number;
  /** It is done: ticked, or seen from what is kept. */
  done: boolean;
  /** What is true of the hardware once it is done. */
  effects: readonly Effect[];
}

/** Why a drive comes out: as a precaution, because something else takes its place for good, or to be written in an adapter. */
export type WhyOut = 'precaution' | 'makes room' | 'to be written';

/** What is done in a step. */
export type OpeningWhat =
  | { code: 'erase first'; drive: string; id: string }
  | { code: 'power off' }
  | { code: 'unplug the mains'; supply: Supply }
  | { code: 'look at the cells' }
  | { code: 'photograph'; photos: number }
  | { code: 'take the cover off'; screws: number; ribbons: boolean }
  | { code: 'unplug the battery' }
  | { code: 'take out'; drive: string; why: WhyOut }
  | { code: 'put in'; drive: string; place: PlaceVerdict }
  | { code: 'put in memory'; name: string }
  | { code: 'plug the battery in' }
  | { code: 'count the screws'; out: number; back: number }
  | { code: 'look in setup'; drives: string[] };

/** Opening a machine for a box: what goes in and out, the steps, the tray. */
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
}

/** Why nothing is opened. */
export type NoOpening = { code: 'no machine' } | { code: 'stays closed' };

const isInner = (s: Store): boolean => s.kind === 'drive' && s.transport !== 'usb';

/** What has to be done to a machine's inside for a box; or why it stays closed. */
export function openingOf(bench: Bench, box: Box): Opening | NoOpening {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return { code: 'no machine' };
  const record = box.opening ?? noOpening();
  const { goesIn: fresh, comesOut, makesRoom, written, memory } = movesOf(bench, box);
  const goesIn = [...fresh, ...written];
  const goesOut = [...makesRoom, ...comesOut, ...written];
  const whyOut = (s: Store): WhyOut =>
    makesRoom.includes(s) ? 'makes room' : written.includes(s) ? 'to be written' : 'precaution';
  if (goesOut.length + goesIn.length + memory.length === 0) return { code: 'stays closed' };
  const before = storesBefore(bench, box, machine.id);

  // What makes room is out before anything goes in.
  const cleared = moved(bench, machine, goesOut, []);
  const effort = openingEffort(machine);
  const battery = supplyOf(machine) === 'battery';
  const photos = photosOf(bench, machine.id).length;
  const { out, back } = onTray(record.tray);
  const step = (
    key: string,
    minutes: number,
    what: OpeningWhat,
    { seen = false, effects = [] }: { seen?: boolean; effects?: Effect[] } = {},
  ): OpeningStep => ({ key, what, minutes, done: seen || record.done.includes(key), effects });
  const goes = (item: { id: string }, to: string | null): { effects: Effect[] } => ({
    effects: [{ code: 'move', item: item.id, to }],
  });
  const steps: OpeningStep[] = [
    // Other people's data on a donated drive: NIST SP 800-88 Rev. 1, before it is used again.
    ...fresh
      .filter(
        (s) => (s.fate === 'may be lost' && !isBlank(s.content)) || record.done.includes(`erase:${s.id}`),
      )
      .map((s) =>
        step(
          `erase:${s.id}`,
          stepMinutes.erase,
          { code: 'erase first', drive: s.name, id: s.id },
          { effects: [{ code: 'erase', medium: s.id }] },
        ),
      ),
    step('off', stepMinutes.off, { code: 'power off' }),
    step('mains', stepMinutes.mains, { code: 'unplug the mains', supply: supplyOf(machine) }),
    ...(battery ? [step('cells', stepMinutes.cells, { code: 'look at the cells' })] : []),
    step('cover', effort.minutes / 2, {
      code: 'take the cover off',
      screws: effort.screws,
      ribbons: effort.ribbons,
    }),
    step('photo', stepMinutes.photo, { code: 'photograph', photos }, { seen: photos > 0 }),
    ...(battery ? [step('battery', stepMinutes.battery, { code: 'unplug the battery' })] : []),
    ...goesOut.map((s) =>
      step(
        `out:${s.id}`,
        stepMinutes.out,
        { code: 'take out', drive: s.name, why: whyOut(s) },
        goes(s, null),
      ),
    ),
    ...goesIn.map((s) =>
      step(
        `in:${s.id}`,
        stepMinutes.in,
        { code: 'put in', drive: s.name, place: placeFor(cleared, machine, s) },
        goes(s, machine.id),
      ),
    ),
    ...memory.map((m) =>
      step(`memory:${m.id}`, stepMinutes.in, { code: 'put in memory', name: m.name }, goes(m, machine.id)),
    ),
    ...(battery ? [step('battery back', stepMinutes.battery, { code: 'plug the battery in' })] : []),
    step(
      'screws',
      effort.minutes / 2,
      { code: 'count the screws', out, back },
      { seen: out > 0 && out === back },
    ),
    step('setup', stepMinutes.setup, {
      code: 'look in setup',
      drives: [...before.filter((s) => !goesOut.some((o) => o.id === s.id) && isInner(s)), ...goesIn].map(
        (s) => s.name,
      ),
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
  };
}
