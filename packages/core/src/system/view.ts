import { drivesIn, type Bench, type Box, type Machine, type Store } from '../model/bench';
import type { FactKey, FactValue } from '../model/facts';
import { factsOf } from '../model/known';
import { isStore } from '../model/shelf';
import { healthWords } from '../machine/health';
import { holdsSystemOf } from '../plan/medium';
import { partsFor, type Part } from './part';

/** A drive as the rules of fit see it. */
export type DriveView = Pick<Store, 'name' | 'bytes' | 'transport' | 'removable' | 'fate'> &
  Partial<Pick<Store, 'id' | 'kind' | 'shape' | 'm2'>> & {
    /** By its own account: failing, or with its rated life nearly used up or sectors given up. */
    health?: 'failing' | 'worn';
    /** It was decided that the system goes on it. */
    decided?: true;
  };

/** A limit set aside with a reason, for one profile (or, as `wish:ID`, for one wish). */
export interface Overruled {
  profileId: string;
  rule: string;
  reason: string;
}

/** What judging a machine needs, free of where it came from: the bench, or a file given to the command line. */
export interface MachineView {
  id?: string;
  name: string;
  form?: Machine['form'];
  facts: Partial<Record<FactKey, FactValue>>;
  /** Facts that are only what such machines usually have. */
  assumed?: ReadonlySet<FactKey>;
  drives: DriveView[];
  /** Bytes of each module in it, where the survey listed them. */
  modules?: readonly number[];
  /** Loose parts of the shelf, and parts with a price that could be bought. */
  parts: Part[];
  overruled?: readonly Overruled[];
}

/** A drive with its real size, and its health where its own account says something against it. */
function driveView(store: Store, machine: Machine): DriveView {
  const told = machine.details?.health.find((h) => h.serial !== null && h.serial === store.serial);
  const grade = told && healthWords(told).grade;
  return {
    ...store,
    bytes: store.realBytes ?? store.bytes,
    ...(grade === 'stop' ? { health: 'failing' } : grade === 'check' ? { health: 'worn' } : {}),
  };
}

/**
 * A machine of the bench as the rules see it; parts put aside for another box are not offered. A drive that holds the system
 * of `box` is the one that this box may install on again, and the drive that it has decided on is one of the machine's. `system`:
 * the medium that its system runs from, where that is decided: no other is wanted then.
 */
export function machineView(
  bench: Bench,
  machine: Machine,
  parts = partsFor(bench, machine.id),
  box: Pick<Box, 'id' | 'layout'> | null = null,
  system?: Store,
): MachineView {
  const own = (store: Store): Store =>
    box !== null && holdsSystemOf(store, box) ? { ...store, fate: 'may be lost' } : store;
  const there = drivesIn(bench, machine.id);
  const chosen = bench.items.find((i) => i.id === box?.layout?.driveId);
  const target = system ?? (chosen && isStore(chosen) && chosen.owned ? chosen : undefined);
  const decided = target && !there.some((d) => d.id === target.id) ? [target] : [];
  const modules = machine.details?.modules.flatMap((m) => (m.bytes ? [m.bytes] : []));
  return {
    id: machine.id,
    name: machine.name,
    form: machine.form,
    ...factsOf(machine),
    drives: [...there, ...decided].map((d) => ({
      ...driveView(own(d), machine),
      ...(system?.id === d.id ? { decided: true as const } : {}),
    })),
    ...(modules && modules.length > 0 ? { modules } : {}),
    parts,
    overruled: machine.overruled,
  };
}
