import { wrap } from 'comlink';
import { theBench, type Bench } from '@zb/core/model/bench';
import type { Change } from '@zb/core/model/changes';
import { BenchFileError } from '@zb/core/model/problems';
import { inTurns } from '../parts/inTurns';
import type { BenchFileWorker } from './benchFileWorker';

/** Records that travel at once: few enough that taking them in is no long task. */
const PIECE = 500;
/**
 * Reads a bench file off the page's thread: parsed, brought up to this version and checked in a worker of its own, and
 * taken over piece by piece. Throws BenchFileError where it is none; never half a bench.
 */
export async function readBench(file: Blob): Promise<Bench> {
  const thread = new Worker(new URL('./benchFileWorker.ts', import.meta.url), { type: 'module' });
  try {
    const worker = wrap<BenchFileWorker>(thread);
    const read = await worker.read(file);
    if ('words' in read) throw new BenchFileError(read.words, read.problems, read.count);
    const records: Record<string, unknown[]> = {};
    for (const name of theBench.names) {
      const all: unknown[] = (records[name] = []);
      for (let from = 0; from < (read.counts[name] ?? 0); from += PIECE)
        all.push(...(await worker.piece(name, from, PIECE)));
    }
    return { ...read.frame, ...records } as unknown as Bench;
  } finally {
    thread.terminate();
  }
}

/** The changes that lead from one bench to another, worked out in turns, so that the page stays quick. */
export async function differencesInTurns(from: Bench, to: Bench): Promise<Change[]> {
  const out: Change[] = [];
  await inTurns(theBench.differing(from, to), (change) => {
    if (change) out.push(change);
  });
  return out;
}
