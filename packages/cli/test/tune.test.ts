/** Tuning on the command line: what is printed, what is refused, and with which status. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { commandLine } from './command';

const run = commandLine();
const zb = (...args: string[]) => run(['tune', ...args]);
const json = <T>(of: { stdout: string }): T => JSON.parse(of.stdout) as T;
const dir = mkdtempSync(join(tmpdir(), 'zb-tune-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const put = (name: string, text: string): string => {
  const path = join(dir, name);
  writeFileSync(path, text);
  return path;
};
const standIn = (name: string, ...more: string[]): string =>
  put(name, zb('stand-in', '--as', 'csv', ...more).stdout);

describe('zb tune', () => {
  it('compares runs before and after, by the order in which they were made', () => {
    const before = [1, 2, 3, 4].map((s) => standIn(`a${s}.csv`, '--seed', String(s)));
    const after = [1, 2, 3, 4].map((s) => standIn(`b${s}.csv`, '--seed', `1${s}`, '--limit', '20'));
    const done = zb('compare', ...before, '--measure', '60', '--order', 'ABBAABBA', '--', ...after);
    const out = json<{
      runs: { side: string; place: number }[];
      comparisons: { quantity: string; outcome: string; change: number; method: string }[];
    }>(done);
    expect(out.runs.map((r) => r.place)).toEqual([0, 3, 4, 7, 1, 2, 5, 6]);
    const heat = out.comparisons.find((c) => c.quantity === 'hottest');
    expect(heat).toMatchObject({ outcome: 'better', method: 'drift taken out' });
    expect(heat?.change ?? 0).toBeLessThan(-5);
    const alone = json<typeof out>(
      zb('compare', ...before, '--measure', '60', '--quantity', 'wall', '--', ...after),
    );
    expect(alone.comparisons.map((c) => c.quantity)).toEqual(['wall']);
    // As the manual has it, behind the second list.
    const behind = zb('compare', ...before, '--', ...after, '--order', 'ABBAABBA', '--measure', '60');
    expect(behind.stdout).toBe(done.stdout);
    expect(zb('compare', ...before).status).toBe(2);
    expect(zb('compare', ...before, '--order', 'AABB', '--', ...after).status).toBe(2);
    expect(zb('compare', before[0] ?? '', '--quantity', 'charm', '--', after[0] ?? '').status).toBe(2);
  });
  it('reads logs of several kinds, and refuses what is none without a word on standard output', () => {
    const frames = put('frames.txt', zb('stand-in', '--as', 'frames').stdout);
    const [found] = json<
      { kind: string; values: Record<string, number>; within: Record<string, [number, number]> }[]
    >(zb('read', frames, '--panel', '60,40-60'));
    expect(found?.kind).toBe('frame times');
    expect(found?.within['low percentile']?.[0]).toBeLessThan(found?.values['low percentile'] ?? 0);
    expect(zb('read', frames, '--panel', 'wide').status).toBe(2);
    const bad = zb('read', put('bad.txt', 'nothing of the kind\n'));
    expect(bad.status).toBe(2);
    expect(bad.stdout).toBe('');
    expect(bad.stderr).toContain('Nothing was kept of it');
  });
  it('says whether it has settled, and ends with 1 where it has not', () => {
    const warm = zb('steady', standIn('warm.csv', '--settle', '1500'));
    expect(warm.status).toBe(0);
    const cold = zb('steady', standIn('cold.csv', '--settle', '120', '--measure', '30'));
    expect(cold.status).toBe(1);
    expect(json<{ series: { code: string }[] }>(cold).series[0]?.code).toMatch(/not yet|open/);
    expect(zb('steady', put('power.csv', 'seconds,power (W)\n0,1\n1,2\n')).status).toBe(2);
  });
  it('plans an experiment from a question, and refuses one it does not know', () => {
    const plan = (question: object) => zb('plan', put('question.json', JSON.stringify(question)));
    expect(json<{ chance: number; order: string }>(plan({ question: 'cooler', runs: 3 }))).toMatchObject({
      chance: 0,
      runs: 3,
    });
    const ladder = json<{ order: string; chance: number }>(plan({ question: 'more even', arms: 4, seed: 9 }));
    expect(new Set(ladder.order)).toEqual(new Set('ABCD'));
    expect(plan({ question: 'prettier' }).status).toBe(2);
  });
  it('gives what the experiments of a box came to, and its runs as a table', () => {
    const bench = put('bench.json', benchToText(saltmarshHall()));
    const out = json<{ experiments: { says: string; trade: { knee: { knee: string } } | null }[] }>(
      zb('result', bench, 'games-corner'),
    );
    expect(out.experiments).toHaveLength(3);
    expect(out.experiments[2]?.trade?.knee.knee).toBe('C');
    const csv = zb('result', bench, 'games-corner', '--as', 'csv').stdout;
    expect(csv.split('\r\n').length).toBe(saltmarshHall().runs.length + 1);
    expect(zb('result', bench, 'nobody').status).toBe(2);
    expect(zb('record').stdout).toMatch(/^#!\/bin\/sh/);
  });
});
