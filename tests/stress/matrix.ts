import { Agent, request } from 'node:http';
import { HEADERS } from '@zb/server/security';
import { BuiltServer } from './server';
import type { Part } from './part';

const HOSTS = [
  '127.0.0.1:PORT',
  'localhost:PORT',
  '[::1]:PORT',
  'localhost',
  'evil.example',
  'localhost.evil.example',
  '127.0.0.1.evil.example',
  '192.0.2.7:PORT',
  '0.0.0.0:PORT',
  'localhost:PORT:1',
  'localhost@evil.example',
  '',
];
const OPERATIONS: [string, string][] = [
  ['GET', '/'],
  ['GET', '/box/x/verify'],
  ['GET', '/assets/none.js'],
  ['GET', '/api/health'],
  ['GET', '/api/depot'],
  ['GET', '/api/writer/sticks'],
  ['GET', '/api/writer/jobs'],
  ['HEAD', '/api/writer/jobs'],
  ['POST', '/api/writer/jobs'],
  ['POST', '/api/writer/sticks'],
  ['DELETE', '/api/writer/sticks/blue-none'],
  ['DELETE', '/api/writer/sticks/..%2F..%2Fx'],
  ['PUT', '/api/writer/sticks/blue/fault'],
  ['POST', '/api/writer/jobs/none/cancel'],
  ['PUT', '/api/writer/jobs/none/content'],
  ['OPTIONS', '/api/writer/jobs'],
  ['PATCH', '/api/writer/sticks'],
  ['TRACE', '/'],
];
const SITES = [undefined, 'same-origin', 'none', 'same-site', 'cross-site'];
const MODES = [undefined, 'navigate', 'cors', 'no-cors'];

/**
 * Every combination of Host, Origin, Fetch Metadata, method and route: who is refused is decided here by the standards
 * (RFC 6454 for origins, RFC 9110 §7.2 for Host, W3C Fetch Metadata) and not by the server's own rule.
 */
export const matrix: Part = async ({ random, dir, goOn, count, wrong }) => {
  const server = await BuiltServer.start({ dataDir: `${dir}/matrix` });
  const agent = new Agent({ keepAlive: true, maxSockets: 4 });
  const port = String(server.port);
  const origins = [
    undefined,
    `http://127.0.0.1:${port}`,
    `http://localhost:${port}`,
    `http://[::1]:${port}`,
    'null',
    'http://evil.example',
    `https://127.0.0.1:${port}`,
    'http://127.0.0.1:1',
  ];
  const state = async (): Promise<string> =>
    JSON.stringify([
      (await server.ask('GET', '/api/writer/sticks')).text,
      (await server.ask('GET', '/api/writer/jobs')).text,
    ]);
  const ask = (
    method: string,
    path: string,
    headers: Record<string, string>,
  ): Promise<{ status: number; headers: Record<string, unknown> }> =>
    new Promise((resolve, reject) => {
      const asked = request(
        { host: '127.0.0.1', port, method, path, agent, headers, setHost: false },
        (r) => {
          r.resume();
          r.on('end', () => resolve({ status: r.statusCode ?? 0, headers: r.headers }));
        },
      );
      asked.on('error', reject);
      asked.end();
    });
  while (goOn()) {
    const before = await state();
    const foreign = Array.from({ length: 200 }, async () => {
      const [method, path] = random.pick(OPERATIONS);
      const host = random.pick(HOSTS).replace('PORT', port);
      const origin = random.pick(origins);
      const site = random.pick(SITES);
      const mode = random.pick(MODES);
      const headers = {
        host,
        ...(origin === undefined ? {} : { origin }),
        ...(site === undefined ? {} : { 'sec-fetch-site': site }),
        ...(mode === undefined ? {} : { 'sec-fetch-mode': mode }),
      };
      const loopback = [`127.0.0.1:${port}`, `localhost:${port}`, `[::1]:${port}`, 'localhost'].includes(
        host,
      );
      const changes = !['GET', 'HEAD', 'OPTIONS', 'TRACE'].includes(method);
      const elsewhere = site === 'same-site' || site === 'cross-site';
      const mustRefuse =
        !loopback ||
        (origin !== undefined && origin !== `http://${host}`) ||
        (elsewhere && path.startsWith('/api')) ||
        (elsewhere && mode !== 'navigate') ||
        (changes && origin === undefined && site !== undefined);
      const mustTake =
        loopback &&
        (origin === undefined || origin === `http://${host}`) &&
        !elsewhere &&
        (!changes || origin !== undefined || site === undefined);
      const reply = await ask(method, path, headers).catch((e: unknown) => ({
        status: -1,
        headers: { fault: String(e) },
      }));
      count('combinations');
      const tale = `${method} ${path} ${JSON.stringify(headers)}: ${reply.status}`;
      const refused =
        reply.status === 403 || reply.status === 400 || (method === 'TRACE' && reply.status >= 400);
      if (mustRefuse && !refused) wrong(`not refused: ${tale}`);
      // Outside the safe methods a preflight or a trace may be refused like a change; the page sends neither.
      if (mustTake && reply.status === 403 && !['OPTIONS', 'TRACE'].includes(method))
        wrong(`refused: ${tale}`);
      if (reply.status >= 500 || reply.status === -1) wrong(`failed: ${tale}`);
      for (const [name, value] of Object.entries(HEADERS))
        if (reply.headers[name.toLowerCase() as keyof typeof reply.headers] !== value)
          wrong(`without ${name}: ${tale}`);
      if ('access-control-allow-origin' in reply.headers) wrong(`opened to others: ${tale}`);
    });
    await Promise.all(foreign);
    // Each of these requests has no body: none of them may change anything, allowed or not.
    if ((await state()) !== before) wrong('a request of the matrix changed something');
  }
  agent.destroy();
  await server.end('SIGKILL');
};
