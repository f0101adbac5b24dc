import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Trial, TrialDesk } from '@zb/core/model/trial';
import { writesForEver } from '../oracle/endless';
import { sleep, type Bench, type Part } from './part';
import { BuiltServer } from './server';
import { onDisk } from './smallDisk';

const IMAGE = writesForEver(2 ** 20);

/** Processes that have a folder in their command line or environment: machines of a server of that folder. */
function machinesIn(dir: string): string[] {
  return readdirSync('/proc')
    .filter((n) => /^\d+$/.test(n) && Number(n) !== process.pid)
    .filter((n) => {
      try {
        return readFileSync(`/proc/${n}/cmdline`, 'latin1').includes(dir);
      } catch {
        return false;
      }
    });
}

const open = (server: BuiltServer, bytes: number, seconds: number): Promise<Trial & { error?: string }> =>
  server.json('POST', '/api/trials', {
    image: { from: 'upload', name: 'own.img', bytes },
    firmware: 'bios',
    attached: 'disk',
    memoryMiB: 128,
    seconds,
  });
const current = async (server: BuiltServer): Promise<Trial | null> =>
  (await server.json<TrialDesk>('GET', '/api/trials')).current;

/** The test boot once it is over. */
async function over(server: BuiltServer, id: string, ms: number): Promise<Trial | undefined> {
  for (const until = performance.now() + ms; performance.now() < until; await sleep(100)) {
    const now = await current(server);
    if (now?.id === id && now.state === 'over') return now;
  }
  return undefined;
}

/** One that is ended in some way at some moment; what is left of it afterwards is looked for by the caller. */
async function one(bench: Bench, server: BuiltServer): Promise<'killed' | 'ended'> {
  const { random, count, wrong } = bench;
  const how = random.pick(['kill', 'stop', 'upload cut', 'time', 'page closed', 'keys'] as const);
  count(`test boots: ${how}`);
  const trial = await open(server, IMAGE.length, 5);
  if (trial.error !== undefined) {
    wrong(`a test boot is refused: ${trial.error}`);
    return 'ended';
  }
  const at = `/api/trials/${trial.id}`;
  const listener = how === 'page closed' ? undefined : server.open('GET', `${at}/events`);
  listener?.on('response', (r) => r.resume().on('error', () => undefined));
  listener?.end();
  if (how === 'upload cut') {
    const sender = server.open('PUT', `${at}/content`, { 'content-length': String(IMAGE.length) });
    sender.write(IMAGE.subarray(0, random.int(1, IMAGE.length - 1)));
    await sleep(random.int(0, 100));
    sender.destroy();
    if (!(await over(server, trial.id, 15_000))) wrong('a test boot whose file broke off is not over');
  } else {
    await server.ask('PUT', `${at}/content`, IMAGE).catch(() => undefined);
    await sleep(random.int(0, 1500));
    if (how === 'kill') {
      await server.end('SIGKILL');
      return 'killed';
    }
    if (how === 'keys')
      for (let i = 0; i < 20; i += 1)
        await server.ask(
          'POST',
          `${at}/keys`,
          JSON.stringify({ keys: random.some(['a', 'ret', 'esc', 'nokey'], 2) }),
        );
    if (how === 'stop' || how === 'keys') await server.ask('DELETE', at);
    if (!(await over(server, trial.id, 20_000))) wrong(`a test boot does not end by “${how}”`);
  }
  listener?.destroy();
  return 'ended';
}

/** The disk fills while a machine writes to it: the machine ends in words before the disk is full. */
async function fullDisk({ dir, count, wrong }: Bench): Promise<void> {
  const small = join(dir, 'boots-small');
  await onDisk(small, 1150, async () => {
    const server = await BuiltServer.start({ dataDir: join(small, 'data') });
    const image = writesForEver();
    const trial = await open(server, image.length, 60);
    await server.ask('PUT', `/api/trials/${trial.id}/content`, image);
    const ended = await over(server, trial.id, 70_000);
    if (ended?.end !== 'no room left') wrong(`on a disk that fills a machine ends by “${ended?.end}”`);
    await server.end('SIGKILL');
    count('disks that filled');
  });
}

/** Test boots ended in every way and at any moment, and servers killed with them: no machine, folder or file of them stays. */
export const testBoots: Part = async (bench) => {
  const dataDir = join(bench.dir, 'boots');
  const kept = join(dataDir, 'trials');
  let server = await BuiltServer.start({ dataDir });
  for (let round = 0; bench.goOn(); round += 1) {
    const how = await one(bench, server);
    if (how === 'killed') server = await BuiltServer.start({ dataDir });
    for (let n = 0; n < 50 && machinesIn(dataDir).length > 1; n += 1) await sleep(100);
    // The server itself has the folder in its environment alone.
    if (machinesIn(dataDir).length > 0) bench.wrong(`machines go on: ${machinesIn(dataDir).join(', ')}`);
    for (let n = 0; n < 20 && existsSync(kept) && readdirSync(kept).length > 0; n += 1) await sleep(100);
    const left = existsSync(kept) ? readdirSync(kept) : [];
    if (left.length > 0) bench.wrong(`of a test boot stay: ${left.join(', ')}`);
    if (server.said.includes('nobody caught')) bench.wrong(server.said.slice(-2000));
    if (round % 12 === 5) await fullDisk(bench);
  }
  await server.end('SIGKILL');
};
