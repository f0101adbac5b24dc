import { startOn, type MachineStart } from './forMachine';
import { contentOf, firmwareTitle, type FirmwareKind } from '../model/inspection';
import { drivesIn, findImage, type Bench, type Box, type Machine, type Store } from '../model/bench';
import { firmwareOf } from '../machine/firmware';
import { contentTitle, isBlank } from '../model/content';
import { knownFact } from '../model/known';

export interface Rung {
  title: string;
  state: 'started' | 'refused' | 'skipped' | 'not reached' | 'tried';
  because: string;
  /** The setting or act that would change this rung, where there is one. */
  remedy?: string;
}

export interface BootLadder {
  /** One sentence: what the next start does. */
  finding: string;
  result: 'the stick starts' | 'something else starts' | 'nothing starts' | 'cannot say';
  rungs: Rung[];
  /** Facts that are assumed because nobody knows them yet. */
  assumed: string[];
}

/** What firmware makes of a drive by what is known to lie on it. */
function driveRung(drive: Store, firmware: FirmwareKind | undefined): { rung: Rung; assumed?: string } {
  const title = `Internal drive “${drive.name}”`;
  const { content } = drive;
  const what = contentTitle(drive);
  if (content?.starts == null)
    return {
      rung: {
        title,
        state: 'tried',
        because: content
          ? `whether something on it starts is not known: ${what}`
          : 'what is on it is not known',
        remedy: 'Read the survey again, or say it on the drive’s sheet.',
      },
    };
  if (isBlank(content)) return { rung: { title, state: 'skipped', because: 'it is empty' } };
  const start = content.starts.find(
    (s) => s.firmware === null || firmware === undefined || s.firmware === firmware,
  );
  if (!start) {
    const other = content.starts[0];
    const because = other?.firmware
      ? `“${other.title}” on it starts by ${firmwareTitle[other.firmware]} alone`
      : `it holds ${what}, nothing that starts`;
    return { rung: { title, state: 'skipped', because } };
  }
  const rung: Rung = { title, state: 'started', because: `${start.title} starts from it` };
  return start.firmware === null
    ? {
        rung,
        assumed: `That “${start.title}” on “${drive.name}” starts the way this machine does is assumed.`,
      }
    : { rung };
}

function stickRung(
  box: Box,
  start: MachineStart | undefined,
  firmware: FirmwareKind | undefined,
  title: string,
): Rung {
  const written = box.written;
  if (!written)
    return {
      title,
      state: 'skipped',
      because: 'no stick has been written for this box',
      remedy: 'Write one at stop 5.',
    };
  if (written.result === 'failed')
    return {
      title,
      state: 'refused',
      because: `the last write failed: ${written.explanation}`,
      remedy: 'Write again at stop 5.',
    };
  if (!firmware)
    return {
      title,
      state: 'tried',
      because: 'the machine’s boot mode or architecture is not known',
      remedy: 'Enter the boot mode.',
    };
  if (!start)
    return { title, state: 'tried', because: 'the image has not been read', remedy: 'Open it at stop 4.' };
  if (start.refused)
    return {
      title,
      state: 'refused',
      because: `Secure Boot is on and ${start.because}`,
      remedy: 'Turn Secure Boot off in setup.',
    };
  if (start.starts === 'unknown') return { title, state: 'tried', because: start.because };
  if (start.starts === 'no')
    return { title, state: 'refused', because: `${firmwareTitle[firmware]}: ${start.because}` };
  return { title, state: 'started', because: start.because };
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
  const assumed: string[] = [];
  const order = knownFact(machine, 'firmware.order')?.value;
  let entries = Array.isArray(order) ? order : undefined;
  if (!entries) {
    entries = ['internal', 'usb'];
    if (box.startBy === 'order')
      assumed.push('The boot order is not known; internal drive before USB is assumed.');
  }
  if (box.startBy === 'menu' && !knownFact(machine, 'firmware.menuKey'))
    assumed.push('The one-time menu key is not known yet.');
  if (start?.trustAssumed)
    assumed.push(
      `Secure Boot is on, and the loader is ${start.row.secureBoot?.because ?? ''}; that it does is assumed.`,
    );
  if (firmware?.startsWith('uefi') && !knownFact(machine, 'firmware.secureBoot'))
    assumed.push('Secure Boot is not known; off is assumed.');
  if (box.startBy === 'menu') entries = ['usb', ...entries.filter((e) => e !== 'usb')];
  else if (!entries.includes('usb')) entries = [...entries, 'usb'];

  const internal = drivesIn(bench, machine.id);
  const rungs: Rung[] = [];
  let started: Rung | undefined;
  let doubt: Rung | undefined;
  const add = (rung: Rung): void => {
    const shown =
      started || doubt
        ? {
            ...rung,
            state: 'not reached' as const,
            because: started ? `${started.title} has started` : 'the rung above cannot be foretold',
            remedy: undefined,
          }
        : rung;
    rungs.push(shown);
    if (!started && !doubt && rung.state === 'started') started = rung;
    if (!started && !doubt && rung.state === 'tried') doubt = rung;
  };
  for (const entry of entries) {
    if (entry === 'usb') {
      const by = box.startBy === 'menu' ? 'one-time menu' : 'boot order';
      const serial = box.written ? ` …${box.written.serial.slice(-4)}` : '';
      add(stickRung(box, start, firmware, `Stick${serial}, by the ${by}`));
    } else if (entry === 'internal') {
      if (internal.length === 0)
        add({ title: 'Internal drive', state: 'skipped', because: 'no drive is known in the machine' });
      for (const drive of internal) {
        const found = driveRung(drive, firmware);
        if (found.assumed !== undefined) assumed.push(found.assumed);
        add(found.rung);
      }
    } else
      add({
        title: entry === 'optical' ? 'Optical drive' : 'Network',
        state: 'skipped',
        because: entry === 'optical' ? 'no disc is in it' : 'nothing on the network answers',
      });
  }
  const stick = rungs.find((r) => r.title.startsWith('Stick'));
  if (started && started.title.startsWith('Stick')) {
    return {
      result: 'the stick starts',
      finding: `${machine.name} will start ${image?.name ?? 'the stick'}`,
      rungs,
      assumed,
    };
  }
  if (doubt)
    return {
      result: 'cannot say',
      finding: `What ${machine.name} does next cannot be said yet: ${doubt.because}`,
      rungs,
      assumed,
    };
  const why = stick?.state === 'not reached' ? 'the internal drive comes first' : stick?.because;
  return started
    ? {
        result: 'something else starts',
        finding: `${machine.name} will not start the stick: ${why}`,
        rungs,
        assumed,
      }
    : {
        result: 'nothing starts',
        finding: `${machine.name} will find nothing to start: ${why}`,
        rungs,
        assumed,
      };
}
