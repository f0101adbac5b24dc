import { createHash } from 'node:crypto';
import {
  closeSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseChecksumList, sumsFor } from '@zb/core/formats/checksumList';
import { depotImages } from '@zb/core/demo/depot';
import { createApp } from '@zb/server/app';
import type { Job } from '@zb/core/model/job';

// Real bytes are written and read back; a busy machine takes its time over them.
jest.setTimeout(120_000);

const HOST = { host: '127.0.0.1:4000' };
const ORIGIN = { ...HOST, origin: 'http://127.0.0.1:4000' };
let dir: string;
let server: ReturnType<typeof createApp>;
const fresh = () => createApp({ dataDir: dir, demo: true, pace: 0 });

beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'zb-server-'));
  server = fresh();
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const get = (path: string, headers: Record<string, string> = HOST) => server.app.request(path, { headers });
const send = (method: string, path: string, body?: unknown, headers: Record<string, string> = ORIGIN) =>
  server.app.request(path, {
    method,
    headers: { ...headers, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
const json = async <T = Record<string, unknown>>(response: Response | Promise<Response>): Promise<T> =>
  (await (await response).json()) as T;

async function finished(id: string): Promise<Job> {
  for (let i = 0; i < 400; i += 1) {
    const job = (await json<Job[]>(get('/api/writer/jobs'))).find((j) => j.id === id);
    if (job && !['waiting for the file', 'writing', 'reading back'].includes(job.state)) return job;
    await new Promise((r) => setTimeout(r, 25));
  }
  throw new Error('the write did not end');
}
const LANTERN = 'lantern-arcade-7.2-x64.img';
const start = (stickId: string, serialTail: string, file = LANTERN) =>
  send('POST', '/api/writer/jobs', { stickId, serialTail, image: { from: 'depot', file }, tag: 'b:i' });
const upload = (content: Uint8Array, announced = content.length) => ({
  from: 'upload',
  name: 'own.img',
  bytes: announced,
  sha256: createHash('sha256').update(content).digest('hex'),
});
const bytesOnStick = (id: string, length: number): Buffer => {
  const out = Buffer.alloc(length);
  const fd = openSync(join(dir, 'writer', `${id}.img`), 'r');
  readSync(fd, out, 0, length, 0);
  closeSync(fd);
  return out;
};

describe('who may speak to it', () => {
  it.each(['evil.example', '192.0.2.7:4000', 'localhost.evil.example', '127.0.0.1.evil.example:80', ''])(
    'refuses Host %p',
    async (host) => expect((await get('/api/health', { host })).status).toBe(403),
  );
  it.each(['localhost', 'localhost:4000', '127.0.0.1:1', '[::1]:4000'])('takes Host %p', async (host) =>
    expect((await get('/api/health', { host })).status).toBe(200),
  );
  it.each(['http://evil.example', 'null', 'https://127.0.0.1:4000', 'http://127.0.0.1:4001'])(
    'refuses Origin %p',
    async (origin) => {
      expect((await send('POST', '/api/writer/sticks', {}, { ...HOST, origin })).status).toBe(403);
      expect((await get('/api/depot', { ...HOST, origin })).status).toBe(403);
    },
  );
  it('a change from a page that hides its origin is refused', async () => {
    expect(
      (await send('POST', '/api/writer/sticks', {}, { ...HOST, 'sec-fetch-site': 'cross-site' })).status,
    ).toBe(403);
  });
  it('sends a strict policy', async () => {
    const headers = (await get('/api/health')).headers;
    const csp = headers.get('content-security-policy') ?? '';
    expect(csp).toContain("default-src 'none'");
    expect(csp).toContain("frame-ancestors 'none'");
    expect(csp).not.toMatch(/script-src[^;]*unsafe-inline/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });
  it('unknown addresses and bad bodies are answered in words', async () => {
    expect(await json(get('/api/nothing'))).toEqual({ error: 'No such address.' });
    for (const body of [
      {},
      { stickId: 'blue' },
      { stickId: 'blue', serialTail: '7C2', image: { from: 'depot', file: 'x' } },
    ]) {
      const response = await send('POST', '/api/writer/jobs', body);
      expect(response.status).toBe(400);
      expect(await json(response)).toEqual({ error: expect.stringContaining('nothing was changed') });
    }
    expect(
      (await server.app.request('/api/writer/jobs', { method: 'POST', headers: ORIGIN, body: '{' })).status,
    ).toBe(400);
  });
});

describe('the depot', () => {
  it('every file agrees with the list but the one that went wrong', async () => {
    const list = parseChecksumList(await (await get('/api/depot/SHA256SUMS')).text());
    const files = await json<{ file: string; bytes: number }[]>(get('/api/depot'));
    expect(files).toHaveLength(5);
    const verdicts = await Promise.all(
      files.map(async ({ file, bytes }) => {
        const content = Buffer.from(await (await get(`/api/depot/${file}`)).arrayBuffer());
        expect(content.length).toBe(bytes);
        return createHash('sha256').update(content).digest('hex') === sumsFor(list, file)[0]?.hex;
      }),
    );
    expect(files.filter((_, i) => !verdicts[i]).map((f) => f.file)).toEqual([
      'lantern-arcade-7.2-x64-again.img',
    ]);
  });
  it('gives nothing outside itself', async () => {
    for (const path of ['/api/depot/..%2fwriter%2fjobs.json', '/api/depot/nope'])
      expect((await get(path)).status).toBe(404);
    expect(await json(get('/api/depot/nope'))).toEqual({ error: 'The depot has no such file.' });
  });
});

describe('the writer', () => {
  it('writes the very bytes and proves them', async () => {
    const job = await finished((await json<Job>(start('blue', '7c20'))).id);
    expect(job).toMatchObject({ state: 'proven', tag: 'b:i', serial: 'ST16-40A7-7C20' });
    expect(job.readBack).toBe(job.total);
    const source = readFileSync(join(dir, 'depot', LANTERN));
    expect(bytesOnStick('blue', source.length).equals(source)).toBe(true);
    const stat = statSync(join(dir, 'writer', 'blue.img'));
    expect(stat.size).toBe(16_008_609_792);
    // Sparse: what was written, not what is claimed, takes room (POSIX st_blocks, units of 512 bytes).
    expect(stat.blocks * 512).toBeLessThan(64 * 1024 * 1024);
  });

  it.each([
    ['market', 'F00D', {}, 'lying capacity', /claims more than it has/],
    ['grey', '05D3', { weakAt: 20_000_000 }, 'weak place', /weak place/],
    ['red', '91AF', { pulledAt: 0.5 }, 'cut short', /went away/],
  ])('the fault of %s is found and never called a success', async (id, tail, fault, pattern, words) => {
    if (Object.keys(fault).length > 0) await send('PUT', `/api/writer/sticks/${id}/fault`, fault);
    const job = await finished((await json<Job>(start(id, tail))).id);
    expect(job).toMatchObject({ state: 'failed', pattern });
    expect(job.explanation).toMatch(words);
  });

  it('the weak place is named to the block', async () => {
    const job = (await json<Job[]>(get('/api/writer/jobs'))).find((j) => j.pattern === 'weak place');
    const block = Math.floor(20_000_000 / 65536) * 65536;
    expect(job?.explanation.replace(/\u202f/g, '')).toContain(String(block));
  });

  it('refuses: wrong tail, too small, twins, unknown stick, unknown file', async () => {
    const said = async (response: Response | Promise<Response>): Promise<string> =>
      (await json<{ error: string }>(response)).error;
    expect(await said(start('blue', 'XXXX'))).toMatch(/do not agree/);
    expect(await said(start('thimble', '1E4D'))).toMatch(/image needs/);
    expect(await said(start('twin-a', '0001'))).toMatch(/same size and serial/);
    expect(await said(start('gone', '0000'))).toMatch(/not plugged in/);
    expect(await said(start('blue', '7C20', 'nope.img'))).toMatch(/no such file/);
  });

  it('refuses what the shelf of the page speaks against, whoever sends it', async () => {
    const shelf = { name: 'Blue', fate: 'may be lost', holds: 'letters', claim: null };
    const asked = (more: object) =>
      send('POST', '/api/writer/jobs', {
        stickId: 'blue',
        serialTail: '7C20',
        image: { from: 'depot', file: LANTERN },
        tag: 'b:i',
        shelf: { ...shelf, ...more },
      });
    for (const more of [
      { fate: 'keep' },
      { fate: 'not decided' },
      { claim: { boxName: 'Archive', as: 'in use' } },
      { claim: { boxName: 'Archive', as: 'reserved' } },
    ]) {
      const response = await asked(more);
      expect(response.status).toBeGreaterThanOrEqual(400);
      expect(await json(response)).toEqual({ error: expect.stringContaining('Nothing was written') });
    }
    const before = await json<Job[]>(get('/api/writer/jobs'));
    expect((await asked({ fate: 'kept' })).status).toBe(400);
    expect(await json<Job[]>(get('/api/writer/jobs'))).toHaveLength(before.length);
  });

  it('takes a file of the user’s own, in uneven pieces', async () => {
    const content = Buffer.alloc(3_000_001, 7);
    const job = await json<Job>(
      send('POST', '/api/writer/jobs', {
        stickId: 'scans-stick',
        serialTail: 'AA17',
        image: upload(content),
      }),
    );
    expect(job.state).toBe('waiting for the file');
    const busy = await start('scans-stick', 'AA17');
    expect(busy.status).toBe(409);
    const ended = await json<Job>(
      server.app.request(`/api/writer/jobs/${job.id}/content`, {
        method: 'PUT',
        headers: ORIGIN,
        body: content,
      }),
    );
    expect(ended).toMatchObject({ state: 'proven', imageName: 'own.img', readBack: content.length });
    const again = await server.app.request(`/api/writer/jobs/${job.id}/content`, {
      method: 'PUT',
      headers: ORIGIN,
      body: content,
    });
    expect(again.status).toBe(409);
  });

  it.each([
    ['shorter', 900_000, /ended after/],
    ['longer', 1_100_000, /longer than/],
  ])('a file %s than announced fails', async (_name, length, words) => {
    const job = await json<Job>(
      send('POST', '/api/writer/jobs', {
        stickId: 'scans-stick',
        serialTail: 'AA17',
        image: upload(Buffer.alloc(1_000_000)),
      }),
    );
    const ended = await json<Job>(
      server.app.request(`/api/writer/jobs/${job.id}/content`, {
        method: 'PUT',
        headers: ORIGIN,
        body: Buffer.alloc(length),
      }),
    );
    expect(ended).toMatchObject({ state: 'failed', explanation: expect.stringMatching(words) });
  });

  it('cancels before and during', async () => {
    const waiting = await json<Job>(
      send('POST', '/api/writer/jobs', {
        stickId: 'scans-stick',
        serialTail: 'AA17',
        image: upload(Buffer.alloc(1_000_000)),
      }),
    );
    expect(await json<Job>(send('POST', `/api/writer/jobs/${waiting.id}/cancel`))).toMatchObject({
      state: 'cancelled',
      explanation: expect.stringContaining('as it was'),
    });
    const slow = createApp({ dataDir: join(dir, 'slow'), demo: false, pace: 1, images: [] }).writer;
    const running = slow.open({
      stickId: 'blue',
      serialTail: '7C20',
      imageName: 'own.img',
      total: 40 * 65536,
      sha256: '',
      tag: '',
    });
    async function* endless(): AsyncGenerator<Uint8Array> {
      for (let i = 0; i < 40; i += 1) yield new Uint8Array(65536);
    }
    const ended = slow.run(running.id, endless);
    while (slow.book.job(running.id)?.written === 0) await new Promise((r) => setTimeout(r, 2));
    slow.cancel(running.id);
    expect(await ended).toMatchObject({
      state: 'cancelled',
      explanation: expect.stringContaining('do not start from it'),
    });
    expect((await send('POST', '/api/writer/jobs/none/cancel')).status).toBe(404);
  });

  it('plugs in and takes out', async () => {
    const stick = await json<{ id: string }>(
      send('POST', '/api/writer/sticks', { bytes: 4_000_000_000, serial: 'MINE-0042', model: 'My stick' }),
    );
    const job = await finished((await json<Job>(start(stick.id, '0042'))).id);
    expect(job.state).toBe('proven');
    await send('DELETE', `/api/writer/sticks/${stick.id}`);
    expect((await json<{ id: string }[]>(get('/api/writer/sticks'))).some((s) => s.id === stick.id)).toBe(
      false,
    );
    expect((await send('POST', '/api/writer/sticks', { bytes: 10, serial: 'x', model: '' })).status).toBe(
      400,
    );
    expect((await send('PUT', '/api/writer/sticks/none/fault', {})).status).toBe(404);
  });

  it('tells of its progress as events, to the last one', async () => {
    const job = await json<Job>(start('blue', '7C20'));
    const text = await (await get(`/api/writer/jobs/${job.id}/events`)).text();
    const told = text
      .split('\n')
      .filter((l) => l.startsWith('data: '))
      .map((l) => JSON.parse(l.slice(6)) as Job);
    expect(told.length).toBeGreaterThan(0);
    expect(told[told.length - 1]?.state).toBe('proven');
    expect((await get('/api/writer/jobs/none/events')).status).toBe(404);
  });

  it('after a restart a running write is interrupted, and said so; what is over stays', () => {
    const own = join(dir, 'restart');
    mkdirSync(join(own, 'writer'), { recursive: true });
    const base = {
      stickId: 'blue',
      serial: 'S',
      imageName: 'x',
      total: 100,
      readBack: 0,
      seconds: 1,
      pattern: null,
      firstDifference: null,
      explanation: '',
      startedAt: '',
      tag: '',
    };
    writeFileSync(
      join(own, 'writer', 'jobs.json'),
      JSON.stringify({
        jobs: [
          { ...base, id: 'a', state: 'writing', written: 40 },
          { ...base, id: 'b', state: 'proven', written: 100 },
        ],
      }),
    );
    const { writer } = createApp({ dataDir: own, demo: false, pace: 0, images: [] });
    expect(writer.book.job('a')).toMatchObject({
      state: 'interrupted',
      explanation: expect.stringContaining('40 bytes of 100 bytes'),
    });
    expect(writer.book.job('b')?.state).toBe('proven');
  });

  it.each(['', '{"jobs":[{"id":1}]}', 'not JSON'])('starts with a damaged record of writes: %p', (text) => {
    const own = join(dir, `damaged-${text.length}`);
    mkdirSync(join(own, 'writer'), { recursive: true });
    writeFileSync(join(own, 'writer', 'jobs.json'), text);
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    expect(createApp({ dataDir: own, demo: false, pace: 0, images: [] }).writer.book.list()).toEqual([]);
    expect(said).toHaveBeenCalledWith(expect.stringContaining('begun anew'));
    said.mockRestore();
  });

  it('holds to its speed model', async () => {
    const own = join(dir, 'paced');
    const paced = createApp({
      dataDir: own,
      demo: false,
      pace: 60,
      images: depotImages.filter((i) => i.file === LANTERN),
    });
    const since = Date.now();
    const job = await json<Job>(
      paced.app.request('/api/writer/jobs', {
        method: 'POST',
        headers: { ...ORIGIN, 'content-type': 'application/json' },
        body: JSON.stringify({
          stickId: 'blue',
          serialTail: '7C20',
          image: { from: 'depot', file: LANTERN },
        }),
      }),
    );
    while (paced.writer.book.job(job.id)?.state !== 'proven') await new Promise((r) => setTimeout(r, 10));
    // 32 MiB at 60 × 18 MB/s written and 60 × 34 MB/s read back cannot take less than this.
    expect(Date.now() - since).toBeGreaterThan(
      1000 * (33_554_432 / (60 * 18e6) + 33_554_432 / (60 * 34e6)) - 20,
    );
  });
});
