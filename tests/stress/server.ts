import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { closeSync, lstatSync, openSync, readFileSync, readdirSync, readSync } from 'node:fs';
import { request, type ClientRequest } from 'node:http';
import { join } from 'node:path';
import { isOver, type Job } from '@zb/core/model/job';
import { bounded, sleep } from './part';

export interface Reply {
  status: number;
  text: string;
  headers: Record<string, string | string[] | undefined>;
}
interface Options {
  dataDir: string;
  pace?: string;
  idle?: string;
  /** A layer under the file system, loaded before the server. */
  preload?: string;
  env?: Record<string, string>;
  /** The ordinary user to be, where this process may choose. */
  uid?: number;
}

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** The built server as anybody starts it, spoken to over its socket. */
export class BuiltServer {
  said = '';
  ended: number | null | undefined;
  private constructor(
    readonly child: ChildProcess,
    readonly dataDir: string,
    public port: number,
  ) {}

  /** Starts the built server; throws with what it said where it does not come up. */
  static async start({
    dataDir,
    pace = '0',
    idle = '2',
    preload,
    env = {},
    uid,
  }: Options): Promise<BuiltServer> {
    const child = spawn(
      process.execPath,
      [...(preload ? ['--import', preload] : []), 'packages/server/dist/main.mjs'],
      {
        stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
        ...(uid === undefined ? {} : { uid, gid: uid }),
        env: {
          ...process.env,
          ZB_DATA: dataDir,
          ZB_WRITER_PACE: pace,
          ZB_IDLE_SECONDS: idle,
          ZB_WEB: 'packages/web/dist',
          PORT: '0',
          ...env,
        },
      },
    );
    const server = new BuiltServer(child, dataDir, 0);
    child.stderr?.on('data', (d: Buffer) => (server.said += d.toString()));
    child.on('exit', (code) => (server.ended = code));
    let out = '';
    const up = new Promise<void>((resolve, reject) => {
      child.stdout?.on('data', (d: Buffer) => {
        out += d.toString();
        const port = /127\.0\.0\.1:(\d+)/.exec(out)?.[1];
        if (!port) return;
        server.port = Number(port);
        resolve();
      });
      child.on('exit', (code) => reject(new Error(`the server ended with ${code}: ${server.said}`)));
    });
    await bounded('the start of the server', 30_000, up);
    return server;
  }

  open(method: string, path: string, headers: Record<string, string> = {}): ClientRequest {
    const asked = request({ host: '127.0.0.1', port: this.port, method, path, agent: false, headers });
    asked.on('error', () => undefined);
    return asked;
  }

  ask(
    method: string,
    path: string,
    body?: string | Uint8Array,
    headers?: Record<string, string>,
  ): Promise<Reply> {
    const asked = this.open(method, path, headers);
    const reply = new Promise<Reply>((resolve, reject) => {
      asked.on('error', reject);
      asked.on('response', (r) => {
        const pieces: Buffer[] = [];
        r.on('data', (d: Buffer) => pieces.push(d));
        r.on('error', reject);
        r.on('end', () =>
          resolve({ status: r.statusCode ?? 0, text: Buffer.concat(pieces).toString(), headers: r.headers }),
        );
      });
      asked.end(body);
    });
    return bounded(`${method} ${path}`, 20_000, reply);
  }

  async json<T>(method: string, path: string, body?: unknown): Promise<T> {
    const reply = await this.ask(method, path, body === undefined ? undefined : JSON.stringify(body));
    return JSON.parse(reply.text) as T;
  }

  jobs(): Promise<Job[]> {
    return this.json<Job[]>('GET', '/api/writer/jobs');
  }

  /** The job once it is over. */
  async over(id: string, ms = 15_000): Promise<Job> {
    const until = Date.now() + ms;
    for (;;) {
      const job = (await this.jobs()).find((j) => j.id === id);
      if (!job) throw new Error(`the job ${id} is not listed any more`);
      if (isOver(job)) return job;
      if (Date.now() > until) throw new Error(`the job ${id} is still ${job.state} after ${ms} ms`);
      await sleep(8);
    }
  }

  /** Opens a write of a file of one's own. */
  announce(
    stick: Stick,
    content: Uint8Array,
    more: Record<string, unknown> = {},
  ): Promise<Job & { error?: string }> {
    return this.json('POST', '/api/writer/jobs', {
      stickId: stick.id,
      serialTail: stick.tail,
      tag: '',
      image: { from: 'upload', name: 'own.img', bytes: content.length, sha256: sha256(content), ...more },
    });
  }

  /** Open files and memory of the process, as the kernel counts them (proc(5)). */
  use(): { files: number; memory: number } {
    const at = `/proc/${this.child.pid}`;
    const rss = /VmRSS:\s+(\d+) kB/.exec(readFileSync(`${at}/status`, 'utf8'))?.[1];
    return { files: readdirSync(`${at}/fd`).length, memory: 1024 * Number(rss ?? 0) };
  }

  async end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    if (this.ended !== undefined) return;
    const gone = new Promise<void>((resolve) => this.child.on('exit', () => resolve()));
    this.child.kill(signal);
    await bounded('the end of the server', 10_000, gone);
  }
}

export interface Stick {
  id: string;
  tail: string;
}
/** Sticks of the demo that take any image, on four ways. */
export const STICKS: readonly Stick[] = [
  { id: 'blue', tail: '7C20' },
  { id: 'red', tail: '91AF' },
  { id: 'grey', tail: '05D3' },
  { id: 'scans-stick', tail: 'AA17' },
  { id: 'thimble', tail: '1E4D' },
];

/** The first bytes of a stick; zeros where it was never written, or where something that is no file stands. */
export function onStick(dataDir: string, id: string, length: number): Buffer {
  const out = Buffer.alloc(length);
  const path = join(dataDir, 'writer', `${id}.img`);
  if (!lstatSync(path, { throwIfNoEntry: false })?.isFile()) return out;
  const file = openSync(path, 'r');
  readSync(file, out, 0, length, 0);
  closeSync(file);
  return out;
}
