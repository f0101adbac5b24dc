// The other side of command.ts: the command line as it is shipped, asked again and again without being loaded again.
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { workerData } from 'node:worker_threads';

const { bundle, done, port } = workerData;
const { readFileSync } = fs;
let input = '';
fs.readFileSync = (path, ...more) => (path === 0 ? Buffer.from(input) : readFileSync(path, ...more));
syncBuiltinESMExports();

const written = { stdout: [], stderr: [] };
for (const name of ['stdout', 'stderr'])
  process[name].write = (chunk) => written[name].push(Buffer.from(chunk)) > 0;

let asked = 0;
port.on('message', async (order) => {
  input = order.input;
  process.argv = [process.execPath, bundle, ...order.args];
  process.exitCode = undefined;
  process.stdout.removeAllListeners('error');
  try {
    // Another name has the entry run anew; what it is made of stays loaded.
    await import(`${bundle}?${(asked += 1)}`);
  } catch (error) {
    written.stderr.push(Buffer.from(String(error?.stack ?? error)));
    process.exitCode = 1;
  }
  const [stdout, stderr] = ['stdout', 'stderr'].map((name) =>
    Buffer.concat(written[name].splice(0)).toString('utf8'),
  );
  port.postMessage({ status: process.exitCode ?? 0, stdout, stderr });
  Atomics.store(done, 0, 1);
  Atomics.notify(done, 0);
});
