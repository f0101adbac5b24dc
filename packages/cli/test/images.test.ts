import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { depotImages } from '@zb/core/demo/depot';
import { commandLine } from './command';

const dir = mkdtempSync(join(tmpdir(), 'zb-cli-images-'));
const zb = commandLine();
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const run = (...args: string[]): { status: number; out: Record<string, never>; said: string } => {
  const done = zb(args);
  return {
    status: done.status,
    said: done.stderr,
    out: (done.stdout === '' ? {} : JSON.parse(done.stdout)) as Record<string, never>,
  };
};
const file = (name: string, bytes: Uint8Array | string): string => {
  writeFileSync(join(dir, name), bytes);
  return join(dir, name);
};
const sha256 = (b: Uint8Array): string => createHash('sha256').update(b).digest('hex');
const image = depotImages.find((d) => d.file.startsWith('tidegate'))?.build() ?? new Uint8Array(0);
const packed = new Uint8Array(gzipSync(image));

describe('zb inspect of a packed file', () => {
  it('has the file’s own rows, all no, and what is inside beside them', () => {
    const { status, out } = run('inspect', file('t.img.gz', packed));
    expect(status).toBe(0);
    expect(out).toMatchObject({
      bytes: packed.length,
      sha256: sha256(packed),
      container: { kind: 'gzip', innerBytes: image.length, innerSha256: sha256(image) },
      inner: { bytes: image.length, layout: 'filesystem', loaders: [{ machine: 'x64', signed: false }] },
      findings: [{ grade: 'stop', offset: 0 }],
    });
    const rows = out.outcomes as unknown as { starts: string }[];
    expect(rows.every((o) => o.starts === 'no')).toBe(true);
  });
});

describe('zb compare', () => {
  it('ends with 0 for the same bytes, packed or not, and with 1 and the place for others', () => {
    const a = file('a.img', image);
    expect(run('compare', file('a.img.gz', packed), a)).toMatchObject({
      status: 0,
      out: { same: true, firstByte: null },
    });
    const other = image.slice();
    other[300_000] = (other[300_000] ?? 0) ^ 1;
    expect(run('compare', a, file('b.img', other))).toMatchObject({
      status: 1,
      out: { same: false, pattern: 'flipped bit', firstByte: 300_000, differingBytes: 1, differences: [] },
    });
  });
  it('wants two files', () => expect(run('compare', file('a.img', image))).toMatchObject({ status: 2 }));
});

describe('zb check', () => {
  it('says of each file what the list says, in plain words, and ends with 1 unless all match', () => {
    const list = file(
      'SUMS',
      `\ufeff${sha256(image)} *dir/a.img\r\nSIZE (b.img) = 5\r\nSHA256 (b.img) = ${sha256(image)}\r\n${'0'.repeat(64)}  c.img\r\n`,
    );
    const names = ['a.img', 'b.img', 'c.img', 'd.img'].map((n) => file(n, image));
    const { status, out } = run('check', list, ...names);
    expect(status).toBe(1);
    expect((out.files as unknown as { verdict: string }[]).map((f) => f.verdict)).toEqual([
      'matches',
      'list names another size',
      'differs',
      'not listed',
    ]);
    expect(run('check', list, names[0] ?? '')).toMatchObject({
      status: 0,
      out: { allMatch: true, signature: null },
    });
  });
  it('a key that signed nothing here is not good', () => {
    const list = file('SUMS2', `${sha256(image)}  a.img\n`);
    expect(run('check', '--key', list, list, file('a.img', image))).toMatchObject({
      status: 1,
      out: { allMatch: true, signature: { state: 'unreadable' } },
    });
  });
  it('wants a list and a file', () => expect(run('check', file('SUMS3', ''))).toMatchObject({ status: 2 }));
});
