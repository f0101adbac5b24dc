import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { isOver, type Job } from '@zb/core/model/job';
import type { Random } from './random';
import { onStick, sha256, STICKS, BuiltServer, type Stick } from './server';
import { sleep, type Bench, type Part } from './part';

/** No write of this part is longer: what is compared is the front of each stick, and where probes put their marks. */
const FRONT = 9 * 2 ** 20;
const DEPOT = 'tidegate-3-x64.img';

/** Begins some work on a stick and lets it run; what goes wrong because of the kill is no fault. */
async function begin(
  server: BuiltServer,
  stick: Stick,
  random: Random,
  told: Map<string, Job>,
): Promise<void> {
  const kind = random.pick([
    'depot',
    'plain',
    'slow',
    'packed',
    'probe',
    'cancelled',
    'never sent',
    'broken off',
  ]);
  const content = random.bytes(random.int(1, 48) * 65536 + random.int(0, 65535));
  const send = async (job: Job, bytes: Uint8Array): Promise<void> => {
    const reply = await server.ask('PUT', `/api/writer/jobs/${job.id}/content`, bytes);
    const over = JSON.parse(reply.text) as Job;
    if (reply.status === 200 && isOver(over)) told.set(over.id, over);
  };
  if (kind === 'probe') {
    await server.ask('POST', `/api/writer/sticks/${stick.id}/probe`);
    return;
  }
  if (kind === 'depot') {
    const image = { from: 'depot', file: DEPOT };
    await server.json('POST', '/api/writer/jobs', { stickId: stick.id, serialTail: stick.tail, image });
    return;
  }
  const packed = gzipSync(content, { level: 1 });
  const job =
    kind === 'packed'
      ? await server.announce(stick, packed, {
          container: 'gzip',
          innerBytes: content.length,
          sha256: sha256(content),
        })
      : await server.announce(stick, content);
  if (job.error !== undefined) return;
  told.set(job.id, job);
  if (kind === 'plain') await send(job, content);
  else if (kind === 'packed') await send(job, packed);
  else if (kind !== 'never sent') {
    const sender = server.open('PUT', `/api/writer/jobs/${job.id}/content`, {
      'content-length': String(content.length),
    });
    for (let at = 0; at < content.length; at += 100_000) {
      sender.write(content.subarray(at, at + 100_000));
      await sleep(random.int(0, 20));
      if (kind === 'cancelled' && random.chance(0.1)) {
        await server.ask('POST', `/api/writer/jobs/${job.id}/cancel`);
        break;
      }
      if (kind === 'broken off' && random.chance(0.1)) {
        sender.destroy();
        break;
      }
    }
    sender.end();
  }
}

/** Holds every stick against what the newest write that touched it says, and every word against what was told before. */
function compare(
  bench: Bench,
  server: BuiltServer,
  before: Map<string, string>,
  jobs: Job[],
  told: Map<string, Job>,
): void {
  for (const job of jobs) if (!isOver(job)) bench.wrong(`after a restart ${job.id} is still ${job.state}`);
  for (const [id, was] of told) {
    const now = jobs.find((j) => j.id === id);
    if (!now) bench.wrong(`the write ${id} was told of and is forgotten`);
    else if (isOver(was) && was.state !== now.state)
      bench.wrong(`${id} was told to be ${was.state} and is ${now.state}`);
  }
  for (const stick of STICKS) {
    const mine = jobs.filter((j) => j.stickId === stick.id);
    const front = onStick(server.dataDir, stick.id, FRONT);
    for (const j of mine)
      if (!j.touched && /part of an image/.test(j.explanation))
        bench.wrong(`${j.id} never touched its stick and says so`);
    const last = mine.filter((j) => j.touched).at(-1);
    if (last?.state === 'proven') {
      bench.count('proven sticks compared');
      if (sha256(front.subarray(0, last.total)) !== last.sha256)
        bench.wrong(`${stick.id} is said to be proven and does not hold its image`);
    }
    const fresh = mine.filter((j) => j.touched && !before.has(j.id));
    const was = before.get(`front of ${stick.id}`);
    if (was !== undefined && fresh.length === 0) {
      bench.count('untouched sticks compared');
      if (sha256(front) !== was) bench.wrong(`nothing is said to have touched ${stick.id}, and it changed`);
    }
  }
}

/** What was known before a kill, to hold against what is found after it. */
interface Before {
  known: Map<string, string>;
  told: Map<string, Job>;
}

async function begun(server: BuiltServer, { random }: Bench): Promise<Before> {
  const known = new Map<string, string>((await server.jobs()).map((j) => [j.id, j.state]));
  for (const stick of STICKS)
    known.set(`front of ${stick.id}`, sha256(onStick(server.dataDir, stick.id, FRONT)));
  const told = new Map<string, Job>();
  const work = random
    .some(STICKS, random.int(1, 4))
    .map((stick) => begin(server, stick, random, told).catch(() => undefined));
  await sleep(random.int(0, random.chance(0.3) ? 1500 : 400));
  await server.end('SIGKILL');
  await Promise.all(work);
  return { known, told };
}

async function judge(server: BuiltServer, bench: Bench, before: Before): Promise<void> {
  compare(bench, server, before.known, await server.jobs(), before.told);
  const uploads = join(server.dataDir, 'uploads');
  const kept = existsSync(uploads) ? readdirSync(uploads) : [];
  if (kept.length > 0) bench.wrong(`uploads of an earlier run stay: ${kept.join(', ')}`);
  // Any stick can be written again at once.
  const stick = bench.random.pick(STICKS);
  const content = bench.random.bytes(100_000);
  const job = await server.announce(stick, content);
  await server.ask('PUT', `/api/writer/jobs/${job.id}/content`, content);
  const over = await server.over(job.id);
  if (over.state !== 'proven') bench.wrong(`after a kill ${stick.id} cannot be written: ${over.explanation}`);
}

/** Kills at random moments of every kind of write, restarts, and comparison of every stick with what its job says. */
export const kills: Part = async (bench) => {
  const { random } = bench;
  let before: Before | undefined;
  let dataDir = '';
  for (let round = 0; bench.goOn(); round += 1) {
    // A new folder now and then: the first start, with the depot being made, is a moment as well.
    if (round % 25 === 0) {
      if (dataDir !== '') rmSync(dataDir, { recursive: true, force: true });
      dataDir = join(bench.dir, `kills-${round}`);
      before = undefined;
    }
    const server = await BuiltServer.start({ dataDir, pace: String(random.pick([4, 15, 60, 0])) });
    if (before) await judge(server, bench, before);
    before = await begun(server, bench);
    bench.count('kills');
    if (server.said.includes('nobody caught')) bench.wrong(server.said);
  }
};
