import { execFileSync } from 'node:child_process';
import { chmodSync, chownSync, mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { onStick, sha256, STICKS, BuiltServer } from './server';
import { sleep, type Bench, type Part } from './part';

/** An ordinary user: "nobody" on every system of this kind. */
const NOBODY = 65534;

function fill(dir: string, leave: number): string {
  const path = join(dir, 'filler');
  const { bavail, bsize } = statfsSync(dir);
  try {
    writeFileSync(path, Buffer.alloc(Math.max(0, bavail * bsize - leave)));
  } catch (error) {
    // The server is writing as well, and was faster: fuller than full it cannot be.
    if ((error as { code?: string }).code !== 'ENOSPC') throw error;
  }
  return path;
}

/** A disk that is truly full: while a stick is written, at the start, and while the depot is made. */
async function fullDisk(bench: Bench, dir: string): Promise<void> {
  const { random, count, wrong } = bench;
  const stick = random.pick(STICKS.slice(0, 4));
  const content = random.bytes(4_000_000);
  const full = await BuiltServer.start({ dataDir: join(dir, 'data') });
  const filler = fill(dir, random.int(0, 3_000_000));
  const job = await full.announce(stick, content);
  if (job.error !== undefined) wrong(`a full disk refuses a write before it begins: ${job.error}`);
  else {
    await full.ask('PUT', `/api/writer/jobs/${job.id}/content`, content).catch(() => undefined);
    const over = await full.over(job.id);
    if (
      over.state === 'proven' &&
      sha256(onStick(join(dir, 'data'), stick.id, content.length)) !== job.sha256
    )
      wrong('proven on a full disk and not there');
    if (over.state === 'failed' && !/no room/.test(over.explanation))
      wrong(`no clear word: ${over.explanation}`);
  }
  await full.end('SIGTERM');
  // At the start, with no room at all.
  const atStart = await BuiltServer.start({ dataDir: join(dir, random.pick(['data', 'other'])) });
  const health = await atStart.json<{ troubles: string[] }>('GET', '/api/health');
  const depot = await atStart.ask('GET', '/api/depot/tidegate-3-x64.img');
  if (depot.status !== 200) wrong(`the depot on a full disk answers ${depot.status}`);
  count('troubles said', health.troubles.length);
  rmSync(filler, { force: true });
  // The depot may have taken what became free; a disk that is too small for both stays full, and is said to be.
  const { bavail, bsize } = statfsSync(dir);
  if (bavail * bsize < 110_000_000) {
    await atStart.end('SIGKILL');
    count('full disks');
    return;
  }
  const again = await atStart.announce(stick, content);
  await atStart.ask('PUT', `/api/writer/jobs/${again.id}/content`, content);
  const over = await atStart.over(again.id);
  if (over.state !== 'proven') wrong(`with room again a write still fails: ${over.explanation}`);
  if (atStart.said.includes('nobody caught')) wrong(atStart.said);
  await atStart.end('SIGKILL');
  count('full disks');
}

/** Files and folders that this user may not read or write, as they are for an ordinary user. */
async function unreadable(bench: Bench, dir: string): Promise<void> {
  const { random, count, wrong } = bench;
  const uid = process.getuid?.() === 0 ? NOBODY : undefined;
  const data = join(dir, 'own');
  mkdirSync(join(data, 'writer'), { recursive: true });
  // The folder of the stress test is this user's own; the other one has to get through it.
  chmodSync(bench.dir, 0o755);
  if (uid !== undefined) for (const d of [dir, data, join(data, 'writer')]) chownSync(d, uid, uid);
  const what = random.pick([
    'writer/jobs.json',
    'writer/blue.img',
    'depot/tidegate-3-x64.img',
    'writer',
    'uploads',
    'depot',
  ]);
  const path = join(data, what);
  mkdirSync(join(path, '..'), { recursive: true });
  if (what.includes('.')) writeFileSync(path, '{"jobs":[]}');
  else mkdirSync(path, { recursive: true });
  // The file is somebody else's; only root could still open it.
  chmodSync(path, 0o000);
  if (uid === undefined) chmodSync(path, 0o000);
  else execFileSync('chown', ['root', path]);
  const server = await BuiltServer.start({ dataDir: data, ...(uid === undefined ? {} : { uid }) });
  const content = random.bytes(100_000);
  const job = await server.announce(STICKS[0] ?? { id: '', tail: '' }, content);
  await server.ask('PUT', `/api/writer/jobs/${job.id}/content`, content).catch(() => undefined);
  const over = await server.over(job.id);
  if (over.state !== 'proven' && !/may not read or write/.test(over.explanation))
    wrong(`${what} unreadable: ${over.explanation}`);
  if (over.state !== 'proven' && over.touched)
    wrong(`${what} unreadable, and the stick is said to be touched`);
  const depot = await server.ask('GET', '/api/depot/tidegate-3-x64.img');
  if (depot.status !== 200) wrong(`${what} unreadable: the depot answers ${depot.status}`);
  if (server.said.includes('nobody caught')) wrong(server.said);
  await server.end('SIGKILL');
  count('unreadable files');
}

/** The folder of the data becomes one that can only be read: at the start, or while a stick is written; and back. */
async function readOnlyFolder(bench: Bench, dir: string): Promise<void> {
  const { random, count, wrong } = bench;
  const remount = (how: 'ro' | 'rw'): unknown =>
    execFileSync('mount', ['-o', `remount,${how}`, dir], { stdio: 'ignore' });
  const dataDir = join(dir, 'kept');
  const atStart = random.chance(0.5);
  const first = await BuiltServer.start({ dataDir, pace: atStart ? '0' : '30' });
  const stick = random.pick(STICKS.slice(0, 4));
  const content = random.bytes(3_000_000);
  if (atStart) {
    await first.end('SIGTERM');
    remount('ro');
  }
  const server = atStart ? await BuiltServer.start({ dataDir }) : first;
  const before = onStick(dataDir, stick.id, content.length);
  const job = await server.announce(stick, content);
  const sent = server.ask('PUT', `/api/writer/jobs/${job.id}/content`, content).catch(() => undefined);
  if (!atStart) {
    await sleep(random.int(0, 300));
    // A file that is open for writing keeps a file system from becoming read-only, as it should: then it is later.
    for (let n = 0; n < 40; n += 1) {
      try {
        remount('ro');
        break;
      } catch {
        await sleep(50);
      }
    }
  }
  await sent;
  if (job.error === undefined) {
    const over = await server.over(job.id);
    const now = onStick(dataDir, stick.id, content.length);
    if (over.state === 'proven' && sha256(now) !== job.sha256)
      wrong('proven in a folder that is read-only, and not there');
    if (over.state === 'failed' && !/only be read|read-only/.test(over.explanation))
      wrong(`a folder that is read-only is said as “${over.explanation}”`);
    if (!over.touched && !now.equals(before)) wrong('untouched in a folder that is read-only, and changed');
  }
  for (const path of ['/api/health', '/api/writer/sticks', '/api/depot', '/api/lan', '/api/trials', '/']) {
    const { status } = await server.ask('GET', path);
    if (status !== 200) wrong(`${path} answers ${status} where the folder is read-only`);
  }
  const event = await server.ask('POST', '/api/lan/events', JSON.stringify({ kind: 'cut' }));
  if (event.status !== 200)
    wrong(`an event of the network answers ${event.status} where the folder is read-only`);
  remount('rw');
  const again = await server.announce(stick, content);
  await server.ask('PUT', `/api/writer/jobs/${again.id}/content`, content);
  const over = await server.over(again.id);
  if (over.state !== 'proven') wrong(`writable again, a write still fails: ${over.explanation}`);
  if (server.said.includes('nobody caught')) wrong(server.said.slice(-2000));
  await server.end('SIGKILL');
  count('read-only folders');
}

/** Does `work` on a disk in memory of that size. */
export async function onDisk(dir: string, megabytes: number, work: () => Promise<void>): Promise<void> {
  mkdirSync(dir, { recursive: true });
  execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', dir]);
  try {
    await work();
  } finally {
    execFileSync('umount', ['-l', dir]);
  }
}

/** Full disks, unreadable files and read-only folders that are real: a file system of its own in memory, and another user. */
export const smallDisk: Part = async (bench) => {
  const dir = join(bench.dir, 'small');
  while (bench.goOn()) {
    await onDisk(dir, bench.random.pick([8, 30, 150, 200]), () => fullDisk(bench, dir));
    await onDisk(dir, 200, () => unreadable(bench, dir));
    await onDisk(dir, 200, () => readOnlyFolder(bench, dir));
  }
};
