import { decideLayout, keepTray, takePrecautions } from '../src/acts/install';
import { tickOpening } from '../src/acts/run';
import { addPhoto, markPhoto } from '../src/acts/shelf';
import { summaryOf } from '../src/box/summary';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { findMachine, photosOf, type Bench, type Box, type Machine, type Store } from '../src/model/bench';
import { applyChanges, type Act } from '../src/model/changes';
import { openingOf, type Opening } from '../src/opening/forBox';
import { openingPlaces } from '../src/opening/places';
import type { PlaceGroup } from '../src/machine/schematic';
import { goesInside, placeFor } from '../src/opening/place';
import { openingHeadline, openingStepWords, placeWords } from '../src/words/opening';
import { untimed } from './untimed';

const demo = saltmarshHall();
let ids = 0;
const stamp = { now: '2026-01-01T00:00:00Z', id: () => `p${(ids += 1)}` };
const boxIn = (bench: Bench, id: string): Box => {
  const found = bench.boxes.find((b) => b.id === id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};
const after = (act: Act, bench: Bench = demo): Bench => applyChanges(bench, act.changes);
const opened = (bench: Bench, id: string): Opening => {
  const opening = openingOf(bench, boxIn(bench, id));
  if ('code' in opening) throw new Error(opening.code);
  return opening;
};
const machine = (id: string, facts: Record<string, unknown> = {}): Machine => {
  const found = findMachine(demo, id);
  if (!found) throw new Error(`no machine ${id}`);
  return {
    ...found,
    facts: {
      ...found.facts,
      ...Object.fromEntries(Object.entries(facts).map(([k, value]) => [k, { entered: { value, at: '' } }])),
    },
  };
};
const drive = (changed: Partial<Store>): Store => {
  const loose = demo.items.find((i) => i.id === 'loose-480');
  return { ...(loose as Store), ...changed };
};

describe('where a drive goes', () => {
  // PCI Express M.2 Specification: lengths in the type code, keys B and M.
  const slots = { 'ports.m2': ['M 2280 nvme x4'], 'ports.sata': 2 };
  const m2 = (length: '2230' | '2280', key: 'B' | 'M' | 'B+M'): Store =>
    drive({ transport: 'nvme', shape: 'M.2', m2: { length, key, lanes: 4 } });
  it.each([
    ['its length and key fit', m2('2280', 'M'), slots, 'fits'],
    ['it is too short for the fixing', m2('2230', 'M'), slots, 'no slot takes it'],
    ['its key is another', m2('2280', 'B'), slots, 'no slot takes it'],
    ['nobody said its length', drive({ transport: 'nvme', shape: 'M.2', m2: null }), slots, 'look'],
    ['a port is free', drive({}), slots, 'fits'],
    ['all ports are taken', drive({}), { 'ports.sata': 1 }, 'ports are taken'],
    ['it is too large for the form', drive({ shape: '3.5 inch' }), slots, 'does not fit the form'],
  ])('%s', (_why, store, facts, code) => {
    const tern = machine('tern', facts);
    const verdict = placeFor(demo, tern, store);
    expect(verdict.code).toBe(code);
    expect(goesInside(demo, tern, store)).toBe(code === 'fits' || code === 'look');
    expect(placeWords(verdict)).not.toBe('');
  });
});

describe('opening the machine of a box', () => {
  it('stays closed where nothing goes in or out', () => {
    expect(openingOf(demo, boxIn(demo, 'archive'))).toEqual({ code: 'stays closed' });
    expect(openingOf(demo, boxIn(demo, 'tea-room-music'))).toEqual({ code: 'no machine' });
    expect(openingHeadline({ code: 'stays closed' })).toMatch(/closed/);
  });

  const film = boxIn(demo, 'film-night');
  const bench = after(takePrecautions(film, ['unplug:tern-ssd'], 'x'));

  it('goes in order: off, mains, cover, photographs, out, cover on, setup; and its places change', () => {
    const opening = opened(bench, 'film-night');
    expect(opening.steps.map((s) => s.what.code)).toEqual([
      'power off',
      'unplug the mains',
      'take the cover off',
      'photograph',
      'take out',
      'put in',
      'count the screws',
      'look in setup',
    ]);
    const places = openingPlaces(bench, boxIn(bench, 'film-night'), opening);
    const sata = (groups: PlaceGroup[]): (string | null)[] =>
      groups.filter((g) => g.title === 'SATA').flatMap((g) => g.places.map((p) => p.holds));
    expect(sata(places.before).join()).toContain('Scans drive');
    expect(sata(places.after)).toEqual(['447 GiB Loose SSD', null]);
    for (const s of opening.steps) expect(openingStepWords(s.what).title).not.toBe('');
  });

  it('counts its minutes once in the ledger, less what is done', () => {
    const opening = opened(bench, 'film-night');
    const hands = (of: Bench): number => summaryOf(untimed(of), boxIn(untimed(of), 'film-night')).hands.low;
    expect(hands(bench) - hands(demo)).toBe((opening.minutes - opened(demo, 'film-night').minutes) * 60);
    const done = after(tickOpening(bench, boxIn(bench, 'film-night'), 'cover', true, stamp), bench);
    expect(hands(done)).toBe(hands(bench) - 4 * 60);
    const again = after(tickOpening(done, boxIn(done, 'film-night'), 'cover', false, stamp), done);
    expect(hands(again)).toBe(hands(bench));
  });

  it('a photograph and a tray that adds up are steps done', () => {
    const tern = machine('tern');
    const shot = after(addPhoto(tern, 'inside', 'data:image/png;base64,AA==', stamp), bench);
    const is = (of: Bench, key: string): boolean | undefined =>
      opened(of, 'film-night').steps.find((s) => s.key === key)?.done;
    expect([is(bench, 'photo'), is(shot, 'photo')]).toEqual([false, true]);
    const [photo] = photosOf(shot, 'tern');
    if (!photo) throw new Error('no photo');
    const marked = after(markPhoto(photo, [{ x: 0.5, y: 0.25, text: 'data plug' }]), shot);
    expect(photosOf(marked, 'tern')[0]?.marks).toEqual([{ x: 0.5, y: 0.25, text: 'data plug' }]);
    const tray = (out: number, back: number): Bench =>
      after(keepTray(boxIn(bench, 'film-night'), [{ hole: 'corners', out, back }]), bench);
    expect([is(tray(4, 3), 'screws'), is(tray(4, 4), 'screws')]).toEqual([false, true]);
  });

  it('a donated drive that goes in is erased first, by its kind; a battery is unplugged', () => {
    // The handheld takes the short drive, which held something.
    const short = demo.items.find((i) => i.id === 'loose-nvme') as Store;
    const gull = machine('gull', { 'ports.m2': ['M 2230 nvme x4', 'M 2230 nvme x4'], 'power.battery': true });
    const items = demo.items.map((i) =>
      i.id === 'gull'
        ? gull
        : i.id === short.id
          ? { ...short, content: { ...must(contentOf('gull-ssd')), starts: [] } }
          : i,
    );
    const asks = demo.profiles.map((p) =>
      p.id === 'lantern-arcade' ? { ...p, installer: 'asks for the drive' as const } : p,
    );
    const other = { ...demo, items, profiles: asks } as Bench;
    const chosen = after(decideLayout(boxIn(other, 'games-corner'), { driveId: short.id }, 'x'), other);
    const opening = opened(chosen, 'games-corner');
    expect(opening.steps.map((s) => s.what.code)).toEqual([
      'erase first',
      'power off',
      'unplug the mains',
      'look at the cells',
      'take the cover off',
      'photograph',
      'unplug the battery',
      'put in',
      'plug the battery in',
      'count the screws',
      'look in setup',
    ]);
    expect(opening.effort.ribbons).toBe(true);
  });
});

const must = <T>(value: T | null | undefined): T => {
  if (value === null || value === undefined) throw new Error('missing');
  return value;
};
const contentOf = (id: string): Store['content'] => (demo.items.find((i) => i.id === id) as Store).content;
