/** Scripts that copy and rename, played by a shell over real folders: broken off, run again, taken back. */
import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { lookThrough } from '@zb/core/content/findings';
import { planCopy, undone, type CopyPlan } from '@zb/core/content/plan';
import { usualRules } from '@zb/core/content/usual';
import { writeCopy, writeMoves } from '@zb/core/content/written';
import type { ContentCode, ContentEntry, ContentTarget } from '@zb/core/model/contentRules';

const dir = mkdtempSync(join(tmpdir(), 'zb-copy-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
let n = 0;
const folder = (files: Record<string, string>): string => {
  const at = join(dir, String((n += 1)));
  mkdirSync(at);
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(dirname(join(at, path)), { recursive: true });
    writeFileSync(join(at, path), text);
  }
  return at;
};
const entries = (files: Record<string, string>): ContentEntry[] =>
  Object.entries(files).map(([path, text]) => ({
    path,
    bytes: text.length,
    modified: 0,
    odd: null,
    sha256: null,
  }));
const plan = (
  files: Record<string, string>,
  target: ContentTarget,
  taken: ContentCode[] = ['name refused'],
): CopyPlan => {
  const of = entries(files);
  const found = lookThrough({ entries: of, rules: usualRules('file store'), target });
  return planCopy(of, found, new Set(taken), target);
};
const sh = (script: string, cwd: string, ...args: string[]) =>
  spawnSync('sh', ['-s', ...args], { input: script, cwd, encoding: 'utf8' });

describe('a copy', () => {
  const files = { 'a/one': 'first', 'b/two': 'second' };
  it('that was broken off counts as not done, and is done when it is run again', () => {
    const [from, to] = [folder(files), folder({})];
    const script = writeCopy(plan(files, 'ext4'));
    // The copier stops half-way through the first file: what it left is no file of the copy.
    const broken = script.replace('  cp -p -- "$from/$1" "$part"', '  printf fi > "$part"; exit 9');
    expect(sh(broken, dir, from, to).status).toBe(9);
    expect(existsSync(join(to, 'a/one'))).toBe(false);
    expect(sh(script, dir, from, to)).toMatchObject({ status: 0, stderr: '' });
    expect(readFileSync(join(to, 'a/one'), 'utf8')).toBe('first');
    expect(readdirSync(to).sort()).toEqual(['a', 'b']);
  });
  it('leaves alone what is there already, and tells where it is of another size', () => {
    const [from, to] = [folder(files), folder({ 'a/one': 'a longer one' })];
    const done = sh(writeCopy(plan(files, 'ext4')), dir, from, to);
    expect(done.status).toBe(0);
    expect(done.stderr).toContain('another size, left alone: ./a/one');
    expect(readFileSync(join(to, 'a/one'), 'utf8')).toBe('a longer one');
  });
  it('leaves out a file whose name is no text, and says so; all others go', () => {
    const odd = { ...files, 'was\ufffdlost': 'x', 'c\ud800/in': 'y' };
    const made = plan(odd, 'ext4', ['name refused', 'wrong folder']);
    expect(made.unnamed).toEqual(['was\ufffdlost', 'c\ud800/in']);
    expect(made.files.filter((f) => f.to === null).map((f) => f.from)).toEqual(made.unnamed);
    const script = writeCopy(made);
    expect(script).toContain('# Not copied, for its name is no text: was\ufffdlost');
    const [from, to] = [folder(files), folder({})];
    expect(sh(script, dir, from, to).status).toBe(0);
    expect(readdirSync(to).sort()).toEqual(['a', 'b']);
  });
  it('keeps a mark of byte order at the beginning of a name', () => {
    const marked = { '\ufeffone': 'x' };
    const [from, to] = [folder(marked), folder({})];
    expect(sh(writeCopy(plan(marked, 'ext4')), dir, from, to).status).toBe(0);
    expect(readdirSync(to)).toEqual(['\ufeffone']);
  });
});

describe('folders of which a target refuses the name', () => {
  const files = { 'con/a.txt': '1', 'end /b.txt': '2', 'Season: 1/c: d.txt': '3', 'fine/e.txt': '4' };
  it('are found with what lies in them, and go under names that it takes', () => {
    const found = lookThrough({ entries: entries(files), rules: usualRules('file store'), target: 'ntfs' });
    expect(
      found
        .filter((f) => f.fault.code === 'name refused')
        .flatMap((f) => f.fault.files)
        .sort(),
    ).toEqual(['Season: 1/c: d.txt', 'con/a.txt', 'end /b.txt']);
    expect(
      plan(files, 'ntfs')
        .files.map((f) => f.to)
        .sort(),
    ).toEqual(['Season - 1/c - d.txt', 'con_/a.txt', 'end/b.txt', 'fine/e.txt'].sort());
  });
});

describe('renames', () => {
  const files = { a: '1', b: '2', c: '3' };
  const moves = [
    { from: 'a', to: 'x/a' },
    { from: 'b', to: 'x/b' },
    { from: 'c', to: 'x/c' },
  ];
  it('that stopped half-way are taken back as far as they went', () => {
    const at = folder(files);
    mkdirSync(join(at, 'x'));
    writeFileSync(join(at, 'x/b'), 'in the way');
    const stopped = sh(writeMoves(moves, 'test'), at);
    expect([stopped.status, stopped.stderr]).toEqual([1, 'in the way: ./x/b\n']);
    rmSync(join(at, 'x/b'));
    expect(sh(writeMoves(undone(moves), 'back'), at)).toMatchObject({ status: 0, stderr: '' });
    expect(readdirSync(at).sort()).toEqual(['a', 'b', 'c', 'x']);
    expect(readdirSync(join(at, 'x'))).toEqual([]);
  });
  it('go on where they stopped', () => {
    const at = folder(files);
    expect(sh(writeMoves(moves.slice(0, 1), 'test'), at).status).toBe(0);
    expect(sh(writeMoves(moves, 'test'), at).status).toBe(0);
    expect(readdirSync(join(at, 'x')).sort()).toEqual(['a', 'b', 'c']);
  });
  it('stop where a file is neither here nor there', () => {
    const done = sh(writeMoves([{ from: 'lost', to: 'y' }], 'test'), folder(files));
    expect([done.status, done.stderr]).toEqual([1, 'not there: ./lost\n']);
  });
});
