import { mkdirSync, statSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import { faultCode } from './faultWords';

/** The nearest folder above a path that is not there itself, though what is above it is. */
function firstMissing(path: string): string {
  let at = path;
  while (dirname(at) !== at && statSync(dirname(at), { throwIfNoEntry: false }) === undefined)
    at = dirname(at);
  return at;
}

/** Where the file system cannot be written to, Node tells of a folder with all above it that it is not there; made alone, it tells why. */
function trueFault(path: string, fault: unknown): Error | undefined {
  const error = fault as Error;
  if (faultCode(error) !== 'ENOENT') return error;
  try {
    mkdirSync(firstMissing(path));
    return undefined;
  } catch (why) {
    return why as Error;
  }
}

/** Makes a folder with all above it, where it is not there. Throws the file system's error, which says what is wrong. */
export async function makeFolder(path: string): Promise<void> {
  await mkdir(path, { recursive: true }).catch((error: unknown) => {
    const why = trueFault(path, error);
    if (why !== undefined) throw why;
    mkdirSync(path, { recursive: true });
  });
}

/** The same, at once. */
export function makeFolderNow(path: string): void {
  try {
    mkdirSync(path, { recursive: true });
  } catch (error) {
    const why = trueFault(path, error);
    if (why !== undefined) throw why;
    mkdirSync(path, { recursive: true });
  }
}
