import { GrowsBeyond } from '@zb/core/container/fault';
import { formatIec, GIB, parseBytes } from '@zb/core/units/bytes';
import { InputError } from './inputFile';

/** Larger than the image of any drive an appliance is put on; what grows beyond it by itself is to be asked for. */
export const USUAL_LIMIT = 64 * GIB;

/** Reads the value of --limit, in bytes. Throws InputError. */
export function limitFrom(text: string | undefined): number {
  if (text === undefined) return USUAL_LIMIT;
  const bytes = parseBytes(text);
  if (bytes === undefined || bytes <= 0)
    throw new InputError(`--limit is “${text}”, but must be a size such as 200GiB`);
  return bytes;
}

/** Runs work that unpacks; says what to do where there is no end to it. */
export async function withinLimit<T>(path: string, limit: number, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof GrowsBeyond)) throw error;
    throw new InputError(
      `what is packed in ${path} grows beyond ${formatIec(limit)}; nothing was changed. Give --limit SIZE to go on further`,
    );
  }
}
