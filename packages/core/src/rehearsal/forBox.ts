import { isStartType } from '../machine/content';
import { busesNotStarted, uefiKindOf, secureBootOn } from '../machine/firmware';
import { batteryOf, hasBattery } from '../machine/power';
import { laidBox } from '../layout/forBox';
import {
  findImage,
  findMachine,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type Machine,
  type Profile,
  type Store,
} from '../model/bench';
import { isBlank } from '../model/content';
import { contentOf, type ImageReading } from '../model/inspection';
import { knownFact } from '../model/known';
import { straightWay } from '../layout/systemDrive';
import { placeBefore } from '../model/opening';
import { movesOf, storesBefore } from '../opening/moves';
import { openingEffort, unplugMinutes } from '../opening/effort';
import {
  rehearsalPlanSchema,
  type PlainMode,
  type RehearsalDrive,
  type RehearsalMachine,
  type RehearsalPlan,
} from '../model/rehearsal';
import { claimAgainst, type Claim } from '../plan/claims';
import { mayErase } from '../plan/medium';
import { standingWrite } from '../plan/proof';
import { startOn } from '../starting/forMachine';
import { optionOf } from '../system/options';
import { machineView } from '../system/view';
import { sameSize } from './alike';
import { copyMinutesOf } from './copyMinutes';
import { targetOf, targetSerial } from '../write/target';

/** Why a box has no plan that could be rehearsed. */
export type NoRehearsal =
  | { code: 'no machine' }
  | { code: 'no system' }
  | { code: 'no target' }
  | { code: 'target is kept'; drive: string }
  | { code: 'target is held'; drive: string; claim: Claim }
  | { code: 'too many drives'; drives: number }
  | { code: 'starts by a board’s own loader' };

/** What is rehearsed of a box: the installation, or the writing of its stick on another machine. */
export const rehearsedParts = ['the install', 'writing the stick'] as const;
/** What is rehearsed of a box. */
export type RehearsedPart = (typeof rehearsedParts)[number];

/** A box’s plan, and what had to be taken for true because nobody has said it. */
export interface BoxPlan {
  plan: RehearsalPlan;
  assumed: RehearsalAssumption[];
  /** Precautions that are taken whatever is decided, because of how it is done: our own writer asks for the serial. */
  always: string[];
}
/** Ids of precautions, with those that are taken whatever is decided. */
export const withAlways = ({ always }: Pick<BoxPlan, 'always'>, ids: readonly string[]): string[] => [
  ...new Set([...always, ...ids]),
];

/** What had to be taken for true because nobody has said it. */
export type RehearsalAssumption =
  | { code: 'starts not known'; drive: string }
  | { code: 'stick not written' }
  | { code: 'image not read' }
  | { code: 'battery carries it' }
  /** It is not relied on: a power cut takes the machine with it. */
  | { code: 'battery not relied on'; why: 'not measured' | 'weak' }
  | { code: 'beside the machine'; drive: string; machine: string };

/** Id and name of the drive that the machine has on which an image is written straight. */
const OWN_DRIVE = 'the writing machine’s own drive';
/** So many loose ones that look alike are taken to be within reach. */
const ALIKE = 2;
/** More than these are not rehearsed at once. */
const MOST = 12;

const BUS: Record<Store['transport'], RehearsalDrive['bus']> = {
  sata: 'sata',
  sas: 'sata',
  other: 'sata',
  nvme: 'nvme',
  ide: 'ide',
  mmc: 'mmc',
  usb: 'usb',
};

/** Machines whose setup usually lists its SATA ports to be switched off. Common practice, no source. */
const SWITCHES_PORTS: readonly Machine['form'][] = ['tower', 'office desktop', 'rack server'];

type Kind = 'uefi' | 'bios';
const startsOf = (store: Store): { uefi: string | null; bios: string | null } => {
  const { content } = store;
  if (isBlank(content)) return { uefi: null, bios: null };
  if (!content?.starts) return { uefi: 'something', bios: 'something' };
  const under = (kind: Kind): string | null =>
    content.starts?.find((s) => s.firmware === null || (kind === 'bios') === (s.firmware === 'bios'))
      ?.title ?? null;
  return { uefi: under('uefi'), bios: under('bios') };
};

const hasStartPart = ({ content }: Store): boolean =>
  content === null || content.parts.some((p) => isStartType(p.type));

const unplugOf = (store: Store, machine: Machine): RehearsalDrive['unplug'] => {
  if (store.transport === 'mmc') return store.removable ? { minutes: 1, screws: 0 } : null;
  return { minutes: unplugMinutes(machine, hasBattery(machine)), screws: openingEffort(machine).screws };
};

/** A stick with a chain loader stays in, must not be lost, and starts the target. */
const chainLoader = (target: Store): Partial<RehearsalDrive> => ({
  chainsTo: target.id,
  matters: true,
  starts: { uefi: 'a chain loader', bios: 'a chain loader' },
});

/**
 * Is a drive in the machine when it is started: there from the beginning, put in by the plan, or a card that is installed on?
 * What the installer starts from hangs on a port or a reader, and a running machine that writes has nothing of it inside.
 */
function isInside(
  bench: Bench,
  box: Box,
  machine: Machine,
  store: Store,
  { role, writing }: { role: RehearsalDrive['role']; writing: boolean },
): boolean {
  if (writing || role === 'installer' || store.transport === 'usb') return false;
  return (
    placeBefore(box, store) === machine.id ||
    movesOf(bench, box).goesIn.some((s) => s.id === store.id) ||
    (role === 'target' && store.kind === 'card')
  );
}

function driveOf(
  bench: Bench,
  box: Box,
  store: Store,
  as: { role: RehearsalDrive['role']; writing: boolean },
  machine: Machine,
  target: Store,
): RehearsalDrive {
  const { role } = as;
  const inside = isInside(bench, box, machine, store, as);
  return {
    id: store.id,
    name: store.name,
    bytes: store.bytes,
    model: store.model ?? '',
    serial: store.serial,
    label: store.label === '' ? null : store.label,
    bus: inside || store.transport === 'usb' ? BUS[store.transport] : 'usb',
    role,
    matters: role !== 'installer' && !mayErase(store, box),
    starts: startsOf(store),
    // What runs on the machine today is taken to be what its Secure Boot lets start.
    signed: true,
    startPart: hasStartPart(store),
    unplug: inside ? unplugOf(store, machine) : null,
    portOff: inside && store.transport === 'sata' && SWITCHES_PORTS.includes(machine.form),
    copyMinutes:
      role === 'other' && store.fate !== 'may be lost' ? copyMinutesOf(bench, store, target) : null,
    chainsTo: null,
    ...(role === 'other' && box.chain?.stickId === store.id ? chainLoader(target) : {}),
  };
}

/** What refuses this machine whatever boots it: a system for another processor, or for one that can more. */
function refusesProcessor(bench: Bench, box: Box, machine: Machine, profile: Profile): boolean {
  const { release } = optionOf(profile, box);
  const { facts } = machineView(bench, machine, [], box);
  const arch = facts['cpu.arch'];
  if (typeof arch === 'string' && !(release.archs as readonly string[]).includes(arch)) return true;
  const have = facts['cpu.level'];
  return (
    arch === 'x86_64' && release.cpuLevel !== null && typeof have === 'string' && have < release.cpuLevel
  );
}

/**
 * What the installer's stick starts: by the bytes of its image, where they were read; else by the word of the system's profile.
 * Nothing, where the system refuses this machine's processor.
 */
function stickOf(
  bench: Bench,
  box: Box,
  reading: ImageReading | undefined,
  machine: Machine,
  profile: Profile,
): Pick<RehearsalDrive, 'starts' | 'signed'> {
  const uefi = uefiKindOf(machine);
  const modes: readonly string[] = profile.needs.firmware;
  const told = (kind: PlainMode): boolean => modes.length === 0 || modes.includes(kind);
  const refused = refusesProcessor(bench, box, machine, profile);
  const does = (kind: PlainMode): boolean =>
    !refused &&
    (reading ? startOn(reading, kind === 'bios' ? 'bios' : uefi, false)?.starts !== 'no' : told(kind));
  const secure = startOn(reading, uefi, true);
  return {
    starts: { uefi: does('uefi') ? 'the installer' : null, bios: does('bios') ? 'the installer' : null },
    signed: profile.secureBoot !== 'must be off' && (!reading || secure?.refused === false),
  };
}

function machineOf(machine: Machine, drives: readonly RehearsalDrive[]): RehearsalMachine {
  const fact = (key: Parameters<typeof knownFact>[1]): unknown => knownFact(machine, key)?.value;
  const mode = fact('firmware.mode');
  const offers = fact('firmware.offers');
  const both = Array.isArray(offers) && offers.includes('uefi') && offers.includes('bios');
  const secure = secureBootOn(machine);
  const triesEach = fact('firmware.triesEach');
  const order = fact('firmware.order');
  const isUsb = (d: RehearsalDrive): boolean => d.bus === 'usb';
  const group = (entry: string): string[] =>
    entry === 'usb' || entry === 'internal'
      ? drives.filter((d) => isUsb(d) === (entry === 'usb')).map((d) => d.id)
      : [];
  const groups = Array.isArray(order) ? order.map((e) => group(String(e))).filter((g) => g.length > 0) : null;
  return {
    name: machine.name,
    mode: both ? 'both' : mode === 'uefi' || mode === 'bios' ? mode : null,
    secureBoot: secure === undefined ? null : secure ? 'on' : 'off',
    order: groups,
    biosTries: triesEach === undefined ? null : triesEach === true ? 'each' : 'first',
    cannotStart: busesNotStarted(machine),
    showsParts: false,
    power: batteryOf(machine) === 'carries it' ? 'secured' : 'mains',
  };
}

/** Was the key of the build’s system enrolled before its plan? What the plan has done stays in it. */
const enrolledBefore = ({ keysEnrolled }: Machine, { profileId, run }: Box): boolean =>
  profileId !== null && keysEnrolled.includes(profileId) && run?.steps['back:enrol'] === undefined;

/** Stores that could be taken for another at a glance: as large, and called the same. */
const takenFor = (a: Store, b: Store): boolean =>
  a.id !== b.id && a.removable === b.removable && sameSize(a, b);

/**
 * The plan of a box as its stops have decided it: the machine with its drives, the stick, what is put aside for it, and
 * loose ones that could be taken for what is written; or why there is none to rehearse.
 */
export function boxPlan(bench: Bench, box: Box, part: RehearsedPart = 'the install'): BoxPlan | NoRehearsal {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine) return { code: 'no machine' };
  if (!profile) return { code: 'no system' };
  // An image that is written straight has no other part: what is written is the final drive.
  const straight =
    profile.installer === 'written straight to the final drive' || part === 'writing the stick';
  // By the system that the machine runs now, and so with all that is in it within reach.
  const inPlace = part === 'the install' && straightWay(bench, box) === 'in place';
  const elsewhere = straight && !inPlace;
  const stick = targetOf(bench, box);
  const laid = laidBox(bench, box);
  const target = straight ? stick : (laid.drive ?? undefined);
  // What stays beside the new system matters; where all of it goes, a drive that is kept is no target.
  const beside = !straight && (laid.plan?.want.kept.length ?? 0) > 0;
  if (!target) return { code: 'no target' };
  const claim = claimAgainst(bench, box, target.id);
  if (claim) return { code: 'target is held', drive: target.name, claim };
  if (!beside && !mayErase(target, box)) return { code: 'target is kept', drive: target.name };
  if (!straight && knownFact(machine, 'firmware.mode')?.value === 'board')
    return { code: 'starts by a board’s own loader' };
  const installer = straight || stick?.id === target.id ? undefined : stick;
  const { makesRoom } = movesOf(bench, box);
  // What makes room is out before anything is started.
  const there = elsewhere
    ? []
    : storesBefore(bench, box, machine.id).filter((s) => !makesRoom.some((o) => o.id === s.id));
  const aside = storesOf(bench).filter(
    (s) =>
      (box.parts.includes(s.id) || s.id === box.chain?.stickId) &&
      // What is in the machine already is not where another machine writes.
      !(elsewhere && placeBefore(box, s) === machine.id),
  );
  // Of many that look alike two stand for all: those that must be kept before the others.
  const alike = storesOf(bench)
    .filter(
      (s) => s.in === null && s.removable && (takenFor(s, target) || (installer && takenFor(s, installer))),
    )
    .sort((x, y) => Number(y.fate !== 'may be lost') - Number(x.fate !== 'may be lost'))
    .slice(0, ALIKE);
  const stores = [...new Set([...there, target, ...(installer ? [installer] : []), ...aside, ...alike])];
  if (stores.length + 1 > MOST) return { code: 'too many drives', drives: stores.length };

  const image = findImage(bench, standingWrite(bench, box)?.imageId ?? box.imageId);
  const reading = image?.inspection ? contentOf(image.inspection) : undefined;
  const drives = stores.map((s) =>
    driveOf(
      bench,
      box,
      s,
      {
        role: s === target ? 'target' : s === installer ? 'installer' : 'other',
        writing: elsewhere,
      },
      machine,
      target,
    ),
  );
  const written = stickOf(bench, box, reading, machine, profile);
  const placed = drives.map((d) => (d.role === 'installer' ? { ...d, ...written, matters: false } : d));
  const without: RehearsalDrive = {
    ...driveOf(bench, box, target, { role: 'other', writing: elsewhere }, machine, target),
    ...written,
    id: 'the stick',
    name: 'the stick',
    bytes: profile.stickBytes,
    model: 'the stick',
    serial: null,
    label: null,
    bus: 'usb',
    role: 'installer',
    matters: false,
    unplug: null,
    portOff: false,
  };
  // Whatever machine the image is written on has a drive of its own, of which the bench knows nothing.
  const writing: RehearsalDrive = {
    ...without,
    id: OWN_DRIVE,
    name: OWN_DRIVE,
    bytes: 0,
    model: '',
    bus: 'sata',
    role: 'other',
    matters: true,
    starts: { uefi: null, bios: null },
    copyMinutes: null,
  };
  const all = elsewhere ? [writing, ...placed] : straight || installer ? placed : [...placed, without];
  const battery = batteryOf(machine);
  const plan = rehearsalPlanSchema.parse({
    kind: straight ? 'write' : 'install',
    machine: straight
      ? { name: machine.name, power: battery === 'carries it' ? 'secured' : 'mains' }
      : machineOf(machine, all),
    drives: all,
    startBy: box.startBy,
    installer: {
      choice: straight ? 'written straight to the final drive' : profile.installer,
      ...profile.manner,
      enrols: profile.secureBoot === 'own key at first restart' && !enrolledBefore(machine, box),
      ...(straight ? { lists: ['size', 'model', 'serial', 'label'] } : {}),
    },
    refused: box.refused,
  });
  return {
    plan,
    always: straight && target.serial !== null ? ['serial'] : [],
    assumed: [
      ...stores
        .filter((s) => s !== target && s !== installer && !isBlank(s.content) && !s.content?.starts)
        .map((s) => ({ code: 'starts not known' as const, drive: s.name })),
      ...(straight || targetSerial(box) !== null ? [] : [{ code: 'stick not written' as const }]),
      ...(straight || reading ? [] : [{ code: 'image not read' as const }]),
      ...(straight || isInside(bench, box, machine, target, { role: 'target', writing: false })
        ? []
        : [{ code: 'beside the machine' as const, drive: target.name, machine: machine.name }]),
      ...(battery === 'carries it' ? [{ code: 'battery carries it' as const }] : []),
      ...(battery === 'weak' || battery === 'not measured'
        ? [{ code: 'battery not relied on' as const, why: battery }]
        : []),
    ],
  };
}
