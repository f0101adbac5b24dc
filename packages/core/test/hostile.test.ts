import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { profilesFromText } from '@zb/core/system/exchange';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { theBench, type Bench } from '@zb/core/model/bench';
import { applyChanges, type Change } from '@zb/core/model/changes';
import { BenchFileError, benchFromText } from '@zb/core/model/file';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { parseBytes } from '@zb/core/units/bytes';

const demo = saltmarshHall();
const problemsOf = (read: () => unknown): BenchFileError => {
  try {
    read();
  } catch (error) {
    if (error instanceof BenchFileError) return error;
    throw error;
  }
  throw new Error('it was taken');
};
const withItems = (items: unknown): string => JSON.stringify({ ...demo, items });

describe('a file with very much wrong in it', () => {
  it('is refused with the first of its problems and the number of them', () => {
    const bad = Array.from({ length: 30_000 }, () => ({ kind: 'drive' }));
    const { problems, count, message } = problemsOf(() => benchFromText(withItems(bad)));
    expect(count).toBeGreaterThanOrEqual(30_000);
    expect(problems.length).toBeLessThanOrEqual(200);
    expect(problems[0]?.path).toMatch(/^items\[0\]\./);
    expect(message).toContain(String(count));
  });
  it('in one record: that record is named', () => {
    const [box] = demo.boxes;
    const parts = Array.from({ length: 300_000 }, () => 7);
    const text = JSON.stringify({ ...demo, boxes: [{ ...box, parts }] });
    expect(problemsOf(() => benchFromText(text)).problems.every((p) => p.path.startsWith('boxes[0]'))).toBe(
      true,
    );
  });
  it('in its references: as many are told', () => {
    const [entry] = demo.log;
    const log = Array.from({ length: 50_000 }, (_, i) => ({ ...entry, id: `l${i}`, boxId: 'nowhere' }));
    const found = problemsOf(() => benchFromText(JSON.stringify({ ...demo, log })));
    expect([found.count, found.problems.length <= 200]).toEqual([50_000, true]);
  });
  it('in a list of systems', () => {
    const found = problemsOf(() => profilesFromText(JSON.stringify(Array.from({ length: 400 }, () => ({})))));
    expect(found.count).toBeGreaterThanOrEqual(400);
    expect(found.problems.length).toBeLessThanOrEqual(200);
    expect(
      problemsOf(() => profilesFromText(JSON.stringify(Array.from({ length: 501 }, () => ({}))))).message,
    ).toContain('501');
  });
  it.each([
    ['items', 7],
    ['items', { length: 3 }],
    ['log', null],
    ['boxes', 'x'],
  ])('where %s is %p', (name, value) =>
    expect(
      problemsOf(() => benchFromText(JSON.stringify({ ...demo, [name]: value }))).problems[0]?.path,
    ).toBe(name),
  );
});

describe('changes', () => {
  /** One after the other, as they are meant; the product does them all at once. */
  const slowly = (bench: Bench, changes: readonly Change[]): Bench =>
    changes.reduce((now, c) => {
      if (c.in === 'name') return { ...now, name: c.to };
      if (!('to' in c)) return theBench.apply(now, [c]);
      const list = now[c.in] as { id: string }[];
      const to = c.to;
      const next =
        to === null
          ? list.filter((x) => x.id !== c.id)
          : list.some((x) => x.id === c.id)
            ? list.map((x) => (x.id === c.id ? to : x))
            : [...list, to];
      return { ...now, [c.in]: next };
    }, bench);
  it('all at once leave what they leave one after the other, in the same order', () => {
    const [entry] = demo.log;
    if (!entry) throw new Error('the demo has no log');
    const change = fc
      .record({ i: fc.nat(8), gone: fc.boolean(), text: fc.string() })
      .map(({ i, gone, text }): Change => {
        const id = demo.log[i]?.id ?? `new-${i}`;
        return { in: 'log', id, to: gone ? null : { ...entry, id, text } };
      });
    const name = fc.string().map((to): Change => ({ in: 'name', id: 'name', to }));
    fc.assert(
      fc.property(fc.array(fc.oneof(change, name), { maxLength: 30 }), (changes) => {
        expect(applyChanges(demo, changes)).toEqual(slowly(demo, changes));
      }),
      { numRuns: 300 },
    );
  });
});

describe('a checksum list that is no list', () => {
  it('says how many lines it could not read, and keeps the first of their numbers', () => {
    const list = parseChecksumList('nonsense\n'.repeat(5000));
    expect([list.unreadCount, list.unread.length, list.unread[999]]).toEqual([5000, 1000, 1000]);
  });
});

describe('text that is very long where little was expected', () => {
  const LONG = 200_000;
  const fillers = [' ', 'a', '9', '\n', ': ', '{', '(', ')=', '"', '====', '\t', 'ab ', '1 ', 'x: 1\n'].map(
    (f) => f.repeat(LONG / f.length),
  );
  const sections = [...SURVEY_SCRIPT.matchAll(/(?:section|====) ([a-z-]+)/g)].map((m) => m[1] ?? '');
  const taken = (work: () => unknown): number => {
    const since = performance.now();
    work();
    return performance.now() - since;
  };
  it('is read in a time that grows with its length and no faster', () => {
    expect(sections.length).toBeGreaterThan(10);
    // What grows with the square of the length takes minutes here.
    for (const filler of fillers) {
      for (const name of sections)
        expect(
          taken(() => readSurvey(`==== machine ====\nx86_64\n==== ${name} ====\n${filler}\n`)),
        ).toBeLessThan(5000);
      for (const head of ['', 'MD5 (', 'SIZE (', `${'a'.repeat(64)} `])
        expect(taken(() => parseChecksumList(head + filler))).toBeLessThan(5000);
      expect(taken(() => parseBytes(`${filler}x`))).toBeLessThan(1000);
    }
  });
});
