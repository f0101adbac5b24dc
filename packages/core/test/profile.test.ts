import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { gatherList } from '@zb/core/gather/list';
import { safetyNotes } from '@zb/core/gather/safety';
import { shoppingList } from '@zb/core/gather/shopping';
import { gatherHeadline, safetyWords, shoppingCsv, thingWords } from '@zb/core/words/gather';
import { blankProfile, draftOf, profileOf, sizeText, type ProfileDraft } from '@zb/core/system/draft';
import {
  LARGEST_FILE,
  previewProfiles,
  profilesFromText,
  profilesToText,
  removeProfile,
  takeProfiles,
} from '@zb/core/system/exchange';
import { findBox, findMachine, type Bench, type Box } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { BenchFileError, benchFromText, benchToText } from '@zb/core/model/file';
import { profileSchema } from '@zb/core/model/profile';
import { parseBytes } from '@zb/core/units/bytes';

const demo = saltmarshHall();
const must = <T>(v: T | undefined): T => {
  if (v === undefined) throw new Error('missing');
  return v;
};

describe('a profile in the editor', () => {
  it('comes back as it went in, for every system of the demo and a blank one', () => {
    for (const p of [...demo.profiles, blankProfile('x')])
      expect(profileOf(draftOf(p))).toEqual({ profile: p });
  });

  it('sizes are typed as people say them, and to the byte where there is no round word', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8e12 }), (n) => expect(parseBytes(sizeText(n))).toBe(n)),
    ));
  it.each([
    [8 * 1024 ** 3, '8 GiB'],
    [16e9, '16 GB'],
    [12345, '12345 bytes'],
  ])('%i is written %s', (n, text) => expect(sizeText(n)).toBe(text));

  const draft = draftOf(must(demo.profiles[0]));
  it.each([
    ['a nameless one', { name: '  ' }, 'name'],
    ['a size without a unit', { needs: { ...draft.needs, memoryBytes: 'much' } }, 'needs.memoryBytes'],
    ['no cores', { needs: { ...draft.needs, cores: '' } }, 'needs.cores'],
    ['half a core', { needs: { ...draft.needs, cores: '1.5' } }, 'needs.cores'],
    ['starting under nothing', { needs: { ...draft.needs, firmware: [] } }, 'needs.firmware'],
    ['a port beyond the last', { admin: { scheme: 'https', port: '70000', path: '/' } }, 'admin.port'],
    ['a page without a port', { admin: { scheme: 'http', port: '', path: '/' } }, 'admin.port'],
    [
      'a day that is none',
      { releases: [{ ...must(draft.releases[0]), supportEnd: '2029-02-30' }] },
      'releases.0.supportEnd',
    ],
    [
      'years in the wrong order',
      { releases: [{ ...must(draft.releases[0]), oldestYear: '2020', newestYear: '2010' }] },
      'releases.0.newestYear',
    ],
    ['no architecture', { releases: [{ ...must(draft.releases[0]), archs: [] }] }, 'releases.0.archs'],
    ['times in the wrong order', { installFrom: '20', installTo: '5' }, 'installTo'],
    ['a time that is none', { installFrom: 'soon' }, 'installFrom'],
  ] as [string, Partial<ProfileDraft>, string][])('refuses %s and names the field', (_what, change, path) => {
    const read = profileOf({ ...draft, ...change });
    expect('problems' in read && read.problems.map((p) => p.path)).toContain(path);
    expect('problems' in read && read.problems.every((p) => p.why !== '')).toBe(true);
  });
});

describe('systems in a file', () => {
  it('round-trips, and reads every form they come in', () => {
    const text = profilesToText(demo.profiles);
    expect(profilesFromText(text)).toEqual(demo.profiles);
    expect(profilesFromText(JSON.stringify(demo.profiles))).toEqual(demo.profiles);
    expect(profilesFromText(JSON.stringify(demo.profiles[0]))).toEqual([demo.profiles[0]]);
    expect(
      profilesFromText(benchToText(demo))
        .map((p) => p.id)
        .sort(),
    ).toEqual(demo.profiles.map((p) => p.id).sort());
  });

  it.each([
    ['no JSON', '{ "profiles": [', /not readable JSON/],
    ['an empty list', '[]', /no system/],
    ['a number', '7', /wrong/],
    ['null', 'null', /wrong/],
    ['a system without needs', JSON.stringify([{ ...demo.profiles[0], needs: undefined }]), /wrong/],
    [
      'one good and one bad',
      JSON.stringify([demo.profiles[0], { ...demo.profiles[1], purpose: 'mining' }]),
      /wrong/,
    ],
    ['the same id twice', JSON.stringify([demo.profiles[0], demo.profiles[0]]), /wrong/],
    ['a file far too large', ' '.repeat(LARGEST_FILE + 1), /characters/],
    ['a depth that would exhaust a reader', '['.repeat(20000) + ']'.repeat(20000), /./],
  ])('refuses %s, whole', (_what, text, words) => {
    let thrown: unknown;
    try {
      profilesFromText(text);
    } catch (error) {
      thrown = error;
    }
    expect(thrown).toBeInstanceOf(BenchFileError);
    expect((thrown as Error).message).toMatch(words);
  });

  it('a hostile file brings no field of its own and touches no prototype', () => {
    const evil = `[{"__proto__":{"polluted":true},"constructor":{"prototype":{"polluted":true}},"run":"rm",${JSON.stringify(demo.profiles[0]).slice(1)}]`;
    const [read] = profilesFromText(evil);
    expect(read).toEqual(demo.profiles[0]);
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
    const name = '<img src=x onerror=alert(1)>';
    expect(profilesFromText(JSON.stringify([{ ...demo.profiles[0], name }]))[0]?.name).toBe(name);
  });

  it('anything but a sound list is refused with words, never with another fault', () =>
    fc.assert(
      fc.property(fc.jsonValue(), (json) => {
        try {
          profilesFromText(JSON.stringify(json));
        } catch (error) {
          expect(error).toBeInstanceOf(BenchFileError);
        }
      }),
    ));

  it('shows what taking them does before it is done', () => {
    const [first, second] = demo.profiles;
    const incoming = [must(first), { ...must(second), about: 'other' }, { ...must(first), id: 'fresh' }];
    expect(previewProfiles(demo, incoming).map((a) => a.does)).toEqual(['is the same', 'replaces', 'is new']);
    const taken = applyChanges(demo, takeProfiles(incoming).changes);
    expect(taken.profiles.length).toBe(demo.profiles.length + 1);
    const gone = applyChanges(
      demo,
      removeProfile(demo, must(demo.profiles.find((p) => p.id === 'coldstore'))).changes,
    );
    expect(findBox(gone, 'archive')?.profileId).toBeNull();
    expect(() => benchFromText(benchToText(gone))).not.toThrow();
    for (const p of taken.profiles) expect(profileSchema.safeParse(p).success).toBe(true);
  });
});

describe('gathering', () => {
  const box = (id: string): Box => must(findBox(demo, id));
  const lines = (bench: Bench, id: string) => gatherList(bench, must(findBox(bench, id))).lines;
  const has = (bench: Bench, id: string, words: RegExp): boolean =>
    lines(bench, id).some((l) => words.test(thingWords(l.thing).what));

  it('derives the list from machine, system and decisions', () => {
    expect(has(demo, 'games-corner', /Dock: USB-C dock/)).toBe(true);
    expect(has(demo, 'games-corner', /charger/i)).toBe(true);
    expect(has(demo, 'film-night', /Loose SSD/)).toBe(true);
    // A bag for what comes out, and for nothing else: here that is a precaution which nobody has taken yet.
    expect(has(demo, 'film-night', /labelled bag/)).toBe(false);
    const taken = {
      ...demo,
      boxes: demo.boxes.map((b) => (b.id === 'film-night' ? { ...b, precautions: ['unplug:tern-ssd'] } : b)),
    };
    expect(has(taken, 'film-night', /labelled bag for “Scans drive”/)).toBe(true);
    expect(has(demo, 'film-night', /PH1/)).toBe(true);
    // Nothing goes into Gull, so no tool is asked for.
    expect(has(demo, 'games-corner', /screwdriver/)).toBe(false);
    expect(has(demo, 'archive', /Network wire/)).toBe(true);
    expect(gatherList(demo, box('tea-room-music')).lines).toEqual([]);
  });

  it('a stick that lies about its size, is kept or in use elsewhere is not taken', () => {
    const sticks = (bench: Bench, id: string) => lines(bench, id).find((l) => l.key === 'stick');
    expect(sticks(demo, 'film-night')?.itemId).toBe('grey');
    const liar: Bench = {
      ...demo,
      items: demo.items.map((i) => (i.id === 'grey' && i.kind === 'stick' ? { ...i, realBytes: 1e9 } : i)),
    };
    expect(sticks(liar, 'film-night')?.itemId).not.toBe('grey');
    const busy: Bench = {
      ...demo,
      boxes: demo.boxes.map((b) => (b.id === 'games-corner' ? { ...b, targetSerial: 'ST08-11B2-05D3' } : b)),
    };
    expect(sticks(busy, 'film-night')?.itemId).not.toBe('grey');
    const none: Bench = { ...demo, items: demo.items.filter((i) => i.kind !== 'stick') };
    expect(sticks(none, 'film-night')).toMatchObject({ where: 'to buy', price: null });
  });

  it('drivers are listed in the order they are installed, and a second stick carries them', () => {
    const desk: Bench = { ...demo, boxes: [{ ...box('booking-host'), profileId: 'harbour-desk' }] };
    const list = lines(desk, 'booking-host');
    expect(list.filter((l) => l.group.startsWith('Drivers')).map((l) => thingWords(l.thing).what)).toEqual([
      '1. network',
      '2. graphics',
      '3. card reader',
      '4. Bluetooth',
      '5. audio amplifier',
      '6. audio codec',
    ]);
    expect(
      list.some((l) => l.key === 'second-stick' && l.itemId !== list.find((x) => x.key === 'stick')?.itemId),
    ).toBe(true);
  });

  it('speaks of what can hurt where it can hurt', () => {
    const notes = (id: string, opens: boolean): string =>
      safetyNotes(demo, must(findMachine(demo, id)), opens)
        .map(safetyWords)
        .join('\n');
    expect(notes('gull', true)).toMatch(/lithium[\s\S]*switch itself on/);
    expect(notes('millrace', false)).toMatch(/two people[\s\S]*local code/);
    expect(notes('old-oak', false)).toMatch(/capacitors hold charge[\s\S]*licensed electrician/);
    expect(notes('clerk', false)).toMatch(/Other people’s data/);
    expect(notes('pebble', false)).toBe('');
  });

  it('ticks count down to an empty headline', () => {
    const list = gatherList(demo, box('film-night'));
    const none = { ...box('film-night'), gathered: [] };
    expect(gatherHeadline(list, none)).toMatch(/still to gather; nothing has to be bought/);
    const all = { ...box('film-night'), gathered: list.lines.map((l) => l.key) };
    expect(gatherHeadline(list, all)).toBe('Everything lies on the bench');
    expect(gatherHeadline({ lines: [], safety: [] }, all)).toMatch(/\?$/);
  });

  it('one list over all boxes: no part is counted on twice, what is bought adds up', () => {
    // Two machines that both need a boot drive, and one loose SSD.
    const music = { ...box('tea-room-music'), machineId: 'slate', profileId: 'millpond-tunes' };
    const bench: Bench = { ...demo, boxes: demo.boxes.map((b) => (b.id === music.id ? music : b)) };
    const list = shoppingList(bench);
    expect(list.lines).toEqual([
      expect.objectContaining({ name: '240 GB SSD, new', boxes: ['Tea-room music'], count: 1, price: 18 }),
    ]);
    expect(list.total).toBe(18);
    expect(list.shelf.find((x) => x.itemId === 'loose-480')?.boxes).toEqual(['Film night']);
    expect(shoppingCsv(list)).toBe(
      '\uFEFFWhat,Count,Price,Together,For\r\n"240 GB SSD, new",1,18.00,18.00,Tea-room music\r\n',
    );
    expect(shoppingList({ ...bench, boxes: [] })).toEqual({ lines: [], shelf: [], total: 0, unpriced: 0 });
  });
});
