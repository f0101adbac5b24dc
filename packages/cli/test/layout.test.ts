import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { commandLine } from './command';

const zb = commandLine();
const PLAN = JSON.stringify({
  drive: { name: 'one', bytes: 64e9 },
  device: '/dev/sdx',
  want: {
    table: 'gpt',
    wants: [
      {
        id: 'a',
        use: 'system',
        name: 'system',
        filesystem: 'ext4',
        mount: '/',
        size: { kind: 'fixed', bytes: 32212254720 },
      },
      { id: 'b', use: 'data', name: 'data', filesystem: 'xfs', mount: '/srv', size: { kind: 'rest' } },
    ],
  },
});

describe('zb layout', () => {
  it('prints parts with what to type, what it becomes and what is free in them', () => {
    const done = zb(['layout', '-'], PLAN);
    expect([done.status, done.stderr]).toEqual([0, '']);
    const out = JSON.parse(done.stdout) as { problems: unknown[]; parts: Record<string, unknown>[] };
    expect(out.problems).toEqual([]);
    expect(out.parts[0]).toMatchObject({
      start: 1048576,
      bytes: 32212254720,
      typed: { text: '30720', unit: 'MB', shown: '30.0 GB' },
      space: { free: expect.any(Number) as number },
    });
    expect(out.parts[1]).toMatchObject({ rest: true, want: 'b' });
  });
  it('prints what other tools take, and steps', () => {
    expect(zb(['layout', '--as', 'sfdisk', '-'], PLAN).stdout).toMatch(/^label: gpt\n/);
    expect(zb(['layout', '--as', 'mkfs', '-'], PLAN).stdout).toMatch(/^mkfs\.ext4 -L system \/dev\/sdx1$/m);
    expect(zb(['layout', '--as', 'fstab', '-'], PLAN).stdout).toMatch(/^LABEL=system\s+\/\s+ext4/m);
    expect(zb(['layout', '--as', 'sgdisk', '-'], PLAN).stdout.split('\n')).toHaveLength(3);
    const steps = JSON.parse(zb(['layout', '--as', 'steps', '--way', 'edits a list', '-'], PLAN).stdout) as {
      steps: { code: string; words: string }[];
    };
    expect(steps.steps.map((s) => s.code)).toContain('make part');
    expect(steps.steps.every((s) => s.words.length > 0)).toBe(true);
  });
  it.each([
    ['no JSON', ['layout', '-'], '{'],
    ['no plan', ['layout', '-'], '{"drive":{}}'],
    ['no such form', ['layout', '--as', 'x', '-'], PLAN],
    ['no such way', ['layout', '--as', 'steps', '--way', 'x', '-'], PLAN],
    ['no table', ['table', '-'], 'hello'],
    ['no number', ['table', '--bytes', 'x', '-'], 'label: gpt\n'],
  ])('%s: exit 2, a reason, and nothing on standard output', (_, args, input) => {
    const done = zb(args, input);
    expect([done.status, done.stdout]).toEqual([2, '']);
    expect(done.stderr).not.toBe('');
  });
});

describe('zb layout of a box', () => {
  const dir = mkdtempSync(join(tmpdir(), 'zb-layout-'));
  const bench = join(dir, 'bench.json');
  beforeAll(() => writeFileSync(bench, benchToText(saltmarshHall())));
  afterAll(() => rmSync(dir, { recursive: true, force: true }));
  const of = (...args: string[]) => zb(['layout', '--bench', bench, ...args]);

  it('lays its drive out as its system would have it, and by the schools that are chosen', () => {
    const plain = of('--box', 'film-night', '--drive', 'loose-480', '--as', 'fstab');
    expect([plain.status, plain.stderr]).toEqual([0, '']);
    const mounts = (text: string): string[] =>
      text
        .trim()
        .split('\n')
        .map((l) => l.split(/\s+/)[1] ?? '');
    expect(mounts(plain.stdout)).toEqual(['/boot/efi', '/', '/srv']);
    const apart = of(
      '--box',
      'film-night',
      '--drive',
      'loose-480',
      '--as',
      'fstab',
      '--parts',
      '/var and /home apart',
      '--swap',
      '1 GB',
    );
    expect(mounts(apart.stdout)).toEqual(['/boot/efi', '/', 'none', '/var', '/home', '/srv']);
  });
  it.each([
    ['a drive that is kept', ['--box', 'film-night', '--drive', 'tern-ssd']],
    ['which of several', ['--box', 'archive']],
    ['no system yet', ['--box', 'guest-gate']],
    ['no such box', ['--box', 'x']],
    ['no such school', ['--box', 'film-night', '--drive', 'loose-480', '--swap', 'much']],
    ['an image that is written as it is', ['--box', 'games-corner']],
    ['an installer that does it by itself', ['--box', 'archive', '--drive', 'oak-boot']],
  ])('%s: exit 2 with the reason', (_, args) => {
    const done = of(...args);
    expect([done.status, done.stdout]).toEqual([2, '']);
    expect(done.stderr).not.toBe('');
  });
});

it('zb table reads a table as a plan takes it', () => {
  const text =
    'label: gpt\ndevice: /dev/sda\nunit: sectors\nlast-lba: 124999966\nsector-size: 512\n\n/dev/sda2 : start=2048, size=4096, type=0FC63DAF-8483-4772-8E79-3D69D8477DE4\n';
  const done = zb(['table', '-'], text);
  expect(JSON.parse(done.stdout)).toMatchObject({
    bytes: 64e9,
    table: 'gpt',
    parts: [{ number: 2, start: 1048576, bytes: 2097152 }],
  });
});
