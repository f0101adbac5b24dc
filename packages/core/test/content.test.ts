/**
 * What goes on a box: findings of a folder that holds every one, names by target, plans that never run over anything and can
 * be undone, and trips against trying everything. Real file systems and tools stand in tests/oracle/content.oracle.ts.
 */
import fc from 'fast-check';
import { byStick, overWire, roomAfter } from '@zb/core/content/carry';
import { tracksOfSheet, filesOfList } from '@zb/core/content/discs';
import { lookThrough, toDigest, usuallyTaken } from '@zb/core/content/findings';
import { lookUpName } from '@zb/core/content/lookUp';
import { nameOf } from '@zb/core/units/paths';
import { inOrder, planCopy, undone } from '@zb/core/content/plan';
import { takes } from '@zb/core/content/takes';
import { blockRounding, caseKey, fatRounding, formKey, mended, refusal } from '@zb/core/content/target';
import { leastTrips, packTrips } from '@zb/core/content/trips';
import { usualRules } from '@zb/core/content/usual';
import { endsWhole } from '@zb/core/content/whole';
import { bytesSource } from '@zb/core/formats/source';
import { readManifest, writeManifest } from '@zb/core/content/written';
import { carryingFolder } from '@zb/core/demo/carrying';
import {
  contentTargets,
  type ContentCode,
  type ContentEntry,
  type ContentFinding,
  type ContentTarget,
} from '@zb/core/model/contentRules';
import { purposes } from '@zb/core/model/profile';
import { contentEffect, contentTitle } from '@zb/core/words/carry';
import { unknownStick } from '@zb/core/write/time';
import { runs } from './runs';

const entry = (path: string, bytes = 10, more: Partial<ContentEntry> = {}): ContentEntry => ({
  path,
  bytes,
  modified: 1_700_000_000,
  odd: null,
  sha256: null,
  ...more,
});
const demo = carryingFolder();
const demoEntries = demo.map((f) => entry(f.path, new TextEncoder().encode(f.text).length));
const demoTexts = new Map(demo.filter((f) => /\.(cue|m3u)$/.test(f.path)).map((f) => [f.path, f.text]));
const look = (
  entries: ContentEntry[],
  purpose: (typeof purposes)[number],
  target: ContentTarget,
  texts = new Map<string, string>(),
) => lookThrough({ entries, rules: usualRules(purpose), target }, texts);
const of = (found: ContentFinding[], code: ContentCode): ContentFinding[] =>
  found.filter((f) => f.fault.code === code);

it('the stand-in folder holds every finding that a small folder can hold, over its purposes', () => {
  const large = entry('Films/Regatta (1990).mkv', 5 * 1024 ** 3);
  const long = entry(`Letters/${'ü'.repeat(130)}.txt`);
  const link = entry('Letters/link', 0, { odd: 'link' });
  const same = demoEntries.map((e) =>
    /Letters\/(Quay|Mill)\.txt/.test(e.path) ? { ...e, sha256: 'a'.repeat(64) } : e,
  );
  const codes = new Set(
    (['film', 'music', 'games', 'file store'] as const).flatMap((p) =>
      (['fat', 'ext4'] as const).flatMap((t) =>
        look([...same, large, long, link], p, t, demoTexts).map((f) => f.fault.code),
      ),
    ),
  );
  expect([...codes].sort()).toEqual(
    [
      'differ by case',
      'differ by form',
      'empty',
      'left behind',
      'name refused',
      'name too long',
      'newer and older',
      'not read',
      'not wanted',
      'not whole',
      'packed',
      'part missing',
      'path too long',
      'same bytes',
      'stops look-ups',
      'subtitle alone',
      'too large',
      'track missing',
      'wrong folder',
    ].sort(),
  );
});

it('of every finding there are words, and its files are files of the folder', () => {
  const paths = new Set(demoEntries.map((e) => e.path));
  for (const purpose of purposes)
    for (const target of contentTargets)
      for (const f of look(demoEntries, purpose, target, demoTexts)) {
        expect(contentTitle(f.fault).length).toBeGreaterThan(3);
        expect(contentEffect(f.fault, f.bytes).length).toBeGreaterThan(3);
        expect(f.fault.files.filter((p) => !paths.has(p))).toEqual([]);
        for (const r of f.remedies) expect(paths.has(r.path)).toBe(true);
      }
});

it('what hides another is told by case and by form, on targets that do not tell them apart alone', () => {
  const clash = [
    entry('a/Name.txt'),
    entry('a/NAME.txt'),
    entry('a/Caf\u00e9'),
    entry('a/Cafe\u0301'),
    entry('b/Name.txt'),
  ];
  const fat = look(clash, 'file store', 'fat');
  expect(of(fat, 'differ by case')[0]?.fault.files).toEqual(['a/Name.txt', 'a/NAME.txt']);
  expect(of(fat, 'differ by form')[0]?.fault.files).toEqual(['a/Caf\u00e9', 'a/Cafe\u0301']);
  expect(of(look(clash, 'file store', 'ext4'), 'differ by case')).toEqual([]);
});

it('names as look-ups find them', () => {
  const rules = { brackets: true, apostrophes: true };
  expect(lookUpName('The Ferry (1962) [1080p] [restored].mkv', rules)).toBe('The Ferry (1962).mkv');
  expect(lookUpName('Warden’s Boat.mp4', rules)).toBe("Warden's Boat.mp4");
  expect(lookUpName('Marsh Racer (disc 1) (Europe).cue', rules)).toBe('Marsh Racer (disc 1).cue');
  expect(lookUpName('(all of it).txt', rules)).toBe('(all of it).txt');
  expect(lookUpName('plain.txt', { brackets: false, apostrophes: false })).toBe('plain.txt');
});

it('sheets and lists are read as they are written', () => {
  expect(tracksOfSheet('FILE "a (b).bin" BINARY\r\n  TRACK 01 AUDIO\r\nfile plain.wav WAVE\n')).toEqual([
    'a (b).bin',
    'plain.wav',
  ]);
  expect(filesOfList('\ufeff#EXTM3U\n#EXTINF:1,x\nA\\b.flac\n\nhttps://example.org/x\n')).toEqual([
    'A\\b.flac',
  ]);
  // A name that a sheet calls keeps it, whatever look-ups think of it.
  const texts = new Map([['games/discs/A.cue', 'FILE "A [x].bin" BINARY']]);
  const found = look([entry('games/discs/A.cue'), entry('games/discs/A [x].bin')], 'games', 'fat', texts);
  expect(of(found, 'stops look-ups')).toEqual([]);
  expect(of(found, 'part missing')).toEqual([]);
});

describe('names by target', () => {
  it.each<[string, ContentTarget, string | undefined]>([
    ['aux.txt', 'fat', 'set aside'],
    ['COM1', 'ntfs', 'set aside'],
    ['com10', 'ntfs', undefined],
    ['auxiliary.txt', 'fat', undefined],
    ['what?', 'exfat', 'letter'],
    ['a:b', 'ext4', undefined],
    ['dot.', 'smb', 'end'],
    ['.hidden', 'fat', undefined],
    ['ü'.repeat(127), 'ext4', undefined],
    ['ü'.repeat(128), 'ext4', 'too long'],
    ['ü'.repeat(255), 'fat', undefined],
    ['x'.repeat(256), 'fat', 'too long'],
    ['\ud800', 'fat', 'not text'],
    ['was\ufffdlost', 'ext4', 'not text'],
  ])('%j on %s: %s', (name, target, why) => expect(refusal(name, target)).toBe(why));
  const anyName = fc.oneof(
    fc.string({ unit: 'grapheme', minLength: 1, maxLength: 300 }),
    fc.stringMatching(/^[a-z ?:*"<>|.]{1,20}$/),
    fc.constantFrom('con', 'NUL.txt', 'lpt9.', '...', ' ', 'a'.repeat(400), '\ud83d'),
  );
  it('a mended name is taken, and mending it again changes nothing', () => {
    fc.assert(
      fc.property(anyName, fc.constantFrom(...contentTargets), (name, target) => {
        const good = mended(name.replaceAll('/', ' '), target);
        expect(refusal(good, target)).toBeUndefined();
        expect(mended(good, target)).toBe(good);
        expect(good.length).toBeGreaterThan(0);
      }),
      { numRuns: runs(400) },
    );
  });
});

const segment = fc.constantFrom(
  'a',
  'A',
  'b',
  'b?',
  'é',
  'e\u0301',
  'aux',
  'x.mp3',
  'X.mp3',
  'x (1).mp3',
  '01 one.mp3',
  '02 two.flac',
  '02 two.mp3',
  'n.',
  'Thumbs.db',
  'z.zip',
);
const folders = fc
  .uniqueArray(
    fc.array(segment, { minLength: 1, maxLength: 3 }).map((p) => p.join('/')),
    { minLength: 1, maxLength: 25 },
  )
  // No file is a folder of another.
  .map((paths) => paths.filter((p) => !paths.some((q) => q !== p && q.startsWith(`${p}/`))))
  .chain((paths) =>
    fc
      .array(fc.nat(3), { minLength: paths.length, maxLength: paths.length })
      .map((sizes) => paths.map((p, i) => entry(p, sizes[i] ?? 0))),
  );

it('no plan has two files at one place, and everything is either carried or said to stay', () => {
  fc.assert(
    fc.property(
      folders,
      fc.constantFrom(...contentTargets),
      fc.constantFrom(...purposes),
      (entries, target, purpose) => {
        const found = look(entries, purpose, target);
        const plan = planCopy(entries, found, new Set(usuallyTaken), target);
        expect(plan.files.map((f) => f.from).sort()).toEqual(entries.map((e) => e.path).sort());
        const key = (p: string): string => (target === 'ext4' ? p : caseKey(formKey(p)));
        const to = plan.files.flatMap((f) => (f.to === null ? [] : [key(f.to)]));
        expect(new Set(to).size).toBe(to.length);
        for (const f of plan.files)
          if (f.to !== null && f.to !== f.from) expect(refusal(nameOf(f.to), target)).toBeUndefined();
      },
    ),
    { numRuns: runs(200) },
  );
});

/** Renames done one after the other on a map of names; throws where one would run over something. */
function renamed(
  files: ReadonlyMap<string, number>,
  moves: readonly { from: string; to: string }[],
): Map<string, number> {
  const now = new Map(files);
  for (const { from, to } of moves) {
    const what = now.get(from);
    if (what === undefined) throw new Error(`not there: ${from}`);
    if (now.has(to)) throw new Error(`in the way: ${to}`);
    now.delete(from);
    now.set(to, what);
  }
  return now;
}

it('renames run over nothing in their order, circles too, and undone they leave everything as it was', () => {
  fc.assert(
    fc.property(
      fc
        .uniqueArray(fc.nat(14), { minLength: 1, maxLength: 12 })
        .chain((from) =>
          fc.tuple(
            fc.constant(from),
            fc.shuffledSubarray([...Array(20).keys()], { minLength: from.length, maxLength: from.length }),
          ),
        ),
      ([from, to]) => {
        // Only where nothing that stays is in the way.
        const wanted = from
          .map((f, i) => ({ from: `n${f}`, to: `n${to[i] ?? 0}` }))
          .filter((m) => m.from !== m.to);
        const files = new Map(from.map((f) => [`n${f}`, f]));
        const staying = new Set([...files.keys()].filter((f) => !wanted.some((m) => m.from === f)));
        fc.pre(!wanted.some((m) => staying.has(m.to)));
        const moves = inOrder(wanted);
        const after = renamed(files, moves);
        for (const m of wanted) expect(after.get(m.to)).toBe(files.get(m.from));
        expect(renamed(after, undone(moves))).toEqual(files);
      },
    ),
    { numRuns: runs(400) },
  );
});

describe('trips', () => {
  /** As few as there are, by trying everything. */
  function fewest(sizes: readonly number[], room: number): number {
    let best = sizes.length;
    const trips: number[] = [];
    const put = (i: number): void => {
      if (trips.length >= best) return;
      const size = sizes[i];
      if (size === undefined) {
        best = trips.length;
        return;
      }
      for (let t = 0; t < trips.length; t += 1) {
        if ((trips[t] ?? 0) + size > room) continue;
        trips[t] = (trips[t] ?? 0) + size;
        put(i + 1);
        trips[t] = (trips[t] ?? 0) - size;
      }
      trips.push(size);
      put(i + 1);
      trips.pop();
    };
    put(0);
    return best;
  }
  it('are as few as trying everything finds, and nothing is torn apart or left', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 1, maxLength: 9 }), (sizes) => {
        const found = packTrips(
          sizes.map((bytes, i) => ({ id: String(i), bytes })),
          100,
        );
        expect(found.trips.length).toBe(fewest(sizes, 100));
        expect(found.proven).toBe(true);
        expect(found.trips.flat().sort()).toEqual(sizes.map((_, i) => String(i)).sort());
        for (const t of found.trips)
          expect(t.reduce((n, id) => n + (sizes[Number(id)] ?? 0), 0)).toBeLessThanOrEqual(100);
      }),
      { numRuns: runs(150) },
    );
  });
  it('of many things never more than 11/9 of the bound and one, and the bound is none too high', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 29, maxLength: 300 }), (sizes) => {
        const found = packTrips(
          sizes.map((bytes, i) => ({ id: String(i), bytes })),
          100,
        );
        expect(found.least).toBeLessThanOrEqual(found.trips.length);
        expect(found.trips.length).toBeLessThanOrEqual(
          Math.ceil((11 * Math.max(found.least, sizes.filter((s) => s > 50).length)) / 9) + 6,
        );
        expect(leastTrips(sizes, 100)).toBeLessThanOrEqual(found.trips.length);
      }),
      { numRuns: runs(60) },
    );
  });
  it('what is larger than the stick is said and not lost from sight', () => {
    const found = packTrips(
      [
        { id: 'a', bytes: 200 },
        { id: 'b', bytes: 50 },
      ],
      100,
    );
    expect(found).toMatchObject({ tooLarge: ['a'], trips: [['b']], proven: true });
  });
});

it('sizes are rounded to whole clusters, folders too; what is there already costs nothing new', () => {
  const files = [
    { path: 'a/b/x', bytes: 1 },
    { path: 'a/b/y', bytes: 4096 },
    { path: 'z', bytes: 0 },
  ];
  expect(takes(files, fatRounding(4096))).toEqual({ files: 3, folders: 2, bytes: 4097, rounded: 4 * 4096 });
  expect(takes(files, fatRounding(4096), new Set(['a', 'a/b'])).rounded).toBe(2 * 4096);
  const many = Array.from({ length: 200 }, (_, i) => ({ path: `d/${'n'.repeat(20)}${i}`, bytes: 1 }));
  // 200 names of 23 letters: three entries of 32 bytes each, more than four clusters of 4 KiB.
  expect(takes(many, fatRounding(4096)).rounded).toBe(200 * 4096 + 5 * 4096);
  expect(
    roomAfter(
      [{ from: 'x', to: 'x', bytes: 5000, wire: false, same: null, sha256: null }],
      100_000,
      blockRounding,
    ),
  ).toMatchObject({ takes: 8192, after: 100_000 - 8192 });
});

it('many small files take longer than one large one of as many bytes, by stick and over the wire', () => {
  const plan = (n: number) =>
    Array.from({ length: n }, (_, i) => ({
      from: `d${i % 7}/f${i}`,
      to: `d${i % 7}/f${i}`,
      bytes: 1e9 / n,
      wire: false,
      same: null,
      sha256: null,
    }));
  const stick = { target: unknownStick(null), free: 64e9, rounding: fatRounding(32_768) };
  expect(byStick(plan(10_000), stick, []).seconds.high).toBeGreaterThan(
    byStick(plan(1), stick, []).seconds.high * 1.5,
  );
  const writes = { slow: 60e6, fast: 130e6 };
  expect(overWire(plan(10_000), 1000, writes).low).toBeGreaterThan(overWire(plan(1), 1000, writes).low);
  // 1 GB over 1 Gb/s can never be quicker than the wire itself.
  expect(overWire(plan(1), 1000, { slow: 1e12, fast: 1e12 }).low).toBeGreaterThan(8);
});

it('a list of sums is read back as it was written, whatever is in its names', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(
        fc.string({
          unit: fc.constantFrom('a', ' ', '\n', '\\', '*', '\r', 'é', '/'),
          minLength: 1,
          maxLength: 12,
        }),
        { minLength: 1, maxLength: 8 },
      ),
      (names) => {
        const text = writeManifest(
          names.map((path, i) => ({ path, sha256: i.toString(16).padStart(64, '0') })),
        );
        const read = readManifest(text);
        expect(read.unread).toBe(0);
        expect(new Map(read.lines.map((l) => [l.path, l.sha256]))).toEqual(
          new Map(names.map((n, i) => [n, i.toString(16).padStart(64, '0')])),
        );
      },
    ),
    { numRuns: runs(200) },
  );
});

it('files are digested where another has their size, and nowhere else', () => {
  const wanted = toDigest([
    entry('a', 5),
    entry('b', 5),
    entry('c', 6),
    entry('d', 0),
    entry('e', 0),
    entry('f', 5, { odd: 'link' }),
  ]);
  expect(wanted.map((e) => e.path)).toEqual(['a', 'b']);
});

it('two hundred thousand files are looked through in one go', () => {
  const many = Array.from({ length: 200_000 }, (_, i) =>
    entry(`Music/band ${i % 997}/album ${i % 13}/${String((i % 20) + 1).padStart(2, '0')} song ${i}.flac`, i),
  );
  const found = look(many, 'music', 'smb');
  expect(found.every((f) => f.fault.files.length <= many.length)).toBe(true);
  expect(planCopy(many, found, new Set(usuallyTaken), 'smb').files).toHaveLength(many.length);
});

describe('a file that ends before its time', () => {
  const utf = (text: string): Uint8Array => new TextEncoder().encode(text);
  const latin = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
  const join = (...parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((p) => [...p]));
  const big = (n: number): Uint8Array => Uint8Array.from([n >>> 24, n >>> 16, n >>> 8, n]);
  const box = (type: string, body: Uint8Array): Uint8Array => join(big(body.length + 8), latin(type), body);
  const noise = Uint8Array.from({ length: 400 }, (_, i) => (i * 37 + 11) & 0x7f);
  const little = (n: number): Uint8Array => Uint8Array.from([n, n >>> 8, n >>> 16, n >>> 24]);
  const whole: [string, Uint8Array][] = [
    ['a.zip', join(latin('PK\x03\x04'), noise, latin('PK\x05\x06'), new Uint8Array(18))],
    ['a.wav', join(latin('RIFF'), little(noise.length + 4), latin('WAVE'), noise)],
    ['a.png', join(latin('\x89PNG\r\n\x1a\n'), noise, big(0), latin('IEND'), big(0xae426082))],
    ['a.jpg', join(latin('\xff\xd8'), noise, latin('\xff\xd9'))],
    ['a.pdf', join(utf('%PDF-1.7\n'), noise, utf('\n%%EOF\n'))],
    [
      'a.7z',
      join(
        latin('7z\xbc\xaf\x27\x1c'),
        new Uint8Array(6),
        little(300),
        new Uint8Array(4),
        little(100),
        new Uint8Array(8),
        noise,
      ),
    ],
    ['a.mp4', join(box('ftyp', latin('isom')), box('mdat', noise), box('moov', noise.slice(0, 40)))],
  ];
  it.each(whole)('%s: whole it is taken for whole, and cut anywhere it is not', async (name, bytes) => {
    expect(await endsWhole(name, bytesSource(bytes))).toBe(true);
    for (let n = 1; n < bytes.length - 24; n += 7)
      expect(await endsWhole(name, bytesSource(bytes.subarray(0, n)))).toBe(false);
    const found = look([entry(name)], 'file store', 'smb');
    expect(of(found, 'not whole')).toEqual([]);
    const cut = lookThrough({
      entries: [entry(name)],
      rules: usualRules('file store'),
      target: 'smb',
      cut: new Set([name]),
    });
    expect(of(cut, 'not whole')[0]?.fault.files).toEqual([name]);
  });
  it('says nothing of what it does not know', async () => {
    expect(await endsWhole('a.txt', bytesSource(utf('x')))).toBeUndefined();
    expect(await endsWhole('a.png', bytesSource(new Uint8Array(0)))).toBeUndefined();
  });
});
