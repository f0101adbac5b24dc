import { readdirSync, rmSync } from 'node:fs';
import { faultWords } from './faultWords';
import { inFolder } from './inFolder';

/** Takes away what an earlier run left behind in a folder of its own, and only files of the names that it gave. Never throws. */
export function clearKept(dir: string, names: RegExp, what: string): void {
  try {
    for (const name of readdirSync(dir)) if (names.test(name)) rmSync(inFolder(dir, name), { force: true });
  } catch (error) {
    if ((error as { code?: string }).code !== 'ENOENT')
      console.error(`${what} could not be cleared: ${faultWords(error)}.`);
  }
}
