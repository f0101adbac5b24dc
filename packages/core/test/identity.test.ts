import fc from 'fast-check';
import { beginFromImage, callIt } from '@zb/core/acts/profiles';
import { summaryOf } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { readDiscLine, readTreeInfo } from '@zb/core/formats/discInfo';
import { readElf } from '@zb/core/formats/elf';
import { readOsRelease } from '@zb/core/formats/osRelease';
import { bytesSource } from '@zb/core/formats/source';
import { readImageItem } from '@zb/core/model/blank';
import type { Bench, ImageItem, Profile } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { benchFromText, benchToText } from '@zb/core/model/file';
import type { ImageIdentity } from '@zb/core/model/imageIdentity';
import { contentOf, inspectionSchema } from '@zb/core/model/inspection';
import { draftOf, profileOf } from '@zb/core/system/draft';
import { profileFromImage, settled } from '@zb/core/system/fromImage';
import { judge } from '@zb/core/system/judge';
import { notSaid } from '@zb/core/system/notSaid';
import { kernelYear } from '@zb/core/system/kernelYears';
import { hazardWords } from '@zb/core/words/hazard';
import { originWords } from '@zb/core/words/origin';
import { machine, silent, wants } from './fitting';

const demo = saltmarshHall();
const must = <T>(x: T | undefined): T => {
  if (x === undefined) throw new Error('not in the demo');
  return x;
};
const profile = must(demo.profiles[0]);
/** An image that was read, and starts by UEFI. */
const image = readImageItem(
  'gull-4.1.img',
  inspectionSchema.parse({
    bytes: 50e6,
    layout: 'gpt',
    parts: [],
    outcomes: [
      {
        firmware: 'uefi-x64',
        attached: 'disk',
        starts: 'yes',
        reason: { code: 'optical volume only' },
        evidence: [],
      },
    ],
    regions: [],
    findings: [],
    rules: 4,
    container: { kind: 'none' },
  }),
  'gull',
);
/** A box with that system and that image. */
const box = {
  ...must(demo.boxes[0]),
  imageId: image.id,
  profileId: profile.id,
  releaseId: null,
  variantId: null,
};
const nowhere = { code: 'volume label', place: { of: 'optical volume' } } as const;
const said = (value: string): ImageIdentity['name'] => ({ value, from: nowhere });

/** The demo with its image saying this of itself, and the system as given. */
function where(identity: Partial<ImageIdentity>, system: Partial<Profile> = {}): Bench {
  const inspection = must(image.inspection ?? undefined);
  const reading = { ...contentOf(inspection), identity: { ...silent, ...identity } };
  const read: ImageItem = {
    ...image,
    inspection: inspection.inner ? { ...inspection, inner: reading } : { ...inspection, ...reading },
  };
  return applyChanges(demo, [
    { in: 'items', id: image.id, to: read },
    { in: 'profiles', id: profile.id, to: { ...profile, ...system } },
    { in: 'boxes', id: box.id, to: box },
  ]);
}
const hazardsOf = (bench: Bench) => summaryOf(bench, must(bench.boxes.find((b) => b.id === box.id))).hazards;
const codes = (bench: Bench): string[] => hazardsOf(bench).map((h) => `${h.grade} ${h.code}`);
const release = must(profile.releases[0]);
const only = { releases: [{ ...release, version: '12', archs: ['x86_64' as const] }] };

describe('the image against what was chosen', () => {
  it('for another processor than the release is built for: do not go on', () => {
    const bench = where({ archs: [{ value: 'aarch64', from: nowhere }] }, only);
    expect(codes(bench)).toContain('stop for another processor');
    const right = where({ archs: [{ value: 'x86_64', from: nowhere }] }, only);
    expect(codes(right)).not.toContain('stop for another processor');
  });

  it('calls itself something nobody has said to be this system: told; something else than its images do: looked at', () => {
    expect(codes(where({ name: said('Tern') }))).toContain('note calls itself otherwise');
    const bench = where({ name: said('Tern') }, { calls: ['Gull'] });
    expect(codes(bench)).toContain('check calls itself otherwise');
    const known = applyChanges(
      bench,
      callIt(must(bench.profiles.find((p) => p.id === profile.id)), 'Tern').changes,
    );
    expect(codes(known).join()).not.toContain('calls itself');
  });

  it.each([
    ['11', true],
    ['12.5', false],
    ['12', false],
    ['1', true],
  ])('says it is version %s, and 12 was chosen: looked at %s', (version, told) => {
    const bench = where({ name: said('Gull'), version: said(version) }, { ...only, calls: ['gull'] });
    expect(codes(bench).includes('check of another release')).toBe(told);
  });

  it('says it is the variant that was not chosen', () => {
    const variants = [
      { id: 'a', name: 'Plain', drivers: ['in-kernel' as const] },
      { id: 'b', name: 'Closed', drivers: ['out-of-tree' as const] },
    ];
    const system = { variants, calls: ['Gull'] };
    const of = (variant: string): string[] =>
      codes(where({ name: said('Gull'), variant: said(variant) }, system));
    expect(of('closed')).toContain('check of another variant');
    expect(of('plain').join()).not.toContain('variant');
  });

  it('holds far too little for a system that wants such a drive', () => {
    const wants = (bootBytes: number): string[] =>
      codes(where({}, { needs: { ...profile.needs, bootBytes } }));
    const { bytes } = contentOf(must(image.inspection ?? undefined));
    expect(wants(bytes * 300)).toContain('check small for its system');
    expect(wants(bytes * 100)).not.toContain('check small for its system');
  });

  it('every one of them has words with what it is about', () => {
    const bench = where(
      { name: said('Tern'), version: said('9'), archs: [{ value: 'aarch64', from: nowhere }] },
      { ...only, calls: ['Gull'], needs: { ...profile.needs, bootBytes: 1e15 } },
    );
    for (const h of hazardsOf(bench)) expect(hazardWords(h)).not.toMatch(/undefined|NaN/);
  });
});

describe('a system begun from an image', () => {
  const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => 'begun' };
  const begun = must(beginFromImage(image, stamp));

  it('is kept, saved and opened with its origins', () => {
    const bench = applyChanges(demo, begun.changes);
    const again = benchFromText(benchToText(bench)).profiles.find((p) => p.id === 'begun');
    expect(again).toEqual(begun.profile);
  });

  it('says of every value where it is from, and no value stands without', () => {
    for (const origin of Object.values(begun.profile.origins)) expect(originWords(origin)).not.toBe('');
    expect(notSaid(begun.profile)).toContain('needs.memoryBytes');
  });

  it('is not begun from an image that was never read', () =>
    expect(profileFromImage({ ...image, inspection: null }, 'x')).toBeUndefined());

  it('values that somebody changes are theirs; the others keep their origin', () => {
    const draft = draftOf(begun.profile);
    const read = profileOf({ ...draft, needs: { ...draft.needs, memoryBytes: '3 GiB' } });
    if ('problems' in read) throw new Error(JSON.stringify(read.problems));
    const saved = settled(begun.profile, read.profile);
    expect(notSaid(saved)).not.toContain('needs.memoryBytes');
    expect(notSaid(saved)).toContain('needs.cores');
    const { 'needs.cores': _, ...right } = saved.origins;
    expect(notSaid(settled(saved, { ...saved, origins: right }))).not.toContain('needs.cores');
  });

  it('a release that moves to the place of another takes nothing from it', () => {
    const second = { ...must(begun.profile.releases[0]), id: 'r2' };
    const after = settled(begun.profile, { ...begun.profile, releases: [second] });
    expect(Object.keys(after.origins).filter((p) => p.startsWith('releases'))).toEqual([]);
  });

  it('needs that are guesses decide nothing: what would fit cannot be said yet', () => {
    expect(judge(machine(), wants()).verdict).toBe('fits');
    const guessed = { ...wants(), origins: { 'needs.memoryBytes': { code: 'not said' as const } } };
    expect(judge(machine(), guessed).verdict).toBe('cannot say yet');
    const other = { ...wants(), origins: { swap: { code: 'not said' as const } } };
    expect(judge(machine(), other).verdict).toBe('fits');
  });

  it('guesses are told where the system is chosen', () => {
    const bench = where({}, { origins: { 'needs.cores': { code: 'not said' } } });
    expect(codes(bench)).toContain('check system not all said');
  });
});

describe('texts and programs', () => {
  // os-release(5), “Example”, and its rules for quotes.
  it('os-release: quotes and backslashes as a shell takes them, comments passed over', () => {
    const keys = readOsRelease('# it\nNAME="A \\$B"\nID=a\nVERSION_ID=\'9\'\nbad line\nID=b\n');
    expect([...keys]).toEqual([
      ['NAME', 'A $B'],
      ['ID', 'b'],
      ['VERSION_ID', '9'],
    ]);
  });

  it('a disc’s line: name, version, processor; one without a version is a name', () => {
    expect(readDiscLine('Gull_Box_4.1_arm64')).toEqual({ name: 'Gull Box', version: '4.1', arch: 'arm64' });
    expect(readDiscLine('GULL')).toEqual({ name: 'GULL', version: undefined, arch: undefined });
    expect(
      readTreeInfo('[general]\nname = Gull 4\nfamily = Gull\nversion = 4\narch = x86_64\n[tree]\narch = b'),
    ).toEqual({ name: 'Gull', version: '4', arch: 'x86_64' });
  });

  // Dates of release of the kernel, kernel.org, from memory.
  it.each([
    ['6.1.0-3-amd64 (build@host)', 2022],
    ['5.10.0', 2020],
    ['4.19.0-5', 2018],
    ['2.6.32', 2003],
    ['no version', undefined],
  ])('a kernel %s is of %s', (version, year) => expect(kernelYear(version)).toBe(year));

  it('property: no bytes and no text break a reader', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 400 }), fc.string(), async (bytes, text) => {
        const elf = Uint8Array.from([0x7f, 0x45, 0x4c, 0x46, 2, 1, 1, ...bytes]);
        elf.set([62, 0], 18 < elf.length - 1 ? 18 : 0);
        await readElf(bytesSource(elf));
        readOsRelease(text);
        readDiscLine(text);
        readTreeInfo(`[general]${text}`);
      }),
    );
  });
});
