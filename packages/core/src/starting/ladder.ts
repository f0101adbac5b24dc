import { firmwareOf } from '../machine/firmware';
import { drivesIn, findImage, type Bench, type Box, type Machine, type Store } from '../model/bench';
import { contentTitle, isBlank } from '../model/content';
import { contentOf, type FirmwareKind } from '../model/inspection';
import { knownFact } from '../model/known';
import { startOn, type MachineStart } from './forMachine';
import type { LadderAssumption, Rung, RungEntry } from './rung';

/** What the next start does, entry by entry. */
export interface BootLadder {
  result: 'the stick starts' | 'something else starts' | 'nothing starts' | 'cannot say';
  /** The machine, and the image on the stick where it is known. */
  machine: string;
  image: string | null;
  rungs: Rung[];
  /** The rung that starts, or at which nothing more can be foretold; null where neither is. */
  decides: Rung | null;
  /** Facts that are assumed because nobody knows them yet. */
  assumed: LadderAssumption[];
}

/** What firmware makes of a drive by what is known to lie on it. */
function driveRung(
  drive: Store,
  firmware: FirmwareKind | undefined,
): { rung: Rung; assumed?: LadderAssumption } {
  const entry = { kind: 'drive' as const, name: drive.name };
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
  const start = content.starts.find(
    (s) => s.firmware === null || firmware === undefined || s.firmware === firmware,
  );
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
  box: Box,
  start: MachineStart | undefined,
  firmware: FirmwareKind | undefined,
  entry: RungEntry,
): Rung {
  const { written } = box;
  const rung = (state: Rung['state'], why: Rung['why'], remedy: Rung['remedy'] = null): Rung => ({
    entry,
    state,
    why,
    remedy,
  });
  if (!written) return rung('skipped', { code: 'no stick written' }, 'write a stick');
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

/** The order in which firmware asks, as far as it is known, and what had to be assumed of it. */
function orderOf(box: Box, machine: Machine): { entries: string[]; assumed: LadderAssumption[] } {
  const known = knownFact(machine, 'firmware.order')?.value;
  const order = Array.isArray(known) ? known : ['internal', 'usb'];
  const assumed: LadderAssumption[] =
    !Array.isArray(known) && box.startBy === 'order' ? [{ code: 'internal before USB' }] : [];
  if (box.startBy === 'menu') {
    if (!knownFact(machine, 'firmware.menuKey')) assumed.push({ code: 'menu key not known' });
    return { entries: ['usb', ...order.filter((e) => e !== 'usb')], assumed };
  }
  return { entries: order.includes('usb') ? order : [...order, 'usb'], assumed };
}

/**
 * What the machine does at the next start with the written stick attached. Firmware tries its entries from the top;
 * with the one-time menu the chosen entry alone is tried first. Source for the order: UEFI 2.10 §3.1 (boot manager);
 * for BIOS, common practice.
 */
export function bootLadder(bench: Bench, box: Box, machine: Machine): BootLadder {
  const firmware = firmwareOf(machine);
  const image = findImage(bench, box.written?.imageId ?? box.imageId);
  const start = startOn(
    image?.inspection ? contentOf(image.inspection) : undefined,
    firmware,
    knownFact(machine, 'firmware.secureBoot')?.value === 'on',
  );
  const { entries, assumed } = orderOf(box, machine);
  if (start?.trustAssumed && start.row.secureBoot)
    assumed.push({ code: 'signature trusted', reason: start.row.secureBoot.reason });
  if (firmware?.startsWith('uefi') && !knownFact(machine, 'firmware.secureBoot'))
    assumed.push({ code: 'Secure Boot off' });

  const rungs: Rung[] = [];
  let decides: Rung | null = null;
  const add = (rung: Rung): void => {
    if (!decides) {
      rungs.push(rung);
      if (rung.state === 'started' || rung.state === 'tried') decides = rung;
      return;
    }
    const above: Rung = decides;
    rungs.push({
      entry: rung.entry,
      state: 'not reached',
      why:
        above.state === 'started'
          ? { code: 'another has started', entry: above.entry }
          : { code: 'not foretold above' },
      remedy: null,
    });
  };
  const internal = drivesIn(bench, machine.id);
  for (const entry of entries) {
    if (entry === 'usb') {
      const tail = box.written?.serial.slice(-4) ?? null;
      add(stickRung(box, start, firmware, { kind: 'stick', tail, by: box.startBy }));
    } else if (entry === 'internal') {
      if (internal.length === 0)
        add({ entry: { kind: 'no drive' }, state: 'skipped', why: { code: 'no drive known' }, remedy: null });
      for (const drive of internal) {
        const found = driveRung(drive, firmware);
        if (found.assumed) assumed.push(found.assumed);
        add(found.rung);
      }
    } else {
      const optical = entry === 'optical';
      add({
        entry: { kind: optical ? 'optical' : 'network' },
        state: 'skipped',
        why: { code: optical ? 'no disc in it' : 'nobody answers' },
        remedy: null,
      });
    }
  }
  return {
    result: resultOf(decides),
    machine: machine.name,
    image: image?.name ?? null,
    rungs,
    decides,
    assumed,
  };
}

function resultOf(decides: Rung | null): BootLadder['result'] {
  if (!decides) return 'nothing starts';
  if (decides.state === 'tried') return 'cannot say';
  return decides.entry.kind === 'stick' ? 'the stick starts' : 'something else starts';
}
