import { Gunzip } from 'fflate';
import { createCRC32 } from 'hash-wasm';
import { u32 } from '../formats/bytes';
import { damaged, UnreadableSource } from './fault';
import type { PackedSource } from './packedSource';
import { inflate } from './streams';

/**
 * Unpacks a gzip file of several members (RFC 1952 §2.2), each held against the CRC-32 and the length at its end
 * (§2.3.1). Slower than the platform's inflater, which in some browsers knows one member only.
 */
export async function* gunzipMembers(packed: PackedSource): AsyncGenerator<Uint8Array> {
  const crc = await createCRC32();
  const out: Uint8Array[] = [];
  const ends: { at: number; sum: string; length: number }[] = [];
  let length = 0;
  crc.init();
  const close = (at: number): void => {
    ends.push({ at, sum: crc.digest('hex'), length });
    crc.init();
    length = 0;
  };
  const gunzip = new Gunzip((piece) => {
    crc.update(piece);
    length += piece.length;
    if (piece.length > 0) out.push(piece);
  });
  gunzip.onmember = (at) => {
    if (at > 0) close(at);
  };
  const check = async (): Promise<void> => {
    for (const end of ends.splice(0)) {
      const trailer = await packed.source.read(end.at - 8, 8);
      if (u32(trailer, 0) !== parseInt(end.sum, 16) || u32(trailer, 4) !== end.length % 2 ** 32)
        throw damaged();
    }
  };
  for await (const piece of packed.pieces()) {
    try {
      // The decoder keeps what it is given; the piece may be somebody's buffer.
      gunzip.push(piece.slice(), false);
    } catch {
      throw damaged();
    }
    yield* out.splice(0);
    await check();
  }
  close(packed.source.size);
  await check();
}

/** Unpacks a gzip file by the platform's inflater; where that finds a second member, the other goes on from there. */
export async function* gunzip(packed: PackedSource): AsyncGenerator<Uint8Array> {
  let done = 0;
  try {
    for await (const piece of inflate(packed.pieces(), 'gzip')) {
      done += piece.length;
      yield piece;
    }
    return;
  } catch (error) {
    if (error instanceof UnreadableSource) throw error;
    // Damaged, or of several members: the slower way tells which, and says so.
  }
  let at = 0;
  for await (const piece of gunzipMembers(packed)) {
    at += piece.length;
    if (at > done) yield piece.subarray(Math.max(0, piece.length - (at - done)));
  }
}
