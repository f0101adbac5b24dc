import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { lookThrough } from '@zb/core/content/findings';
import { planCopy, undone, type CopyPlan } from '@zb/core/content/plan';
import { usualRules } from '@zb/core/content/usual';
import { writeCopy, writeMoves } from '@zb/core/content/written';
import type { ContentEntry } from '@zb/core/model/contentRules';
import { HOSTILE } from '../../packages/core/test/hostileBench';
import { bounded, sleep, type Part } from './part';
import type { Random } from './random';

/** Names that a file system takes and other programs give a meaning, or another system refuses. */
const NAMES = [
  ...HOSTILE.map((t) => t.replace(/[/\0]/g, '_').replace('\ud800', '')),
  'con',
  'end ',
  'Season: 1',
  '-n',
  'a\nb',
  '\ufeffmark',
  'ünï',
  'dot.',
  '...',
].filter((n) => Buffer.byteLength(n) < 200);

interface Tree {
  /** Content by path. */
  files: Map<string, string>;
  entries: ContentEntry[];
}

function treeIn(dir: string, random: Random): Tree {
  const files = new Map<string, string>();
  for (let i = random.int(3, 25); i > 0; i -= 1) {
    const folder = random.some(NAMES, random.int(0, 2)).join('/');
    const name = `${random.int(0, 99)}${random.pick(NAMES)}`;
    const path = folder ? `${folder}/${name}` : name;
    try {
      mkdirSync(dirname(join(dir, path)), { recursive: true });
      writeFileSync(join(dir, path), `${path} ${'x'.repeat(random.int(0, 20_000))}`, { flag: 'wx' });
    } catch {
      // It is there already, or stands where a folder is: another name will do.
      continue;
    }
    files.set(path, readFileSync(join(dir, path), 'utf8'));
  }
  const entries = [...files].map(([path, text]) => ({
    path,
    bytes: Buffer.byteLength(text),
    modified: 0,
    odd: null,
    sha256: null,
  }));
  return { files, entries };
}

/** Every file below a folder, with its content. */
function found(dir: string): Map<string, string> {
  const out = new Map<string, string>();
  for (const e of readdirSync(dir, { withFileTypes: true, recursive: true })) {
    const at = join(e.parentPath, e.name);
    if (e.isFile()) out.set(at.slice(dir.length + 1), readFileSync(at, 'utf8'));
  }
  return out;
}

/** Runs a script and kills its whole group at a random moment, as a cable that is pulled does. */
async function brokenOff(script: string, cwd: string, args: string[], afterMs: number): Promise<void> {
  const child = spawn('sh', ['-s', ...args], { cwd, detached: true, stdio: ['pipe', 'ignore', 'ignore'] });
  child.stdin.on('error', () => undefined);
  child.stdin.end(script);
  const gone = new Promise<void>((done) => child.on('exit', () => done()));
  await sleep(afterMs);
  try {
    process.kill(-(child.pid ?? 0), 'SIGKILL');
  } catch {
    // It was through already.
  }
  await bounded('the end of a script', 10_000, gone);
}
const whole = (script: string, cwd: string, args: string[] = []) =>
  spawnSync('sh', ['-s', ...args], { cwd, input: script, encoding: 'utf8' });

const differing = (a: Map<string, string>, b: Map<string, string>): string[] =>
  [...new Set([...a.keys(), ...b.keys()])].filter((k) => a.get(k) !== b.get(k));

/** Copies and renames over folders with hostile names, killed in the middle, run again and taken back: no byte is lost. */
export const scripts: Part = async ({ random, dir, goOn, count, wrong }) => {
  for (let round = 0; goOn(); round += 1) {
    const at = join(dir, `scripts-${round}`);
    const [from, to] = [join(at, 'from'), join(at, 'to')];
    mkdirSync(from, { recursive: true });
    mkdirSync(to);
    const { files, entries } = treeIn(from, random);
    const target = random.pick(['ext4', 'ntfs', 'exfat', 'fat'] as const);
    const findings = lookThrough({ entries, rules: usualRules('file store'), target });
    const plan: CopyPlan = planCopy(entries, findings, new Set(['name refused', 'wrong folder']), target);
    const copy = writeCopy(plan);
    for (let i = random.int(1, 3); i > 0; i -= 1) await brokenOff(copy, at, [from, to], random.int(0, 40));
    const copied = whole(copy, at, [from, to]);
    if (copied.status !== 0) wrong(`a copy that was broken off cannot go on: ${copied.stderr.slice(0, 300)}`);
    if (copied.stderr.includes('of another size'))
      wrong(`a copy that was broken off left half a file: ${copied.stderr}`);
    const planned = new Map(
      plan.files.flatMap((f) => (f.to === null ? [] : [[f.to, files.get(f.from) ?? '']])),
    );
    const missed = differing(planned, found(to));
    if (missed.length > 0) wrong(`copied otherwise than planned: ${JSON.stringify(missed.slice(0, 5))}`);
    count('copies broken off');

    const moves = writeMoves(plan.moves, 'Renames');
    await brokenOff(moves, from, [], random.int(0, 25));
    // Either it goes on to its end first, or it is taken back from where it stopped.
    if (random.chance(0.5)) {
      const moved = whole(moves, from);
      if (moved.status !== 0) wrong(`renames cannot go on: ${moved.stderr.slice(0, 300)}`);
      count('renames gone on with');
    }
    const back = whole(writeMoves(undone(plan.moves), 'Back'), from);
    if (back.status !== 0) wrong(`renames cannot be taken back: ${back.stderr.slice(0, 300)}`);
    const lost = differing(files, found(from));
    if (lost.length > 0) wrong(`after renames and back: ${JSON.stringify(lost.slice(0, 5))}`);
    count('renames taken back');
    rmSync(at, { recursive: true, force: true });
  }
};
