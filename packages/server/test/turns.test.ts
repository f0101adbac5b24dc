import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Job } from '@zb/core/model/job';
import type { ProbeResult } from '@zb/core/model/standIns';
import { createApp } from '@zb/server/app';

const dir = mkdtempSync(join(tmpdir(), 'zb-turns-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
jest.setTimeout(120_000);
let n = 0;
const fresh = (pace = 0) => createApp({ dataDir: join(dir, `d${(n += 1)}`), demo: false, pace, images: [] });
const BYTES = 20 * 65536;
async function* pieces(): AsyncGenerator<Uint8Array> {
  for (let i = 0; i < 20; i += 1) yield await Promise.resolve(new Uint8Array(65536).fill(i));
}
const digestOf = (...pieces: Uint8Array[]): string =>
  pieces.reduce((d, piece) => d.update(piece), createHash('sha256')).digest('hex');
const sha256 = digestOf(...Array.from({ length: 20 }, (_, i) => new Uint8Array(65536).fill(i)));
const until = async (what: () => boolean): Promise<void> => {
  while (!what()) await new Promise((r) => setTimeout(r, 2));
};

describe('several sticks at once', () => {
  it('on one bus take turns, on two they do not, and one that is waiting can be called off', async () => {
    const { writer } = fresh(8);
    const start = (stickId: string, serialTail: string): { job: Job; ended: Promise<Job> } => {
      const job = writer.open({ stickId, serialTail, tag: '', imageName: 'own.img', total: BYTES, sha256 });
      return { job, ended: writer.run(job.id, pieces) };
    };
    const blue = start('blue', '7C20');
    const red = start('red', '91AF');
    const grey = start('grey', '05D3');
    await until(() => blue.job.written > 0 && grey.job.written > 0);
    expect(red.job).toMatchObject({ state: 'waiting for its turn', written: 0 });
    const thimble = start('thimble', '1E4D');
    await until(() => thimble.job.state !== 'waiting for its turn');
    writer.cancel(red.job.id);
    expect(await red.ended).toMatchObject({
      state: 'cancelled',
      explanation: expect.stringContaining('as it was'),
    });
    const again = start('red', '91AF');
    expect((await blue.ended).state).toBe('proven');
    const done = await again.ended;
    expect(done).toMatchObject({ state: 'proven' });
    expect(done.writeSeconds).toBeGreaterThan(0);
    expect(done.writeSeconds).toBeLessThanOrEqual(done.seconds);
    await Promise.all([grey.ended, thimble.ended]);
  });
});

describe('a packed file', () => {
  const image = new Uint8Array(3 * 65536 + 100).map((_, i) => (i * 31) & 255);
  const packed = new Uint8Array(gzipSync(image));
  const ask = (app: ReturnType<typeof fresh>['app'], innerBytes: number | null) =>
    app.request('http://127.0.0.1/api/writer/jobs', {
      method: 'POST',
      headers: { host: '127.0.0.1', 'content-type': 'application/json' },
      body: JSON.stringify({
        stickId: 'blue',
        serialTail: '7C20',
        image: {
          from: 'upload',
          name: 'x.img.gz',
          bytes: packed.length,
          sha256: digestOf(image),
          container: 'gzip',
          innerBytes,
        },
      }),
    });
  const send = (app: ReturnType<typeof fresh>['app'], id: string, body: Uint8Array<ArrayBuffer>) =>
    app.request(`http://127.0.0.1/api/writer/jobs/${id}/content`, {
      method: 'PUT',
      headers: { host: '127.0.0.1' },
      body,
    });

  it('is unpacked on its way, compared with what is inside, and not kept', async () => {
    const { app } = fresh();
    const job = (await (await ask(app, image.length)).json()) as Job;
    expect(job.total).toBe(image.length);
    expect(await (await send(app, job.id, packed)).json()).toMatchObject({
      state: 'proven',
      written: image.length,
    });
    expect(readdirSync(join(dir, `d${n}`, 'uploads'))).toEqual([]);
  });
  it('that is damaged fails with the reason', async () => {
    const { app } = fresh();
    const job = (await (await ask(app, image.length)).json()) as Job;
    expect(await (await send(app, job.id, packed.slice(0, 400))).json()).toMatchObject({
      state: 'failed',
      explanation: expect.stringContaining('damaged'),
    });
  });
  it('whose content nobody has read is refused before anything is written', async () => {
    const { app } = fresh();
    const refused = await ask(app, null);
    expect(refused.status).toBe(409);
    expect(await refused.json()).toMatchObject({ error: expect.stringContaining('Open it at Verify first') });
  });
});

describe('the probe', () => {
  const probe = async (app: ReturnType<typeof fresh>['app'], id: string) =>
    (
      await app.request(`http://127.0.0.1/api/writer/sticks/${id}/probe`, {
        method: 'POST',
        headers: { host: '127.0.0.1' },
      })
    ).json() as Promise<ProbeResult & { error?: string }>;

  it('finds the lying stick of the demo with a few dozen small writes, and clears an honest one', async () => {
    const { app, writer } = fresh();
    const market = await probe(app, 'market');
    expect(market.real).toBe(6 * 1024 * 1024);
    expect(market.writes).toBeLessThan(120);
    const blue = writer.book.sticks.get('blue');
    expect((await probe(app, 'blue')).real).toBe(blue?.bytes);
    expect((await probe(app, 'none')).error).toMatch(/not plugged in/);
  });
});
