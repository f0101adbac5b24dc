import { laidBox } from '../layout/forBox';
import { isWrittenStraight, straightWay } from '../layout/systemDrive';
import { busesNotStarted, uefiKindOf } from '../machine/firmware';
import { batteryOf, hasBattery } from '../machine/power';
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
import type { FactKey, FactValue } from '../model/facts';
import { contentOf } from '../model/inspection';
import { knownFact } from '../model/known';
import { openingEffort, unplugMinutes } from '../opening/effort';
import { placeBefore } from '../model/opening';
import { claimAgainst } from '../plan/claims';
import type { Effect } from '../plan/effect';
import { standingWrite } from '../plan/proof';
import { copyMinutesOf } from '../rehearsal/copyMinutes';
import { startOn } from '../starting/forMachine';
import { optionOf } from '../system/options';
import { machineView } from '../system/view';
import { targetOf } from '../write/target';
import type { RunSheet } from './runSheet';

/** Facts of a machine that decide a start, as they are known; null where nobody has told. */
const FACTS = [
  'cpu.arch',
  'cpu.level',
  'firmware.mode',
  'firmware.offers',
  'firmware.secureBoot',
  'firmware.order',
  'firmware.triesEach',
] as const satisfies readonly FactKey[];

/** A medium as it is now. Bytes, minutes; `home`: where it was before the plan moved it. */
export interface ExportedMedium {
  id: string;
  name: string;
  kind: Store['kind'];
  bytes: number;
  model: string | null;
  serial: string | null;
  label: string;
  transport: Store['transport'];
  removable: boolean;
  in: string | null;
  home: string | null;
  retention: Store['fate'];
  revision: number;
  /** Ids of the image over the whole of it, and of the builds whose system and whose pool it holds. */
  image: string | null;
  system: string | null;
  pool: string | null;
  /** Null: nobody knows what lies on it. */
  content: {
    blank: boolean;
    partitionTypes: string[];
    boots: { firmware: string | null; title: string }[] | null;
  } | null;
  heldByAnother: boolean;
  /** To copy it to another medium of the shelf that may be erased; null where none is large enough. */
  copyMinutes: number | null;
}

/**
 * The state of the hardware and the operations of a plan, as another program reads them: what an operation does is named, and
 * what is true afterwards is not told. docs/plan.md has the rules by which it follows.
 */
export interface PlanExport {
  build: {
    id: string;
    startBy: Box['startBy'];
    precautions: readonly string[];
    refused: readonly string[];
    /** Ids: the drive that takes the system, the medium that the image is written to, the chain loader’s, what is put aside. */
    systemDrive: string | null;
    writtenMedium: string | null;
    chainLoader: string | null;
    putAside: readonly string[];
    /** Something on the system’s drive stays beside it. */
    beside: boolean;
    /** The image is written by the system that the machine runs now. */
    inPlace: boolean;
  };
  machine: {
    id: string;
    name: string;
    form: Machine['form'];
    facts: Partial<Record<FactKey, FactValue | null>>;
    cannotBoot: readonly string[];
    batteryCarriesIt: boolean;
    openMinutes: number;
    screws: number;
    bootFirst: string | null;
    portsOff: readonly string[];
    keysEnrolled: readonly string[];
  } | null;
  system: {
    id: string;
    installer: Profile['installer'];
    manner: Profile['manner'];
    secureBoot: Profile['secureBoot'];
    firmware: readonly string[];
    archs: readonly string[];
    cpuLevel: string | null;
    stickBytes: number;
  } | null;
  /** What the image does on this machine, where its bytes were read: boots, refused by Secure Boot. */
  image: { uefi: string | null; bios: string | null; refusedBySecureBoot: boolean | null } | null;
  media: ExportedMedium[];
  operations: { key: string; kind: string; state: string; does: readonly Effect[] }[];
}

const mediumOf = (bench: Bench, box: Box, store: Store, target: Store | undefined): ExportedMedium => ({
  id: store.id,
  name: store.name,
  kind: store.kind,
  bytes: store.bytes,
  model: store.model,
  serial: store.serial,
  label: store.label,
  transport: store.transport,
  removable: store.removable,
  in: store.in,
  home: placeBefore(box, store),
  retention: store.fate,
  revision: store.revision,
  image: store.wholeImage?.imageId ?? null,
  system: store.installed?.boxId ?? null,
  pool: store.pooled?.boxId ?? null,
  content: store.content && {
    blank: isBlank(store.content),
    partitionTypes: store.content.parts.map((p) => p.type),
    boots: store.content.starts?.map(({ firmware, title }) => ({ firmware, title })) ?? null,
  },
  heldByAnother: claimAgainst(bench, box, store.id) !== undefined,
  copyMinutes: target ? copyMinutesOf(bench, store, target) : null,
});

function machineState(bench: Bench, box: Box, machine: Machine): PlanExport['machine'] {
  const { id, name, form, bootFirst, portsOff, keysEnrolled } = machine;
  // The processor as the system sees it: what is assumed where nobody has told is among its facts.
  const { facts: seen } = machineView(bench, machine, [], box);
  const fact = (key: FactKey): FactValue | null =>
    (key.startsWith('cpu.') ? seen[key] : knownFact(machine, key)?.value) ?? null;
  return {
    id,
    name,
    form,
    facts: Object.fromEntries(FACTS.map((key) => [key, fact(key)])),
    cannotBoot: busesNotStarted(machine),
    batteryCarriesIt: batteryOf(machine) === 'carries it',
    openMinutes: unplugMinutes(machine, hasBattery(machine)),
    screws: openingEffort(machine).screws,
    bootFirst,
    portsOff,
    keysEnrolled,
  };
}

function imageState(bench: Bench, box: Box, machine: Machine | undefined): PlanExport['image'] {
  const image = findImage(bench, standingWrite(bench, box)?.imageId ?? box.imageId);
  const reading = image?.inspection ? contentOf(image.inspection) : undefined;
  if (!reading || !machine) return null;
  const kind = uefiKindOf(machine);
  return {
    uefi: startOn(reading, kind, false)?.starts ?? null,
    bios: startOn(reading, 'bios', false)?.starts ?? null,
    refusedBySecureBoot: startOn(reading, kind, true)?.refused ?? null,
  };
}

/** A plan with the state it begins from, without what its operations lead to. */
export function planExport(bench: Bench, box: Box, { steps }: Pick<RunSheet, 'steps'>): PlanExport {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const laid = laidBox(bench, box);
  const written = targetOf(bench, box);
  const systemDrive = isWrittenStraight(bench, box) ? written : (laid.drive ?? undefined);
  const release = profile && optionOf(profile, box).release;
  return {
    build: {
      id: box.id,
      startBy: box.startBy,
      precautions: box.precautions,
      refused: box.refused,
      systemDrive: systemDrive?.id ?? null,
      writtenMedium: written?.id ?? null,
      chainLoader: box.chain?.stickId ?? null,
      putAside: box.parts,
      inPlace: straightWay(bench, box) === 'in place',
      beside: (laid.plan?.want.kept.length ?? 0) > 0,
    },
    machine: machine ? machineState(bench, box, machine) : null,
    system:
      profile && release
        ? {
            id: profile.id,
            installer: profile.installer,
            manner: profile.manner,
            secureBoot: profile.secureBoot,
            firmware: profile.needs.firmware,
            archs: release.archs,
            cpuLevel: release.cpuLevel,
            stickBytes: profile.stickBytes,
          }
        : null,
    image: imageState(bench, box, machine),
    media: storesOf(bench).map((s) => mediumOf(bench, box, s, systemDrive)),
    operations: steps.map((s) => ({ key: s.key, kind: s.what.code, state: s.state, does: s.effects })),
  };
}
