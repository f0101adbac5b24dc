import {
  drivesIn,
  findItem,
  findProfile,
  type Bench,
  type Box,
  type Machine,
  type Store,
} from '../model/bench';
import { guidIn, signatureIn } from '../model/bootPath';
import type { BootEntry } from '../model/details';
import { knownFact } from '../model/known';
import { isStore } from '../model/shelf';
import type { LadderAssumption, Moment } from './rung';

/** What stands in the firmware's order, from the top. */
export type OrderPlace =
  | { kind: 'stick'; by: 'menu' | 'order' }
  /** `among`: several drives answer to what the entry names, and which the firmware finds first is not known. */
  | { kind: 'boot entry'; entry: BootEntry; drive: Store | null; among: readonly Store[] }
  /** `fallback`: no entry of the order names it; the firmware looks for one path on it. */
  | { kind: 'drive'; drive: Store; fallback: boolean }
  | { kind: 'new system'; drive: Store; by: 'entry' | 'place' }
  | { kind: 'no drive' }
  | { kind: 'optical' }
  | { kind: 'network' };

/** What is known of the moment at which the order is tried. */
export interface OrderAsked {
  moment: Moment;
  stickIn: boolean;
  /** The drive that takes the system; null where nobody has said. */
  target: Store | null;
}

/**
 * The drives that a boot entry may name: those with the partition it names by GUID, or on MBR the disk by its signature
 * (UEFI 2.10 §10.3.5.1). By its label alone only where the path or the drive tells no identity: two systems often share one.
 */
function drivesOf(entry: BootEntry, drives: readonly Store[]): readonly Store[] {
  const guid = guidIn(entry.path);
  const signature = signatureIn(entry.path);
  const known = drives.filter(({ content }) =>
    guid !== null
      ? content?.parts.some((p) => p.partitionId?.toLowerCase() === guid)
      : signature !== null && content?.tableId?.toLowerCase() === signature,
  );
  if (known.length > 0) return known;
  const nameless = (d: Store): boolean =>
    guid !== null
      ? d.content?.parts.some((p) => p.partitionId === null) === true
      : signature === null || d.content?.tableId === null;
  return drives.filter(
    (d) =>
      nameless(d) &&
      d.content?.starts?.some((s) => s.by === 'boot entry' && s.title === (entry.label || 'a boot entry')),
  );
}

/** Device paths of what is no drive inside (UEFI 2.10 §10.3): removable media, optical media, the network. */
const CLASSES: readonly [RegExp, 'usb' | 'optical' | 'network'][] = [
  [/\bUSB\(|BBS\(USB/i, 'usb'],
  [/\bCDROM\(|BBS\(CDROM/i, 'optical'],
  [/\bMAC\(|\bIPv[46]\(|BBS\(Network/i, 'network'],
];
const DISK = /\bHD\(|BBS\((HD|HDD)/i;

/** Entries as the firmware tries them: what BootNext names once before all, then BootOrder; no other (UEFI 2.10 §3.1.1). */
function byEntries(entries: readonly BootEntry[], inside: readonly Store[], moment: Moment): OrderPlace[] {
  const next = moment === 'now' ? entries.filter((e) => e.next) : [];
  const tried = [...next, ...entries.filter((e) => e.inOrder && !next.includes(e))];
  const places = tried.flatMap((entry): OrderPlace[] => {
    const named = CLASSES.find(([of]) => of.test(entry.path))?.[1];
    if (named === 'usb') return [{ kind: 'stick', by: 'order' }];
    if (named) return [{ kind: named }];
    if (!DISK.test(entry.path)) return [];
    const among = drivesOf(entry, inside);
    return [{ kind: 'boot entry', entry, drive: among[0] ?? null, among }];
  });
  const named = new Set(places.flatMap((p) => (p.kind === 'boot entry' ? p.among : [])));
  // Drives that no entry names are tried afterwards, by the path that firmware falls back to (UEFI 2.10 §3.5.1).
  return [
    ...places,
    ...inside
      .filter((d) => !named.has(d))
      .map((drive) => ({ kind: 'drive' as const, drive, fallback: true })),
  ];
}

function byClasses(order: readonly string[], inside: readonly Store[]): OrderPlace[] {
  return order.flatMap((entry): OrderPlace[] => {
    if (entry === 'usb') return [{ kind: 'stick', by: 'order' }];
    if (entry === 'internal')
      return inside.length === 0
        ? [{ kind: 'no drive' }]
        : inside.map((drive) => ({ kind: 'drive' as const, drive, fallback: false }));
    return [{ kind: entry === 'optical' ? 'optical' : 'network' }];
  });
}

/** The order as it stands today, the stick in its own place, and what had to be assumed of it. */
function today(
  bench: Bench,
  box: Box,
  machine: Machine,
  moment: Moment,
): { places: OrderPlace[]; assumed: LadderAssumption[] } {
  // What hangs on a port that is switched off is not there for the firmware.
  const inside = drivesIn(bench, machine.id).filter((d) => !machine.portsOff.includes(d.id));
  const entries = machine.details?.bootEntries ?? [];
  const said = machine.facts['firmware.order']?.entered !== undefined;
  const uefi = knownFact(machine, 'firmware.mode')?.value === 'uefi';
  const known = knownFact(machine, 'firmware.order')?.value;
  if (uefi && entries.length > 0 && !said) {
    const next = moment === 'now' && entries.some((e) => e.next);
    return {
      places: withFirst(bench, machine, withStick(byEntries(entries, inside, moment))),
      assumed: next ? [{ code: 'next start still to come' }] : [],
    };
  }
  const order = Array.isArray(known) ? known : ['internal', 'usb'];
  return {
    places: withFirst(bench, machine, withStick(byClasses(order, inside))),
    assumed:
      machine.bootFirst === null && !Array.isArray(known) && box.startBy === 'order'
        ? [{ code: 'internal before USB' }]
        : [],
  };
}

/** The order with what a person has put before all others at its head. */
function withFirst(bench: Bench, machine: Machine, places: OrderPlace[]): OrderPlace[] {
  const first = findItem(bench, machine.bootFirst);
  if (!first || !isStore(first)) return places;
  if (first.kind === 'stick')
    return [{ kind: 'stick', by: 'order' }, ...places.filter((p) => p.kind !== 'stick')];
  if (first.in !== machine.id) return places;
  const mine = places.filter((p) => 'drive' in p && p.drive?.id === first.id);
  const its: OrderPlace[] = mine.length > 0 ? mine : [{ kind: 'drive', drive: first, fallback: true }];
  return [...its, ...places.filter((p) => !mine.includes(p))];
}

/** A stick stands once in the order; where nobody named one it comes last. */
function withStick(places: OrderPlace[]): OrderPlace[] {
  const first = places.findIndex((p) => p.kind === 'stick');
  const once = places.filter((p, i) => p.kind !== 'stick' || i === first);
  return first < 0 ? [...once, { kind: 'stick', by: 'order' }] : once;
}

/**
 * The order that is tried at a moment. Now: the one-time menu puts the stick before all others. After the install: the new
 * system's entry before all others where its installer makes one, else in the place of its drive; what the target held is
 * gone; the menu's choice is forgotten. UEFI 2.10 §3.1; for BIOS, common practice.
 */
export function orderAt(
  bench: Bench,
  box: Box,
  machine: Machine,
  { moment, stickIn, target }: OrderAsked,
): { places: OrderPlace[]; assumed: LadderAssumption[] } {
  const { places, assumed } = today(bench, box, machine, moment);
  if (moment === 'now') {
    if (box.startBy !== 'menu') return { places, assumed };
    const menuKnown = knownFact(machine, 'firmware.menuKey') !== undefined;
    return {
      places: [{ kind: 'stick', by: 'menu' }, ...places.filter((p) => p.kind !== 'stick')],
      assumed: menuKnown ? assumed : [...assumed, { code: 'menu key not known' }],
    };
  }
  const profile = findProfile(bench, box.profileId);
  // An installer may make a boot entry; what is written straight is found by the path that firmware falls back to.
  const makesEntry =
    profile?.manner.entry === 'made' && profile.installer !== 'written straight to the final drive';
  const uefi = knownFact(machine, 'firmware.mode')?.value === 'uefi';
  const after = places.flatMap((p): OrderPlace[] => {
    // A system that runs from a stick stands where the stick stands.
    if (p.kind === 'stick' && target?.kind === 'stick')
      return [{ kind: 'new system', drive: target, by: 'place' }];
    if (p.kind === 'stick') return stickIn ? [p] : [];
    if (p.kind === 'boot entry' && p.among.length > 1) {
      const among = p.among.filter((d) => d.id !== target?.id);
      return [{ ...p, among, drive: among[0] ?? null }];
    }
    if (!target || !('drive' in p) || p.drive?.id !== target.id) return [p];
    // Its entries name a loader that is gone; its place in the order stays.
    return [{ kind: 'new system', drive: target, by: 'place' }];
  });
  if (!target) return { places: after, assumed };
  const once = after.filter(
    (p, i) => p.kind !== 'new system' || after.findIndex((q) => q.kind === p.kind) === i,
  );
  // A chain loader that stands first goes on to the new system before any other is tried.
  const chained = box.chain !== null && machine.bootFirst === box.chain.stickId;
  if (chained)
    return {
      places: [
        { kind: 'new system', drive: target, by: 'place' },
        ...once.filter((p) => p.kind !== 'new system'),
      ],
      assumed,
    };
  if (uefi && makesEntry)
    return {
      places: [
        { kind: 'new system', drive: target, by: 'entry' },
        ...once.filter((p) => p.kind !== 'new system'),
      ],
      assumed,
    };
  const there = once.some((p) => p.kind === 'new system');
  return {
    places: there
      ? once
      : [...once.filter((p) => p.kind !== 'no drive'), { kind: 'new system', drive: target, by: 'place' }],
    assumed,
  };
}
