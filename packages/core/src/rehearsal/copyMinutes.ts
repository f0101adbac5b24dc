import { storesOf, type Bench, type Store } from '../model/bench';
import { predictTimes } from '../write/time';

/** Minutes to copy a drive to another of the shelf that may be lost and is large enough; null where none is. */
export function copyMinutesOf(bench: Bench, store: Store, target: Store): number | null {
  const room = storesOf(bench).filter(
    (s) => s.id !== store.id && s.id !== target.id && s.fate === 'may be lost' && s.bytes >= store.bytes,
  );
  // The smallest that is large enough: foretelling the time for every drive of a full shelf takes long.
  const [to] = room.sort((a, b) => a.bytes - b.bytes);
  if (!to) return null;
  const read = predictTimes(store.bytes, store, bench.log).verify.value.high;
  const write = predictTimes(store.bytes, to, bench.log).write.value.high;
  return Math.ceil(Math.max(read, write) / 60);
}
