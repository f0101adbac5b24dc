import type { Box, LogEntry } from '../model/bench';
import type { Stop } from '../model/stops';
import type { Stamp } from './stamp';

/** What every line of the log about a box says: when, of which box, at which stop. */
export const logBase = (
  box: Box,
  stop: Stop,
  stamp: Stamp,
): Pick<LogEntry, 'id' | 'at' | 'boxId' | 'stop'> => ({
  id: stamp.id(),
  at: stamp.now,
  boxId: box.id,
  stop,
});
