import type { Stop } from '../model/stops';
import type { Change } from '../model/changes';
import type { Stamp } from './stamp';

/** A line of the log that tells of the bench at large, written by the application itself. */
export function benchNote(stop: Stop, text: string, stamp: Stamp): Change {
  const id = stamp.id();
  return { in: 'log', id, to: { kind: 'note', id, at: stamp.now, boxId: null, stop, text } };
}
