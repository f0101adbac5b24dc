import type { Context } from 'hono';
import { within } from './within';

/** No request of the page is longer. Bytes. */
const LONGEST = 64 * 1024;
const SLOWEST_MS = 10_000;

/** A body that is not taken, with the status that says why (RFC 9110 §15.5). */
export class BodyRefusal extends Error {
  override name = 'BodyRefusal';
  constructor(
    readonly status: 400 | 408 | 413,
    message: string,
  ) {
    super(message);
  }
}

const tooLong = (): BodyRefusal =>
  new BodyRefusal(413, 'The request is longer than 64 kB; nothing was changed.');

/**
 * The JSON of a request, read with a bound on its length and on the wait for it, and parsed only when it is whole.
 * Undefined where it is no JSON. Throws BodyRefusal.
 */
export async function jsonBody(c: Context): Promise<unknown> {
  if (Number(c.req.header('content-length') ?? 0) > LONGEST) throw tooLong();
  const reader = c.req.raw.body?.getReader();
  if (!reader) return undefined;
  const pieces: Uint8Array[] = [];
  let have = 0;
  const until = performance.now() + SLOWEST_MS;
  try {
    for (;;) {
      const next = await within(reader.read(), until - performance.now());
      if (next === 'late') throw new BodyRefusal(408, 'The request did not arrive; nothing was changed.');
      if (next.done) break;
      have += next.value.length;
      if (have > LONGEST) throw tooLong();
      pieces.push(next.value);
    }
  } catch (error) {
    void reader.cancel().catch(() => undefined);
    if (error instanceof BodyRefusal) throw error;
    throw new BodyRefusal(400, 'The request broke off; nothing was changed.');
  }
  try {
    return JSON.parse(Buffer.concat(pieces).toString('utf8'));
  } catch {
    return undefined;
  }
}
