import type { DrivePart, Part } from '../system/part';
import {
  adapterGoesIn,
  expansionSlots,
  freePlaces,
  memoryParts,
  Reader,
  shapeFits,
  slotsFor,
  startsFrom,
  staying,
  usbPorts,
} from '../system/places';
import { slotsOf } from '../machine/slots';
import type { Model, Row, Term } from './lp';
import { optionsOf, type Option } from './options';
import type { Scene } from './scene';

/** Parts that differ in nothing but their names: told apart, they would only make equal plans look different. */
export interface PartClass {
  part: Part;
  /** Every part of the class; of an offer, the one that is bought as often as wanted. */
  members: Part[];
}

/** Where a variable puts parts of a class. */
export interface Placing {
  name: string;
  part: Part;
  members: Part[];
  machine: number;
  role: 'memory' | 'drive' | 'adapter';
}

/** The model of a shelf with what each of its variables stands for. */
export interface AssignModel {
  model: Model;
  options: Option[];
  placings: Placing[];
}

/** Points a bought unit of money costs at the usual weight, and a part moved: enough to prefer less of both among equals. */
const PER_MONEY = 0.2;
const PER_PART = 0.05;
/** Sizes enter in MiB, so that the numbers stay within what a solver holds exactly. */
const MIB = 1024 ** 2;
/** Of one offer, at most so many go into one machine. */
const COPIES = 4;

const x = (i: number): string => `x${i}`;
const down = (bytes: number): number => Math.floor(bytes / MIB);
const up = (bytes: number): number => Math.ceil(bytes / MIB);

/** What a unit of money spent is worth in points. */
export const moneyPoints = (scene: Scene): number => PER_MONEY * scene.weights.cost;
/** A part costs a little, and a larger one a little more, so that the smallest that does is taken. */
export const partPoints = (part: Part): number => PER_PART + ('bytes' in part ? part.bytes / 1e14 : 0);

function classesOf(parts: readonly Part[]): PartClass[] {
  const classes = new Map<string, PartClass>();
  for (const part of parts) {
    const key = part.offer ? part.id : JSON.stringify({ ...part, id: '', name: '' });
    const known = classes.get(key);
    if (known) known.members.push(part);
    else classes.set(key, { part, members: [part] });
  }
  return [...classes.values()];
}

/** The rows and variables of one machine: which parts can go in, and what they must bring for each way. */
function machineRows(
  scene: Scene,
  classes: readonly PartClass[],
  machine: number,
  mine: { option: Option; name: string }[],
): {
  rows: Row[];
  placings: Placing[];
  binary: string[];
} {
  const view = scene.machines[machine];
  const rows: Row[] = [];
  const placings: Placing[] = [];
  const binary: string[] = [];
  const wanting = mine.filter(
    ({ option: { lacks: l } }) => l.memoryBytes + l.drives + l.sataPorts + l.wired > 0,
  );
  if (!view || wanting.length === 0) return { rows, placings, binary };
  const m = new Reader({ ...view, parts: scene.parts }, 'hide');
  const add = (terms: Term[], sign: Row['sign'], is: number): void => void rows.push({ terms, sign, is });
  const put = ({ part, members }: PartClass, index: number, role: Placing['role'], tag = ''): string => {
    const name = `z${index}m${machine}${role[0]}${tag}`;
    placings.push({ name, part, members, machine, role });
    return name;
  };
  const indexed = classes.map((of, index) => ({ ...of, index }));

  const memoryOptions = wanting.filter(({ option }) => option.lacks.memoryBytes > 0);
  if (memoryOptions.length > 0) {
    const fitting = new Set<Part>(memoryParts(m));
    const inside = view.modules ?? [];
    const modules = indexed.flatMap((of) =>
      of.part.kind === 'memory' && fitting.has(of.part)
        ? [{ name: put(of, of.index, 'memory'), bytes: of.part.bytes }]
        : [],
    );
    const removed = inside.map((bytes, k) => ({ name: `g${machine}k${k}`, bytes }));
    binary.push(...removed.map((r) => r.name));
    const out = removed.map((r) => ({ name: r.name, by: -1 }));
    add([...modules.map((z) => ({ name: z.name, by: 1 })), ...out], '<=', m.number('memory.free') ?? 0);
    const lost = removed.map((r) => ({ name: r.name, by: -up(r.bytes) }));
    for (const { option, name } of memoryOptions) {
      const need = up(option.lacks.memoryBytes);
      // More than what is lacking (and what is taken out) helps nothing; saying so makes the relaxation tight.
      const most = need + inside.reduce((n, b) => n + up(b), 0);
      add(
        [
          ...modules.map((z) => ({ name: z.name, by: Math.min(down(z.bytes), most) })),
          ...lost,
          { name, by: -need },
        ],
        '>=',
        0,
      );
    }
    const limit = m.number('memory.max');
    if (limit !== undefined)
      add(
        [
          ...modules.map((z) => ({ name: z.name, by: down(z.bytes) })),
          ...removed.map((r) => ({ name: r.name, by: -down(r.bytes) })),
        ],
        '<=',
        down(limit - (m.number('memory.bytes') ?? 0)),
      );
  }

  const adapters = indexed.flatMap((of) => {
    const { part } = of;
    return part.kind === 'adapter' && adapterGoesIn(m, part)
      ? [{ part, name: put(of, of.index, 'adapter') }]
      : [];
  });
  add(
    adapters.filter((a) => a.part.goesIn === 'expansion slot').map((a) => ({ name: a.name, by: 1 })),
    '<=',
    expansionSlots(m) ?? 0,
  );
  add(
    adapters.filter((a) => a.part.goesIn === 'USB port').map((a) => ({ name: a.name, by: 1 })),
    '<=',
    usbPorts(m),
  );
  for (const { option, name } of wanting) {
    const { wired, sataPorts } = option.lacks;
    if (wired > 0)
      add(
        [
          ...adapters.map((a) => ({ name: a.name, by: Math.min(wired, a.part.wiredPorts) })),
          { name, by: -wired },
        ],
        '>=',
        0,
      );
    if (sataPorts > 0)
      add(
        [
          ...adapters.map((a) => ({ name: a.name, by: Math.min(sataPorts, a.part.sataPorts) })),
          { name, by: -sataPorts },
        ],
        '>=',
        0,
      );
  }

  const driveOptions = wanting.filter(({ option }) => option.lacks.drives > 0);
  if (driveOptions.length > 0) {
    const known = driveOptions.map(({ option, name }) => ({
      option,
      name,
      places: freePlaces(m, staying(view, option.needing.bootBytes, option.needing.dataDrives)),
    }));
    const slots = slotsOf(m.get('ports.m2'));
    type Candidate = { part: DrivePart; names: string[]; slot: Map<string, number> };
    const candidates = indexed.flatMap((of): Candidate[] => {
      const { part } = of;
      if (part.kind !== 'drive' || part.bus === 'other' || !shapeFits(part, view.form)) return [];
      if (part.bus === 'sata' || part.bus === 'card')
        return [{ part, names: [put(of, of.index, 'drive')], slot: new Map() }];
      const slot = new Map(slotsFor(part, slots).map((s) => [put(of, of.index, 'drive', `s${s}`), s]));
      return slot.size > 0 ? [{ part, names: [...slot.keys()], slot }] : [];
    });
    const all = (test: (c: Candidate) => boolean): Term[] =>
      candidates.filter(test).flatMap((c) => c.names.map((name) => ({ name, by: 1 })));
    const room = (count: (p: NonNullable<(typeof known)[number]['places']>) => number): Term[] =>
      known.map(({ name, places }) => ({ name, by: -(places ? count(places) : 0) }));
    add(
      [
        ...all((c) => c.part.bus === 'sata'),
        ...adapters.map((a) => ({ name: a.name, by: -a.part.sataPorts })),
        ...room((p) => p.sata),
      ],
      '<=',
      0,
    );
    add([...all((c) => c.part.bus === 'card'), ...room((p) => p.card)], '<=', 0);
    slots.forEach((_, s) => {
      const here = candidates.flatMap((c) =>
        [...c.slot].filter(([, at]) => at === s).map(([name]) => ({ name, by: 1 })),
      );
      add([...here, ...room((p) => Number(p.m2.some((free) => free.at === s)))], '<=', 0);
    });
    for (const { option, name, places } of known) {
      const { drives, bootBytes } = option.lacks;
      const large = (c: Candidate): boolean => c.part.bytes >= (bootBytes ?? 0) && startsFrom(view, c.part);
      // Where the kinds of the free ports are not known, no part is known to go in.
      const open = (c: Candidate): boolean => places !== undefined && (c.part.bus !== 'card' || large(c));
      add([...all(open), { name, by: -drives }], '>=', 0);
      if (bootBytes !== null)
        add([...all((c) => places !== undefined && large(c)), { name, by: -1 }], '>=', 0);
    }
  }
  return { rows, placings, binary };
}

/** The whole shelf as one exact model: who becomes what, and which part goes where, within the budget. */
export function buildModel(scene: Scene): AssignModel {
  const options = optionsOf(scene);
  const classes = classesOf(scene.parts);
  const rows: Row[] = [];
  const placings: Placing[] = [];
  const binary = options.map((_, i) => x(i));
  const group = (key: 'wish' | 'machine', n: number): Term[] =>
    options.flatMap((o, i) => (o[key] === n ? [{ name: x(i), by: 1 }] : []));
  scene.wishes.forEach((_, w) => rows.push({ terms: group('wish', w), sign: '<=', is: 1 }));
  scene.machines.forEach((_, m) => {
    rows.push({ terms: group('machine', m), sign: '<=', is: 1 });
    const mine = options.flatMap((option, i) => (option.machine === m ? [{ option, name: x(i) }] : []));
    const made = machineRows(scene, classes, m, mine);
    rows.push(...made.rows);
    placings.push(...made.placings);
    binary.push(...made.binary);
  });
  const whole: Model['whole'] = [];
  for (const p of placings) {
    const most = p.part.offer ? COPIES : p.members.length;
    if (most === 1) binary.push(p.name);
    else whole.push({ name: p.name, most });
  }
  for (const { part, members } of classes)
    if (!part.offer)
      rows.push({
        terms: placings.filter((p) => p.part === part).map((p) => ({ name: p.name, by: 1 })),
        sign: '<=',
        is: members.length,
      });
  const priced = placings.filter((p) => p.part.price > 0);
  rows.push({ terms: priced.map((p) => ({ name: p.name, by: p.part.price })), sign: '<=', is: scene.budget });
  const money = moneyPoints(scene);
  return {
    options,
    placings,
    model: {
      objective: [
        ...options.map((o, i) => ({ name: x(i), by: o.value })),
        ...placings.map((p) => ({ name: p.name, by: -(partPoints(p.part) + p.part.price * money) })),
      ],
      rows,
      binary,
      whole,
    },
  };
}
