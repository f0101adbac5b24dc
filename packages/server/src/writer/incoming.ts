import type { Readable } from 'node:stream';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { within } from '../within';

/** The work was called off. */
export class CalledOff extends Error {
  override name = 'CalledOff';
}

export interface Bounds {
  /** Bytes that were announced; no more than these are taken. */
  bytes: number;
  /** Milliseconds without a byte after which the sender is given up. */
  idleMs: number;
  signal: AbortSignal;
}

/**
 * What a page sends, piece by piece, held to what it announced: a sender that sends more, or nothing for too long, or
 * breaks off, ends it with words for the user; so does the signal, at once (CalledOff). Time is counted only while somebody
 * waits for the sender, not while what came is being written.
 */
export async function* incoming(
  content: Readable,
  { bytes, idleMs, signal }: Bounds,
): AsyncGenerator<Uint8Array> {
  const pieces = content[Symbol.asyncIterator]() as AsyncIterator<Uint8Array>;
  let have = 0;
  try {
    for (;;) {
      const asked = pieces.next().catch(() => {
        throw new Error(`the sender broke off after ${formatExact(have)} of ${formatExact(bytes)}`);
      });
      const next = await within(asked, idleMs, signal);
      if (next === 'stopped') throw new CalledOff();
      if (next === 'late')
        throw new Error(`nothing came for ${Math.round(idleMs / 1000)} s after ${formatExact(have)}`);
      if (next.done) return;
      have += next.value.length;
      if (have > bytes) throw new Error(`the file is longer than the ${formatIec(bytes)} announced`);
      yield next.value;
    }
  } finally {
    content.destroy();
  }
}
