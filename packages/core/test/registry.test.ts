import { imageFaultWords } from '@zb/core/words/imageFinding';
import { imagePlaceWords } from '@zb/core/words/imagePlace';
import { loaderFaultWords, startWords } from '@zb/core/words/start';
import { isOldReading } from '@zb/core/model/inspection';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { z } from 'zod';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { BENCH_VERSION, findImage, findPhoto, photosOf, type theBench } from '@zb/core/model/bench';
import { isBlank } from '@zb/core/model/content';
import { isStore } from '@zb/core/model/shelf';
import { benchModel } from '@zb/core/model/benchModel';
import { conflictsIn, editsBack, editsBetween, sameValue, withEdits } from '@zb/core/model/change';
import { applyChanges, conflictsOf, edited, type Change } from '@zb/core/model/changes';
import { collection } from '@zb/core/model/collection';
import { collections } from '@zb/core/model/collections';
import { BenchFileError, benchFromText, benchToText } from '@zb/core/model/file';
import { conflictWords } from '@zb/core/words/conflict';

const demo = saltmarshHall();
const must = <T>(x: T | undefined): T => {
  if (x === undefined) throw new Error('not there');
  return x;
};
const games = must(demo.boxes.find((b) => b.id === 'games-corner'));

describe('a collection that only the table knows', () => {
  const tools = collection({
    schema: z.object({ id: z.string(), name: z.string().min(1), machineId: z.string().nullable() }),
    title: { one: 'tool', many: 'tools' },
    order: (a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0),
    references: [{ field: 'machineId', to: 'items', kind: 'machine', what: 'machine' }],
    find: (t) => [{ title: t.name, detail: 'tool', path: `/tools/${t.id}` }],
  });
  const model = benchModel({ ...collections, tools }, BENCH_VERSION);
  const file = model as unknown as typeof theBench;
  const machine = must(demo.items.find((i) => i.kind === 'machine'));
  const hammer = { id: 't2', name: 'Tweezers', machineId: machine.id };
  const driver = { id: 't1', name: 'Screwdriver', machineId: null };
  const bench = model.apply({ ...model.empty('B'), ...demo, tools: [] }, [
    { in: 'tools', id: 't2', to: hammer },
    { in: 'tools', id: 't1', to: driver },
  ]);

  it('is changed, ordered, found, and taken back', () => {
    expect(model.arranged(bench).tools.map((t) => t.name)).toEqual(['Screwdriver', 'Tweezers']);
    expect([...model.findEntries(bench)]).toContainEqual({
      title: 'Tweezers',
      detail: 'tool',
      path: '/tools/t2',
    });
    const changes = [
      { in: 'tools' as const, id: 't2', edits: editsBetween(hammer, { ...hammer, name: 'Pliers' }) },
      { in: 'tools' as const, id: 't1', to: null },
    ];
    const after = model.apply(bench, changes);
    expect(after.tools).toEqual([{ ...hammer, name: 'Pliers' }]);
    const back = model.apply(after, model.inverse(bench, changes));
    expect(model.normal(back).tools).toEqual(model.normal(bench).tools);
  });

  it('property: a bench in order stays in order through any changes, and they are the same changes', () => {
    const id = fc.integer({ min: 0, max: 12 }).map((n) => `t${n}`);
    const name = fc.constantFrom('Awl', 'Bit', 'Clamp', 'Drill', 'File');
    const made = fc.record({ id, to: fc.option(name) }).map((c) => ({
      in: 'tools' as const,
      id: c.id,
      to: c.to === null ? null : { id: c.id, name: c.to, machineId: null },
    }));
    fc.assert(
      fc.property(fc.array(fc.array(made, { maxLength: 60 }), { maxLength: 6 }), (acts) => {
        let before = model.arranged(bench);
        for (const changes of acts) {
          const plain = model.apply(before, changes);
          expect(model.apply(before, changes).tools).toEqual(plain.tools);
          const after = model.applyArranged(before, changes);
          expect(after.tools).toEqual(model.arranged(plain).tools);
          const back = model.applyArranged(after, model.inverse(before, changes));
          expect(back.tools).toEqual(before.tools);
          before = after;
        }
      }),
    );
  });

  it('is saved and loaded, and its references are held against the rest', () => {
    const text = benchToText(bench, file);
    expect((benchFromText(text, file) as unknown as typeof bench).tools).toEqual([driver, hammer]);
    const loose = model.apply(bench, [{ in: 'items', id: machine.id, to: null }]);
    // Saved, a loose end is tied; in a file it is refused.
    expect((benchFromText(benchToText(loose, file), file) as unknown as typeof bench).tools).toEqual([
      driver,
      { ...hammer, machineId: null },
    ]);
    const wrong = text.replaceAll(`"machineId": "${machine.id}"`, '"machineId": "nobody"');
    const fault = ((): unknown => {
      try {
        return benchFromText(wrong, file);
      } catch (error) {
        return error;
      }
    })();
    expect(fault).toBeInstanceOf(BenchFileError);
    expect((fault as BenchFileError).problems.map((p) => p.path)).toContain('tools[1].machineId');
    expect(() => benchFromText(text.replace('"Tweezers"', '""'), file)).toThrow(BenchFileError);
  });

  it('a made-up file without it is refused by the table that has it', () => {
    expect(() => benchFromText(benchToText(demo), file)).toThrow(BenchFileError);
  });
});

describe('changes of values', () => {
  const value = fc.oneof(fc.integer(), fc.string(), fc.boolean(), fc.constant(null), fc.array(fc.integer()));
  const record = fc
    .dictionary(fc.constantFrom('a', 'b', 'c', 'd', 'e'), value)
    .map((r) => ({ ...r, id: 'r' }));

  it('lead from one record to another and back, whatever they are', () => {
    fc.assert(
      fc.property(record, record, (before, after) => {
        const edits = editsBetween(before, after);
        expect(sameValue(withEdits(before, edits), after)).toBe(true);
        expect(sameValue(withEdits(after, editsBack(edits)), before)).toBe(true);
        expect(conflictsIn({ in: 'x', id: 'r' }, before, edits)).toEqual([]);
      }),
    );
  });

  it('of two users keep both where they touch different values, and tell the second where they touch the same', () => {
    fc.assert(
      fc.property(record, record, record, (seen, first, second) => {
        const [one, two] = [editsBetween(seen, first), editsBetween(seen, second)];
        const now = withEdits(seen, one);
        const touched = new Map(one.map((e) => [e.path[0], e.to]));
        const clash = two.filter((e) => touched.has(e.path[0]) && !sameValue(touched.get(e.path[0]), e.to));
        const found = conflictsIn({ in: 'x', id: 'r' }, now, two);
        expect(found.map((c) => c.path)).toEqual(clash.map((e) => e.path));
        if (found.length > 0) return;
        const both = withEdits(now, two) as Record<string, unknown>;
        for (const e of [...one, ...two]) expect(sameValue(both[e.path[0] ?? ''], e.to)).toBe(true);
      }),
    );
  });

  it('a rename and a sign-off of one box are both kept; two renames are told in words', () => {
    const rename = (name: string): Change => edited('boxes', games, { ...games, name });
    const sign = edited('boxes', games, {
      ...games,
      signoffs: [...games.signoffs, { stop: 'tune', at: '2026-11-26T00:00:00Z' }],
    });
    const one = applyChanges(demo, [rename('Youth night')]);
    expect(conflictsOf(one, [sign])).toEqual([]);
    const both = applyChanges(one, [sign]).boxes.find((b) => b.id === games.id);
    expect(both?.name).toBe('Youth night');
    expect(both?.signoffs.map((s) => s.stop)).toContain('tune');
    const [conflict] = conflictsOf(one, [rename('Arcade')]);
    const words = conflictWords(one, must(conflict));
    for (const part of ['Youth night', 'Arcade']) expect(words).toContain(part);
    expect(conflictsOf(one, [rename('Youth night')])).toEqual([]);
    const gone = applyChanges(demo, [{ in: 'boxes', id: games.id, to: null }]);
    expect(conflictsOf(gone, [sign])[0]?.record).toBeUndefined();
  });

  it('two facts of one machine are two values', () => {
    const machine = must(demo.items.find((i) => i.kind === 'machine' && i.id === 'clerk'));
    if (machine.kind !== 'machine') throw new Error('no machine');
    const fact = (key: 'body.noise' | 'power.idle', value: string | number): Change =>
      edited('items', machine, {
        ...machine,
        facts: { ...machine.facts, [key]: { entered: { value, at: '2026-11-26T00:00:00Z' } } },
      });
    const one = applyChanges(demo, [fact('body.noise', 'quiet')]);
    expect(conflictsOf(one, [fact('power.idle', 7)])).toEqual([]);
    expect(conflictsOf(one, [fact('body.noise', 'loud')])).toHaveLength(1);
  });
});

describe('a file of version 3', () => {
  const text = readFileSync(join(__dirname, 'fixtures/bench-v3.json'), 'utf8');
  const old = JSON.parse(text) as {
    items: { id: string; photos?: unknown[]; matters?: boolean; holds?: string }[];
    wishes: { keep: unknown }[];
  };
  const bench = benchFromText(text);

  it('keeps its photographs as records of their own, and its pins by their new name', () => {
    expect(old.items.some((i) => i.photos && i.photos.length > 0)).toBe(true);
    const owner = must(old.items.find((i) => i.photos && i.photos.length > 0));
    expect(photosOf(bench, owner.id).map((p) => p.caption)).toEqual(['Label']);
    const line = must(bench.log.find((e) => e.kind === 'photo'));
    expect(line.kind === 'photo' && findPhoto(bench, line.photoId)?.data).toBe('data:image/png;base64,AAAA');
    expect(bench.wishes.map((w) => w.pinned).sort()).toEqual(old.wishes.map((w) => w.keep).sort());
    expect(bench.items).toHaveLength(old.items.length);
    // Only what was empty may be lost for certain: a “no” stood where nobody had decided as well.
    for (const was of old.items) {
      if (was.matters === undefined) continue;
      const now = must(bench.items.filter(isStore).find((s) => s.id === was.id));
      expect(now.fate).toBe(was.matters ? 'keep' : was.holds === '' ? 'may be lost' : 'not decided');
      expect(isBlank(now.content)).toBe(was.holds === '');
    }
    expect(text).not.toContain('"pinned"');
    expect(benchToText(benchFromText(benchToText(bench)))).toBe(benchToText(bench));
  });
});

describe('a file of version 4', () => {
  const text = readFileSync(join(__dirname, 'fixtures/bench-v4.json'), 'utf8');
  interface OldReading {
    outcomes: { starts: string; because: string; secureBoot: { because: string } | null }[];
    findings: { what: string }[];
    loaders: { fault: string; place: string }[];
  }
  const old = JSON.parse(text) as { items: { id: string; inspection?: OldReading | null }[] };
  const bench = benchFromText(text);
  const read = old.items.flatMap((i) => (i.inspection ? [{ id: i.id, was: i.inspection }] : []));

  it('keeps what its readings said, word for word, and says that they are old', () => {
    expect(read.length).toBeGreaterThan(1);
    expect(read.some(({ was }) => was.findings.length > 0)).toBe(true);
    for (const { id, was } of read) {
      const now = must(must(findImage(bench, id)).inspection ?? undefined);
      expect(isOldReading(now)).toBe(true);
      expect(
        now.outcomes.map((o) => [o.starts, startWords(o), o.secureBoot && startWords(o.secureBoot)]),
      ).toEqual(was.outcomes.map((o) => [o.starts, o.because, o.secureBoot && o.secureBoot.because]));
      expect(now.findings.map((f) => imageFaultWords(f.fault))).toEqual(was.findings.map((f) => f.what));
      expect(now.loaders.map((l) => (l.fault ? loaderFaultWords(l.fault) : ''))).toEqual(
        was.loaders.map((l) => l.fault),
      );
      expect(now.loaders.map((l) => imagePlaceWords(l.place))).toEqual(was.loaders.map((l) => l.place));
    }
  });
  it('is saved and read again as it is', () => expect(benchFromText(benchToText(bench))).toEqual(bench));
});
