/**
 * Trials against what is foretold: images of Debian’s tools and the demo’s are sent to the server and started there in the
 * emulator; what the screen and the serial line showed is what the bytes foretold. Then what goes wrong: two at once, the page
 * closed, the server killed, files that do not come, 8 GiB, no emulator. Nothing is left running.
 */
import { spawn, spawnSync } from 'node:child_process';
import {
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import { depotImages } from '@zb/core/demo/depot';
import type { Trial, TrialDesk, TrialRequest } from '@zb/core/model/trial';
import { agrees, foretoldOf } from '@zb/core/starting/happened';
import { BUNDLE } from '../../packages/cli/test/command';
import { run as serve, until, type Running } from '../../packages/server/test/running';
import { writesForEver } from './endless';
import { inspectFile, scratch } from './files';
import { allImages } from './makeImages';

jest.setTimeout(600_000);
const ALL = process.env.ZB_TRIALS === 'all';
const room = scratch();
let server: Running;
/** Where our server’s images lie: other files of tests start the same ones. */
const ours = room.path('server');
beforeAll(async () => {
  server = await serve({ dataDir: ours, images: depotImages, goneMs: 1500 });
});
afterAll(async () => {
  await server.starter.close();
  await server.stop();
  room.clear();
});

/** Emulators that have a path among their words. */
const running = (path: string): string[] =>
  readdirSync('/proc')
    .filter((p) => /^\d+$/.test(p))
    .filter((p) => {
      try {
        const words = readFileSync(`/proc/${p}/cmdline`, 'latin1');
        return /^[^\0]*qemu-system-x86_64\0/.test(words) && words.includes(path);
      } catch {
        return false;
      }
    });

/** Follows a trial until it shows what is wanted; closes the line then. */
const follow = (
  id: string,
  wanted: (t: Trial) => boolean,
  port = server.port,
  withinMs = 75_000,
): Promise<Trial> =>
  new Promise((resolve, reject) => {
    let last = 'nothing';
    const late = setTimeout(() => {
      asked.destroy();
      reject(new Error(`it did not come about; last: ${last}`));
    }, withinMs);
    const asked = request({ host: '127.0.0.1', port, path: `/api/trials/${id}/events`, agent: false });
    let rest = '';
    asked.on('response', (r) => {
      r.on('data', (d: Buffer) => {
        rest += d.toString();
        const lines = rest.split('\n');
        rest = lines.pop() ?? '';
        for (const l of lines) {
          if (!l.startsWith('data:')) continue;
          const told = JSON.parse(l.slice(5)) as Trial;
          last = l.slice(0, 600);
          if (!wanted(told)) continue;
          clearTimeout(late);
          asked.destroy();
          resolve(told);
        }
      });
      r.on('end', () => reject(new Error('the line ended')));
    });
    asked.on('error', (e) => ((e as { code?: string }).code === 'ECONNRESET' ? undefined : reject(e)));
    asked.end();
  });
const send = (id: string, path: string, port = server.port): Promise<number> =>
  new Promise((resolve, reject) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        path: `/api/trials/${id}/content`,
        method: 'PUT',
        headers: { 'content-length': statSync(path).size },
      },
      (r) => {
        r.resume();
        resolve(r.statusCode ?? 0);
      },
    );
    asked.on('error', reject);
    createReadStream(path).pipe(asked);
  });
const order = (more: Partial<TrialRequest> = {}): TrialRequest => ({
  image: { from: 'depot', file: depotImages[0]?.file ?? '' },
  firmware: 'bios',
  attached: 'disk',
  memoryMiB: 256,
  seconds: 60,
  ...more,
});
/** A file that is sent; of a packed one with what is inside. */
const upload = (
  name: string,
  bytes: number,
  container: 'none' | 'gzip' | 'xz' = 'none',
  innerBytes: number | null = null,
): TrialRequest['image'] => ({ from: 'upload', name, bytes, container, innerBytes });
const open = async (what: TrialRequest): Promise<Trial> => server.json<Trial>('POST', '/api/trials', what);

const serverFile = 'packages/server/dist/main-trial-test.mjs';
afterAll(() => rmSync(serverFile, { force: true }));
/** The server bundled for this alone, beside the real one. */
function bundleServer(): void {
  const { status, stderr } = spawnSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { build } from 'esbuild'; import { serverBundle } from '${process.cwd()}/tools/bundle.mjs'; await build({ ...serverBundle, outfile: '${serverFile}' });`,
    ],
    { encoding: 'utf8' },
  );
  expect([status, stderr]).toEqual([0, '']);
}

interface Case {
  name: string;
  path: string;
  file: string | null;
  firmware: TrialRequest['firmware'];
  attached: TrialRequest['attached'];
}

/** What an image comes to, once it has been the same for so long; what is silent is given all of the time. */
async function tried({ path, file, firmware, attached }: Case): Promise<Trial> {
  const image: TrialRequest['image'] = file
    ? { from: 'depot', file }
    : upload('image.img', statSync(path).size);
  const { id } = await open(order({ image, firmware, attached }));
  if (!file) await send(id, path);
  let last: Trial['happened'] = 'not seen';
  let since = 0;
  const seen = await follow(id, (t) => {
    if (t.happened !== last) since = t.seconds;
    last = t.happened;
    if (t.state === 'over') return true;
    if (last === 'not seen') return t.seconds > 45;
    return t.seconds - since > (last === 'silent' ? 5 : 2);
  });
  await server.ask('DELETE', `/api/trials/${id}`);
  return seen;
}

/** All of them take longer than a test of the selection may, milliseconds. */
const WHOLE = ALL ? 60 * 60_000 : 600_000;

describe('what a trial shows is what was foretold', () => {
  const cases = (): Case[] => {
    mkdirSync(room.path('images'));
    const demo = depotImages.flatMap((d): Case[] => {
      const path = room.path(`images/${d.file}`);
      writeFileSync(path, d.build());
      const of = (firmware: Case['firmware'], attached: Case['attached']): Case => ({
        name: d.file,
        path,
        file: d.file,
        firmware,
        attached,
      });
      return [
        of('bios', 'disk'),
        of('uefi-x64', 'disk'),
        of('bios', 'optical'),
        of('uefi-x64-secure', 'disk'),
        of('uefi-x64', 'optical'),
      ];
    });
    const others = allImages().flatMap((m): Case[] =>
      m.firmwares.flatMap((firmware) =>
        firmware === 'bios' || firmware === 'uefi-x64'
          ? [{ name: m.name, path: m.path, file: null, firmware, attached: 'disk' as const }]
          : [],
      ),
    );
    if (ALL) return [...demo, ...others];
    // Spread over all that the tools make.
    const some = (of: Case[], n: number): Case[] =>
      of.filter((_, i) => Math.floor((i * n) / of.length) !== Math.floor(((i - 1) * n) / of.length));
    return [
      ...demo.filter((c) => c.firmware !== 'uefi-x64' || c.attached === 'disk').filter((_, i) => i % 5 === 0),
      ...some(
        others.filter((c) => c.firmware === 'bios'),
        2,
      ),
      ...some(
        others.filter((c) => c.firmware === 'uefi-x64'),
        1,
      ),
    ];
  };

  it(
    'of every image that was tried, and both are seen often',
    async () => {
      const said: { name: string; under: string; foretold: string | null; happened: string }[] = [];
      for (const c of cases()) {
        const foretold = foretoldOf(await inspectFile(c.path), c);
        const { happened } = await tried(c);
        said.push({ name: c.name, under: `${c.firmware} ${c.attached}`, foretold, happened });
        // An hour without a word would look like a fault.
        if (ALL)
          console.log(`${said.length}: ${c.name}, ${c.firmware} ${c.attached}: ${foretold}, ${happened}`);
      }
      expect(said.filter((s) => agrees(s.foretold as 'yes', s.happened as 'started') === false)).toEqual([]);
      const sure = said.filter((s) => agrees(s.foretold as 'yes', s.happened as 'started') === true);
      expect(new Set(sure.map((s) => s.name)).size).toBeGreaterThanOrEqual(ALL ? 10 : 4);
      expect(sure.filter((s) => s.happened === 'started').length).toBeGreaterThanOrEqual(ALL ? 4 : 2);
      expect(sure.filter((s) => s.foretold === 'no').length).toBeGreaterThanOrEqual(ALL ? 4 : 2);
      // What cannot be compared is the exception.
      expect(sure.length).toBeGreaterThan(said.length * 0.7);
    },
    WHOLE,
  );
});

describe('a trial', () => {
  const file = depotImages[0]?.file ?? '';
  const started = (t: Trial): boolean => t.happened === 'started';

  it('shows its screen as pictures and text', async () => {
    const { id } = await open(order());
    const seen = await follow(id, started);
    expect(seen.screen).toContain(depotImages[0]?.says);
    const picture = await server.ask('GET', `/api/trials/${id}/screen`);
    expect([picture.status, picture.headers['content-type'], picture.text.slice(1, 4)]).toEqual([
      200,
      'image/png',
      'PNG',
    ]);
    await server.ask('DELETE', `/api/trials/${id}`);
  });

  it('takes keys: firmware’s own shell answers to them', async () => {
    const legacy = depotImages.find((d) => d.file.includes('legacy'))?.file ?? '';
    const { id } = await open(order({ image: { from: 'depot', file: legacy }, firmware: 'uefi-x64' }));
    const press = async (...keys: string[]): Promise<number> =>
      (await server.ask('POST', `/api/trials/${id}/keys`, JSON.stringify({ keys }))).status;
    await follow(id, (t) => t.serial.includes('Press ESC'));
    expect(await press('esc')).toBe(200);
    await follow(id, (t) => t.serial.includes('Shell>'));
    for (const k of ['v', 'e', 'r', 'ret']) expect(await press(k)).toBe(200);
    await follow(id, (t) => /UEFI v\d/.test(t.serial.slice(t.serial.indexOf('Shell>'))));
    expect(await press('no_such_key')).toBe(400);
    await server.ask('DELETE', `/api/trials/${id}`);
    expect(await press('ret')).toBe(409);
  });

  it('is over when the machine switches itself off', async () => {
    const { id } = await open(order({ firmware: 'uefi-x64' }));
    const { end, happened } = await follow(id, (t) => t.state === 'over');
    expect([end, happened]).toEqual(['machine ended', 'started']);
    expect(running(ours)).toEqual([]);
  });

  it('is one at a time', async () => {
    const { id } = await open(order());
    const second = await server.ask('POST', '/api/trials', JSON.stringify(order()));
    expect(second.status).toBe(409);
    expect(second.text).toContain(file);
    expect((await server.json<TrialDesk>('GET', '/api/trials')).current?.id).toBe(id);
    await server.ask('DELETE', `/api/trials/${id}`);
    const third = await open(order());
    expect(third.state).toBe('runs');
    await server.ask('DELETE', `/api/trials/${third.id}`);
    expect(running(ours)).toEqual([]);
  });

  it('ends with its page', async () => {
    const { id } = await open(order());
    await follow(id, (t) => t.picture > 0);
    expect(running(ours)).toHaveLength(1);
    await until(async () => (await server.json<TrialDesk>('GET', '/api/trials')).current?.state === 'over');
    expect((await server.json<TrialDesk>('GET', '/api/trials')).current?.end).toBe('page closed');
    await until(() => running(ours).length === 0);
  });

  it('ends when its time is up', async () => {
    const { id } = await open(order({ seconds: 5 }));
    expect((await follow(id, (t) => t.state === 'over')).end).toBe('time is up');
    await until(() => running(ours).length === 0);
  });

  it('does not begin with a file that is another than was said, and keeps nothing of it', async () => {
    const path = room.path('short.img');
    writeFileSync(path, Buffer.alloc(4096, 1));
    for (const bytes of [8192, 2048]) {
      const { id } = await open(order({ image: upload('short.img', bytes) }));
      expect(await send(id, path).catch(() => 400)).toBe(400);
      const { current } = await server.json<TrialDesk>('GET', '/api/trials');
      expect([current?.state, current?.end]).toEqual(['over', 'file did not come']);
    }
    // The folder of a machine goes once it has ended: that of the test before may still be on its way.
    await until(() => readdirSync(room.path('server/trials')).length === 0);
  });

  it.each([
    ['wrote too much', { most: 4 * 2 ** 20, free: 0 }],
    ['no room left', { most: 2 ** 40, free: 2 ** 60 }],
  ] as const)('ends by itself: %s', async (end, trialRoom) => {
    const dataDir = room.path(`small-${trialRoom.most}`);
    // Folders that a killed server left behind go when the next one begins; those of living processes stay.
    const dead = spawnSync('true').pid;
    for (const pid of [dead, process.pid])
      mkdirSync(`${dataDir}/trials/zb-trial-${pid}-x`, { recursive: true });
    const path = room.path('writes.img');
    writeFileSync(path, writesForEver());
    const other = await serve({ dataDir, goneMs: 60_000, trialRoom });
    try {
      expect(readdirSync(`${dataDir}/trials`)).toEqual([`zb-trial-${process.pid}-x`]);
      const { id } = await other.json<Trial>(
        'POST',
        '/api/trials',
        order({ image: upload('writes.img', statSync(path).size) }),
      );
      await send(id, path, other.port);
      const over = await follow(id, (t) => t.state === 'over', other.port);
      expect([over.end, over.fault]).toEqual([end, null]);
      await until(() => readdirSync(`${dataDir}/trials`).join() === `zb-trial-${process.pid}-x`);
    } finally {
      await other.starter.close();
      await other.stop();
    }
  });

  it('that is ended takes no more of its file, and nothing of it stays', async () => {
    const { id } = await open(order({ image: upload('long.img', 2 ** 30) }));
    const sending = server.begin(`/api/trials/${id}/content`, 2 ** 30, Buffer.alloc(2 ** 20, 1));
    const closed = new Promise<boolean>((resolve) => sending.on('close', () => resolve(true)));
    await until(async () => ((await server.json<TrialDesk>('GET', '/api/trials')).current?.come ?? 0) > 0);
    await server.ask('DELETE', `/api/trials/${id}`);
    const more = setInterval(() => sending.write(Buffer.alloc(2 ** 16, 1)), 50);
    try {
      expect(
        await Promise.race([closed, new Promise((r) => setTimeout(() => r('still taken'), 10_000))]),
      ).toBe(true);
    } finally {
      clearInterval(more);
      sending.destroy();
    }
    await until(() => readdirSync(room.path('server/trials')).length === 0);
  });

  it('of an image that is not a whole number of sectors begins all the same', async () => {
    const path = room.path('odd.img');
    writeFileSync(path, depotImages[0]?.build() ?? '');
    truncateSync(path, statSync(path).size - 100);
    const { id } = await open(order({ image: upload('odd.img', statSync(path).size) }));
    await send(id, path);
    expect((await follow(id, started)).fault).toBe(null);
    await server.ask('DELETE', `/api/trials/${id}`);
    expect(readdirSync(room.path('server/trials'))).toEqual([]);
  });

  describe('of a packed image', () => {
    const image = depotImages[0]?.build() ?? new Uint8Array();
    const packs = {
      gzip: (): Buffer => gzipSync(image),
      xz: (): Buffer => spawnSync('xz', ['-c', '-0'], { input: image, maxBuffer: 1 << 30 }).stdout,
    };
    /** A file of these bytes, sent as the packed form of an image of so many bytes; how it was answered, and how it ended. */
    const sent = async (bytes: Uint8Array, kind: 'gzip' | 'xz', inner: number) => {
      const path = room.path('packed');
      writeFileSync(path, bytes);
      const { id } = await open(order({ image: upload('packed', bytes.length, kind, inner) }));
      const told: string[] = [];
      const [status] = await Promise.all([
        send(id, path),
        follow(id, (t) => told.push(t.state) > 0 && (started(t) || t.state === 'over')),
      ]);
      const { current } = await server.json<TrialDesk>('GET', '/api/trials');
      await server.ask('DELETE', `/api/trials/${id}`);
      return { status, told, current };
    };

    it.each(['gzip', 'xz'] as const)(
      '%s: what is inside is started, and nothing of it stays',
      async (kind) => {
        const { status, told, current } = await sent(packs[kind](), kind, image.length);
        expect([status, current?.happened, current?.fault]).toEqual([200, 'started', null]);
        expect(current?.bytes).toBe(image.length);
        expect(told).toContain('unpacks');
        expect(readdirSync(room.path('server/trials'))).toEqual([]);
      },
    );

    it('that is damaged, or holds more or less than was said, does not begin', async () => {
      const whole = packs.gzip();
      const damaged = Buffer.from(whole);
      damaged.fill(0xff, damaged.length >> 1, (damaged.length >> 1) + 64);
      for (const [bytes, inner, says] of [
        [damaged, image.length, /damaged/],
        [whole, image.length + 512, /not of \d+ bytes/],
        [whole, image.length - 512, /not of \d+ bytes/],
      ] as const) {
        const { status, current } = await sent(bytes, 'gzip', inner);
        expect([status, current?.end, current?.seconds]).toEqual([400, 'file did not come', 0]);
        expect(current?.fault).toMatch(says);
        expect(readdirSync(room.path('server/trials'))).toEqual([]);
      }
      const unread = await server.ask(
        'POST',
        '/api/trials',
        JSON.stringify(order({ image: upload('packed', 4096, 'gzip') })),
      );
      expect([unread.status, unread.text]).toEqual([400, expect.stringContaining('not been read')]);
    });

    it('can be ended while it is unpacked, and that is no fault', async () => {
      // Half a gigabyte of nothing, in half a megabyte.
      const path = room.path('long.gz');
      const inner = 512 * 2 ** 20;
      writeFileSync(path, gzipSync(Buffer.alloc(inner), { level: 1 }));
      const { id } = await open(order({ image: upload('long', statSync(path).size, 'gzip', inner) }));
      const answered = send(id, path);
      await follow(id, (t) => t.state === 'unpacks' && t.come > 0);
      await server.ask('DELETE', `/api/trials/${id}`);
      expect(await answered).toBe(200);
      const { current } = await server.json<TrialDesk>('GET', '/api/trials');
      expect([current?.end, current?.fault]).toEqual(['stopped', null]);
      await until(() => readdirSync(room.path('server/trials')).length === 0);
    });
  });

  it('is not left behind by a server that is killed', async () => {
    bundleServer();
    const dataDir = room.path('killed');
    const child = spawn(process.execPath, [serverFile], {
      env: { ...process.env, ZB_DATA: dataDir, ZB_WEB: 'none', PORT: '0' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const port = await new Promise<number>((resolve) =>
      child.stdout.on('data', (d: Buffer) => {
        const found = /127\.0\.0\.1:(\d+)/.exec(d.toString())?.[1];
        if (found) resolve(Number(found));
      }),
    );
    const answered = await fetch(`http://127.0.0.1:${port}/api/trials`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(order()),
    });
    const { id } = (await answered.json()) as Trial;
    await follow(id, (t) => t.picture > 0, port);
    expect(running(dataDir)).toHaveLength(1);
    child.kill('SIGKILL');
    await until(() => running(dataDir).length === 0);
  });

  it('wants an emulator, and says which packages bring it', async () => {
    const bare = await serve({
      dataDir: room.path('bare'),
      images: depotImages,
      emulator: { path: room.dir, firmware: room.dir },
    });
    const desk = await bare.json<TrialDesk>('GET', '/api/trials');
    expect(desk.missing.map((m) => m.package)).toEqual(['qemu-system-x86', 'ovmf']);
    const said = await bare.ask('POST', '/api/trials', JSON.stringify(order()));
    expect(said.status).toBe(503);
    expect(said.text).toContain('qemu-system-x86');
    await bare.stop();
  });

  it('that is broken off on the command line leaves nothing, while it unpacks and while it runs', async () => {
    const temporary = room.path('temporary');
    mkdirSync(temporary);
    const image = depotImages[0]?.build() ?? new Uint8Array();
    const long = room.path('long.img.gz');
    writeFileSync(long, gzipSync(Buffer.concat([image, Buffer.alloc(2 ** 27)]), { level: 1 }));
    const left = (): string[] => readdirSync(temporary).filter((f) => f.startsWith('zb-'));
    const unpacks = (): boolean => left().some((f) => existsSync(`${temporary}/${f}/whole.img`));
    for (const comesTo of [unpacks, (): boolean => running(temporary).length > 0]) {
      const child = spawn(process.execPath, [BUNDLE, 'start', long, '--firmware', 'bios'], {
        env: { ...process.env, TMPDIR: temporary },
        stdio: 'ignore',
      });
      const ended = new Promise((resolve) => child.on('exit', resolve));
      await until(comesTo);
      child.kill('SIGINT');
      expect(await ended).toBe(130);
      await until(() => running(temporary).length === 0);
      expect(left()).toEqual([]);
    }
  });

  it('of 8 GiB runs from the command line, and in the proof as a file that is sent', async () => {
    const path = room.path('large.img');
    writeFileSync(path, depotImages[0]?.build() ?? '');
    truncateSync(path, 8 * 2 ** 30);
    const { stdout, status } = spawnSync(process.execPath, [BUNDLE, 'start', path, '--firmware', 'bios'], {
      encoding: 'utf8',
    });
    expect([status, JSON.parse(stdout)]).toEqual([
      0,
      expect.objectContaining({ happened: 'started', agrees: true, bytes: 8 * 2 ** 30 }),
    ]);
    expect(running(path)).toEqual([]);
    // A packed one is unpacked first.
    const packed = room.path('lantern.img.gz');
    writeFileSync(packed, gzipSync(depotImages[0]?.build() ?? ''));
    const small = spawnSync(process.execPath, [BUNDLE, 'start', packed, '--firmware', 'bios'], {
      encoding: 'utf8',
    });
    expect(JSON.parse(small.stdout)).toMatchObject({
      happened: 'started',
      agrees: true,
      bytes: statSync(packed).size,
      unpackedBytes: depotImages[0]?.build().length,
    });
    truncateSync(packed, statSync(packed).size >> 1);
    const cut = spawnSync(process.execPath, [BUNDLE, 'start', packed, '--firmware', 'bios'], {
      encoding: 'utf8',
    });
    expect([cut.status, cut.stdout]).toEqual([2, '']);
    expect(cut.stderr).toContain('damaged');
    if (!ALL) return;
    const { id } = await open(order({ image: upload('large.img', 8 * 2 ** 30) }));
    const [sent] = await Promise.all([send(id, path), follow(id, started, server.port, 300_000)]);
    expect(sent).toBe(200);
    const kept = readdirSync(room.path('server/trials'));
    expect(kept).toHaveLength(1);
    // What is empty in it takes no room.
    expect(statSync(room.path(`server/trials/${kept[0]}`)).blocks * 512).toBeLessThan(64 * 2 ** 20);
    await server.ask('DELETE', `/api/trials/${id}`);
    expect(existsSync(room.path(`server/trials/${kept[0]}`))).toBe(false);
  });
});
