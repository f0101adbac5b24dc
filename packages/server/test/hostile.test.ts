import {
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, dirname, join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import type { Job } from '@zb/core/model/job';
import { inFolder, UnsafeName } from '@zb/server/files/inFolder';
import { HEADERS } from '@zb/server/security';
import { settingsFrom, SettingsFault } from '@zb/server/settings';
import { announce, noise, run, sha256, until, type Running } from './running';
import { runs } from '../../core/test/runs';

jest.setTimeout(120_000);

const root = mkdtempSync(join(tmpdir(), 'zb-hostile-'));
const victim = join(root, 'disk.img');
let server: Running;
let n = 0;
const folder = (): string => join(root, `d${(n += 1)}`);
const own = async (
  options: Parameters<typeof run>[0],
  work: (s: Running) => Promise<void>,
): Promise<void> => {
  const s = await run(options);
  try {
    await work(s);
  } finally {
    await s.stop();
  }
};
beforeAll(async () => {
  writeFileSync(victim, 'somebody’s disk');
  server = await run({ dataDir: folder(), idleSeconds: 1, webDir: page() });
});
afterAll(async () => {
  await server.stop();
  rmSync(root, { recursive: true, force: true });
});
/** The smallest built application. */
function page(): string {
  const dir = folder();
  mkdirSync(join(dir, 'assets'), { recursive: true });
  writeFileSync(join(dir, 'index.html'), '<!doctype html><title>page</title>');
  writeFileSync(join(dir, 'assets', 'a-1.js'), '0');
  return dir;
}
const quiet = async <T>(work: () => Promise<T>): Promise<T> => {
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  try {
    return await work();
  } finally {
    said.mockRestore();
  }
};
const open = (s: Running, content: Uint8Array, more?: Record<string, unknown>, stick?: [string, string]) =>
  s.json<Job>('POST', '/api/writer/jobs', announce(content, more, stick));
const put = (s: Running, id: string, bytes: Uint8Array) =>
  s.ask('PUT', `/api/writer/jobs/${id}/content`, bytes);
function onStick(dir: string, id: string, length: number): Buffer {
  const out = Buffer.alloc(length);
  const file = openSync(join(dir, 'writer', `${id}.img`), 'r');
  readSync(file, out, 0, length, 0);
  closeSync(file);
  return out;
}

/** Ways to spell a path that leads somewhere else. */
const climbing = fc
  .array(
    fc.oneof(
      fc.constantFrom(
        '..',
        '.',
        '/',
        '\\',
        '%2e%2e',
        '%2F',
        '%5c',
        '%00',
        '\u0000',
        '..%2f',
        '%252e',
        '：',
        '‥',
        '~',
        'disk',
        '.img',
        ' ',
        ':',
        'con',
      ),
      fc.string({ unit: 'grapheme', maxLength: 12 }),
    ),
    { minLength: 1, maxLength: 12 },
  )
  .map((parts) => parts.join(''));
const routes: [string, (id: string) => string][] = [
  ['DELETE', (id) => `/api/writer/sticks/${id}`],
  ['PUT', (id) => `/api/writer/sticks/${id}/fault`],
  ['POST', (id) => `/api/writer/sticks/${id}/probe`],
  ['PUT', (id) => `/api/writer/jobs/${id}/content`],
  ['POST', (id) => `/api/writer/jobs/${id}/cancel`],
  ['GET', (id) => `/api/writer/jobs/${id}/events`],
  ['GET', (id) => `/api/depot/${id}`],
];

describe('a name never becomes a path', () => {
  it('takes nothing that leaves its folder, whatever the spelling', () => {
    fc.assert(
      fc.property(fc.oneof(climbing, fc.string(), fc.string({ minLength: 100, maxLength: 5000 })), (name) => {
        let path: string;
        try {
          path = inFolder('/some/folder', name);
        } catch (error) {
          expect(error).toBeInstanceOf(UnsafeName);
          return;
        }
        expect(dirname(resolve(path))).toBe('/some/folder');
        expect(basename(path)).toBe(name);
        // eslint-disable-next-line no-control-regex -- control characters are what must not get through
        expect(name).not.toMatch(/[\\/\u0000-\u001f\u007f-\uffff]|\.\.|^\.|\.$/);
      }),
      { numRuns: runs(3000) },
    );
  });
  it('gives what the server itself makes a place', () => {
    for (const name of ['jobs.json', 'lantern-arcade-7.2-x64.img', `${crypto.randomUUID()}.kept`])
      expect(inFolder('/f', name)).toBe(`/f/${name}`);
  });
  it('deletes nothing outside, by the spelling that did', async () => {
    const reply = await server.ask('DELETE', '/api/writer/sticks/..%2F..%2Fdisk');
    expect(reply.status).toBe(404);
    expect(readFileSync(victim, 'utf8')).toBe('somebody’s disk');
  });
  it('no route reads, changes or makes anything for an id the server did not give', async () => {
    const before = readdirSync(root, { recursive: true }).sort();
    await fc.assert(
      fc.asyncProperty(
        climbing,
        fc.constantFrom(...routes),
        fc.boolean(),
        async (id, [method, at], coded) => {
          const spelled = coded
            ? encodeURIComponent(Buffer.from(id).toString())
            : // What is not allowed in a request line at all cannot be sent by any program.
              // eslint-disable-next-line no-control-regex -- control characters are what must not get through
              Buffer.from(id.replace(/[\u0000-\u0020\u007f?#]/g, ''), 'utf8').toString('latin1');
          if (spelled === '' || /^\.{1,2}$/.test(spelled)) return;
          const reply = await server
            .ask(method, at(spelled), method === 'PUT' ? '{}' : undefined)
            .catch(() => undefined);
          if (reply) expect(reply.status === 200 ? 'page' : reply.status).not.toBe(500);
          if (reply?.status === 200) expect(method).toBe('GET');
        },
      ),
      { numRuns: runs(400) },
    );
    expect(readdirSync(root, { recursive: true }).sort()).toEqual(before);
    expect(readFileSync(victim, 'utf8')).toBe('somebody’s disk');
  });
});

describe('a write is proven only for the bytes that were announced', () => {
  const content = noise(300_000);
  it('other bytes of the same length fail, though all agree with what came', async () => {
    const job = await open(server, content);
    const ended = JSON.parse((await put(server, job.id, noise(content.length))).text) as Job;
    expect(ended).toMatchObject({ state: 'failed', explanation: expect.stringContaining('not the image') });
  });
  it('a second sender is refused while the first sends, and the first goes on', async () => {
    const job = await open(server, content);
    const first = server.begin(
      `/api/writer/jobs/${job.id}/content`,
      content.length,
      content.subarray(0, 70_000),
    );
    await until(async () => (await server.jobNow(job.id)).written > 0);
    expect((await put(server, job.id, noise(1000))).status).toBe(409);
    first.end(content.subarray(70_000));
    expect((await until(async () => ended(await server.jobNow(job.id)))).state).toBe('proven');
  });
  it('a second sender cannot pass an archive off as what is in it', async () => {
    const packed = gzipSync(content);
    const job = await open(server, packed, {
      container: 'gzip',
      innerBytes: content.length,
      sha256: sha256(content),
    });
    const first = server.begin(`/api/writer/jobs/${job.id}/content`, packed.length, packed.subarray(0, 10));
    await new Promise((r) => setTimeout(r, 50));
    expect((await put(server, job.id, packed)).status).toBe(409);
    first.end(packed.subarray(10));
    const done = await until(async () => ended(await server.jobNow(job.id)));
    expect(done.state).toBe('proven');
    expect(onStick(join(root, 'd1'), 'blue', content.length).equals(content)).toBe(true);
  });
  it('one whose digest nobody knows is refused before anything is written', async () => {
    const refused = await server.json<{ error: string }>(
      'POST',
      '/api/writer/jobs',
      announce(content, { sha256: null }),
    );
    expect(refused.error).toContain('Verify');
  });
});
const ended = (job: Job): Job | undefined =>
  ['proven', 'failed', 'cancelled', 'interrupted'].includes(job.state) ? job : undefined;

describe('a sender that does not do what it said', () => {
  const content = noise(200_000);
  it.each([
    ['plain', {}],
    ['packed', { container: 'gzip', innerBytes: 9, sha256: sha256(Buffer.from('123456789')) }],
  ])('stalls (%s): called off at once, or given up after its time; nothing stays', async (_n, more) => {
    for (const cancel of [true, false]) {
      const job = await open(server, content, more);
      server.begin(`/api/writer/jobs/${job.id}/content`, content.length, content.subarray(0, 1000));
      await new Promise((r) => setTimeout(r, 60));
      if (cancel) await server.ask('POST', `/api/writer/jobs/${job.id}/cancel`);
      const done = await until(async () => ended(await server.jobNow(job.id)));
      // Given up after its time is a failure; called off is not, and does not wait for that.
      expect(done.state).toBe(cancel ? 'cancelled' : 'failed');
      expect(done.explanation).toContain('as it was');
      await until(() => readdirSync(join(root, 'd1', 'uploads')).length === 0);
    }
  });
  it('never sends: the stick is free again', async () => {
    const job = await open(server, content);
    const done = await until(async () => ended(await server.jobNow(job.id)));
    expect(done).toMatchObject({ touched: false, explanation: expect.stringContaining('as it was') });
    expect((await put(server, job.id, content)).status).toBe(409);
  });
  it('sends without end: no more is kept than was announced', async () => {
    const job = await open(server, Buffer.alloc(1000), {
      container: 'gzip',
      innerBytes: 5000,
      sha256: sha256(Buffer.alloc(1)),
    });
    let most = 0;
    const watch = setInterval(() => {
      for (const name of readdirSync(join(root, 'd1', 'uploads')))
        most = Math.max(
          most,
          statSync(join(root, 'd1', 'uploads', name), { throwIfNoEntry: false })?.size ?? 0,
        );
    }, 1);
    await put(server, job.id, noise(30_000_000)).catch(() => undefined);
    clearInterval(watch);
    expect(await server.jobNow(job.id)).toMatchObject({ state: 'failed', touched: false });
    expect(most).toBeLessThanOrEqual(1000);
  });
  it('breaks off: said so', async () => {
    const job = await open(server, content);
    const sender = server.begin(
      `/api/writer/jobs/${job.id}/content`,
      content.length,
      content.subarray(0, 80_000),
    );
    await until(async () => (await server.jobNow(job.id)).written > 0);
    sender.destroy();
    const done = await until(async () => ended(await server.jobNow(job.id)));
    expect(done).toMatchObject({ state: 'failed', touched: true });
    expect(done.explanation).toMatch(/broke off.*holds part/);
  });
  it('sends a request of 60 MB: refused without reading it, and others are answered meanwhile', async () => {
    const since = Date.now();
    const long = Buffer.alloc(60_000_000, '[{},');
    const [reply, health] = await Promise.all([
      server.ask('POST', '/api/writer/jobs', long).catch(() => ({ status: 413 })),
      server.ask('GET', '/api/health'),
    ]);
    expect([reply.status, health.status]).toEqual([413, 200]);
    expect(Date.now() - since).toBeLessThan(3000);
  });
});

describe('the record', () => {
  it('never drops a write that is not over', async () => {
    await own({ dataDir: folder() }, async (s) => {
      const waiting = await open(s, noise(10), {}, ['grey', '05D3']);
      for (let i = 0; i < 210; i += 1) {
        const job = await open(s, noise(10));
        await s.ask('POST', `/api/writer/jobs/${job.id}/cancel`);
      }
      expect((await s.jobNow(waiting.id)).state).toBe('waiting for the file');
      expect((await s.json<Job[]>('GET', '/api/writer/jobs')).length).toBeLessThanOrEqual(201);
    });
  });
  it('says of a stick that was never touched that it is as it was, after a restart too', async () => {
    const dataDir = folder();
    const [first, second] = [await run({ dataDir }), noise(100)];
    const job = await open(first, second);
    await first.stop();
    await own({ dataDir }, async (s) => {
      const found = await s.jobNow(job.id);
      expect(found).toMatchObject({
        state: 'interrupted',
        explanation: expect.stringContaining('as it was'),
      });
      expect(found.explanation).not.toContain('part of an image');
    });
  });
  it('keeps what was plugged in, and its faults', async () => {
    const dataDir = folder();
    const first = await run({ dataDir });
    const stick = await first.json<{ id: string }>('POST', '/api/writer/sticks', {
      bytes: 5_000_000,
      serial: 'MINE-0042',
      model: 'm',
    });
    await first.ask('PUT', `/api/writer/sticks/${stick.id}/fault`, '{"weakAt":7}');
    await first.stop();
    await own({ dataDir }, async (s) => {
      const sticks = await s.json<{ id: string; fault: object }[]>('GET', '/api/writer/sticks');
      expect(sticks.find((x) => x.id === stick.id)).toMatchObject({
        serial: 'MINE-0042',
        fault: { weakAt: 7 },
      });
    });
  });
  it('that cannot be read is put aside, not thrown away', async () => {
    const dataDir = folder();
    mkdirSync(join(dataDir, 'writer'), { recursive: true });
    writeFileSync(join(dataDir, 'writer', 'jobs.json'), '{"jobs":[{"id":');
    await quiet(() => own({ dataDir }, async () => undefined));
    expect(readFileSync(join(dataDir, 'writer', 'jobs.json.unreadable'), 'utf8')).toBe('{"jobs":[{"id":');
  });
  it('a probe that was cut off is taken back', async () => {
    const dataDir = folder();
    const first = await run({ dataDir });
    const content = noise(200_000);
    const job = await open(first, content);
    await put(first, job.id, content);
    await first.stop();
    // As a kill in the middle of a probe leaves it: marks on the stick, and what stood there noted.
    const image = join(dataDir, 'writer', 'blue.img');
    const file = await import('node:fs/promises').then((f) => f.open(image, 'r+'));
    await file.write(noise(4096), 0, 4096, 65536);
    await file.close();
    const note = { offset: 65536, before: content.subarray(65536, 65536 + 4096).toString('base64') };
    writeFileSync(join(dataDir, 'writer', 'blue.probe'), `${JSON.stringify(note)}\n{"offset":81`);
    await own({ dataDir }, async (s) => {
      await s.ask('GET', '/api/writer/sticks');
      expect(onStick(dataDir, 'blue', content.length).equals(content)).toBe(true);
      expect(existsSync(join(dataDir, 'writer', 'blue.probe'))).toBe(false);
    });
  });
  it('a note of a probe that cannot be read is kept, and a link in its place is not followed', () =>
    quiet(async () => {
      const dataDir = folder();
      const note = join(dataDir, 'writer', 'blue.probe');
      plant(note, 'a link to somebody’s file');
      await own({ dataDir }, async (s) => {
        expect((await s.ask('POST', '/api/writer/sticks/blue/probe')).status).toBe(507);
        expect(readFileSync(victim, 'utf8')).toBe('somebody’s disk');
      });
      plant(note, 'a folder');
      await own({ dataDir }, async (s) => {
        await s.ask('GET', '/api/writer/sticks');
        expect(existsSync(join(note, 'inside'))).toBe(true);
      });
    }));
  it('a probe leaves every byte as it was, of a faulty stick too', async () => {
    await own({ dataDir: folder() }, async (s) => {
      const content = noise(100_000);
      const job = await open(s, content);
      await put(s, job.id, content);
      await s.ask('PUT', '/api/writer/sticks/blue/fault', '{"weakAt":5000}');
      await s.ask('POST', '/api/writer/sticks/blue/probe');
      expect(onStick(join(root, `d${n}`), 'blue', content.length).equals(content)).toBe(true);
    });
  });
});

const KINDS = ['a folder', 'a dangling link', 'a link in a circle', 'a link to somebody’s file'] as const;
function plant(path: string, kind: (typeof KINDS)[number]): void {
  mkdirSync(dirname(path), { recursive: true });
  rmSync(path, { recursive: true, force: true });
  if (kind === 'a folder') {
    mkdirSync(path);
    writeFileSync(join(path, 'inside'), 'x');
  } else
    symlinkSync(
      kind === 'a dangling link' ? '/nowhere/at/all' : kind === 'a link in a circle' ? path : victim,
      path,
    );
}
const content = noise(150_000);

describe.each(KINDS)('%s where a file of the server should be', (kind) => {
  it('the record: it starts, refuses to write what it could not record or mends it, and says so', () =>
    quiet(async () => {
      const dataDir = folder();
      plant(join(dataDir, 'writer', 'jobs.json'), kind);
      await own({ dataDir }, async (s) => {
        const job = await open(s, content);
        const done = JSON.parse((await put(s, job.id, content)).text) as Job;
        const { troubles } = await s.json<{ troubles: string[] }>('GET', '/api/health');
        if (kind === 'a folder') {
          expect(done).toMatchObject({ state: 'failed', touched: false });
          expect(troubles.join()).toContain('a folder stands');
        } else expect([done.state, troubles]).toEqual(['proven', []]);
      });
    }));
  it('the bytes of a stick: the write fails in words, nothing behind a link is touched', () =>
    quiet(async () => {
      const dataDir = folder();
      plant(join(dataDir, 'writer', 'blue.img'), kind);
      await own({ dataDir }, async (s) => {
        const job = await open(s, content);
        const done = JSON.parse((await put(s, job.id, content)).text) as Job;
        expect(done).toMatchObject({ state: 'failed', touched: false });
        expect(done.explanation).toMatch(/(folder|link) stands/);
        expect((await s.ask('POST', '/api/writer/sticks/blue/probe')).status).toBe(507);
        rmSync(join(dataDir, 'writer', 'blue.img'), { recursive: true });
        const again = await open(s, content);
        expect(JSON.parse((await put(s, again.id, content)).text)).toMatchObject({ state: 'proven' });
      });
    }));
  it('a file of the depot: mended, or made as it is asked for', () =>
    quiet(async () => {
      const dataDir = folder();
      const file = 'tidegate-3-x64.img';
      await own({ dataDir }, async (s) => {
        plant(join(dataDir, 'depot', file), kind);
        const reply = await s.ask('GET', `/api/depot/${file}`);
        const sums = (await s.ask('GET', '/api/depot/SHA256SUMS')).text;
        expect(sums).toContain(sha256(Buffer.from(reply.text, 'latin1')));
        const job = await s.json<Job>('POST', '/api/writer/jobs', {
          stickId: 'blue',
          serialTail: '7C20',
          image: { from: 'depot', file },
        });
        expect((await until(async () => ended(await s.jobNow(job.id)))).state).toBe('proven');
      });
    }));
  it('the folder of uploads: nothing of others is cleared', () =>
    quiet(async () => {
      const dataDir = folder();
      plant(join(dataDir, 'uploads'), kind);
      await own({ dataDir }, async (s) => {
        const packed = gzipSync(content);
        const more = { container: 'gzip', innerBytes: content.length, sha256: sha256(content) };
        const job = await open(s, packed, more);
        const done = JSON.parse((await put(s, job.id, packed)).text) as Job;
        expect(done.state).toBe(kind === 'a folder' ? 'proven' : 'failed');
        if (kind === 'a folder') expect(existsSync(join(dataDir, 'uploads', 'inside'))).toBe(true);
      });
    }));
  afterEach(() => expect(readFileSync(victim, 'utf8')).toBe('somebody’s disk'));
});

describe('what every answer carries', () => {
  it('the headers, refusals and faults included', async () => {
    const replies = await Promise.all([
      server.ask('GET', '/'),
      server.ask('GET', '/box/one/verify'),
      server.ask('GET', '/assets/a-1.js'),
      server.ask('GET', '/assets/gone.js'),
      server.ask('GET', '/api/health'),
      server.ask('GET', '/api/nothing'),
      server.ask('GET', '/api/health', undefined, { host: 'evil.example' }),
      server.ask('GET', '/api/health', undefined, { host: 'evil.example/@x' }),
      server.ask('POST', '/api/writer/jobs', '{', { origin: 'http://evil.example' }),
      server.ask('POST', '/api/writer/jobs', '{'),
      server.ask('POST', '/api/writer/jobs', Buffer.alloc(70_000)),
      server.ask('DELETE', '/api/writer/sticks/none'),
      server.ask('PATCH', '/'),
      server.ask('OPTIONS', '/api/writer/jobs'),
    ]);
    expect(replies.map((r) => r.status)).toEqual([
      200, 200, 200, 404, 200, 404, 403, 400, 403, 400, 413, 404, 404, 404,
    ]);
    for (const reply of replies)
      for (const [name, value] of Object.entries(HEADERS))
        expect(reply.headers[name.toLowerCase()]).toBe(value);
  });
  it('what is no HTTP at all is answered with them too', async () => {
    const text = await new Promise<string>((done) => {
      let said = '';
      const socket = connect(server.port, '127.0.0.1', () => socket.write('NONSENSE\r\n\r\n'));
      socket.on('data', (d) => (said += d.toString())).on('close', () => done(said));
    });
    expect(text).toMatch(/^HTTP\/1\.1 400/);
    for (const name of Object.keys(HEADERS)) expect(text).toContain(`${name}: `);
  });
  it('what is not there is never remembered as if it were', async () => {
    const gone = await server.ask('GET', '/assets/gone.js');
    expect([gone.status, gone.headers['cache-control']]).toEqual([404, undefined]);
    const there = await server.ask('GET', '/assets/a-1.js');
    expect(there.headers['cache-control']).toContain('immutable');
  });
  it('what a foreign page asks for is refused, a link to the page is not', async () => {
    const from = (site: string, mode: string, path: string) =>
      server
        .ask('GET', path, undefined, { 'sec-fetch-site': site, 'sec-fetch-mode': mode })
        .then((r) => r.status);
    expect(await from('cross-site', 'no-cors', '/api/depot')).toBe(403);
    expect(await from('same-site', 'cors', '/api/writer/jobs')).toBe(403);
    expect(await from('cross-site', 'navigate', '/api/depot')).toBe(403);
    expect(await from('cross-site', 'no-cors', '/assets/a-1.js')).toBe(403);
    expect(await from('cross-site', 'navigate', '/')).toBe(200);
    expect(await from('same-origin', 'cors', '/api/depot')).toBe(200);
    expect(await from('none', 'navigate', '/')).toBe(200);
  });
});

it('whoever asks for a head alone, or leaves before the first byte, leaves no file open', async () => {
  const open_ = (): number => readdirSync('/proc/self/fd').length;
  const job = await open(server, content, {}, ['grey', '05D3']);
  const before = open_();
  for (let i = 0; i < 30; i += 1) {
    const head = await server.ask('HEAD', '/api/depot/tidegate-3-x64.img');
    expect([head.status, Number(head.headers['content-length'])]).toEqual([200, 8 * 2 ** 20]);
    await server.ask('HEAD', `/api/writer/jobs/${job.id}/events`);
    server.begin('/api/depot/tidegate-3-x64.img', 0, Buffer.alloc(0)).destroy();
  }
  await until(() => open_() <= before + 2);
  await server.ask('POST', `/api/writer/jobs/${job.id}/cancel`);
});

describe('settings that cannot be meant', () => {
  const file = join(root, 'a-file');
  it.each([
    ['PORT', 'abc'],
    ['PORT', '70000'],
    ['PORT', ''],
    ['PORT', '-1'],
    ['ZB_WRITER_PACE', 'fast'],
    ['ZB_IDLE_SECONDS', '0'],
    ['ZB_DATA', file],
    ['ZB_DATA', join(file, 'below')],
  ])('%s=%p is said in words', (name, value) => {
    writeFileSync(file, 'x');
    expect(() => settingsFrom({ ZB_DATA: folder(), [name]: value })).toThrow(SettingsFault);
    expect(() => settingsFrom({ ZB_DATA: folder(), [name]: value })).toThrow(name);
    expect(readFileSync(file, 'utf8')).toBe('x');
  });
  it('the usual ones are taken', () =>
    expect(settingsFrom({ ZB_DATA: folder() })).toMatchObject({
      port: 0,
      pace: 1,
      idleSeconds: 30,
      demo: false,
    }));
});

it('a request that names no host is refused with the headers of every answer (RFC 9110 §7.2)', async () => {
  const said = await new Promise<string>((resolve, reject) => {
    const socket = connect(server.port, '127.0.0.1', () =>
      socket.write('GET /api/health HTTP/1.1\r\nConnection: close\r\n\r\n'),
    );
    let text = '';
    socket.on('data', (d) => (text += d.toString()));
    socket.on('close', () => resolve(text));
    socket.on('error', reject);
  });
  expect(said).toMatch(/^HTTP\/1\.1 (400|403) /);
  for (const [name, value] of Object.entries(HEADERS))
    expect(said.toLowerCase()).toContain(`${name}: ${value}`.toLowerCase());
});
