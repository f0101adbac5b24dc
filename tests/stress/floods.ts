import { connect } from 'node:net';
import { isOver } from '@zb/core/model/job';
import { STICKS, BuiltServer } from './server';
import { bounded, sleep, type Part } from './part';

const HEALTHY_MS = 3000;
const MOST_MEMORY = 700e6;

/** Floods, slow senders and aborted streams: others are answered meanwhile, and nothing is left of them afterwards. */
export const floods: Part = async ({ random, dir, goOn, count, wrong }) => {
  const server = await BuiltServer.start({ dataDir: `${dir}/floods`, idle: '1' });
  const idle = server.use();
  const content = random.bytes(400_000);
  const attacks: Record<string, () => Promise<unknown>> = {
    'many requests at once': () =>
      Promise.all(
        Array.from({ length: 150 }, () =>
          server.ask('GET', random.pick(['/api/writer/jobs', '/api/depot', '/'])),
        ),
      ),
    'downloads broken off': () =>
      Promise.all(
        Array.from({ length: 20 }, async () => {
          const asked = server.open('GET', '/api/depot/curtain-player-12-x64.iso');
          asked.on('response', (r) => r.once('data', () => asked.destroy()).on('error', () => undefined));
          asked.end();
          await sleep(random.int(0, 80));
          asked.destroy();
        }),
      ),
    'progress that nobody reads': async () => {
      const job = await server.announce(STICKS[0] ?? { id: '', tail: '' }, content);
      const listeners = Array.from({ length: 20 }, () => {
        const asked = server.open('GET', `/api/writer/jobs/${job.id}/events`);
        asked.on('response', (r) => r.pause());
        asked.end();
        return asked;
      });
      await server.ask('PUT', `/api/writer/jobs/${job.id}/content`, content);
      for (const l of listeners) l.destroy();
    },
    'uploads broken off': () =>
      Promise.all(
        STICKS.slice(0, 4).map(async (stick) => {
          const job = await server.announce(stick, content);
          const sender = server.open('PUT', `/api/writer/jobs/${job.id}/content`, {
            'content-length': String(content.length),
          });
          sender.write(content.subarray(0, random.int(1, 300_000)));
          await sleep(random.int(0, 60));
          if (random.chance(0.7)) sender.destroy();
        }),
      ),
    'two senders for one write': async () => {
      const job = await server.announce(STICKS[2] ?? { id: '', tail: '' }, content);
      const replies = await Promise.all(
        [content, random.bytes(content.length)].map((b) =>
          server.ask('PUT', `/api/writer/jobs/${job.id}/content`, b).catch(() => ({ status: 0 })),
        ),
      );
      if (replies.filter((r) => r.status === 200).length > 1) wrong('two senders were both taken');
    },
    'heads that never end': async () => {
      const sockets = Array.from({ length: 60 }, () => {
        const s = connect(server.port, '127.0.0.1', () => s.write('GET /api/health HTTP/1.1\r\nHost: 127.0'));
        s.on('error', () => undefined);
        return s;
      });
      await sleep(150);
      for (const s of sockets) s.destroy();
    },
    'bodies that trickle': async () => {
      const senders = Array.from({ length: 20 }, () => {
        const s = server.open('POST', '/api/writer/jobs', { 'content-length': '60000' });
        s.write('{"stickId":');
        return s;
      });
      await sleep(200);
      for (const s of senders) s.destroy();
    },
    'long requests': () =>
      Promise.all(
        Array.from({ length: 3 }, () =>
          server.ask('POST', '/api/writer/jobs', Buffer.alloc(20_000_000, '[{},')).catch(() => undefined),
        ),
      ),
    'requests that are none': async () => {
      const sockets = Array.from({ length: 20 }, () => {
        const s = connect(server.port, '127.0.0.1', () => s.end(random.bytes(random.int(1, 4000))));
        s.on('error', () => undefined);
        return s;
      });
      await sleep(100);
      for (const s of sockets) s.destroy();
    },
  };
  while (goOn()) {
    for (const name of random.some(Object.keys(attacks), 3)) {
      const attack = bounded(name, 30_000, attacks[name]?.() ?? Promise.resolve()).catch((e: unknown) =>
        wrong(`${name}: ${String(e)}`),
      );
      const since = Date.now();
      const health = await server.ask('GET', '/api/health').catch(() => ({ status: 0 }));
      if (health.status !== 200) wrong(`under “${name}” nobody else is answered`);
      if (Date.now() - since > HEALTHY_MS) wrong(`under “${name}” others wait for ${Date.now() - since} ms`);
      await attack;
      count('attacks');
    }
    for (const j of (await server.jobs()).filter((x) => !isOver(x)))
      await server.over(j.id, 6000).catch((e: unknown) => wrong(`a stick stays taken: ${String(e)}`));
    if (server.ended !== undefined || server.said.includes('nobody caught')) {
      wrong(`the server: ${server.said.slice(-2000)}`);
      break;
    }
  }
  await sleep(1500);
  const after = server.use();
  if (after.files > idle.files + 30) wrong(`${after.files} files stay open; there were ${idle.files}`);
  if (after.memory > MOST_MEMORY) wrong(`${Math.round(after.memory / 1e6)} MB are in use afterwards`);
  await server.end('SIGKILL');
};
