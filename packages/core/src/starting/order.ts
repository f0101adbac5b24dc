import { drivesIn, findProfile, type Bench, type Box, type Machine, type Store } from '../model/bench';
import type { BootEntry } from '../model/details';
import { knownFact } from '../model/known';
import type { LadderAssumption, Moment } from './rung';

/** What stands in the firmware's order, from the top. */
export type OrderPlace =
  | { kind: 'stick'; by: 'menu' | 'order' }
  | { kind: 'boot entry'; entry: BootEntry; drive: Store | null }
  | { kind: 'drive'; drive: Store }
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

/** The drive that a boot entry names: the one from whose content the survey read that entry. */
const driveOf = (entry: BootEntry, drives: readonly Store[]): Store | null =>
  drives.find((d) =>
    d.content?.starts?.some((s) => s.by === 'boot entry' && s.title === (entry.label || 'a boot entry')),
  ) ?? null;

/** Device paths of what is no drive inside (UEFI 2.10 §10.3): removable media, optical media, the network. */
const CLASSES: readonly [RegExp, 'usb' | 'optical' | 'network'][] = [
  [/\bUSB\(|BBS\(USB/i, 'usb'],
  [/\bCDROM\(|BBS\(CDROM/i, 'optical'],
  [/\bMAC\(|\bIPv[46]\(|BBS\(Network/i, 'network'],
];
const DISK = /\bHD\(|BBS\((HD|HDD)/i;

function byEntries(entries: readonly BootEntry[], inside: readonly Store[]): OrderPlace[] {
  const places = entries.flatMap((entry): OrderPlace[] => {
    const named = CLASSES.find(([of]) => of.test(entry.path))?.[1];
    if (named === 'usb') return [{ kind: 'stick', by: 'order' }];
    if (named) return [{ kind: named }];
    return DISK.test(entry.path) ? [{ kind: 'boot entry', entry, drive: driveOf(entry, inside) }] : [];
  });
  const named = new Set(places.flatMap((p) => (p.kind === 'boot entry' && p.drive ? [p.drive] : [])));
  // Drives that no entry names are tried afterwards, by the path that firmware falls back to (UEFI 2.10 §3.5.1).
  return [
    ...places,
    ...inside.filter((d) => !named.has(d)).map((drive) => ({ kind: 'drive' as const, drive })),
  ];
}

function byClasses(order: readonly string[], inside: readonly Store[]): OrderPlace[] {
  return order.flatMap((entry): OrderPlace[] => {
    if (entry === 'usb') return [{ kind: 'stick', by: 'order' }];
    if (entry === 'internal')
      return inside.length === 0
        ? [{ kind: 'no drive' }]
        : inside.map((drive) => ({ kind: 'drive' as const, drive }));
    return [{ kind: entry === 'optical' ? 'optical' : 'network' }];
  });
}

/** The order as it stands today, the stick in its own place, and what had to be assumed of it. */
function today(
  bench: Bench,
  box: Box,
  machine: Machine,
): { places: OrderPlace[]; assumed: LadderAssumption[] } {
  const inside = drivesIn(bench, machine.id);
  const entries = machine.details?.bootEntries ?? [];
  const said = machine.facts['firmware.order']?.entered !== undefined;
  const uefi = knownFact(machine, 'firmware.mode')?.value === 'uefi';
  const known = knownFact(machine, 'firmware.order')?.value;
  if (uefi && entries.length > 0 && !said) {
    const places = byEntries(entries, inside);
    return { places: withStick(places), assumed: [] };
  }
  const order = Array.isArray(known) ? known : ['internal', 'usb'];
  return {
    places: withStick(byClasses(order, inside)),
    assumed: !Array.isArray(known) && box.startBy === 'order' ? [{ code: 'internal before USB' }] : [],
  };
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
  const { places, assumed } = today(bench, box, machine);
  if (moment === 'now') {
    if (box.startBy !== 'menu') return { places, assumed };
    const menuKnown = knownFact(machine, 'firmware.menuKey') !== undefined;
    return {
      places: [{ kind: 'stick', by: 'menu' }, ...places.filter((p) => p.kind !== 'stick')],
      assumed: menuKnown ? assumed : [...assumed, { code: 'menu key not known' }],
    };
  }
  const manner = findProfile(bench, box.profileId)?.manner;
  const uefi = knownFact(machine, 'firmware.mode')?.value === 'uefi';
  const after = places.flatMap((p): OrderPlace[] => {
    if (p.kind === 'stick') return stickIn ? [p] : [];
    if (!target || !('drive' in p) || p.drive?.id !== target.id) return [p];
    // Its entries name a loader that is gone; its place in the order stays.
    return [{ kind: 'new system', drive: target, by: 'place' }];
  });
  if (!target) return { places: after, assumed };
  const once = after.filter(
    (p, i) => p.kind !== 'new system' || after.findIndex((q) => q.kind === p.kind) === i,
  );
  if (uefi && manner?.entry === 'made')
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
