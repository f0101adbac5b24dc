import { holdsSystemOf } from '../plan/medium';
import { findMachine, hostsOfBox, storesIn, type Bench, type Box, type Store } from '../model/bench';
import { contentTitle, isBlank } from '../model/content';
import { knownFlag } from '../model/known';
import type { DriveEnd, MachineEnd } from '../model/keep';
import { erasePlan, type EraseLevel, type ErasePlan } from '../write/erase';
import { firmwareBack, keptSettings, type KeptSetting } from './settings';

/** A drive that leaves: what is on it, how sure it must be erased, and how. */
export interface LeavingDrive {
  store: Store;
  /** What is known to be on it; empty where nothing is. */
  holds: string;
  /** It must not be lost: it is taken out before anything is erased. */
  keep: boolean;
  level: EraseLevel;
  plan: ErasePlan;
}

/** What is done before a box is no more, in this order. */
export type RetireLine =
  | { code: 'bring away'; what: string; only: boolean }
  | { code: 'guests first'; guests: string[] }
  | { code: 'tell who leans on it'; purpose: string; users: string[] }
  | { code: 'give the address back'; host: string; address: string | null }
  | { code: 'another gate stands' }
  | { code: 'strike the password out'; kept: string }
  | { code: 'take out what is kept'; drive: string; holds: string }
  | { code: 'look at the cells' }
  | { code: 'erase'; drive: LeavingDrive }
  | { code: 'put firmware back'; settings: KeptSetting[] }
  | { code: 'no password in firmware' }
  | { code: 'label off' }
  | { code: 'hand over'; to: MachineEnd };

/**
 * What is done before a box is retired. What stays in the house is cleared, what leaves it purged (NIST SP 800-88 Rev. 1 §4.5);
 * for recycling a drive that cannot be purged is broken up.
 */
export function retirementOf(bench: Bench, box: Box, to: MachineEnd): RetireLine[] {
  const machine = findMachine(bench, box.machineId);
  const drives = machine ? storesIn(bench, machine.id) : [];
  const level: EraseLevel = to === 'back to the shelf' ? 'clear' : 'purge';
  const leaving = drives.map((store): LeavingDrive => ({
    store,
    holds: isBlank(store.content) ? '' : contentTitle(store),
    keep: store.fate !== 'may be lost' && !goesWithBox(box, store),
    level,
    plan: erasePlan(store),
  }));
  const guests = box.guests?.guests.filter((g) => g.on).map((g) => g.name) ?? [];
  const users = box.sharing?.users.map((u) => u.full || u.name) ?? [];
  const kept = box.first?.password?.kept ?? '';
  const back = firmwareBack(keptSettings(bench, box));
  return [
    ...box.things.map((t): RetireLine => ({
      code: 'bring away',
      what: t.what,
      only: !t.copies.some((c) => c.where !== 'this pool'),
    })),
    ...(guests.length > 0 ? [{ code: 'guests first' as const, guests }] : []),
    { code: 'tell who leans on it', purpose: box.purpose, users },
    ...(box.purpose === 'firewall' ? [{ code: 'another gate stands' as const }] : []),
    ...hostsOfBox(bench, box.id).map((h): RetireLine => ({
      code: 'give the address back',
      host: h.name,
      address: h.address,
    })),
    ...(kept === '' ? [] : [{ code: 'strike the password out' as const, kept }]),
    ...(machine && knownFlag(machine, 'power.battery') === true
      ? [{ code: 'look at the cells' as const }]
      : []),
    ...leaving
      .filter((d) => d.keep)
      .map((d): RetireLine => ({ code: 'take out what is kept', drive: d.store.name, holds: d.holds })),
    ...leaving.filter((d) => !d.keep).map((drive): RetireLine => ({ code: 'erase', drive })),
    ...(back.length > 0 ? [{ code: 'put firmware back' as const, settings: back }] : []),
    ...(to === 'back to the shelf' ? [] : [{ code: 'no password in firmware' as const }]),
    { code: 'label off' },
    { code: 'hand over', to },
  ];
}

/** Does a drive hold no more than the system of this box? That goes with the box, unless a person has decided to keep it. */
const goesWithBox = (box: Box, store: Store): boolean =>
  holdsSystemOf(store, box) && store.retentionOrigin === 'installed';

/** What usually becomes of a drive while its machine stays in the house: what must be kept is taken out. */
export const usualEnd = (box: Box, store: Store): DriveEnd =>
  store.fate === 'may be lost' || goesWithBox(box, store) ? 'clear' : 'kept as it is';

/** Drives that would leave the house while what is on them can be read, or may be. */
export const leavesReadable = (
  bench: Bench,
  {
    machine,
    drives,
  }: { machine: MachineEnd; drives: readonly { id: string; name: string; end: DriveEnd }[] },
): string[] =>
  machine === 'back to the shelf'
    ? []
    : drives.flatMap((d) => {
        const store = bench.items.find((i) => i.id === d.id);
        const empty = store !== undefined && 'content' in store && isBlank(store.content);
        return d.end === 'clear' || (d.end === 'stays in it' && !empty) ? [d.name] : [];
      });
