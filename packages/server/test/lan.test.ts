import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lanStateSchema, lanTexts, type LanState } from '@zb/core/model/standInLan';
import { readNetworkText } from '@zb/core/network/read/read';
import { askOnce, mayBeAsked } from '@zb/server/watch';
import { run } from './running';

const root = mkdtempSync(join(tmpdir(), 'zb-lan-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));
let n = 0;
const folder = (): string => join(root, `d${(n += 1)}`);

describe('the stand-in network', () => {
  it('is looked at in the formats of the real tools, and changed by events that are kept over a restart', async () => {
    const dataDir = folder();
    const first = await run({ dataDir });
    for (const what of lanTexts) {
      const text = (await first.ask('GET', `/api/lan/look?as=${encodeURIComponent(what)}`)).text;
      expect(readNetworkText(text).form).toBe(what === 'look' ? 'look report' : what);
    }
    expect((await first.ask('GET', '/api/lan/look?as=nothing')).status).toBe(400);
    expect(await first.json('GET', '/api/lan/answers?address=10.44.8.20')).toMatchObject({ answers: true });
    const after = await first.json<LanState>('POST', '/api/lan/events', { kind: 'unplug', host: 'archive' });
    expect(after.hosts.find((h) => h.id === 'archive')?.plugged).toBe(false);
    expect(await first.json('GET', '/api/lan/answers?address=10.44.8.20')).toMatchObject({ answers: false });
    expect(
      (await first.ask('POST', '/api/lan/events', JSON.stringify({ kind: 'unplug', host: 'nobody' }))).status,
    ).toBe(404);
    expect((await first.ask('POST', '/api/lan/events', JSON.stringify({ kind: 'explode' }))).status).toBe(
      400,
    );
    await first.stop();
    const second = await run({ dataDir });
    expect(await second.json('GET', '/api/lan')).toEqual(after);
    await second.stop();
  });
  it('begins anew where its state is damaged, and keeps the old one beside it', async () => {
    const dataDir = folder();
    mkdirSync(join(dataDir, 'lan'), { recursive: true });
    writeFileSync(join(dataDir, 'lan', 'state.json'), '{"seed":1,"hosts":"all"}');
    const s = await run({ dataDir });
    expect(lanStateSchema.safeParse(await s.json('GET', '/api/lan')).success).toBe(true);
    await s.stop();
  });
});

describe('the watch', () => {
  it('asks nobody unless the server was started for it', async () => {
    const s = await run({ dataDir: folder() });
    expect((await s.ask('GET', '/api/watch?address=127.0.0.1&port=9')).status).toBe(403);
    expect(await s.json('GET', '/api/health')).toMatchObject({ lan: false });
    await s.stop();
  });
  it('finds who answers, and says so of nobody', async () => {
    const page = createServer().listen(0, '127.0.0.1');
    await new Promise((done) => page.on('listening', done));
    const { port } = page.address() as { port: number };
    expect(await askOnce('127.0.0.1', port)).toMatchObject({ answers: true });
    await new Promise((done) => page.close(done));
    expect(await askOnce('127.0.0.1', port)).toEqual({ answers: false, millis: null });
  });
  it('refuses what is no address of a network of one’s own, or no port', async () => {
    const s = await run({ dataDir: folder(), lan: true });
    for (const asked of [
      'address=example.org&port=80',
      'address=127.0.0.1&port=80',
      'address=169.254.1.1&port=80',
      'address=10.0.0.1&port=0',
      'address=10.0.0.1',
      'address=&port=1',
    ])
      expect((await s.ask('GET', `/api/watch?${asked}`)).status).toBe(400);
    await s.stop();
  });
  it('never asks an address that is not of a network of one’s own (RFC 1918, RFC 4193)', () => {
    for (const own of ['10.0.0.1', '172.16.0.9', '192.168.1.1', 'fd12::1']) expect(mayBeAsked(own)).toBe(own);
    // It is asked in its canonical form, however it was written (RFC 5952).
    expect(mayBeAsked('FD12:0:0::0001')).toBe('fd12::1');
    for (const other of [
      '8.8.4.4',
      // This machine's own, and of one link alone.
      '127.0.0.1',
      '::1',
      '169.254.1.1',
      'fe80::1',
      '::ffff:127.0.0.1',
      '::ffff:8.8.4.4',
      '172.32.0.1',
      '100.64.0.1',
      '224.0.0.1',
      '0.0.0.0',
      '255.255.255.255',
      '2600::1',
      'localhost',
      '192.168.1.1/24',
      '',
    ])
      expect([other, mayBeAsked(other)]).toEqual([other, undefined]);
  });
});
