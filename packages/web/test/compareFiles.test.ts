import { MessageChannel } from 'node:worker_threads';
import { expose, releaseProxy, type Endpoint, type Remote } from 'comlink';
import { compareFiles, type Comparing } from '../src/workers/openImages';

/** A worker that goes on telling its progress after it has answered: its two channels keep no common order. */
const lateWorker = {
  compare(_run: number, _image: Blob, _dump: Blob, onProgress: Remote<(bytes: number) => void>): string {
    void onProgress(1);
    setTimeout(() => {
      void onProgress(2).then(() => onProgress[releaseProxy]());
    }, 20);
    return 'what was found';
  },
};

test('progress that arrives after the result does not make a finished comparison look unfinished', async () => {
  const { port1, port2 } = new MessageChannel();
  expose(lateWorker, port1 as unknown as Endpoint);
  Object.assign(globalThis, {
    Worker: function Worker() {
      return port2;
    },
  });
  const told: Comparing[] = [];
  await compareFiles(new File(['a'], 'a'), new File(['b'], 'b'), (now) => told.push(now));
  await new Promise((done) => setTimeout(done, 200));
  port1.close();
  port2.close();
  expect(told.at(0)?.found).toBeUndefined();
  expect(told.at(-1)?.found).toBe('what was found');
});
