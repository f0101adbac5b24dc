import type { InstallerManner } from '../../model/installer';
import { rehearsalPlanSchema, type RehearsalPlan } from '../../model/rehearsal';
import { pick, serials, shuffled, whole, type Random } from '../draw';
import type { RigKeys, RigSetup, RigTask } from './setup';

const MACHINES = [
  'the tea-room desktop',
  'the grey mini PC',
  'the tower from the loft',
  'the counter machine',
];
const KEPT = ['Slides 1962–1989', 'Minutes and members', 'Recordings of the choir', 'The tide book, scanned'];
const OLD = ['an old desktop system', 'a system nobody uses'];
const MODELS = ['Plain Flash', 'Round Platter', 'Harbour Solid'];
const KEYS = ['Del', 'Esc', 'F1', 'F2', 'F8', 'F9', 'F10', 'F11', 'F12'];
const TRAYS = ['the upper drive', 'the middle drive', 'the lower drive', 'the drive at the back'];

/** Keys of a machine and how long it listens for them. A second or two of a handful is common practice, no source. */
export function keysOf(random: Random, given: { setup?: string; menu?: string } = {}): RigKeys {
  const drawn = shuffled(random, KEYS);
  const setup = given.setup ?? drawn.find((k) => k !== given.menu) ?? 'F2';
  const menu = given.menu ?? drawn.find((k) => k !== setup) ?? 'F12';
  const from = whole(random, 2, 4);
  return {
    setup,
    menu,
    others: drawn.filter((k) => k !== setup && k !== menu).slice(0, 2),
    from,
    to: from + whole(random, 3, 4),
    of: 10,
  };
}

/** What is asked of a drawn machine. */
export interface Asked {
  task: RigTask;
  choice?: RehearsalPlan['installer']['choice'];
  manner?: Partial<InstallerManner>;
  /** Drives beside the target: how many, and whether one looks like it, or one is larger. */
  others: number;
  twin?: boolean;
  larger?: boolean;
  secure?: boolean;
  signed?: boolean;
}

/** A machine with drives, some of which must not be lost, drawn by a seed. */
export function drawRig(random: Random, asked: Asked): RigSetup {
  const names = shuffled(random, TRAYS);
  const codes = serials(random, asked.others + 2);
  const bytes = pick(random, [240e9, 256e9, 500e9]);
  const model = pick(random, MODELS);
  const kept = shuffled(random, KEPT);
  const holds: Record<string, string> = { target: pick(random, OLD), stick: 'the installer' };
  const drive = (id: string, i: number, rest: Record<string, unknown>) => ({
    id,
    name: names[i] ?? id,
    model,
    serial: codes[i] ?? null,
    bus: 'sata',
    unplug: { minutes: 2, screws: 0 },
    ...rest,
  });
  const others = Array.from({ length: asked.others }, (_, i) => {
    const id = `other-${i + 1}`;
    // The first one that is there matters; what else there is may be lost.
    const matters = i === 0 || random() < 0.5;
    holds[id] = matters ? (kept[i] ?? 'Papers') : pick(random, OLD);
    const twin = asked.twin === true && i === 0;
    return drive(id, i + 1, {
      bytes: twin
        ? bytes
        : asked.larger === true && i === 0
          ? bytes * 4
          : pick(random, [120e9, 1000e9, 2000e9]),
      ...(twin ? {} : { model: pick(random, MODELS) }),
      role: 'other',
      matters,
      starts: { uefi: matters ? null : 'the old system', bios: null },
    });
  });
  const old = asked.task === 'start once';
  if (asked.task === 'put right') holds.target = 'the system made just now';
  const plan = rehearsalPlanSchema.parse({
    kind: 'install',
    machine: {
      name: pick(random, MACHINES),
      mode: 'uefi',
      secureBoot: asked.secure === true ? 'on' : 'off',
      showsParts: true,
    },
    drives: [
      drive('target', 0, {
        bytes,
        role: 'target',
        // Who starts a stick once has a machine in daily use.
        matters: old,
        starts: { uefi: 'the old system', bios: null },
      }),
      ...others,
      {
        id: 'stick',
        name: 'the blue stick',
        bytes: 16e9,
        model: 'Small Stick',
        serial: codes.at(-1) ?? null,
        bus: 'usb',
        role: 'installer',
        matters: false,
        signed: asked.signed !== false,
        starts: { uefi: 'the installer', bios: null },
      },
    ],
    installer: { choice: asked.choice ?? 'asks for the drive', ...asked.manner },
  });
  const inner = ['target', ...others.map((o) => o.id)];
  return {
    plan,
    holds,
    keys: keysOf(random),
    task: asked.task,
    order: asked.task === 'put right' ? ['stick', ...inner] : [...inner, 'stick'],
    stickIn: asked.task === 'put right',
    done: asked.task === 'put right',
    minutes: whole(random, 8, 20),
  };
}
