/**
 * Nothing of a stranger's becomes a line, a token, an element or a formula of a file: every writer there is, over benches whose
 * every text is hostile, against strict readers. The formats' own tools read the same files in tests/oracle/exports.oracle.ts.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { hazards } from '@zb/core/box/summary';
import { judgeOn } from '@zb/core/box/today';
import { exportedFiles, writerIds } from '@zb/core/exports/writers';
import type { Bench } from '@zb/core/model/bench';
import { CANARY, fullBench, hostileBench, hostileFolder } from './hostileBench';
import { skeletonOf } from './skeletons';

jest.setTimeout(120_000);
const hall = fullBench();
const at = '2026-03-05T18:00:00.000Z';
beforeAll(() => judgeOn('2026-03-05'));
afterAll(() => judgeOn(undefined));

/** Names of chains and keys of records are made from texts: each holds what its grammar leaves of one, and no more. */
const named = (skeleton: string): string => skeleton.replace(/[_-]*(?:zbpwn|\d+[_-]pla[a-z]*)/g, '·');

/** Elements of a list that are alike, once each: where a Stop more stands there is one line more. */
const eachOnce = (skeleton: string): string => {
  const once = (v: unknown): unknown =>
    Array.isArray(v)
      ? v.map(once).filter((x, i, all) => i === 0 || JSON.stringify(x) !== JSON.stringify(all[i - 1]))
      : v;
  return JSON.stringify(once(JSON.parse(skeleton)));
};

/** What stands against the boxes of a bench. */
const stopsIn = (bench: Bench): string[] =>
  bench.boxes.flatMap((b) => hazards(bench, b).map((h) => `${b.id} ${h.code}`)).sort();

/** Writers whose files list what stands against a box. */
const LISTS = ['build sheet', 'build sheet page', 'run sheet', 'run sheet page'];
/** Writers that write nothing while a Stop stands: a name that another tool would misread is one. */
const REFUSES = /^shares /;

/** Skeletons by writer: names of files are ids, which are hostile too, and order files. */
function skeletons(bench: Bench, hostile: boolean): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const f of exportedFiles({ bench, at, folder: hostileFolder(hostile) })) {
    let found: string;
    try {
      found = named(JSON.stringify(skeletonOf(f.format, f.content)));
    } catch (error) {
      throw new Error(`${f.writer} ${JSON.stringify(f.name)}: ${String(error)}`, { cause: error });
    }
    out.set(f.writer, [...(out.get(f.writer) ?? []), found]);
  }
  for (const list of out.values()) list.sort();
  return out;
}

/** Where two lists of skeletons part, shortly: whole ones are too long to be read. */
function firstDifference(mine: readonly string[], other: readonly string[]): string | undefined {
  const i = Array.from({ length: Math.max(mine.length, other.length) }).findIndex(
    (_, n) => mine[n] !== other[n],
  );
  if (i < 0) return undefined;
  const [a = 'no file', b = 'no file'] = [mine[i], other[i]];
  let at = 0;
  while (at < a.length && a[at] === b[at]) at += 1;
  const near = (text: string): string => text.slice(Math.max(0, at - 80), at + 80);
  return `${near(a)}\nand without: ${near(b)}`;
}

const plain = skeletons(hall, false);
/** The turn of this run: `npm run proof exports` makes all of them, each in a process of its own, since one fills its memory. */
const TURN = Number(process.env.ZB_EXPORTS ?? 0);

describe.each([TURN])('every text hostile, from the %i. on', (turn) => {
  let found = new Map<string, string[]>();
  let without = new Map<string, string[]>();
  let text = '';
  let another = false;
  let changed = 0;
  beforeAll(() => {
    const pair = hostileBench(hall, turn);
    text = JSON.stringify(pair.hostile);
    changed = pair.changed;
    found = skeletons(pair.hostile, true);
    without = skeletons(pair.harmless, false);
    another = JSON.stringify(stopsIn(pair.hostile)) !== JSON.stringify(stopsIn(pair.harmless));
  });
  afterAll(() => {
    found.clear();
    without.clear();
  });
  it('is a bench that its schemas take', () => {
    expect(changed).toBeGreaterThan(1000);
    expect(text).toContain(CANARY);
  });
  it.each(writerIds)('%s is made of what it is made of without', (writer) => {
    const [is, beside] = [found.get(writer) ?? [], without.get(writer) ?? []];
    if (another && REFUSES.test(writer) && is.length < beside.length)
      expect(beside).toEqual(expect.arrayContaining(is));
    else if (another && LISTS.includes(writer))
      expect(firstDifference(is.map(eachOnce), beside.map(eachOnce))).toBeUndefined();
    else expect(firstDifference(is, beside)).toBeUndefined();
  });
});

it('every writer writes something of the demo bench, so that it is tested at all', () => {
  expect(writerIds.filter((id) => !plain.has(id))).toEqual([]);
});

/** Files of core that build text in the syntax of another program, by what they import. */
function sources(dir: string): string[] {
  return readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? sources(join(dir, e.name)) : e.name.endsWith('.ts') ? [join(dir, e.name)] : [],
  );
}
it('a file that writes for another program is reached from the list of writers', () => {
  const src = join(import.meta.dirname, '../src');
  const imports = (file: string): string[] =>
    [...readFileSync(file, 'utf8').matchAll(/^(?:import|export)[^;]*?from '(\.[^']+)'/gms)].map(
      ([, to = '']) =>
        [join(file, '..', `${to}.ts`), join(file, '..', to, 'index.ts')].find(existsSync) ?? to,
    );
  const reached = new Set<string>();
  const waiting = [join(src, 'exports/list.ts')];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (reached.has(next)) continue;
    reached.add(next);
    waiting.push(...imports(next));
  }
  const writes = sources(src).filter((f) =>
    imports(f).some((i) => relative(src, i).startsWith('formats/writer/') && !i.endsWith('template.ts')),
  );
  expect(writes.length).toBeGreaterThan(20);
  expect(writes.filter((f) => !reached.has(f)).map((f) => relative(src, f))).toEqual([]);
});
