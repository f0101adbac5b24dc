import { predictTimes, type TimedTarget } from '../write/time';
import type { LogEntry } from '../model/bench';
import { addSpans, span, type Span } from '../units/duration';
import { grouped } from '../units/group';
import { folderOf } from '../units/paths';
import type { PlannedFile } from './plan';
import { takes } from './takes';
import type { Rounding } from './target';
import { packTrips, type Load, type Trips } from './trips';

/** Seconds that a file costs beside its bytes, by the way it goes: opening, naming, closing. Common practice, no source. */
const PER_FILE: Record<'stick' | 'wire', Span> = { stick: span(0.004, 0.03), wire: span(0.001, 0.008) };
/** Of a wire, what arrives of its rate as bytes of files. Common practice, no source. */
const OF_WIRE = { low: 0.6, high: 0.94 };
/** Seconds to walk to the other machine with a stick, put it in and take it out. Common practice, no source. */
const WALK = span(30, 90);

/** Files that go together: all of one folder at the top, so that something whole is there after the first trip. */
export function loadsOf(
  files: readonly PlannedFile[],
  rounding: Rounding,
): Map<string, { load: Load; files: PlannedFile[] }> {
  const by = grouped(files, (f) =>
    // Three folders deep: an album, a film, a disc with its sheet stays whole, a whole collection need not.
    f.to === null || f.wire ? undefined : folderOf(f.to).split('/').slice(0, 3).join('/'),
  );
  return new Map(
    [...by].map(([id, lot]) => [
      id,
      {
        files: lot,
        load: {
          id,
          bytes: takes(
            lot.map((f) => ({ path: f.to ?? '', bytes: f.bytes })),
            rounding,
          ).rounded,
        },
      },
    ]),
  );
}

/** By stick: what goes on which trip, and how long all of it takes. Seconds. */
export interface ByStick extends Trips {
  seconds: Span;
  because: string;
  files: number;
  bytes: number;
}

/** Files by a stick: trips as few as can be, the smallest whole lot first, so that something can be seen or played soon. */
export function byStick(
  files: readonly PlannedFile[],
  stick: { target: TimedTarget; free: number; rounding: Rounding },
  log: readonly LogEntry[],
): ByStick {
  const lots = loadsOf(files, stick.rounding);
  const packed = packTrips(
    [...lots.values()].map((l) => l.load),
    stick.free,
  );
  const size = (trip: readonly string[]): number =>
    trip.reduce((n, id) => n + (lots.get(id)?.load.bytes ?? 0), 0);
  const trips = [...packed.trips].sort((a, b) => size(a) - size(b));
  const gone = trips.flat().flatMap((id) => lots.get(id)?.files ?? []);
  const bytes = gone.reduce((n, f) => n + f.bytes, 0);
  const times = predictTimes(bytes, stick.target, log);
  const each = span(PER_FILE.stick.low * gone.length, PER_FILE.stick.high * gone.length);
  return {
    ...packed,
    trips,
    files: gone.length,
    bytes,
    // Written here and read there, each once.
    seconds: addSpans([
      times.write.value,
      times.verify.value,
      each,
      each,
      span(WALK.low * trips.length, WALK.high * trips.length),
    ]),
    because: times.write.because.join('; '),
  };
}

/** Seconds over a wire of so many Mb/s to a target that writes at this range of rates (bytes a second). */
export function overWire(
  files: readonly Pick<PlannedFile, 'to' | 'bytes'>[],
  mbps: number,
  writes: { slow: number; fast: number },
): Span {
  const gone = files.filter((f) => f.to !== null);
  const bytes = gone.reduce((n, f) => n + f.bytes, 0);
  const wire = (mbps * 1e6) / 8;
  const fast = Math.min(wire * OF_WIRE.high, writes.fast);
  const slow = Math.min(wire * OF_WIRE.low, writes.slow);
  return span(
    bytes / fast + PER_FILE.wire.low * gone.length,
    bytes / slow + PER_FILE.wire.high * gone.length,
  );
}

/** Room on the target before and afterwards, with its clusters. Bytes. */
export interface RoomAfter {
  free: number;
  takes: number;
  after: number;
}

/** What is left on a target of so much free room. */
export function roomAfter(files: readonly PlannedFile[], free: number, rounding: Rounding): RoomAfter {
  const gone = files.flatMap((f) => (f.to === null ? [] : [{ path: f.to, bytes: f.bytes }]));
  const { rounded } = takes(gone, rounding);
  return { free, takes: rounded, after: free - rounded };
}
