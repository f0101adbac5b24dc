/** What reference tools make for several test files is made once in a run: half of the time would go into making it. */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { scratch, type Scratch } from './files';

const LIST = 'made.json';

/** Whoever comes first makes it; `make` answers its files, which lie in the room it is given. Nobody may change them. */
export function madeOnce<T extends { path: string }>(name: string, make: (room: Scratch) => T[]): T[] {
  const { ZB_MADE } = process.env;
  if (!ZB_MADE) throw new Error('There is no place for what is made: tests/oracle/setup.ts gives one.');
  const place = join(ZB_MADE, name);
  if (!existsSync(place)) {
    const room = scratch(ZB_MADE);
    const moved = make(room).map((m) => ({ ...m, path: join(place, relative(room.dir, m.path)) }));
    writeFileSync(room.path(LIST), JSON.stringify(moved));
    try {
      renameSync(room.dir, place);
    } catch {
      // Another was made meanwhile, and is as good.
      room.clear();
    }
  }
  return JSON.parse(readFileSync(join(place, LIST), 'utf8')) as T[];
}
