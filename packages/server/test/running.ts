import { createHash, randomBytes } from 'node:crypto';
import { request, type ClientRequest, type IncomingMessage } from 'node:http';
import { depotImages } from '@zb/core/demo/depot';
import { createApp, type App, type ServerOptions } from '@zb/server/app';
import { listen } from '@zb/server/listen';
import type { Job } from '@zb/core/model/job';

/** One small image is enough for the depot here. */
const SMALL = depotImages.filter((i) => i.file === 'tidegate-3-x64.img');

export interface Reply {
  status: number;
  headers: IncomingMessage['headers'];
  text: string;
}

/** A server on a socket of its own, spoken to as any program could: not by a client that tidies up the request. */
export interface Running extends App {
  port: number;
  ask(
    method: string,
    path: string,
    body?: string | Uint8Array,
    headers?: Record<string, string>,
  ): Promise<Reply>;
  json<T>(method: string, path: string, body?: unknown): Promise<T>;
  /** Begins to send a file and leaves the rest open. */
  begin(path: string, length: number, first: Uint8Array): ClientRequest;
  jobNow(id: string): Promise<Job>;
  stop(): Promise<void>;
}

export async function run(options: Partial<ServerOptions> & { dataDir: string }): Promise<Running> {
  const made = createApp({ demo: false, pace: 0, images: SMALL, ...options });
  const { server, port } = await listen(made.app, 0);
  await made.ready;
  const open = (method: string, path: string, headers: Record<string, string>): ClientRequest =>
    request({ host: '127.0.0.1', port, method, path, agent: false, headers });
  const ask: Running['ask'] = (method, path, body, headers = {}) =>
    new Promise((resolve, reject) => {
      const asked = open(method, path, headers);
      asked.on('error', reject);
      asked.on('response', (r) => {
        let text = '';
        r.on('data', (d: Buffer) => (text += d.toString('latin1')));
        r.on('end', () => resolve({ status: r.statusCode ?? 0, headers: r.headers, text }));
      });
      asked.end(body);
    });
  const json = async <T>(method: string, path: string, body?: unknown): Promise<T> =>
    JSON.parse((await ask(method, path, body === undefined ? undefined : JSON.stringify(body))).text) as T;
  return {
    ...made,
    port,
    ask,
    json,
    begin(path, length, first) {
      const asked = open('PUT', path, { 'content-length': String(length) });
      asked.on('error', () => undefined);
      asked.write(first);
      return asked;
    },
    async jobNow(id) {
      const found = (await json<Job[]>('GET', '/api/writer/jobs')).find((j) => j.id === id);
      if (!found) throw new Error('the job is not listed');
      return found;
    },
    stop: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
export const noise = (bytes: number): Buffer => randomBytes(bytes);

/** What a page asks for before it sends a file of its own. */
export const announce = (
  content: Uint8Array,
  more: Record<string, unknown> = {},
  stick: [string, string] = ['blue', '7C20'],
): Record<string, unknown> => ({
  stickId: stick[0],
  serialTail: stick[1],
  tag: '',
  image: { from: 'upload', name: 'own.img', bytes: content.length, sha256: sha256(content), ...more },
});

export async function until<T>(
  what: () => T | undefined | false | Promise<T | undefined | false>,
): Promise<T> {
  for (let i = 0; i < 1500; i += 1) {
    const found = await what();
    if (found) return found;
    await new Promise((r) => setTimeout(r, 10));
  }
  throw new Error('it did not come about');
}
