import { transfer, wrap } from 'comlink';
import type { PacedDigest } from '@zb/core/checksum/digest';
import type { DigestAlgorithm } from '@zb/core/formats/checksumList';
import type { DigestWorker } from './digestWorker';

/** Decoders give small pieces; so much travels at once. Bytes. */
const PARCEL = 1024 * 1024;
/** Parcels on their way at most: what keeps memory flat where unpacking is the quicker of the two. */
const UNDERWAY = 4;

/** Digests that run on another thread; `end` takes the thread away, with whatever was not finished. */
export function digestsElsewhere(): {
  start: (algorithms: readonly DigestAlgorithm[]) => Promise<PacedDigest>;
  end: () => void;
} {
  const thread = new Worker(new URL('./digestWorker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<DigestWorker>(thread);
  const start = async (algorithms: readonly DigestAlgorithm[]): Promise<PacedDigest> => {
    const id = await remote.start(algorithms);
    const underway = new Set<Promise<void>>();
    let parcel = new Uint8Array(PARCEL);
    let filled = 0;
    const send = (): void => {
      const bytes = parcel.subarray(0, filled);
      const sent = remote.update(id, transfer(bytes, [bytes.buffer]));
      parcel = new Uint8Array(PARCEL);
      filled = 0;
      underway.add(sent);
      void sent.then(
        () => underway.delete(sent),
        () => underway.delete(sent),
      );
    };
    return {
      update(chunk) {
        for (let at = 0; at < chunk.length;) {
          const taken = Math.min(PARCEL - filled, chunk.length - at);
          parcel.set(chunk.subarray(at, at + taken), filled);
          filled += taken;
          at += taken;
          if (filled === PARCEL) send();
        }
        return underway.size > UNDERWAY ? Promise.race(underway) : undefined;
      },
      async finish() {
        send();
        await Promise.all(underway);
        return remote.finish(id);
      },
    };
  };
  return { start, end: () => thread.terminate() };
}
