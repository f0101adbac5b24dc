import { existsSync, lstatSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { isOver, type Job } from '@zb/core/model/job';
import type { FaultPlan, FaultReport } from './faultPlan';
import type { Random } from './random';
import { onStick, sha256, STICKS, BuiltServer, type Stick } from './server';
import { bounded, type Bench, type Part } from './part';

const CODES: [calls: string[], codes: string[]][] = [
  [
    ['write', 'truncate', 'datasync', 'fsync', 'appendFile'],
    ['ENOSPC', 'EIO', 'EDQUOT', 'EFBIG'],
  ],
  [['open'], ['EACCES', 'EMFILE', 'ENOSPC', 'EROFS', 'EIO', 'ENOENT']],
  [
    ['read', 'stat', 'readFile'],
    ['EIO', 'EACCES'],
  ],
  [
    ['rename', 'mkdir', 'rm', 'readdir'],
    ['ENOSPC', 'EACCES', 'EIO', 'EROFS'],
  ],
];
const WHERE = ['writer/', '.img', 'jobs.json', 'uploads', 'depot', '.probe', '/'];

function planFrom(random: Random): FaultPlan {
  const [calls, codes] = random.pick(CODES);
  const base = {
    calls: random.chance(0.5) ? calls : [random.pick(calls)],
    where: random.pick(WHERE),
    skip: random.pick([0, 0, 1, 2, 5, random.int(0, 40)]),
    times: random.pick([1, 1, 2, 5, 10_000]),
  };
  if (random.chance(0.15)) return { ...base, calls: ['write', 'read'], short: true, times: 10_000 };
  if (random.chance(0.12))
    return {
      ...base,
      calls: ['open', 'rename', 'readFile'],
      where: random.pick(['.img', 'jobs.json', '.kept', '.probe']),
      times: 1,
      replaceBy: random.pick(['nothing', 'folder', 'link'] as const),
    };
  return { ...base, code: random.pick(codes) };
}

/** Tells the layer under the server what to do next; answers how many faults it made since. */
const tell = (server: BuiltServer, plan: FaultPlan | null): Promise<number> =>
  bounded(
    'the layer under the server',
    10_000,
    new Promise((resolve) => {
      server.child.once('message', (report: FaultReport) => resolve(report.hits));
      server.child.send(plan as object);
    }),
  );

/** Does something with a stick while faults happen; answers the job, where there was one. */
async function act(server: BuiltServer, stick: Stick, random: Random): Promise<Job | undefined> {
  const kind = random.pick(['plain', 'plain', 'packed', 'depot', 'probe', 'fault', 'plug']);
  if (kind === 'probe') await server.ask('POST', `/api/writer/sticks/${stick.id}/probe`);
  if (kind === 'fault') await server.ask('PUT', `/api/writer/sticks/${stick.id}/fault`, '{}');
  if (kind === 'plug') {
    const body = { bytes: 2_000_000, serial: `T-${random.int(0, 9999)}`, model: 'trial' };
    const made = await server.json<{ id?: string }>('POST', '/api/writer/sticks', body);
    if (made.id !== undefined) await server.ask('DELETE', `/api/writer/sticks/${made.id}`);
  }
  if (!['plain', 'packed', 'depot'].includes(kind)) return undefined;
  const content = random.bytes(random.int(1, 300_000));
  if (kind === 'depot') {
    const image = { from: 'depot', file: 'tidegate-3-x64.img' };
    const job = await server.json<Job>('POST', '/api/writer/jobs', {
      stickId: stick.id,
      serialTail: stick.tail,
      image,
    });
    return job.id === undefined ? undefined : server.over(job.id);
  }
  const sent = kind === 'packed' ? gzipSync(content) : content;
  const more =
    kind === 'packed' ? { container: 'gzip', innerBytes: content.length, sha256: sha256(content) } : {};
  const job = await server.announce(stick, sent, more);
  if (job.error !== undefined) return undefined;
  // The sender may be cut short by a write that has failed: how it ended says the job.
  await server.ask('PUT', `/api/writer/jobs/${job.id}/content`, sent).catch(() => undefined);
  return server.over(job.id);
}

function judge(
  bench: Bench,
  server: BuiltServer,
  stick: Stick,
  job: Job,
  before: Buffer,
  plan: FaultPlan,
): void {
  const tale = `${JSON.stringify(plan)} ${job.state}: ${job.explanation}`;
  const now = onStick(server.dataDir, stick.id, before.length);
  if (job.state === 'proven' && sha256(now.subarray(0, job.total)) !== job.sha256)
    bench.wrong(`proven and not on the stick: ${tale}`);
  // A stick whose file was taken away is no longer the one that is spoken of.
  if (!job.touched && !plan.replaceBy && !now.equals(before)) bench.wrong(`untouched and changed: ${tale}`);
  if (job.state !== 'proven' && /ENO|EIO|E[A-Z]{3,}:|undefined|\[object/.test(job.explanation))
    bench.wrong(`no words: ${tale}`);
}

/** Whatever was put where files of the server should be is taken away, as a person would who reads what is said. */
function tidy(dataDir: string): void {
  for (const name of [
    'writer/jobs.json',
    'writer/jobs.json.new',
    ...STICKS.flatMap((s) => [`writer/${s.id}.img`, `writer/${s.id}.probe`]),
  ]) {
    const path = join(dataDir, name);
    const info = lstatSync(path, { throwIfNoEntry: false });
    if (info && !info.isFile()) rmSync(path, { recursive: true });
  }
}

/** Faults of the file system, one after the other, under every kind of request; and under starts. */
export const faults: Part = async (bench) => {
  const { random } = bench;
  const preload = join(process.env.ZB_STRESS_OUT ?? '', 'faultyFs.mjs');
  let round = 0;
  while (bench.goOn()) {
    round += 1;
    const dataDir = join(bench.dir, `faults-${round}`);
    const starting = planFrom(random);
    if (random.chance(0.5)) Object.assign(starting, { times: 10_000, skip: 0 });
    let server = await BuiltServer.start({
      dataDir,
      preload,
      env: {
        ZB_STRESS_FAULT: JSON.stringify({ ...starting, times: starting.replaceBy ? 1 : starting.times }),
      },
    }).catch((error: unknown) => {
      // A folder that cannot be used at all may be refused, in words.
      if (!/ZB_DATA cannot be used/.test(String(error)))
        bench.wrong(`a start with ${JSON.stringify(starting)}: ${String(error)}`);
      return BuiltServer.start({ dataDir, preload });
    });
    bench.count('calls that failed', await tell(server, null));
    bench.count('starts with faults');
    for (let i = 0; i < 60 && bench.goOn(); i += 1) {
      const stick = random.pick(STICKS);
      const plan = planFrom(random);
      const before = onStick(dataDir, stick.id, 9 * 2 ** 20);
      await tell(server, plan);
      let job: Job | undefined;
      try {
        job = await act(server, stick, random);
      } catch (error) {
        bench.wrong(`under ${JSON.stringify(plan)}: ${String(error)}`);
      }
      bench.count('calls that failed', await tell(server, null));
      bench.count('requests under faults');
      if (job) judge(bench, server, stick, job, before, plan);
      tidy(dataDir);
      if (server.ended !== undefined || server.said.includes('nobody caught')) {
        bench.wrong(`the server under ${JSON.stringify(plan)}: ${server.said.slice(-2000)}`);
        await server.end('SIGKILL');
        server = await BuiltServer.start({ dataDir, preload });
      }
      // Once it is over, everything is free and works again.
      const left = (await server.jobs()).filter((j) => !isOver(j));
      for (const j of left) await server.over(j.id).catch((e: unknown) => bench.wrong(String(e)));
      const content = random.bytes(50_000);
      const again = await server.announce(stick, content);
      if (again.error !== undefined)
        bench.wrong(`after ${JSON.stringify(plan)} ${stick.id} is not free: ${again.error}`);
      else {
        await server.ask('PUT', `/api/writer/jobs/${again.id}/content`, content).catch(() => undefined);
        const over = await server.over(again.id);
        if (over.state !== 'proven')
          bench.wrong(`after ${JSON.stringify(plan)} a write fails: ${over.explanation}`);
      }
    }
    await server.end('SIGTERM');
    const kept = await BuiltServer.start({ dataDir });
    for (const j of await kept.jobs()) if (!isOver(j)) bench.wrong(`${j.id} is ${j.state} after a restart`);
    await kept.end('SIGKILL');
    if (existsSync(dataDir)) rmSync(dataDir, { recursive: true, force: true });
  }
};
