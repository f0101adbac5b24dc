import { slotsOf, slotText } from './slots';
import { factsOf } from '../model/known';
import { drivesIn, findMachine, type Bench, type Machine } from '../model/bench';
import { formatIec } from '../units/bytes';

/** One place of a machine: a slot, a port or a bay, with what is in it. */
export interface Place {
  label: string;
  /** What is in it; null where it is free. */
  holds: string | null;
  /** The machine sheet knows the place only by what is in it, or only assumes it. */
  unsure?: boolean;
}

/** Places of one kind in a machine, and what sits in them. */
export interface PlaceGroup {
  title: string;
  places: Place[];
}

const count = (value: unknown): number | undefined => (typeof value === 'number' ? value : undefined);

function memoryPlaces(machine: Machine, slots: number | undefined, free: number | undefined): Place[] {
  const modules = machine.details?.modules ?? [];
  if (modules.length > 0)
    return modules.map((m) => ({
      label: m.slot,
      holds: m.bytes === null ? null : [formatIec(m.bytes), m.type].filter(Boolean).join(' '),
    }));
  if (slots === undefined) return [];
  return Array.from({ length: slots }, (_, i) => ({
    label: `slot ${i + 1}`,
    holds: free === undefined ? 'not known' : i < slots - free ? 'a module' : null,
    ...(free === undefined ? { unsure: true } : {}),
  }));
}

function drivePlaces(bench: Bench, machine: Machine): PlaceGroup[] {
  const { facts, assumed } = factsOf(machine);
  const inside = drivesIn(bench, machine.id);
  // Many a drive is called by its size already.
  const named = (d: (typeof inside)[number]): string =>
    /^\d/.test(d.name) ? d.name : `${formatIec(d.bytes)} ${d.name}`;
  const m2 = inside.filter((d) => d.transport === 'nvme' || d.shape === 'M.2' || d.m2 !== null);
  const cards = inside.filter((d) => d.kind === 'card' || d.transport === 'mmc');
  const rest = inside.filter((d) => !m2.includes(d) && !cards.includes(d));
  const whole = count(facts['ports.drives']);
  const groups: PlaceGroup[] = [];
  const list = (title: string, labels: string[], held: typeof inside, unsure: boolean): void => {
    if (labels.length + held.length === 0) return;
    const n = Math.max(labels.length, held.length);
    groups.push({
      title,
      places: Array.from({ length: n }, (_, i) => ({
        label: labels[i] ?? 'not on the list',
        holds: held[i] ? named(held[i]) : null,
        ...(unsure || labels[i] === undefined ? { unsure: true } : {}),
      })),
    });
  };
  const slots = slotsOf(facts['ports.m2']);
  list('M.2', slots.map(slotText), m2, assumed?.has('ports.m2') === true);
  const sata = count(facts['ports.sata']);
  const ports = sata ?? (whole === undefined ? undefined : Math.max(0, whole - slots.length));
  list(
    sata === undefined ? 'Drive ports' : 'SATA',
    Array.from({ length: ports ?? 0 }, (_, i) => `port ${i + 1}`),
    rest,
    assumed?.has(sata === undefined ? 'ports.drives' : 'ports.sata') === true,
  );
  if (cards.length > 0 || whole === 0) list('Card', ['card'], cards, false);
  return groups;
}

/** USB ports differ in nothing the sheet knows, so they stand as one. */
const usb = (n: number | undefined, unsure: boolean): PlaceGroup[] =>
  n === undefined
    ? []
    : [
        {
          title: 'USB',
          places: [
            { label: n === 1 ? 'one port' : `${n} ports`, holds: null, ...(unsure ? { unsure } : {}) },
          ],
        },
      ];

/** Slots, ports and bays of a machine with what is in them, for the drawing on the machine sheet. */
export function schematic(bench: Bench, machineId: string): PlaceGroup[] {
  const machine = findMachine(bench, machineId);
  if (!machine) return [];
  const { facts, assumed } = factsOf(machine);
  const plain = (
    title: string,
    n: number | undefined,
    label: string,
    holds: (i: number) => string | null,
    key: 'ports.pcie' | 'network.wired',
  ): PlaceGroup[] =>
    n === undefined || n === 0
      ? []
      : [
          {
            title,
            places: Array.from({ length: Math.min(n, 12) }, (_, i) => ({
              label: n > 1 ? `${label} ${i + 1}` : label,
              holds: holds(i),
              ...(assumed?.has(key) ? { unsure: true } : {}),
            })),
          },
        ];
  const memory = memoryPlaces(machine, count(facts['memory.slots']), count(facts['memory.free']));
  const wiredPorts = machine.networkPorts.filter((p) => p.kind === 'wired');
  return [
    ...(memory.length > 0 ? [{ title: 'Memory', places: memory }] : []),
    ...drivePlaces(bench, machine),
    ...plain('Expansion', count(facts['ports.pcie']), 'free slot', () => null, 'ports.pcie'),
    ...plain(
      'Wired network',
      count(facts['network.wired']),
      'port',
      (i) => (wiredPorts[i]?.speedMbps ? `${wiredPorts[i].speedMbps} Mb/s` : null),
      'network.wired',
    ),
    ...usb(count(facts['ports.usb']), assumed?.has('ports.usb') === true),
  ];
}
