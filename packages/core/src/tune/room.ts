import type { TuneRun } from '../model/tune';
import { mean } from './numbers/describe';

/** What is known of the room while heat was measured. °C. */
export interface RoomHeat {
  /** Runs with a temperature of the room, and runs with heat in all. */
  noted: number;
  of: number;
  /** At which room the runs are compared; null where the room is not taken out, since not every run has it. */
  at: number | null;
}

/** A run, as far as the room is in it. */
type Measured = Pick<TuneRun, 'values' | 'room'>;

/** Is heat among what a run gave? */
const hasHeat = (r: Measured): boolean => r.values.hottest !== undefined;

/**
 * Runs as they would be at one temperature of the room: what a part is warmer than the room stays (temperature rise over ambient,
 * common practice), the room itself is the mean of all. Left as they are where a run with heat has no temperature of the room.
 */
export function withoutRoom<R extends Measured>(runs: readonly R[]): { runs: readonly R[]; room: RoomHeat } {
  const hot = runs.filter(hasHeat);
  const rooms = hot.flatMap((r) => (r.room === null ? [] : [r.room]));
  if (hot.length === 0 || rooms.length < hot.length)
    return { runs, room: { noted: rooms.length, of: hot.length, at: null } };
  const at = mean(rooms);
  return {
    runs: runs.map((r) =>
      r.values.hottest === undefined || r.room === null
        ? r
        : { ...r, values: { ...r.values, hottest: r.values.hottest - r.room + at } },
    ),
    room: { noted: rooms.length, of: hot.length, at },
  };
}
