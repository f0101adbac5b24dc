import { expose } from 'comlink';
import { createDigest, type StreamingDigest } from '@zb/core/checksum/digest';
import type { DigestAlgorithm } from '@zb/core/formats/checksumList';

/** Digests on a thread of their own, so that unpacking goes on meanwhile. */
const running: StreamingDigest[] = [];

const api = {
  async start(algorithms: readonly DigestAlgorithm[]): Promise<number> {
    running.push(await createDigest(algorithms));
    return running.length - 1;
  },
  update(id: number, bytes: Uint8Array): void {
    running[id]?.update(bytes);
  },
  finish: (id: number): Partial<Record<DigestAlgorithm, string>> => running[id]?.finish() ?? {},
};

export type DigestWorker = typeof api;
expose(api);
