/**
 * The first start: lines in an order in which none stands before what it needs, drivers in the trade’s order (PRACTICE: common
 * practice, no source), waiting, passwords, keys, gamepads.
 */
import fc from 'fast-check';
import {
  addRound,
  beginFirst,
  firstAnswered,
  keepPad,
  leaveFirst,
  passwordSet,
  setFirst,
  tickFirst,
} from '@zb/core/acts/firstStart';
import { hazards } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { driverKind, driverOrder, kindsBefore } from '@zb/core/system/drivers';
import { bundleFrom } from '@zb/core/firststart/files';
import { bundleOf, firstStartOf, type FirstStart } from '@zb/core/firststart/forBox';
import { keyVerdict, keysAsked } from '@zb/core/firststart/keys';
import { inOrder } from '@zb/core/firststart/order';
import {
  beginTrial,
  comparePads,
  deadZone,
  padFindings,
  padOf,
  REST_READINGS,
  seen,
  type PadMoment,
} from '@zb/core/firststart/pads';
import { evenDraw, passphrase, passphraseBits } from '@zb/core/firststart/passphrase';
import { strengthOf, wordList } from '@zb/core/firststart/strength';
import { updatesLeft } from '@zb/core/firststart/waiting';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import type { Bench, Box } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { noFirst, usualFirst } from '@zb/core/model/firstStart';
import type { Profile } from '@zb/core/model/profile';
import { codeCells, labelParts, labelSizes } from '@zb/core/network/label';
import { draftOf, profileOf } from '@zb/core/system/draft';
import { firstHeadline, firstLineTitle, firstWhyWords } from '@zb/core/words/firstStart';
import { strengthWords, willDo } from '@zb/core/words/password';
import { runs } from './runs';

const demo = saltmarshHall();
const stamp = { now: '2026-03-05T20:00:00.000Z', id: () => 'x' };
const boxOf = (bench: Bench, id: string): Box => {
  const found = bench.boxes.find((b) => b.id === id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};
const listOf = (bench: Bench, id: string): FirstStart => {
  const found = firstStartOf(bench, boxOf(bench, id));
  if ('code' in found) throw new Error(found.code);
  return found;
};
const withProfile = (bench: Bench, id: string, change: Partial<Profile>): Bench => ({
  ...bench,
  profiles: bench.profiles.map((p) => (p.id === id ? { ...p, ...change } : p)),
});
/** No line stands before what it needs, if that is in the list. */
function sound(found: FirstStart): void {
  const at = new Map(found.lines.map((l, i) => [l.key, i]));
  expect(new Set(found.lines.map((l) => l.key)).size).toBe(found.lines.length);
  for (const l of found.lines)
    for (const a of l.after) expect(at.get(a) ?? -1).toBeLessThan(at.get(l.key) ?? 0);
}

const graphs = fc.integer({ min: 1, max: 9 }).chain((n) =>
  fc
    .array(fc.tuple(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: n })), { maxLength: 16 })
    .map((edges) =>
      Array.from({ length: n }, (_, i) => ({
        key: `k${i}`,
        after: edges.filter(([a]) => a === i).map(([, b]) => `k${b}`),
      })),
    ),
);

test('no line before what it needs; circles and what is missing are named', () => {
  fc.assert(
    fc.property(graphs, (lines) => {
      const { order, faults } = inOrder(lines);
      const keys = new Set(lines.map((l) => l.key));
      const at = new Map(order.map((l, i) => [l.key, i]));
      for (const l of order)
        for (const a of l.after) if (keys.has(a)) expect(at.get(a)).toBeLessThan(at.get(l.key) ?? -1);
      const missing = lines
        .flatMap((l) => l.after.filter((a) => !keys.has(a)).map((a) => `${l.key} ${a}`))
        .sort();
      expect(faults.flatMap((f) => (f.code === 'missing' ? [`${f.key} ${f.wants}`] : [])).sort()).toEqual(
        missing,
      );
      // What stays out waits, in the end, for itself: a circle is named exactly where something stays out.
      const circle = faults.find((f) => f.code === 'circle');
      expect(circle !== undefined).toBe(order.length < lines.length);
      if (circle?.code === 'circle')
        circle.keys.forEach((key, i) => {
          const next = circle.keys[(i + 1) % circle.keys.length] ?? '';
          expect(lines.find((l) => l.key === key)?.after).toContain(next);
        });
    }),
    { numRuns: runs(400) },
  );
});

test('drivers go in as the trade has them: chipset, network, graphics, card reader, Bluetooth; amplifier before codec', () => {
  fc.assert(
    fc.property(
      fc.shuffledSubarray([...driverOrder, 'fan control'], { minLength: 1 }),
      fc.boolean(),
      (drivers, kernel) => {
        const bench = withProfile(demo, 'lantern-arcade', { drivers });
        const machines = bench.items.map((i) =>
          i.kind === 'machine' && i.id === 'gull'
            ? {
                ...i,
                networkPorts: [
                  {
                    name: 'eth0',
                    kind: 'wired' as const,
                    driver: null,
                    speedMbps: 1000,
                    family: kernel ? ('in-kernel' as const) : ('out-of-tree' as const),
                    hardware: null,
                  },
                ],
              }
            : i,
        );
        const found = listOf({ ...bench, items: machines }, 'games-corner');
        sound(found);
        expect(found.faults).toEqual([]);
        const order = found.lines.flatMap((l) => (l.code === 'driver' ? [driverKind(l.of ?? '')] : []));
        const known = order.flatMap((k) => k ?? []);
        const five = driverOrder.slice(0, 5);
        expect(known.filter((k) => five.includes(k))).toEqual(five.filter((k) => known.includes(k)));
        const audio = known.filter((k) => k.startsWith('audio'));
        expect(audio).toEqual(['audio amplifier', 'audio codec'].filter((k) => known.includes(k as never)));
        // Updates before drivers where the network works by itself, after them where it does not.
        const updates = found.lines.findIndex((l) => l.code === 'updates');
        const first = found.lines.findIndex((l) => l.code === 'driver');
        const works = kernel || !drivers.includes('network');
        expect(updates < first).toBe(works);
        if (!works)
          expect(found.lines.findIndex((l) => l.key === 'driver network')).toBeLessThan(
            found.lines.findIndex((l) => l.code === 'network'),
          );
      },
    ),
    { numRuns: runs(120) },
  );
  expect(kindsBefore('bluetooth')).toEqual(['chipset', 'network', 'graphics', 'card reader']);
});

test('every box of the demo has a sound list, and every line is said', () => {
  for (const box of demo.boxes) {
    const found = firstStartOf(demo, box);
    expect(firstHeadline(found, box.name)).not.toMatch(/undefined/);
    if ('code' in found) continue;
    sound(found);
    for (const l of found.lines) {
      expect(firstLineTitle(l)).not.toBe('');
      expect(firstWhyWords(l.why)).not.toMatch(/undefined|null/);
      expect(l.seconds.low).toBeLessThanOrEqual(l.seconds.high);
    }
  }
});

test('the list follows machine, system and decisions', () => {
  const games = listOf(demo, 'games-corner').lines.map((l) => l.code);
  expect(games).toEqual(
    expect.arrayContaining([
      'rotation',
      'way round the network',
      'gamepads paired',
      'gamepads mapped',
      'channel',
      'channel, second place',
    ]),
  );
  expect(games).not.toContain('password');
  // The channel is switched before updates are taken from it, in both places.
  expect(games.lastIndexOf('channel, second place')).toBeLessThan(games.indexOf('updates'));
  const archive = listOf(demo, 'archive').lines.map((l) => l.code);
  expect(archive).toEqual(expect.arrayContaining(['memory test', 'password', 'shell']));
  expect(archive[0]).toBe('memory test');
  expect(archive.indexOf('keyboard')).toBeLessThan(archive.indexOf('password'));
  expect(archive.indexOf('password')).toBeLessThan(archive.indexOf('network'));
});

test('while the shipped password stands and others reach the box, the stop is not signed off without a reason', () => {
  const bench = withProfile(demo, 'coldstore', { login: 'shipped default' });
  const codes = (b: Bench): string[] =>
    hazards(b, boxOf(b, 'archive'))
      .filter((h) => h.grade === 'stop')
      .map((h) => h.code);
  const fresh = { ...bench, boxes: bench.boxes.map((b) => ({ ...b, first: null })) };
  expect(codes(fresh)).toContain('default password stands');
  const kept = applyChanges(fresh, passwordSet(boxOf(fresh, 'archive'), 'book', 'two', false, stamp).changes);
  expect(codes(kept)).toContain('default password stands');
  const done = applyChanges(fresh, passwordSet(boxOf(fresh, 'archive'), 'book', 'two', true, stamp).changes);
  expect(codes(done)).not.toContain('default password stands');
  expect(listOf(done, 'archive').lines.find((l) => l.code === 'default password')?.done).toBe(true);
});

test('no password is anywhere on the bench: where it is kept and who knows it, nothing else', () => {
  const act = passwordSet(boxOf(demo, 'archive'), 'green book', 'two people', true, stamp);
  const after = applyChanges(demo, act.changes);
  expect(Object.keys(boxOf(after, 'archive').first?.password ?? {}).sort()).toEqual([
    'at',
    'kept',
    'knows',
    'replaced',
  ]);
});

test('updates are done when nothing is offered, and what is left is foretold from the rounds there were', () => {
  let bench: Bench = { ...demo, boxes: demo.boxes.map((b) => ({ ...b, first: null })) };
  const apply = (make: (box: Box) => { changes: Parameters<typeof applyChanges>[1] }): void => {
    bench = applyChanges(bench, make(boxOf(bench, 'archive')).changes);
  };
  expect(updatesLeft(usualFirst(), noFirst()).high).toBeGreaterThan(0);
  apply((b) => addRound(b, 40, 300, stamp));
  const record = boxOf(bench, 'archive').first ?? noFirst();
  expect(updatesLeft({ ...usualFirst(), rounds: [2, 4] }, record)).toEqual({ low: 300, high: 900 });
  expect(listOf(bench, 'archive').lines.find((l) => l.code === 'updates')?.done).toBe(false);
  apply((b) => addRound(b, 0, null, stamp));
  expect(listOf(bench, 'archive').lines.find((l) => l.code === 'updates')?.done).toBe(true);
  // Something new may be offered again.
  apply((b) => addRound(b, 3, 60, stamp));
  expect(listOf(bench, 'archive').lines.find((l) => l.code === 'updates')?.done).toBe(false);
});

test('the first start is timed from the button to the answer, and the log keeps it', () => {
  let bench: Bench = { ...demo, boxes: demo.boxes.map((b) => ({ ...b, first: null })) };
  bench = applyChanges(bench, beginFirst(boxOf(bench, 'archive'), stamp).changes);
  const later = { ...stamp, now: '2026-03-05T20:11:00.000Z' };
  bench = applyChanges(bench, firstAnswered(boxOf(bench, 'archive'), later).changes);
  expect(boxOf(bench, 'archive').first?.seconds).toBe(660);
  expect(bench.log.find((e) => e.id === 'x')?.text).toContain('11 min');
});

test('lines are ticked, left out and taken in again, and what was set is kept', () => {
  const box = boxOf(demo, 'games-corner');
  let bench = applyChanges(demo, tickFirst(box, 'language', true, '').changes);
  bench = applyChanges(bench, leaveFirst(boxOf(bench, box.id), 'zone', true, '').changes);
  bench = applyChanges(bench, setFirst(boxOf(bench, box.id), 'language', 'English', '').changes);
  const line = (key: string) => listOf(bench, box.id).lines.find((l) => l.key === key);
  expect([line('language')?.done, line('zone')?.left]).toEqual([true, true]);
  expect(boxOf(bench, box.id).first?.set).toEqual({ language: 'English' });
  bench = applyChanges(bench, leaveFirst(boxOf(bench, box.id), 'zone', false, '').changes);
  expect(line('zone')?.left).toBe(false);
});

test('drivers that were fetched are found by their names and held against a list', () => {
  const sha = (c: string): string => c.repeat(64);
  const list = parseChecksumList(`${sha('a')}  graphics-7.run\n${sha('b')}  wifi.tar.gz\n`);
  const files = [
    { file: 'graphics-7.run', bytes: 10, sha256: sha('a') },
    { file: 'wifi.tar.gz', bytes: 20, sha256: sha('c') },
    { file: 'readme.md', bytes: 5, sha256: sha('d') },
  ];
  const bundle = bundleFrom(files, ['graphics', 'network'], list);
  expect(bundle.map((b) => [b.driver, b.matches])).toEqual([
    ['graphics', true],
    ['network', false],
    ['', null],
  ]);
  const box = { ...boxOf(demo, 'games-corner'), first: { ...noFirst(), bundle } };
  const bench = { ...demo, boxes: demo.boxes.map((b) => (b.id === box.id ? box : b)) };
  expect(bundleOf(bench, box).lines.find((l) => l.driver === 'network')).toMatchObject({
    needed: true,
    files: [{ file: 'wifi.tar.gz' }],
  });
  expect(hazards(bench, box).map((h) => h.code)).toContain('driver differs');
});

test('a passphrase: 7,776 words, 12.925 bits each (the published figures of the list), drawn without a lean', () => {
  expect(wordList).toHaveLength(7776);
  expect(new Set(wordList).size).toBe(7776);
  expect(passphraseBits(7776, 1)).toBeCloseTo(12.925, 3);
  expect(passphraseBits(7776, 6)).toBeCloseTo(77.55, 2);
  let n = 0;
  const made = passphrase(wordList, 6, (size) => (n += 1297) % size);
  expect(made.split('-').length).toBeGreaterThanOrEqual(6);
  // Bytes that would lean towards the first words are thrown away.
  const bytes = [
    [255, 255, 255, 255],
    [0, 0, 0, 5],
  ];
  expect(evenDraw(() => Uint8Array.from(bytes.shift() ?? [0, 0, 0, 0]))(7)).toBe(5);
  const counts = [0, 0, 0, 0, 0];
  let x = 1;
  const draw = evenDraw((count) =>
    Uint8Array.from({ length: count }, () => (x = (Math.imul(x, 1664525) + 1013904223) >>> 0) >>> 24),
  );
  for (let i = 0; i < 5000; i += 1) counts[draw(5)] = (counts[draw(5)] ?? 0) + 1;
  for (const c of counts) expect(c).toBeGreaterThan(800);
  expect(() => evenDraw(() => new Uint8Array(4))(0)).toThrow(RangeError);
});

test('strength is told as whoever guesses would see it', () => {
  for (const easy of ['password', 'qwertyuiop', '12345678', 'admin1', 'aaaaaaaaaa'])
    expect(willDo(strengthOf(easy))).toBe(false);
  const six = strengthOf('celibate-fanciness-observing-trace-muskiness-dainty');
  expect(willDo(six)).toBe(true);
  expect(strengthWords(six)).toMatch(/strong/);
  expect(strengthOf('').score).toBe(0);
  // A password repeated is no longer password; one that is longer than anybody guesses is strong.
  expect(strengthOf('aB3$'.repeat(50)).score).toBeLessThan(3);
  expect(strengthOf(wordList.slice(0, 400).join('-')).score).toBe(4);
});

test('keys that were pressed tell the layout', () => {
  const press = (keys: string[]) => keysAsked.map((k, i) => ({ code: k.code, key: keys[i] ?? '' }));
  expect(keyVerdict(press(['q', 'z', 'ö', 'ß']))).toEqual({ code: 'layout', layout: 'german' });
  expect(keyVerdict(press(['A', 'y', 'm', ')']))).toEqual({ code: 'layout', layout: 'french' });
  expect(keyVerdict(press(['x', 'x', 'x', 'x']))).toMatchObject({ code: 'not known' });
  expect(keyVerdict([{ code: 'KeyW', key: 'w' }])).toMatchObject({ code: 'other key' });
});

const moment = (more: Partial<PadMoment> = {}): PadMoment => ({
  name: 'pad',
  standard: true,
  buttons: [0, 0, 0],
  axes: [0, 0],
  ...more,
});

test('a gamepad is whole when every button was pressed, every end reached, and its rest measured', () => {
  let trial = beginTrial(moment());
  const look = (m: PadMoment, off = false): void => void (trial = seen(trial, m, off));
  expect(padFindings(padOf(trial, {}, ''), false).map((f) => f.code)).toEqual([
    'not pressed',
    'stick does not reach',
    'stick does not reach',
    'stick does not reach',
    'stick does not reach',
    'not at rest yet',
  ]);
  for (let i = 0; i < 3; i += 1) look(moment({ buttons: [0, 1, 2].map((b) => (b === i ? 1 : 0)) }));
  for (const axes of [
    [-1, 0],
    [1, 0],
    [0, -1],
    [0, 1],
  ])
    look(moment({ axes }));
  for (let i = 0; i < REST_READINGS; i += 1) look(moment({ axes: [0.02, i % 2 === 0 ? 0.01 : -0.01] }), true);
  const pad = padOf(trial, {}, '2026-01-01T00:00:00.000Z');
  expect(padFindings(pad, true)).toEqual([]);
  expect(pad.axes[0]?.rest).toBeCloseTo(0.02, 6);
  expect(pad.axes[1]?.drift).toBeCloseTo(0.01, 6);
  expect(deadZone(pad)).toBeCloseTo(0.02, 6);
  // Readings at rest move no end, and a hand on it no rest.
  expect(pad.axes[0]).toMatchObject({ least: -1, most: 1 });
  expect(
    applyChanges(demo, keepPad(boxOf(demo, 'games-corner'), pad).changes).boxes.find(
      (b) => b.id === 'games-corner',
    )?.first?.pads,
  ).toEqual([pad]);
});

test('triggers are told from buttons by being seen in between; worn sticks and short triggers are said', () => {
  let trial = beginTrial(moment());
  for (const value of [0.2, 0.6, 0.8]) trial = seen(trial, moment({ buttons: [value, 0, 0] }), false);
  for (let i = 0; i < REST_READINGS; i += 1)
    trial = seen(trial, moment({ axes: [0.2, i % 2 === 0 ? 0.2 : -0.2] }), true);
  const pad = padOf(trial, {}, '');
  expect(pad.triggers).toEqual({ 0: 0.8 });
  const codes = padFindings(pad, true).map((f) => f.code);
  expect(codes).toEqual(expect.arrayContaining(['trigger does not reach', 'rests off the middle', 'drifts']));
  // A pad may say anything; nothing of it leaves its bounds.
  const wild = padOf(
    seen(trial, moment({ buttons: [7, -3, Number.NaN], axes: [Number.NaN, 9] }), false),
    {},
    '',
  );
  for (const a of wild.axes) expect(Math.abs(a.most)).toBeLessThanOrEqual(1);
});

test('two pads held against each other', () => {
  const a = padOf(beginTrial(moment()), { 'lower face button': 0 }, '');
  const b = { ...a, name: 'other', standard: false, buttons: 4, layout: { 'lower face button': 1 } };
  expect(comparePads(a, a)).toEqual([]);
  expect(comparePads(a, b).map((d) => d.code)).toEqual([
    'another name',
    'standard and not',
    'other count',
    'answers otherwise',
  ]);
});

test('a label has its code with a quiet zone, and nothing stands over its edge', () => {
  for (const size of labelSizes)
    for (const name of ['Archive', 'A box with a name that is far too long for any label there is']) {
      const parts = labelParts(
        { name, lines: ['archive.hall.home.arpa', '10.44.8.20', 'file store'], page: 'https://10.44.8.20/' },
        size,
      );
      for (const p of parts) {
        if (p.kind === 'code') {
          const cell = p.side / p.cells.length;
          expect(p.x).toBeGreaterThanOrEqual(4 * cell);
          expect(p.y).toBeGreaterThanOrEqual(2);
          expect(p.cells.length).toBe(codeCells('https://10.44.8.20/').length);
          // ISO/IEC 18004: 21 cells and 4 more for each version, a finder in three corners.
          expect((p.cells.length - 21) % 4).toBe(0);
          expect([p.cells[0]?.[0], p.cells[0]?.at(-1), p.cells.at(-1)?.[0]]).toEqual([true, true, true]);
        } else {
          expect(p.x + p.text.length * p.size * 0.56).toBeLessThanOrEqual(size.width - 1.9);
          expect(p.y).toBeLessThanOrEqual(size.height);
        }
      }
    }
});

test('what is typed of a system’s first start comes back as it was', () => {
  for (const p of demo.profiles) expect(profileOf(draftOf(p))).toEqual({ profile: p });
  const [profile] = demo.profiles as [Profile];
  const draft = draftOf(profile);
  const wrong = profileOf({ ...draft, first: { ...draft.first, roundsFrom: '5', roundsTo: '2' } });
  expect('problems' in wrong && wrong.problems.map((p) => p.path)).toEqual(['first.roundsTo']);
  const bad = profileOf({ ...draft, first: { ...draft.first, blackFrom: 'x' } });
  expect('problems' in bad && bad.problems.map((p) => p.path)).toContain('first.blackFrom');
});
