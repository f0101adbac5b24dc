import { busesNotStarted, firmwareOf } from '../machine/firmware';
import {
  findImage,
  findProfile,
  storesIn,
  type Bench,
  type Box,
  type Machine,
  type Store,
} from '../model/bench';
import { isFallbackLoader, loaderIn } from '../model/bootPath';
import { contentTitle, isBlank, type Startable } from '../model/content';
import type { BootEntry } from '../model/details';
import { contentOf, type FirmwareKind } from '../model/inspection';
import { knownFact } from '../model/known';
import { isStore } from '../model/shelf';
import { holdsSystemOf } from '../plan/medium';
import { standingWrite, writeStands, type WriteStands } from '../plan/proof';
import { startOn, type MachineStart } from './forMachine';
import { orderAt, type OrderAsked, type OrderPlace } from './order';
import type { LadderAssumption, Rung, RungEntry } from './rung';

/** What the next start does, entry by entry. */
export interface BootLadder {
  result:
    'the stick starts' | 'the new system starts' | 'something else starts' | 'nothing starts' | 'cannot say';
  moment: OrderAsked['moment'];
  /** The machine, and the image on the stick where it is known. */
  machine: string;
  image: string | null;
  rungs: Rung[];
  /** The rung that starts, or at which nothing more can be foretold; null where neither is. */
  decides: Rung | null;
  /** Facts that are assumed because nobody knows them yet. */
  assumed: LadderAssumption[];
}

const startsUnder = (s: Startable, firmware: FirmwareKind | undefined): boolean =>
  s.firmware === null || firmware === undefined || s.firmware === firmware;

/** The title of what starts on a drive where only an entry's own loader is known of it, not the path firmware looks for. */
function entryOnly(drive: Store, firmware: FirmwareKind | undefined): string | null {
  const able = drive.content?.starts?.filter((s) => startsUnder(s, firmware)) ?? [];
  const named = able.every((s) => s.by === 'boot entry' && s.path !== '' && !isFallbackLoader(s.path));
  return named ? (able[0]?.title ?? null) : null;
}

/** What firmware makes of a drive by what is known to lie on it, tried by a boot entry or by itself. */
function driveRung(
  drive: Store,
  firmware: FirmwareKind | undefined,
  entry: RungEntry,
  by: BootEntry | null,
): Found {
  const { content } = drive;
  const holds = contentTitle(drive);
  if (content?.starts == null)
    return {
      rung: {
        entry,
        state: 'tried',
        why: content ? { code: 'start not known', holds } : { code: 'content not known' },
        remedy: 'say what is on it',
      },
    };
  const skipped = (why: Rung['why']): { rung: Rung } => ({
    rung: { entry, state: 'skipped', why, remedy: null },
  });
  if (isBlank(content)) return skipped({ code: 'empty' });
  const able = content.starts.filter((s) => startsUnder(s, firmware));
  // A drive may hold several systems, each with its entry: the one that is tried names its own loader.
  const start = (by && able.find((s) => s.by === 'boot entry' && s.path === loaderIn(by.path))) ?? able[0];
  if (!start) {
    const [other] = content.starts;
    return skipped(
      other?.firmware
        ? { code: 'starts another way', title: other.title, firmware: other.firmware }
        : { code: 'nothing that starts', holds },
    );
  }
  const { title } = start;
  const rung: Rung = { entry, state: 'started', why: { code: 'starts from it', title }, remedy: null };
  return start.firmware === null
    ? { rung, assumed: { code: 'starts as the machine does', title, drive: drive.name } }
    : { rung };
}

function stickRung(
  stands: WriteStands | null,
  start: MachineStart | undefined,
  firmware: FirmwareKind | undefined,
  entry: RungEntry,
): Rung {
  const rung = (state: Rung['state'], why: Rung['why'], remedy: Rung['remedy'] = null): Rung => ({
    entry,
    state,
    why,
    remedy,
  });
  if (!stands) return rung('skipped', { code: 'no stick written' }, 'write a stick');
  if (stands.code === 'replaced')
    return rung('tried', { code: 'stick holds another image', image: stands.image }, 'write again');
  const { written } = stands;
  if (written.result === 'failed')
    return rung('refused', { code: 'write failed', explanation: written.explanation }, 'write again');
  if (!firmware) return rung('tried', { code: 'firmware not known' }, 'enter the boot mode');
  if (!start) return rung('tried', { code: 'image not read' }, 'open the image');
  const { why } = start;
  if (start.refused) return rung('refused', { code: 'Secure Boot refuses', why }, 'Secure Boot off');
  if (start.starts === 'unknown') return rung('tried', { code: 'image', why, firmware: null });
  if (start.starts === 'no') return rung('refused', { code: 'image', why, firmware });
  return rung('started', { code: 'image', why, firmware: null });
}

/** A rung, and what had to be taken for true for it. */
interface Found {
  rung: Rung;
  assumed?: LadderAssumption;
}

const BUS = { nvme: 'NVMe', usb: 'USB', mmc: 'card' } as const;

/** The bus of a drive, where this machine's firmware does not start from it. */
function outOfReach(machine: Machine, drive: Store): (typeof BUS)[keyof typeof BUS] | null {
  const bus = busesNotStarted(machine).find((b) => b === drive.transport);
  return bus ? BUS[bus] : null;
}

const rungOf = (
  entry: RungEntry,
  state: Rung['state'],
  why: Rung['why'],
  remedy: Rung['remedy'] = null,
): Found => ({ rung: { entry, state, why, remedy } });

/** The system that the install has put there, by what its firmware and its keys make of it. */
function newRung(
  { bench, box, machine, secure, moment }: Climb,
  place: Extract<OrderPlace, { kind: 'new system' }>,
): Found {
  const profile = findProfile(bench, box.profileId);
  const { drive, by } = place;
  const entry: RungEntry = { kind: 'new system', name: profile?.name ?? box.name, drive: drive.name, by };
  const bus = outOfReach(machine, drive);
  if (bus) {
    const chain = bench.items.find((i) => i.id === box.chain?.stickId);
    // Once the system is on its drive, the stick must be in as well.
    const there = chain && isStore(chain) && (chain.in === machine.id || !holdsSystemOf(drive, box));
    return chain && box.chain && there
      ? rungOf(entry, 'started', {
          code: 'through the chain loader',
          stick: chain.name,
          seconds: box.chain.seconds,
        })
      : rungOf(entry, 'skipped', { code: 'firmware does not start from it', bus }, 'chain loader');
  }
  if (secure && profile?.secureBoot === 'must be off')
    return rungOf(entry, 'refused', { code: 'new system not signed' }, 'Secure Boot off');
  const trusted = profile && machine.keysEnrolled.includes(profile.id);
  if (secure && profile?.secureBoot === 'own key at first restart' && !trusted && moment !== 'now') {
    const assumed: LadderAssumption = { code: 'key enrolled in time' };
    return moment === 'first restart'
      ? { ...rungOf(entry, 'started', { code: 'key to be enrolled' }, 'enrol the key'), assumed }
      : { ...rungOf(entry, 'started', { code: 'just installed', by }), assumed };
  }
  return rungOf(entry, 'started', { code: 'just installed', by });
}

interface Climb {
  bench: Bench;
  box: Box;
  machine: Machine;
  firmware: FirmwareKind | undefined;
  start: MachineStart | undefined;
  secure: boolean;
  moment: OrderAsked['moment'];
}

function rungAt(climb: Climb, place: OrderPlace): Found {
  const { box, machine, firmware, start, moment } = climb;
  switch (place.kind) {
    case 'stick': {
      const tail = box.written?.serial.slice(-4) ?? null;
      const entry: RungEntry = { kind: 'stick', tail, by: place.by };
      const rung = stickRung(writeStands(climb.bench, box), start, firmware, entry);
      if (moment === 'now' || rung.state !== 'started') return { rung };
      return { rung: { ...rung, why: { code: 'installer again' }, remedy: 'stick out' } };
    }
    case 'new system':
      return newRung(climb, place);
    case 'drive':
    case 'boot entry': {
      const { drive } = place;
      const entry: RungEntry =
        place.kind === 'drive'
          ? { kind: 'drive', name: place.drive.name }
          : { kind: 'boot entry', id: place.entry.id, label: place.entry.label };
      if (place.kind === 'boot entry' && !place.entry.active)
        return rungOf(entry, 'skipped', { code: 'entry switched off' });
      if (!drive) return rungOf(entry, 'skipped', { code: 'its drive is not there' });
      const bus = outOfReach(machine, drive);
      if (bus) return rungOf(entry, 'skipped', { code: 'firmware does not start from it', bus });
      if (place.kind === 'boot entry' && place.among.length > 1)
        return rungOf(entry, 'tried', {
          code: 'several drives answer',
          drives: place.among.map((d) => d.name),
        });
      const outside = place.kind === 'drive' && place.fallback ? entryOnly(drive, firmware) : null;
      if (outside) return rungOf(entry, 'tried', { code: 'by an entry outside the order', title: outside });
      return driveRung(drive, firmware, entry, place.kind === 'boot entry' ? place.entry : null);
    }
    case 'no drive':
      return rungOf({ kind: 'no drive' }, 'skipped', { code: 'no drive known' });
    case 'optical':
      return rungOf({ kind: 'optical' }, 'skipped', { code: 'no disc in it' });
    case 'network':
      return rungOf({ kind: 'network' }, 'skipped', { code: 'nobody answers' });
  }
}

/** With the stick in, before anything is installed. */
const NOW: OrderAsked = { moment: 'now', stickIn: true, target: null };

/**
 * The start that comes next by what was done: once the system of a box is on a medium of its machine, one without the
 * installer's stick.
 */
export function nextStart(bench: Bench, box: Box, machine: Machine): OrderAsked {
  const target = storesIn(bench, machine.id).find((s) => holdsSystemOf(s, box));
  return target ? { moment: 'every later start', stickIn: target.kind === 'stick', target } : NOW;
}

/**
 * What the machine does at a start: now with the written stick attached, at the first restart after the install, and ever
 * after. Firmware tries its entries from the top; with the one-time menu the chosen entry alone is tried first. Source for
 * the order: UEFI 2.10 §3.1 (boot manager); for BIOS, common practice.
 */
export function bootLadder(
  bench: Bench,
  box: Box,
  machine: Machine,
  asked: OrderAsked = nextStart(bench, box, machine),
): BootLadder {
  const firmware = firmwareOf(machine);
  const image = findImage(bench, standingWrite(bench, box)?.imageId ?? box.imageId);
  const secure = knownFact(machine, 'firmware.secureBoot')?.value === 'on';
  const start = startOn(image?.inspection ? contentOf(image.inspection) : undefined, firmware, secure);
  const { places, assumed } = orderAt(bench, box, machine, asked);
  if (asked.moment !== 'now' && !asked.target) assumed.push({ code: 'target not chosen' });
  if (asked.moment === 'now' && start?.trustAssumed && start.row.secureBoot)
    assumed.push({ code: 'signature trusted', reason: start.row.secureBoot.reason });
  if (firmware?.startsWith('uefi') && !knownFact(machine, 'firmware.secureBoot'))
    assumed.push({ code: 'Secure Boot off' });

  const climb: Climb = { bench, box, machine, firmware, start, secure, moment: asked.moment };
  const rungs: Rung[] = [];
  let decides: Rung | null = null;
  const each = knownFact(machine, 'firmware.triesEach')?.value;
  let disks = 0;
  for (const place of places) {
    const isDisk = place.kind === 'drive' || place.kind === 'new system';
    if (isDisk && !decides) disks += 1;
    // BIOS Boot Specification 1.01: of hard disks the first alone is tried; most firmware goes on, common practice.
    const second = firmware === 'bios' && isDisk && disks > 1;
    if (second && each === undefined && !assumed.some((a) => a.code === 'BIOS tries every drive'))
      assumed.push({ code: 'BIOS tries every drive' });
    const found: Found =
      second && each === false && !decides
        ? rungOf(rungAt(climb, place).rung.entry, 'skipped', { code: 'BIOS tried the first disk' })
        : rungAt(climb, place);
    if (found.assumed && !assumed.some((a) => a.code === found.assumed?.code)) assumed.push(found.assumed);
    const above: Rung | null = decides;
    if (above) {
      rungs.push({
        entry: found.rung.entry,
        state: 'not reached',
        why:
          above.state === 'started'
            ? { code: 'another has started', entry: above.entry }
            : { code: 'not foretold above' },
        remedy: null,
      });
      continue;
    }
    // What comes before the new system is overtaken by putting its drive first.
    const overtaken = asked.target && asked.moment !== 'now' && startsOther(found.rung);
    const rung: Rung = overtaken ? { ...found.rung, remedy: 'target first' } : found.rung;
    rungs.push(rung);
    if (rung.state === 'started' || rung.state === 'tried') decides = rung;
  }
  return {
    result: resultOf(decides),
    moment: asked.moment,
    machine: machine.name,
    image: image?.name ?? null,
    rungs,
    decides,
    assumed,
  };
}

const startsOther = ({ state, entry }: Rung): boolean =>
  state === 'started' && entry.kind !== 'new system' && entry.kind !== 'stick';

function resultOf(decides: Rung | null): BootLadder['result'] {
  if (!decides) return 'nothing starts';
  if (decides.state === 'tried') return 'cannot say';
  if (decides.entry.kind === 'new system') return 'the new system starts';
  return decides.entry.kind === 'stick' ? 'the stick starts' : 'something else starts';
}
