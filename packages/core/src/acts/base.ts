import type { Box, LogEntry } from '../model/bench';
import type { Change } from '../model/changes';
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

/** A line put into the log. */
export const logged = (line: LogEntry): Change => ({ in: 'log', id: line.id, to: line });
