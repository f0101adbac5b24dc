import type { FactKey, FactValue } from '../model/facts';
import type { AdapterPart, DrivePart, MemoryPart } from './part';
import { m2Fits, slotsOf, type M2Slot } from '../machine/slots';
import type { DriveView, MachineView } from './view';

/** A machine's facts as a rule reads them; what it read that is only assumed is remembered. */
export class Reader {
  readonly leaned = new Set<FactKey>();
  constructor(
    readonly view: MachineView,
    /** What to do with assumed facts: note that they were read, take them for true, or act as if they were not there. */
    private readonly assumed: 'note' | 'trust' | 'hide' = 'note',
  ) {}

  get(key: FactKey): FactValue | undefined {
    const value = this.view.facts[key];
    if (value === undefined || this.assumed === 'trust' || !this.view.assumed?.has(key)) return value;
    if (this.assumed === 'hide') return undefined;
    this.leaned.add(key);
    return value;
  }
  text(key: FactKey): string | undefined {
    const v = this.get(key);
    return typeof v === 'string' ? v : undefined;
  }
  number(key: FactKey): number | undefined {
    const v = this.get(key);
    return typeof v === 'number' ? v : typeof v === 'string' && /^\d+$/.test(v) ? Number(v) : undefined;
  }
  flag(key: FactKey): boolean | undefined {
    const v = this.get(key);
    return typeof v === 'boolean' ? v : undefined;
  }
}

/** Boot modes its setup offers; undefined where nobody looked. */
export function offersOf(m: Reader): readonly string[] | undefined {
  const value = m.get('firmware.offers');
  return Array.isArray(value) ? value : undefined;
}

/** USB ports that can take an adapter; where nobody counted them, one. */
export const usbPorts = (m: Reader): number => m.number('ports.usb') ?? 1;

/**
 * Whether firmware starts from NVMe: as was seen, else not where it knows BIOS alone (an NVMe drive is started by a UEFI
 * driver; common practice, no source).
 */
export function startsFromNvme({ facts, assumed }: Pick<MachineView, 'facts' | 'assumed'>): boolean {
  const seen = facts['firmware.startsNvme'];
  if (typeof seen === 'boolean') return seen;
  const offers = facts['firmware.offers'];
  const uefi = Array.isArray(offers) && offers.includes('uefi');
  return facts['firmware.mode'] !== 'bios' || assumed?.has('firmware.mode') === true || uefi;
}

/** Whether the machine starts from its card reader: boards do, of others it must have been seen. */
const startsFromCard = ({ facts, form }: MachineView): boolean =>
  typeof facts['firmware.startsCard'] === 'boolean'
    ? facts['firmware.startsCard']
    : form === undefined ||
      form === 'board' ||
      facts['firmware.mode'] === 'board' ||
      facts['ports.drives'] === 0;

/** Whether the machine can start from a drive of this kind at all. */
export const startsFrom = (
  view: MachineView,
  drive: { transport?: string | undefined; kind?: string | undefined; bus?: string },
): boolean => {
  if (drive.transport === 'nvme' || drive.bus === 'nvme') return startsFromNvme(view);
  const card = drive.kind === 'card' || drive.transport === 'mmc' || drive.bus === 'card';
  return !card || startsFromCard(view);
};

/** Kinds of machine that take expansion cards and 3.5-inch drives; the others have no room. Common practice, no source. */
const WITH_SLOTS = ['tower', 'office desktop', 'old desktop', 'rack server'];

/** Free expansion slots; undefined where only a look inside can tell. */
export function expansionSlots(m: Reader): number | undefined {
  const known = m.number('ports.pcie');
  if (known !== undefined) return known;
  return m.view.form !== undefined && WITH_SLOTS.includes(m.view.form) ? undefined : 0;
}

/** Whether an adapter goes into this machine at all; each card then takes one of its slots. */
export const adapterGoesIn = (m: Reader, part: AdapterPart): boolean =>
  part.goesIn === 'expansion slot'
    ? (expansionSlots(m) ?? 0) > 0
    : part.goesIn === 'USB port' && usbPorts(m) > 0;

/** How loud a machine is, from what was said of it, or silent where it has no fan. */
export const noiseOf = (m: Reader): string | undefined =>
  m.text('body.noise') ?? (m.flag('body.fan') === false ? 'silent' : undefined);

/** Drives that may be used: not kept, and not failing by their own account. */
export const usable = (drives: readonly DriveView[]): DriveView[] =>
  drives.filter((d) => d.decided || (d.fate !== 'keep' && d.health !== 'failing'));
const isInside = (d: DriveView): boolean => d.kind !== 'card' && d.transport !== 'mmc' && !d.removable;

/** How many drives can be connected inside; undefined where nobody said. */
export function drivePorts(m: Reader): number | undefined {
  const whole = m.number('ports.drives');
  if (whole !== undefined) return whole;
  const sata = m.number('ports.sata');
  const m2 = m.get('ports.m2');
  return sata === undefined || m2 === undefined ? undefined : sata + slotsOf(m2).length;
}

/** Which of a machine's drives is to boot from, and which are left for data. */
export interface DriveState {
  /** The drive it would start from: a card where one is large enough, else the smallest free drive that is. */
  boot: DriveView | undefined;
  /** Free inside drives left for data once it has its boot drive. */
  data: DriveView[];
}

/** Chooses the boot drive (the smallest usable one of `bootBytes` or more, cards first) and counts the rest as data drives. */
export function driveState(view: MachineView, bootBytes: number): DriveState {
  const free = usable(view.drives);
  const [able] = free
    .filter((d) => d.bytes >= bootBytes && startsFrom(view, d))
    .sort((a, b) => Number(isInside(a)) - Number(isInside(b)) || a.bytes - b.bytes);
  const boot = free.find((d) => d.decided) ?? able;
  // A worn drive does for starting; what matters is not put on one.
  return { boot, data: free.filter((d) => d !== boot && isInside(d) && d.health !== 'worn') };
}

/** The drives that stay in use for these needs; the others can be taken out to make room. */
export const staying = (view: MachineView, bootBytes: number, dataDrives: number): DriveView[] => {
  const { boot, data } = driveState(view, bootBytes);
  return [...(boot ? [boot] : []), ...data.slice(0, dataDrives)];
};

/** Places into which drives can still go, by kind; undefined where the kinds of the ports are not known. */
export interface Places {
  sata: number;
  /** `at` is the slot's place in the machine's own list. */
  m2: (M2Slot & { at: number })[];
  card: number;
}

const busOfDrive = (d: DriveView): 'sata' | 'm2' | 'card' | 'other' =>
  d.kind === 'card' || d.transport === 'mmc'
    ? 'card'
    : d.transport === 'nvme' || d.shape === 'M.2' || d.m2
      ? 'm2'
      : d.transport === 'sata'
        ? 'sata'
        : 'other';

/** Free places beside the drives that stay in use; drives that are not used can be taken out. */
export function freePlaces(m: Reader, stay: readonly DriveView[]): Places | undefined {
  const sata = m.number('ports.sata');
  const slots = m.get('ports.m2');
  const none = m.number('ports.drives') === 0;
  if (sata === undefined && slots === undefined && !none) return undefined;
  const left = slotsOf(slots).map((s, at) => ({ ...s, at }));
  for (const d of stay.filter((x) => busOfDrive(x) === 'm2')) {
    const protocol = d.transport === 'nvme' ? 'nvme' : 'sata';
    const at = left.findIndex((s) => (d.m2 ? m2Fits(d.m2, protocol, s) : s.protocols.includes(protocol)));
    left.splice(at < 0 ? 0 : at, 1);
  }
  const used = (bus: string): number => stay.filter((d) => busOfDrive(d) === bus).length;
  return {
    sata: Math.max(0, (sata ?? 0) - used('sata')),
    m2: left,
    card: none || m.view.form === 'board' ? Math.max(0, 1 - used('card')) : 0,
  };
}

/** Indexes into the M.2 slots that this drive goes into; empty for drives of another kind. */
export const slotsFor = (part: DrivePart, slots: readonly M2Slot[]): number[] => {
  const { m2, bus } = part;
  if (!m2 || (bus !== 'nvme' && bus !== 'm2 sata')) return [];
  return slots.flatMap((s, i) => (m2Fits(m2, bus === 'nvme' ? 'nvme' : 'sata', s) ? [i] : []));
};

/** Whether the drive's shape has room in a machine of this kind; a kind nobody named is given the benefit of the doubt. */
export const shapeFits = (part: DrivePart, form: MachineView['form']): boolean =>
  part.shape !== '3.5 inch' || form === undefined || WITH_SLOTS.includes(form);

/** Do all these drives find places at once? A small matching by backtracking: there are never many. */
export function findPlaces(parts: readonly DrivePart[], places: Places): boolean {
  const place = (i: number, sata: number, m2: ReadonlySet<number>, card: number): boolean => {
    const part = parts[i];
    if (!part) return true;
    if (part.bus === 'sata') return sata > 0 && place(i + 1, sata - 1, m2, card);
    if (part.bus === 'card') return card > 0 && place(i + 1, sata, m2, card - 1);
    return slotsFor(part, places.m2).some(
      (s) => m2.has(s) && place(i + 1, sata, new Set([...m2].filter((x) => x !== s)), card),
    );
  };
  return place(0, places.sata, new Set(places.m2.keys()), places.card);
}

/** Does a machine of this memory type take such a module? Low-voltage DDR3 runs at 1.5 V as well; the other way it does not (JESD79-3-1 §1). */
const takesType = (machine: string | undefined, module: string): boolean =>
  module.toUpperCase() === machine || (machine === 'DDR3' && module.toUpperCase() === 'DDR3L');

/** Memory modules of the type, form and kind the machine takes; none where type or form is not known. Registered ones go with their like alone. */
export function memoryParts(m: Reader): MemoryPart[] {
  const type = m.text('memory.type');
  const form = m.text('memory.form');
  const checked = m.text('memory.checked');
  return m.view.parts.filter(
    (p): p is MemoryPart =>
      p.kind === 'memory' &&
      takesType(type, p.type) &&
      p.form === form &&
      (checked === undefined || (checked === 'registered') === (p.checked === 'registered')),
  );
}
