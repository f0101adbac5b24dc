import { sataOfGeneration } from '../machine/links';
import {
  drivesIn,
  findImage,
  findMachine,
  findProfile,
  type Bench,
  type Box,
  type Store,
} from '../model/bench';
import { knownFact } from '../model/known';
import { quantity, type Quantity } from '../units/quantity';
import { span, type Span } from '../units/duration';
import { targetOf } from './target';
import { predictTimes, unknownStick } from './time';
import { writtenBytes } from '../model/written';

/**
 * Seconds that installing onto a drive waits (the machine's first where none is given): what the system's own sheet says, and at least as long as the image takes to be read off
 * the stick (by the stick's own record where there is one) and written to the machine's drive. Undefined where the box
 * has no system yet.
 */
export function predictInstall(bench: Bench, box: Box, target?: Store): Quantity<Span> | undefined {
  const profile = findProfile(bench, box.profileId);
  if (!profile) return undefined;
  const [low, high] = profile.installMinutes;
  const told = `${profile.name} tells ${low} to ${high} minutes`;
  const image = findImage(bench, box.imageId);
  if (!image) return quantity(span(low * 60, high * 60), 'seconds', told);
  const bytes = writtenBytes(image);
  const off = predictTimes(bytes, targetOf(bench, box) ?? unknownStick(null), bench.log).verify;
  const machine = findMachine(bench, box.machineId);
  const drive = target ?? (machine ? drivesIn(bench, machine.id)[0] : undefined);
  const port =
    machine && drive?.transport === 'sata'
      ? sataOfGeneration(knownFact(machine, 'ports.sataGeneration')?.value)
      : undefined;
  const onto = drive && predictTimes(bytes, drive, bench.log, port).write;
  // Reading and writing go on at the same time; the slower of the two is waited for.
  const copy = span(
    Math.max(off.value.low, onto?.value.low ?? 0),
    Math.max(off.value.high, onto?.value.high ?? 0),
  );
  return quantity(
    span(Math.max(low * 60, copy.low), Math.max(high * 60, copy.high)),
    'seconds',
    told,
    `reading the image off the stick: ${off.because.join('; ')}`,
    ...(onto ? [`writing it to “${drive.name}”: ${onto.because.join('; ')}`] : []),
  );
}
