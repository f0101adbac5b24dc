import { execFileSync, spawn } from 'node:child_process';
import {
  closeSync,
  createWriteStream,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createGzip } from 'node:zlib';
import { pipeline } from 'node:stream/promises';
import { benchToText } from '@zb/core/model/file';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { BUNDLE, root } from './command';

jest.setTimeout(120_000);

/** A quarter of the size in every run, all of it in `npm run proof hostile`; what it may take shrinks with it. */
const ALL = process.env.ZB_HOSTILE === 'all';
const UNPACKED_MIB = ALL ? 640 : 300;
const LINES = ALL ? 2_400_000 : 240_000;
const ZEROS = ALL ? 900e6 : 300e6;
const MOST = ALL ? 512e6 : 280e6;

const dir = mkdtempSync(join(tmpdir(), 'zb-cli-hostile-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

interface Ended {
  status: number | null;
  out: string;
  said: string;
  /** Most memory it had at once, in bytes (Linux, proc(5): VmHWM). */
  memory: number;
}
/** Runs the command, for no longer than `seconds`. */
function run(args: string[], seconds = 60): Promise<Ended> {
  const child = spawn(process.execPath, [BUNDLE, ...args], { stdio: ['ignore', 'pipe', 'pipe'], cwd: root });
  let [out, said, memory] = ['', '', 0];
  child.stdout.on('data', (d: Buffer) => (out += d.toString()));
  child.stderr.on('data', (d: Buffer) => (said += d.toString()));
  const look = setInterval(() => {
    try {
      const most = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1];
      memory = Math.max(memory, 1024 * Number(most ?? 0));
    } catch {
      // Over meanwhile.
    }
  }, 20);
  const late = setTimeout(() => child.kill('SIGKILL'), seconds * 1000);
  return new Promise((resolve) =>
    child.on('close', (status) => {
      clearInterval(look);
      clearTimeout(late);
      resolve({ status, out, said, memory });
    }),
  );
}
const file = (name: string, content: string | Uint8Array): string => {
  writeFileSync(join(dir, name), content);
  return join(dir, name);
};

describe('what is no file is refused before it is opened', () => {
  let pipe: string;
  beforeAll(() => {
    pipe = join(dir, 'pipe');
    execFileSync('mkfifo', [pipe]);
  });
  it.each([
    ['survey', (p: string) => ['survey', p]],
    ['inspect', (p: string) => ['inspect', p]],
    ['compare', (p: string) => ['compare', p, p]],
    ['check, as the list', (p: string) => ['check', p, join(root, 'package.json')]],
    ['check, as a file', (p: string) => ['check', join(root, 'package.json'), p]],
    [
      'check, as the key',
      (p: string) => ['check', '--key', p, join(root, 'package.json'), join(root, 'package.json')],
    ],
    ['fit', (p: string) => ['fit', '--machine', p, '--profiles', p]],
    ['assign', (p: string) => ['assign', '--bench', p]],
  ])('%s', async (_name, args) => {
    for (const path of [pipe, '/dev/zero', dir]) {
      const { status, said, out } = await run(args(path), 15);
      expect([status, out]).toEqual([2, '']);
      expect(said).toContain(`${path} is not a file`);
    }
  });
});

describe('help', () => {
  it.each(['survey', 'inspect', 'compare', 'check', 'fit', 'assign'])(
    'tells how %s is used',
    async (command) => {
      const [one, other] = await Promise.all([run(['help', command]), run([command, '--help'])]);
      expect(one).toMatchObject({ status: 0, said: '', out: expect.stringContaining(`zb ${command}`) });
      expect(other.out).toBe(one.out);
    },
  );
});

it('a leading byte-order mark is read past, as in the page', async () => {
  const plain = benchToText(saltmarshHall());
  const [with_, without] = await Promise.all([
    run(['assign', '--bench', file('bom.json', `\ufeff${plain}`)]),
    run(['assign', '--bench', file('plain.json', plain)]),
  ]);
  expect(with_).toMatchObject({ status: 0, said: '' });
  expect(with_.out).toBe(without.out);
  const sums = `\ufeff${'a'.repeat(64)}  plain.json\n`;
  const checked = await run(['check', file('bom.sums', sums), join(dir, 'plain.json')]);
  expect(JSON.parse(checked.out)).toMatchObject({ unread: 0, files: [{ verdict: 'differs' }] });
});

describe('an archive that unpacks without end', () => {
  it('is given up at the limit, told how far it is, with what to do', async () => {
    const path = join(dir, 'endless.gz');
    // Zeros in less than 1 MB; gzip cannot pack closer than about 1032 to 1 (RFC 1951).
    const zeros = Buffer.alloc(1 << 20);
    await pipeline(
      async function* () {
        for (let i = 0; i < UNPACKED_MIB; i += 1) yield await Promise.resolve(zeros);
      },
      createGzip({ level: 1 }),
      createWriteStream(path),
    );
    const small = await run(['inspect', '--limit', '100MiB', path]);
    expect(small).toMatchObject({ status: 2, out: '' });
    expect(small.said).toMatch(/grows beyond 100 MiB.*--limit/);
    const all = await run(['inspect', path]);
    expect(all.status).toBe(0);
    expect(all.said).toMatch(/of .* read, .* unpacked/);
    expect(JSON.parse(all.out)).toMatchObject({ container: { innerBytes: UNPACKED_MIB * 2 ** 20 } });
  });
  it.each(['many', '0', '-5GiB'])('--limit %s is refused', async (limit) =>
    expect((await run(['inspect', '--limit', limit, join(root, 'package.json')])).status).toBe(2),
  );
});

it(`a list of ${LINES} lines is read within ${MOST / 1e6} MB`, async () => {
  const path = join(dir, 'long.sums');
  const out = openSync(path, 'w');
  for (let at = 0; at < LINES; at += 20_000) {
    let text = '';
    for (let i = at; i < at + 20_000; i += 1)
      text += `${i.toString(16).padStart(64, '0')}  pool/main/some-package/some-file_${i}.img\n`;
    writeSync(out, text);
  }
  closeSync(out);
  const wanted = file(`some-file_${LINES - 1}.img`, 'x');
  const { status, out: text, memory } = await run(['check', path, wanted]);
  expect(status).toBe(1);
  expect(JSON.parse(text)).toMatchObject({ sums: LINES, files: [{ verdict: 'differs' }] });
  expect(memory).toBeGreaterThan(0);
  expect(memory).toBeLessThan(MOST);
});

it('a file that is no list, and has no end of a line in it, is read within bounds', async () => {
  const path = file('zeros.sums', '');
  truncateSync(path, ZEROS);
  const { status, out, memory } = await run(['check', path, join(root, 'package.json')]);
  expect(status).toBe(1);
  expect(JSON.parse(out)).toMatchObject({ sums: 0, unread: 1, files: [{ verdict: 'not listed' }] });
  expect(memory).toBeLessThan(MOST);
});
