import { rmSync, writeFileSync } from 'node:fs';
import { copyFile, mkdtemp, open, rm, truncate } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clearAbandoned } from '@zb/emulator/abandoned';
import { Machine } from '@zb/emulator/machine';
import { missing, usualPlaces } from '@zb/emulator/places';
import { wholeSectors } from '@zb/emulator/sectors';
import { writeSparse } from '@zb/emulator/sparse';
import { contentOf, type ImageReading, type Inspection } from '@zb/core/model/inspection';
import { inspectImage } from '@zb/core/starting/inspect';
import {
  trialAttached,
  trialFirmwares,
  trialRequestSchema,
  type TrialFirmware,
  type TrialHappened,
} from '@zb/core/model/trial';
import { agrees, foretoldOf, happened } from '@zb/core/starting/happened';
import { imageFaultWords } from '@zb/core/words/imageFinding';
import { plainTerminal } from '@zb/core/units/terminal';
import { readImageFile } from './imageFile';
import { InputError, OpenFile } from './inputFile';
import { limitFrom } from './limit';

/** What is asked of `zb start`. */
export interface StartAsked {
  firmware: string;
  attached: string;
  seconds: string;
  memory: string;
  screen?: string;
  vars?: string;
  limit?: string;
}

const LOOK_MS = 500;
/** What was seen for so long without a change is what it came to. */
const SETTLED_MS = 4000;
const SERIAL_TOLD = 4000;

/** One of a list of words. */
function word<T extends string>(what: string, of: readonly T[], given: string): T {
  const found = of.find((o) => o === given);
  if (found === undefined) throw new InputError(`--${what} is one of: ${of.join(', ')}`);
  return found;
}

interface Started {
  reading: ImageReading;
  /** The file that was given, and what is inside of a packed one, bytes. */
  size: number;
  unpackedBytes: number | null;
  /** What the machine starts from, of whole sectors: the image itself, or a file made of it. */
  whole: string;
}

async function inspectedAt(path: string): Promise<{ plain: Inspection; size: number }> {
  const file = await OpenFile.open(path);
  try {
    return { plain: await inspectImage(file, {}), size: file.size };
  } finally {
    await file.close();
  }
}

/**
 * Reads an image, and makes of it what a machine can start from: a packed one is unpacked into `into` while it is read,
 * and what is empty in it takes no room. Throws InputError.
 */
async function readStarted(path: string, limit: number, into: string): Promise<Started> {
  const { plain, size } = await inspectedAt(path);
  if (plain.container.kind !== 'none') return { size, ...(await unpackInto(into, path, limit)) };
  const found = { reading: contentOf(plain), size, unpackedBytes: null };
  if (size === wholeSectors(size)) return { ...found, whole: path };
  // Firmware reads whole sectors: an odd end is filled up, in a copy.
  await copyFile(path, into);
  await truncate(into, wholeSectors(size));
  return { ...found, whole: into };
}

async function unpackInto(into: string, path: string, limit: number): Promise<Omit<Started, 'size'>> {
  const file = await open(into, 'wx');
  try {
    const write = async (piece: Uint8Array, at: number): Promise<void> => {
      const { bytesWritten } = await file.write(piece, 0, piece.length, at);
      if (bytesWritten < piece.length) throw new InputError('there is no room to unpack it in');
    };
    const onContent = (piece: Uint8Array, at: number): Promise<void> => writeSparse({ write }, piece, at);
    const inspection = (await readImageFile(path, limit, { onContent }))?.inspection;
    if (!inspection?.inner) {
      const why = inspection?.findings.find((f) => f.fault.code === 'cannot be unpacked');
      throw new InputError(`${path}: ${why ? imageFaultWords(why.fault) : 'it could not be unpacked'}`);
    }
    const { bytes } = inspection.inner;
    await file.truncate(wholeSectors(bytes));
    return { reading: inspection.inner, unpackedBytes: bytes, whole: into };
  } finally {
    await file.close();
  }
}

/** Watches a machine until what it came to has settled, or the time is up. */
async function watch(machine: Machine, firmware: TrialFirmware, seconds: number) {
  const began = performance.now();
  let what: TrialHappened = 'not seen';
  let since = began;
  let picture: Buffer | undefined;
  let screen: string | null = null;
  let over = false;
  let fault: string | null = null;
  machine.ended
    .then((f) => {
      over = true;
      fault = f;
    })
    .catch(() => (over = true));
  while (!over && performance.now() - began < seconds * 1000) {
    await new Promise((r) => setTimeout(r, LOOK_MS));
    const seen = await machine.screen().catch(() => undefined);
    const { debug, serial } = machine;
    if (seen) ({ picture, text: screen } = seen);
    const now = happened({ firmware, debug, serial, screen });
    if (now !== what) since = performance.now();
    what = now;
    // What is silent may yet speak.
    if (what !== 'not seen' && what !== 'silent' && performance.now() - since >= SETTLED_MS) break;
  }
  return {
    what,
    picture,
    screen,
    seconds: (performance.now() - began) / 1000,
    fault: machine.stopped ?? fault,
  };
}

/** What `zb start` prints: what the image came to in the emulator beside what was foretold of it. Throws InputError. */
export async function startOutput(path: string, asked: StartAsked) {
  const firmware = word('firmware', trialFirmwares, asked.firmware);
  const attached = word('attached', trialAttached, asked.attached);
  const { data: order } = trialRequestSchema.safeParse({
    image: { from: 'depot', file: 'x' },
    firmware,
    attached,
    memoryMiB: Number(asked.memory),
    seconds: Number(asked.seconds),
  });
  if (!order) throw new InputError('--seconds is from 5 to 900, --memory from 128 to 4096 MiB');
  const places = usualPlaces(process.env);
  const wanting = missing(places);
  if (wanting.length > 0)
    throw new InputError(
      `${wanting.map((m) => m.what).join(' and ')} is not here: install ${wanting.map((m) => m.package).join(' and ')}`,
    );
  const limit = limitFrom(asked.limit);
  clearAbandoned(tmpdir());
  const dir = await mkdtemp(join(tmpdir(), `zb-start-${process.pid}-`));
  let machine: Machine | undefined;
  // Broken off, it leaves neither a machine nor what was unpacked for it.
  const end = (): void =>
    void Promise.resolve(machine?.off()).finally(() => {
      rmSync(dir, { recursive: true, force: true });
      process.exit(130);
    });
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
  try {
    const { reading, size, unpackedBytes, whole } = await readStarted(path, limit, join(dir, 'whole.img'));
    const foretold = foretoldOf(reading, { firmware, attached });
    machine = new Machine({
      firmware,
      attached,
      memoryMiB: order.memoryMiB,
      path: whole,
      places,
      vars: asked.vars,
    });
    const { what, picture, screen, seconds, fault } = await watch(machine, firmware, order.seconds);
    if (asked.screen !== undefined && picture) writeFileSync(asked.screen, picture);
    return {
      image: path,
      bytes: size,
      unpackedBytes,
      firmware,
      attached,
      foretold,
      happened: what,
      agrees: agrees(foretold, what),
      seconds,
      fault,
      screen,
      serial: plainTerminal(machine.serial).slice(-SERIAL_TOLD),
    };
  } finally {
    await machine?.off();
    process.off('SIGINT', end);
    process.off('SIGTERM', end);
    await rm(dir, { recursive: true, force: true });
  }
}
