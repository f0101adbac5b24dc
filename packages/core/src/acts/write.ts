import {
  findImage,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type LogEntry,
  type Store,
} from '../model/bench';
import { plainStore } from '../model/blank';
import { edited, type Act, type Change } from '../model/changes';
import { belongsTo, type Job } from '../model/job';
import type { WholeImage } from '../model/medium';
import { isStore } from '../model/shelf';
import { isWrittenStraight, systemDriveOf } from '../layout/systemDrive';
import { withUnknown, withWholeImage } from '../plan/medium';
import { formatDuration, formatSpan, type Span } from '../units/duration';
import { predictWrite } from '../write/time';
import { writtenContent } from '../write/content';
import { logBase, logged } from './base';
import type { Stamp } from './stamp';

/** How a write ended, as the writer tells it and box and log keep it. Bytes and seconds. */
export interface WriteRun {
  imageId: string;
  imageName: string;
  serial: string;
  /** Bytes of the image. */
  bytes: number;
  /** Has anything gone to the stick? */
  touched: boolean;
  seconds: number;
  /** Of these, until the last byte was written; null where it was not measured. */
  writeSeconds: number | null;
  predicted: Span | null;
  result: 'proven' | 'failed' | 'cancelled';
  explanation: string;
  /** Where the read-back found a lying capacity, the bytes the target really holds; else null. */
  realBytes: number | null;
  /** The medium as the writer saw it, bytes; null where it did not tell. */
  target: { bytes: number; model: string } | null;
}

/** A stick that nobody has put on the shelf: writing to it does. Bytes. */
const newStick = (
  serial: string,
  { bytes, model }: { bytes: number; model: string },
  stamp: Stamp,
): Store => ({
  kind: 'stick',
  id: stamp.id(),
  name: `${model || 'USB stick'} …${serial.slice(-4)}`.slice(0, 200),
  bytes,
  serial,
  model: model.slice(0, 120) || null,
  label: '',
  transport: 'usb',
  rotational: null,
  removable: true,
  in: null,
  holds: '',
  realBytes: null,
  notes: '',
  ...plainStore,
  attachment: 'external',
});

/** Records how a write ended, once, on the box and in the log; what was foretold stands beside what was measured. */
export function recordWrite(bench: Bench, box: Box, run: WriteRun, stamp: Stamp): Act {
  const outcome = { proven: 'written and proven', failed: 'FAILED', cancelled: 'cancelled' }[run.result];
  const foretold = run.predicted ? `, foretold ${formatSpan(run.predicted)}` : '';
  const text = `${run.imageName} on stick …${run.serial.slice(-4)}: ${outcome} after ${formatDuration(run.seconds)}${foretold}. ${run.explanation}`;
  const result = run.result === 'proven' ? ('proven' as const) : ('failed' as const);
  const written = {
    at: stamp.now,
    imageId: run.imageId,
    serial: run.serial,
    result,
    explanation: run.explanation,
    bytes: run.bytes,
    seconds: run.seconds,
  };
  const entry: LogEntry = {
    kind: 'write',
    ...logBase(box, 'write', stamp),
    text,
    serial: run.serial,
    result: run.result,
    bytes: run.bytes,
    predicted: run.predicted,
    seconds: run.seconds,
    writeSeconds: run.writeSeconds,
  };
  const changes: Change[] = [
    ...(run.touched ? [edited('boxes', box, { ...box, written })] : []),
    logged(entry),
  ];
  const leaves: Change[] = [];
  // The shelf's own record of the stick follows, so that the next guard shows what is on it now.
  if (run.touched) {
    const proven = run.result === 'proven';
    const content = writtenContent(findImage(bench, run.imageId), proven, stamp.now);
    const holds = proven ? `${run.imageName}, written and proven` : `a broken copy of ${run.imageName}`;
    const image: WholeImage | null = proven
      ? {
          imageId: run.imageId,
          imageName: run.imageName.slice(0, 300),
          boxId: box.id,
          at: stamp.now,
          by: 'read-back',
        }
      : null;
    const profile = findProfile(bench, box.profileId);
    // Of what is written straight to its final drive, that drive is the machine's from now on.
    const final = systemDriveOf(bench, { ...box, targetSerial: run.serial });
    const system =
      profile && final?.serial === run.serial && isWrittenStraight(bench, box)
        ? { boxId: box.id, boxName: box.name, system: profile.name }
        : null;
    const after = (store: Store): Store => ({
      ...withWholeImage(store, content, image, system),
      holds,
      realBytes: run.realBytes ?? store.realBytes,
    });
    const known = bench.items.filter(isStore).filter((s) => s.serial === run.serial);
    for (const store of known) {
      changes.push(edited('items', store, after(store)));
      // It was written to, whatever becomes of the record.
      leaves.push(edited('items', store, withUnknown(store)));
    }
    if (known.length === 0 && run.target) {
      const to = after(newStick(run.serial, run.target, stamp));
      changes.push({ in: 'items', id: to.id, to });
    }
  }
  // Whichever tab sees the end first records it; for the others it is done.
  const once = { in: 'log', id: entry.id } as const;
  return {
    label: `Write to …${run.serial.slice(-4)} recorded`,
    changes,
    once,
    ...(leaves.length > 0 ? { leaves } : {}),
  };
}

/** A write that is over, as box and log keep it, beside what was foretold for a target the shelf knows. */
export function endedRun(bench: Bench, job: Job): WriteRun {
  const store = storesOf(bench).find((s) => s.serial === job.serial);
  return {
    imageId: belongsTo(job).imageId,
    imageName: job.imageName,
    serial: job.serial,
    bytes: job.total,
    touched: job.touched,
    seconds: job.seconds,
    writeSeconds: job.writeSeconds,
    predicted: store ? predictWrite(job.total, store, bench.log).value : null,
    result: job.state === 'proven' || job.state === 'cancelled' ? job.state : 'failed',
    explanation: job.explanation,
    realBytes: job.pattern === 'lying capacity' ? job.firstDifference : null,
    target: job.target,
  };
}
