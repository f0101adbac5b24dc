import { execFileSync } from 'node:child_process';
import { chmodSync, chownSync, mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { onStick, sha256, STICKS, BuiltServer } from './server';
import type { Bench, Part } from './part';

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

async function onDisk(dir: string, megabytes: number, work: () => Promise<void>): Promise<void> {
  mkdirSync(dir, { recursive: true });
  execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', dir]);
  try {
    await work();
  } finally {
    execFileSync('umount', ['-l', dir]);
  }
}

/** Full disks and unreadable files that are real: a file system of its own in memory, and another user. */
export const smallDisk: Part = async (bench) => {
  const dir = join(bench.dir, 'small');
  while (bench.goOn()) {
    await onDisk(dir, bench.random.pick([8, 30, 150, 200]), () => fullDisk(bench, dir));
    await onDisk(dir, 200, () => unreadable(bench, dir));
  }
};
