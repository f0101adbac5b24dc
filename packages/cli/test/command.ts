/**
 * The command line for tests: the very bundle that is shipped. Asked in a thread that has it loaded, an answer takes
 * milliseconds, and as a process a third of a second; how it behaves as a process is tested by those that start one.
 */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { MessageChannel, receiveMessageOnPort, Worker } from 'node:worker_threads';

export const root = join(__dirname, '../../..');
/** Built before the first test of a run (tests/setup.ts). */
export const BUNDLE = join(root, 'packages/cli/dist/zb.mjs');

export interface Done {
  status: number;
  stdout: string;
  stderr: string;
}

/** Longer than any of them takes; one that hangs must not hang the run. */
const MOST_MS = 60_000;

/** Answers a function that runs the command line and waits for its end; `input` is its standard input. */
export function commandLine(): (args: readonly string[], input?: string) => Done {
  const done = new Int32Array(new SharedArrayBuffer(4));
  const { port1, port2 } = new MessageChannel();
  const worker = new Worker(join(__dirname, 'inThread.mjs'), {
    workerData: { bundle: pathToFileURL(BUNDLE).href, done, port: port2 },
    transferList: [port2],
  });
  afterAll(async () => {
    port1.close();
    await worker.terminate();
  });
  return (args, input = '') => {
    Atomics.store(done, 0, 0);
    port1.postMessage({ args, input });
    if (Atomics.wait(done, 0, 0, MOST_MS) === 'timed-out') throw new Error(`no end of: zb ${args.join(' ')}`);
    const answer: { message: Done } | undefined = receiveMessageOnPort(port1);
    if (!answer) throw new Error(`no answer to: zb ${args.join(' ')}`);
    return answer.message;
  };
}
