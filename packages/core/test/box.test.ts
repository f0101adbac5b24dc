import { ladderHeadline } from '@zb/core/words/ladder';
import fc from 'fast-check';
import { afterWrite } from '@zb/core/write/after';
import { factApplies } from '@zb/core/machine/applies';
import { timeAxis } from '@zb/core/box/axis';
import { firmwareOf } from '@zb/core/machine/firmware';
import { bootLadder } from '@zb/core/starting/ladder';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { depotImages } from '@zb/core/demo/depot';
import { contentPartSchema, emptyContent } from '@zb/core/model/content';
import { inspectionSchema } from '@zb/core/model/inspection';
import { imageHeadline, verifyHeadline } from '@zb/core/words/image';
import { inspectImage } from '@zb/core/starting/inspect';
import { bytesSource } from '@zb/core/formats/source';
import { benchLedger } from '@zb/core/box/benchLedger';
import { hazards, summaryOf as ledger, boxLine, currentStop, route } from '@zb/core/box/summary';
import { hazardWords } from '@zb/core/words/hazard';
import { buildSheet } from '@zb/core/words/buildSheet';
import { keepHeadline } from '@zb/core/words/logbook';
import { measuredWrites } from '@zb/core/box/measured';
import { writeHeadline } from '@zb/core/words/write';
import {
  findBox,
  findMachine,
  type Bench,
  type Box,
  type ImageItem,
  type Machine,
  type Profile,
  type Store,
} from '@zb/core/model/bench';
import { noDetails, type BootEntry } from '@zb/core/model/details';
import type { Moment } from '@zb/core/starting/rung';
import { stops } from '@zb/core/model/stops';
import type { FactKey, FactValue } from '@zb/core/model/facts';
import { surveyHeadline } from '@zb/core/words/survey';
import { itemPlace, itemSummary, shelfHeadline } from '@zb/core/machine/summary';
import { benchCards, idleMachines } from '@zb/core/box/benchDay';
import { benchHeadline } from '@zb/core/words/bench';

const must = <T>(value: T | undefined): T => {
  if (value === undefined) throw new Error('missing');
  return value;
};
const demo = saltmarshHall();
let image: ImageItem;
let optical: ImageItem;

async function imageOf(file: string): Promise<ImageItem> {
  const built = must(depotImages.find((d) => d.file === file)).build();
  return {
    kind: 'image',
    id: file,
    name: file,
    bytes: built.length,
    digests: {},
    inspection: await inspectImage(bytesSource(built)),
    comparison: null,
    depotFile: file,
    trials: [],
    notes: '',
  };
}
beforeAll(async () => {
  image = await imageOf('lantern-arcade-7.2-x64.img');
  optical = await imageOf('millpond-tunes-4-legacy.img');
});

const withFact = (machine: Machine, changes: Partial<Record<FactKey, FactValue | undefined>>): Machine => {
  const facts = { ...machine.facts };
  for (const [key, value] of Object.entries(changes) as [FactKey, FactValue | undefined][]) {
    if (value === undefined) delete facts[key];
    else facts[key] = { entered: { value, at: '' } };
  }
  return { ...machine, facts };
};

/** The games corner with its image opened and a proven stick, changed as the case wants it. */
function scene(
  facts: Partial<Record<FactKey, FactValue | undefined>> = {},
  change: Partial<Box> = {},
  of: ImageItem = image,
): { bench: Bench; box: Box; machine: Machine } {
  const machine = withFact(must(findMachine(demo, 'gull')), facts);
  const written = {
    at: '',
    imageId: of.id,
    serial: 'ST16-40A7-7C20',
    result: 'proven' as const,
    explanation: 'All agree.',
    bytes: of.bytes,
    seconds: 3,
  };
  const box: Box = { ...must(findBox(demo, 'games-corner')), imageId: of.id, written, ...change };
  const bench: Bench = {
    ...demo,
    items: [...demo.items.map((i) => (i.id === 'gull' ? machine : i)), of],
    boxes: demo.boxes.map((b) => (b.id === box.id ? box : b)),
  };
  return { bench, box, machine };
}
const ladderOf = (s: ReturnType<typeof scene>) => bootLadder(s.bench, s.box, s.machine);

describe('which firmware row a machine meets', () => {
  it.each([
    [{ 'firmware.mode': 'bios' }, 'bios'],
    [{ 'firmware.mode': 'uefi', 'cpu.arch': 'x86_64', 'firmware.bits': '64' }, 'uefi-x64'],
    [{ 'firmware.mode': 'uefi', 'cpu.arch': 'x86_64', 'firmware.bits': '32' }, 'uefi-ia32'],
    [{ 'firmware.mode': 'uefi', 'cpu.arch': 'aarch64' }, 'uefi-aa64'],
    [{ 'firmware.mode': undefined }, undefined],
    [{ 'cpu.arch': undefined }, undefined],
  ] as const)('%o → %s', (facts, kind) => expect(firmwareOf(scene(facts).machine)).toBe(kind));
});

// UEFI 2.10 §3.1 (boot manager) for the order; Secure Boot §32.5; BIOS order: common practice, no source.
describe('the boot ladder', () => {
  it('Secure Boot on refuses the unsigned stick, and the internal drive starts instead', () => {
    const l = ladderOf(scene());
    expect(l.result).toBe('something else starts');
    expect(l.rungs.map((r) => r.state)).toEqual(['refused', 'started']);
    expect(l.rungs[0]).toMatchObject({
      why: { code: 'Secure Boot refuses' },
      remedy: 'Secure Boot off',
    });
  });
  it('Secure Boot off: the stick starts by the one-time menu, whatever the order', () => {
    const l = ladderOf(scene({ 'firmware.secureBoot': 'off' }));
    expect(l.result).toBe('the stick starts');
    expect(l.rungs.map((r) => r.state)).toEqual(['started', 'not reached']);
    expect(ladderHeadline(l)).toContain('will start');
  });
  it('by the order with the internal drive first, the stick never starts', () => {
    const l = ladderOf(scene({ 'firmware.secureBoot': 'off' }, { startBy: 'order' }));
    expect(l.result).toBe('something else starts');
    expect(l.rungs.map((r) => r.state)).toEqual(['started', 'not reached']);
    expect(ladderHeadline(l)).toMatch(/internal drive comes first/);
  });
  it('by the order with USB first it does', () =>
    expect(
      ladderOf(
        scene({ 'firmware.secureBoot': 'off', 'firmware.order': ['usb', 'internal'] }, { startBy: 'order' }),
      ).result,
    ).toBe('the stick starts'));
  it('BIOS mode does not ask for signatures', () =>
    expect(ladderOf(scene({ 'firmware.mode': 'bios' })).result).toBe('the stick starts'));
  it('the wrong firmware is refused with the reason of the image', () => {
    const l = ladderOf(scene({ 'firmware.secureBoot': 'off' }, {}, optical));
    expect(l.rungs[0]).toMatchObject({
      state: 'refused',
      why: { code: 'image', why: { reason: { name: 'BOOTX64.EFI' } } },
    });
  });
  it('a failed stick is refused, an unwritten one is skipped', () => {
    const written = { ...must(scene().box.written ?? undefined), result: 'failed' as const };
    expect(ladderOf(scene({}, { written })).rungs[0]?.state).toBe('refused');
    expect(ladderOf(scene({}, { written: null })).rungs[0]?.state).toBe('skipped');
  });
  it('with an empty internal drive nothing starts', () => {
    const s = scene();
    const bench = {
      ...s.bench,
      items: s.bench.items.map((i) =>
        i.id === 'gull-ssd' ? { ...i, content: emptyContent('hand', '') } : i,
      ),
    } as Bench;
    expect(bootLadder(bench, s.box, s.machine).result).toBe('nothing starts');
  });
  it('reads what lies on a drive, never the words about it', () => {
    const s = scene({ 'firmware.secureBoot': 'off' });
    const disk = must(s.bench.items.find((i) => i.id === 'gull-ssd'));
    if (disk.kind !== 'drive' || !disk.content) throw new Error('no drive');
    const { content } = disk;
    const ladderWith = (to: Partial<typeof disk>): string => {
      const items = s.bench.items.map((i) => (i.id === 'gull-ssd' ? { ...disk, ...to } : i));
      const box = { ...s.box, startBy: 'order' as const };
      return bootLadder({ ...s.bench, items }, box, s.machine).result;
    };
    const dark = { ...content, starts: null };
    const other = {
      ...content,
      starts: content.starts?.map((x) => ({ ...x, firmware: 'bios' as const })) ?? [],
    };
    const results = [content, { ...content, starts: [] }, other, dark, null].map((c) =>
      ladderWith({ content: c }),
    );
    expect(results).toEqual([
      'something else starts',
      'the stick starts',
      'the stick starts',
      'cannot say',
      'cannot say',
    ]);
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.constantFrom('a system that starts', 'ESP (vfat), ext4', 'empty', 'nothing'),
        ),
        fc.constantFrom(content, { ...content, starts: [] }, other, dark, null),
        (holds, c) => expect(ladderWith({ content: c, holds })).toBe(ladderWith({ content: c, holds: '' })),
      ),
    );
  });
  it('says what it had to assume, and what it cannot say', () => {
    expect(
      ladderOf(scene({ 'firmware.order': undefined, 'firmware.secureBoot': undefined }, { startBy: 'order' }))
        .assumed,
    ).toHaveLength(2);
    expect(ladderOf(scene({ 'firmware.menuKey': undefined })).assumed).toContainEqual({
      code: 'menu key not known',
    });
    const unknown = ladderOf(scene({ 'firmware.mode': undefined }));
    expect(unknown.result).toBe('cannot say');
    expect(unknown.rungs.slice(1).every((r) => r.state === 'not reached')).toBe(true);
  });
  it('lists optical and network entries as skipped', () => {
    const l = ladderOf(
      scene({ 'firmware.order': ['optical', 'network', 'internal'] }, { startBy: 'order', written: null }),
    );
    expect(l.rungs.map((r) => [r.entry.kind, r.state])).toEqual([
      ['optical', 'skipped'],
      ['network', 'skipped'],
      ['drive', 'started'],
      ['stick', 'not reached'],
    ]);
  });
});

// UEFI 2.10 §3.1; enrolling a key at the restart and where an entry is put: common practice, no source.
describe('the starts after the install', () => {
  const target = must(demo.items.find((i) => i.id === 'loose-480')) as Store;
  const old = must(demo.items.find((i) => i.id === 'gull-ssd')) as Store;
  const at = (
    s: ReturnType<typeof scene>,
    moment: Moment,
    more: { stickIn?: boolean; target?: Store | null } = {},
  ) => bootLadder(s.bench, s.box, s.machine, { moment, stickIn: false, target, ...more });
  const off = { 'firmware.secureBoot': 'off' };
  const withManner = (s: ReturnType<typeof scene>, change: Partial<Profile>): ReturnType<typeof scene> => ({
    ...s,
    bench: {
      ...s.bench,
      profiles: s.bench.profiles.map((p) => (p.id === s.box.profileId ? { ...p, ...change } : p)),
    },
  });
  const fallback = (s: ReturnType<typeof scene>): ReturnType<typeof scene> => {
    const p = must(s.bench.profiles.find((x) => x.id === s.box.profileId));
    return withManner(s, { manner: { ...p.manner, entry: 'fallback path only' } });
  };

  const asking = (s: ReturnType<typeof scene>) => withManner(s, { installer: 'asks for the drive' });
  it('an entry of its own stands before all others, stick in or out', () => {
    const s = asking(scene(off));
    for (const stickIn of [true, false]) {
      const l = at(s, 'first restart', { stickIn });
      expect([l.result, l.rungs[0]?.entry.kind]).toEqual(['the new system starts', 'new system']);
      expect(ladderHeadline(l)).toContain('first restart');
    }
  });
  it('what is written straight has none, and stands where its drive stands', () => {
    const l = at(
      withManner(scene(off), { installer: 'written straight to the final drive' }),
      'first restart',
    );
    expect(l.rungs.find((r) => r.entry.kind === 'new system')?.entry).toMatchObject({ by: 'place' });
  });
  it('without one the old system before it starts, and the drive has to be put first', () => {
    const l = at(fallback(scene(off)), 'first restart');
    expect(l.result).toBe('something else starts');
    expect(l.decides).toMatchObject({ entry: { kind: 'drive', name: old.name }, remedy: 'target first' });
    // On the old system's own drive it has that drive's place.
    expect(at(fallback(scene(off)), 'first restart', { target: old }).result).toBe('the new system starts');
  });
  it('a stick that is left in starts the installer again where USB comes first', () => {
    const s = fallback(scene({ ...off, 'firmware.order': ['usb', 'internal'] }, { startBy: 'order' }));
    const l = at(s, 'first restart', { stickIn: true });
    expect([l.result, l.decides?.why.code, l.decides?.remedy]).toEqual([
      'the stick starts',
      'installer again',
      'stick out',
    ]);
    expect(at(s, 'every later start').rungs.some((r) => r.entry.kind === 'stick')).toBe(false);
  });
  it('a key of its own is asked for at the first restart, and no more later', () => {
    const own = withManner(asking(scene()), { secureBoot: 'own key at first restart' });
    expect(at(own, 'first restart').decides).toMatchObject({
      why: { code: 'key to be enrolled' },
      remedy: 'enrol the key',
    });
    const later = at(own, 'every later start');
    expect(later.decides?.why.code).toBe('just installed');
    expect(later.assumed).toContainEqual({ code: 'key enrolled in time' });
    const unsigned = at(withManner(asking(scene()), { secureBoot: 'must be off' }), 'first restart');
    expect(unsigned.rungs[0]).toMatchObject({ state: 'refused', remedy: 'Secure Boot off' });
  });
  it('a drive the firmware does not start from wants a chain loader, which counts down', () => {
    const nvme: Store = { ...target, transport: 'nvme' };
    const s = asking(scene({ ...off, 'firmware.startsNvme': false }));
    expect(at(s, 'first restart', { target: nvme }).rungs[0]).toMatchObject({
      state: 'skipped',
      remedy: 'chain loader',
    });
    const chained = { ...s, box: { ...s.box, chain: { stickId: 'grey', seconds: 5 } } };
    expect(at(chained, 'every later start', { target: nvme }).decides?.why).toEqual({
      code: 'through the chain loader',
      stick: 'Grey stick',
      seconds: 5,
    });
  });
  it('goes by the entries that the survey read, each with its drive', () => {
    const s = scene({ ...off, 'firmware.order': undefined }, { startBy: 'order' });
    const entry = (id: string, label: string, path: string, active = true) => ({
      id,
      label,
      path,
      active,
      first: false,
      inOrder: true,
      next: false,
    });
    const machine = {
      ...s.machine,
      details: {
        ...noDetails(),
        bootEntries: [
          entry('0003', 'gone', 'HD(1,GPT,00000000-0000-0000-0000-000000000000)/File(\\EFI\\x.efi)'),
          entry('0004', 'resting', 'HD(1,GPT)/File(\\EFI\\y.efi)', false),
          entry('0005', 'network', 'PciRoot(0x0)/MAC(525400)/IPv4(0.0.0.0)'),
          entry('0006', 'stick', 'PciRoot(0x0)/USB(0x1,0x0)'),
          entry('0001', 'the system it came with', 'HD(1,GPT)/File(\\EFI\\system.efi)'),
        ],
      },
    };
    const bench = { ...s.bench, items: s.bench.items.map((i) => (i.id === 'gull' ? machine : i)) } as Bench;
    const l = bootLadder(bench, s.box, machine);
    expect(l.rungs.map((r) => [r.entry.kind, r.state, r.why.code])).toEqual([
      ['boot entry', 'skipped', 'its drive is not there'],
      ['boot entry', 'skipped', 'entry switched off'],
      ['network', 'skipped', 'nobody answers'],
      ['stick', 'started', 'image'],
      ['boot entry', 'not reached', 'another has started'],
    ]);
    const after = bootLadder(bench, s.box, machine, { moment: 'first restart', stickIn: false, target: old });
    // What the entry named is gone with the drive's old content: its place is the new system's.
    expect(after.rungs.filter((r) => r.entry.kind === 'new system')).toHaveLength(1);
    expect(after.result).toBe('the new system starts');
  });
  const part = contentPartSchema.parse({
    start: null,
    bytes: null,
    type: '',
    name: '',
    filesystem: 'vfat',
    label: null,
    uuid: null,
    mount: null,
  });
  /** Drives of twins: each has a system part of its own, and a system by the same title. */
  const twin = (id: string, guid: string, path = '\\EFI\\same\\x.efi'): Store => ({
    ...old,
    id,
    name: id,
    content: {
      ...emptyContent('survey', ''),
      table: 'gpt',
      parts: [{ ...part, partitionId: guid }],
      starts: [
        { by: 'boot entry', firmware: 'uefi-x64', path: path.replaceAll('\\', '/'), title: 'The system' },
      ],
    },
  });
  const ONE = '11111111-1111-4111-8111-111111111111';
  const TWO = '22222222-2222-4222-8222-222222222222';
  const entryTo = (id: string, guid: string, more: Partial<BootEntry> = {}): BootEntry => ({
    id,
    label: 'The system',
    path: `HD(1,GPT,${guid},0x800,0x100000)/File(\\EFI\\same\\x.efi)`,
    active: true,
    first: false,
    inOrder: true,
    next: false,
    ...more,
  });
  const withEntries = (drives: Store[], bootEntries: BootEntry[], moment: Moment = 'now') => {
    const s = scene({ ...off, 'firmware.order': undefined }, { startBy: 'order', written: null });
    const machine = { ...s.machine, details: { ...noDetails(), bootEntries } };
    const others = s.bench.items.filter((i) => i.id !== 'gull' && !('in' in i && i.in === 'gull'));
    const bench = { ...s.bench, items: [machine, ...drives, ...others] } as Bench;
    return bootLadder(bench, s.box, machine, { moment, stickIn: false, target: null });
  };
  // UEFI 2.10 §10.3.5.1: the path of a hard drive names a partition by its GUID; labels are for people.
  it('an entry is matched by the GUID of its partition, also where two drives share a label', () => {
    const drives = [twin('first', ONE), twin('second', TWO, '\\EFI\\BOOT\\BOOTX64.EFI')];
    expect(withEntries(drives, [entryTo('0002', TWO), entryTo('0001', ONE)]).decides).toMatchObject({
      entry: { id: '0002' },
      state: 'started',
    });
    const one = drives.slice(0, 1);
    expect(
      withEntries(one, [entryTo('0002', TWO), entryTo('0001', ONE)]).rungs.map((r) => r.why.code),
    ).toEqual(['its drive is not there', 'starts from it', 'another has started']);
  });
  it('copies with one identity are not told apart', () => {
    const l = withEntries([twin('first', ONE), twin('copy', ONE)], [entryTo('0001', ONE)]);
    expect(l.result).toBe('cannot say');
    expect(l.decides?.why).toEqual({ code: 'several drives answer', drives: ['first', 'copy'] });
  });
  // UEFI 2.10 §3.1.1: BootOrder is what is tried; BootNext comes first, and is deleted before it is started.
  it('an entry outside BootOrder is not tried; BootNext is, once', () => {
    const drives = [twin('first', ONE), twin('second', TWO)];
    const outside = [entryTo('0001', ONE), entryTo('0002', TWO, { inOrder: false })];
    expect(withEntries(drives, outside).rungs.map((r) => r.entry)).toEqual([
      { kind: 'boot entry', id: '0001', label: 'The system' },
      { kind: 'drive', name: 'second' },
      { kind: 'stick', tail: null, by: 'order' },
    ]);
    // Its loader is no path that firmware looks for: without the entry, whether it starts is not known.
    expect(withEntries(drives, [entryTo('0002', TWO, { inOrder: false })]).result).toBe('cannot say');
    const next = [entryTo('0001', ONE), entryTo('0002', TWO, { inOrder: false, next: true })];
    expect(withEntries(drives, next)).toMatchObject({
      decides: { entry: { id: '0002' }, state: 'started' },
      assumed: expect.arrayContaining([{ code: 'next start still to come' }]) as unknown,
    });
    expect(withEntries(drives, next, 'every later start').decides).toMatchObject({ entry: { id: '0001' } });
  });
  it('BIOS may try the first disk alone', () => {
    const blank = { ...old, id: 'blank', name: 'blank', content: emptyContent('hand', '') };
    const s = scene({ 'firmware.mode': 'bios' }, { startBy: 'order', written: null });
    const bench = {
      ...s.bench,
      items: [
        blank,
        ...s.bench.items.map((i) =>
          i.id === 'gull-ssd'
            ? {
                ...old,
                content: old.content && {
                  ...old.content,
                  starts: [{ by: 'boot code', firmware: 'bios', path: '', title: 'old' }],
                },
              }
            : i,
        ),
      ],
    } as Bench;
    expect(bootLadder(bench, s.box, s.machine)).toMatchObject({
      result: 'something else starts',
      assumed: expect.arrayContaining([{ code: 'BIOS tries every drive' }]) as unknown,
    });
    const first = scene(
      { 'firmware.mode': 'bios', 'firmware.triesEach': false },
      { startBy: 'order', written: null },
    );
    expect(
      bootLadder(
        { ...bench, items: bench.items.map((i) => (i.id === 'gull' ? first.machine : i)) },
        first.box,
        first.machine,
      ).result,
    ).toBe('nothing starts');
  });
});

describe('hazards', () => {
  const texts = (s: ReturnType<typeof scene>, grade: string): string =>
    hazards(s.bench, s.box)
      .filter((h) => h.grade === grade)
      .map(hazardWords)
      .join('\n');

  it('Secure Boot is said once, at the firmware stop, from the bytes', () => {
    const found = hazards(scene().bench, scene().box).filter((h) => /Secure Boot/.test(hazardWords(h)));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ grade: 'stop', stop: 'firmware' });
    expect(texts(scene({ 'firmware.secureBoot': 'off' }), 'stop')).toBe('');
  });
  // PCI Code and ID Assignment Specification: class 01h is mass storage, subclass 04h RAID, 06h SATA.
  it('a storage controller in RAID mode hides drives, one in AHCI mode does not', () => {
    const of = (pciClass: string): string[] => {
      const s = scene();
      const details = {
        ...{ modules: [], health: [], displays: [], batteries: [], links: [], sensors: [], bootEntries: [] },
        pci: [{ slot: '00:17.0', class: pciClass, id: '00000000', driver: null }],
      };
      const changed: Machine = { ...s.machine, details };
      const items = s.bench.items.map((i) => (i.id === s.machine.id ? changed : i));
      return hazards({ ...s.bench, items }, s.box).map((h) => h.code);
    };
    expect(of('010400')).toContain('controller hides drives');
    expect(of('010601')).not.toContain('controller hides drives');
  });
  // TCG PC Client Platform Firmware Profile: PCR 7 measures Secure Boot.
  it('a kept system may ask for its recovery key where Secure Boot is to be switched, and not otherwise', () => {
    const codes = (facts: Parameters<typeof scene>[0], fate: 'keep' | 'may be lost') => {
      const s = scene(facts);
      const items = s.bench.items.map((i) => ('fate' in i && i.in === s.machine.id ? { ...i, fate } : i));
      return hazards({ ...s.bench, items }, s.box).map((h) => h.code);
    };
    expect(codes({}, 'keep')).toContain('recovery key');
    expect(codes({}, 'may be lost')).not.toContain('recovery key');
    expect(codes({ 'firmware.secureBoot': 'off' }, 'keep')).not.toContain('recovery key');
  });
  it('a changed download stops, an uncompared one is a check', () => {
    expect(texts(scene(), 'check')).toMatch(/not been compared/);
    const comparison = {
      verdict: 'differs',
      algorithm: 'sha256',
      of: 'file',
      publishedBytes: null,
      published: 'a',
      computed: 'b',
      from: 'L',
      at: '',
    } as const;
    expect(texts(scene({}, {}, { ...image, comparison }), 'stop')).toMatch(/not the file that was published/);
  });
  it('an image that does not start on this machine stops', () =>
    expect(texts(scene({}, {}, optical), 'stop')).toMatch(/from a stick this image does not/));
  it('a reading by earlier rules is said to be one until its file is opened again', () => {
    const s = scene();
    const image = must(s.bench.items.find((i) => i.kind === 'image'));
    if (image.kind !== 'image' || !image.inspection) throw new Error('no reading');
    const { rules: _rules, ...first } = image.inspection;
    const old = inspectionSchema.parse(first);
    const items = s.bench.items.map((i) => (i.id === image.id ? { ...image, inspection: old } : i));
    const codes = (bench: Bench): string[] => hazards(bench, s.box).map((h) => h.code);
    expect(codes(s.bench)).not.toContain('read by earlier rules');
    expect(codes({ ...s.bench, items })).toContain('read by earlier rules');
  });
  it('the projector’s box must not start its installer with the scans inside', () => {
    const box = must(findBox(demo, 'film-night'));
    expect(hazards(demo, box).find((h) => h.stop === 'install')).toMatchObject({
      grade: 'stop',
      params: expect.objectContaining({ holds: expect.stringContaining('parish scans') as string }),
    });
  });
  it('the gravest come first', () => {
    const ranks = hazards(scene().bench, scene().box).map((h) => ['stop', 'check', 'note'].indexOf(h.grade));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  });
  it('a profile that does not fit stops', () => {
    const s = scene({}, { profileId: 'coldstore' });
    expect(texts(s, 'stop')).toMatch(/Coldstore does not fit Gull/);
  });
  it('the body of the machine speaks: one port, upright panel', () => {
    expect(texts(scene(), 'note')).toMatch(/sideways/);
    expect(texts(scene(), 'check')).toMatch(/dock/);
  });
  it('a box with nothing decided has none', () =>
    expect(hazards(demo, must(findBox(demo, 'tea-room-music')))).toEqual([]));
});

describe('ledger and route', () => {
  it('adds up exactly the stops that are left', () => {
    const s = scene();
    const l = ledger(s.bench, s.box);
    const left = route(s.bench, s.box).filter((x) => x.state !== 'signed');
    expect(left).toHaveLength(9);
    expect(l.hands.low).toBe(left.reduce((n, x) => n + x.hands.low, 0));
    expect(l.waiting.high).toBe(left.reduce((n, x) => n + x.waiting.high, 0));
    expect(l.times[0]?.because).toContain('Verify');
  });
  it('counts bytes at risk apart from bytes to keep', () => {
    const film = ledger(demo, must(findBox(demo, 'film-night')));
    const of = (label: string) => film.bytesAtRisk.find((x) => x.label === label)?.value;
    expect(of('In Tern')).toBe('0 B');
    expect(of('Marked to keep')).toBe('224 GiB');
    expect(ledger(scene().bench, scene().box).bytesAtRisk[0]).toMatchObject({
      label: 'On the stick …7C20',
      value: '14.9 GiB',
    });
  });
  it('the stick that is picked counts at once, before the one written last', () => {
    const picked = (targetSerial: string) => {
      const s = scene({}, { targetSerial });
      return ledger(s.bench, s.box);
    };
    expect(picked('ST64-0000-F00D').bytesAtRisk[0]).toMatchObject({
      label: 'On the stick …F00D',
      value: '59.6 GiB',
    });
    expect(picked('NOT-ON-SHELF-0001').bytesAtRisk[0]).toMatchObject({ value: 'not on the shelf' });
    const games = must(findBox(demo, 'games-corner'));
    expect(ledger(demo, games).bytesAtRisk[0]).toMatchObject({ label: 'On the stick', value: 'none chosen' });
  });
  it('a stick known to hold less than it claims stops as soon as it is picked', () => {
    const s = scene({}, { targetSerial: 'ST64-0000-F00D' });
    const noted = s.bench.items.map((i) => (i.id === 'market' ? { ...i, realBytes: 6 * 1024 ** 2 } : i));
    const told = (bench: Bench) => hazards(bench, s.box).map(hazardWords).join();
    expect(told({ ...s.bench, items: noted })).toMatch(/claims 59.6 GiB and really holds about 6.00 MiB/);
    expect(told(s.bench)).not.toMatch(/really holds/);
  });
  it('a board is not asked whether it is a PC', () => {
    const gate = must(findBox(demo, 'guest-gate'));
    expect(ledger(demo, gate).questions).toEqual(['Which system goes on Pebble?']);
    expect(bootLadder(demo, gate, must(findMachine(demo, 'pebble'))).result).not.toBe('the stick starts');
  });
  it('asks what is open', () => {
    expect(ledger(demo, must(findBox(demo, 'tea-room-music'))).questions).toEqual([
      'Which machine is it to be?',
    ]);
    expect(ledger(demo, must(findBox(demo, 'booking-host'))).questions[0]).toMatch(/Which system/);
    const open = scene();
    const items = open.bench.items.map((i) =>
      i.id === 'gull-ssd' && i.kind === 'drive' ? { ...i, fate: 'not decided' as const } : i,
    );
    const undecided = { ...open.bench, items };
    expect(ledger(undecided, open.box).questions.join()).toMatch(/Gull’s inside drive/);
    expect(ledger(open.bench, open.box).questions.join()).not.toMatch(/Gull’s inside drive/);
    // What is not decided stops whatever could erase it.
    const stops = hazards(undecided, open.box).filter((h) => h.grade === 'stop' && h.stop === 'install');
    expect(stops.map(hazardWords).join()).toMatch(/Gull’s inside drive/);
  });
  it('the route follows the sign-offs', () => {
    const archive = must(findBox(demo, 'archive'));
    const r = route(demo, archive);
    expect(r.map((x) => x.stop)).toEqual(stops);
    expect(r.filter((x) => x.state === 'signed')).toHaveLength(9);
    expect(currentStop(archive)).toBe('load');
    expect(currentStop({ ...archive, signoffs: stops.map((stop) => ({ stop, at: '' })) })).toBe('keep');
    expect(route(demo, must(findBox(demo, 'film-night'))).find((x) => x.stop === 'install')?.hazard).toBe(
      true,
    );
  });
  it('the waiting at Write comes from the image and the stick’s own runs', () => {
    const s = scene();
    const write = must(route(s.bench, s.box).find((x) => x.stop === 'write'));
    expect(write.waiting.high).toBeLessThan(10);
    expect(write.waiting.low).toBeGreaterThan(0);
  });
  it('the bench as a whole', () => {
    const b = benchLedger(demo);
    expect(b.shelf.find((l) => l.label === 'Machines')?.value).toBe('9');
    // Three that a person keeps, the warden's letters, and the drive that the archive runs from.
    expect(b.precious).toHaveLength(5);
    expect(b.hazards.some((h) => h.boxId === 'film-night')).toBe(true);
    const cards = benchCards(demo);
    // What must not go on comes first; every unfinished box is there once.
    expect(cards[0]).toMatchObject({ box: { id: 'film-night' }, inTheWay: { grade: 'stop' } });
    const grades = cards.map((c) => ['stop', 'check', undefined].indexOf(c.inTheWay?.grade as 'stop'));
    expect(grades).toEqual([...grades].sort());
    expect(new Set(cards.map((c) => c.box.id)).size).toBe(demo.boxes.length);
    expect(benchHeadline(cards, 6)).toContain('Film night must not go on yet');
    const calm = cards.filter((c) => c.inTheWay?.grade !== 'stop');
    expect(calm.length).toBeLessThan(cards.length);
    expect(benchHeadline(calm, 6)).not.toContain('must not');
    expect(benchHeadline([], 0)).not.toBe(benchHeadline([], 3));
    const used = new Set(demo.boxes.map((x) => x.machineId));
    const idle = idleMachines(demo);
    expect(idle.some((m) => used.has(m.id))).toBe(false);
    expect(idle.length + used.size - 1).toBe(9);
    expect(boxLine(demo, must(findBox(demo, 'tea-room-music')))).toBe('no machine yet');
  });
});

describe('words on the sheets', () => {
  it('verify', () => {
    const s = scene();
    const same = {
      verdict: 'same',
      algorithm: 'sha256',
      of: 'file',
      publishedBytes: null,
      published: 'a',
      computed: 'a',
      from: 'L',
      at: '',
    } as const;
    const head = (m: Machine | undefined, i: ImageItem) => verifyHeadline(m, i, i.inspection ?? undefined);
    expect(verifyHeadline(s.machine, undefined, undefined)).toBe(
      'Is this the file they published, and will it start on Gull?',
    );
    expect(head(s.machine, { ...image, comparison: same })).toMatch(/once Secure Boot is off$/);
    expect(head(scene({ 'firmware.secureBoot': 'off' }).machine, { ...image, comparison: same })).toBe(
      'This is the file they published, and it will start on Gull',
    );
    expect(head(s.machine, { ...image, comparison: { ...same, verdict: 'differs' } })).toMatch(
      /fetch it again/,
    );
    expect(head(s.machine, { ...optical, comparison: same })).toMatch(/but it will not start on Gull/);
    expect(head(undefined, image)).toMatch(/not known yet/);
  });
  it('an image on its own: what starts it, or what it is instead', async () => {
    const read = (i: ImageItem) => imageHeadline(i, i.inspection ?? undefined);
    expect(imageHeadline(undefined, undefined)).toMatch(/\?$/);
    expect(read(image)).toBe('Not compared with what was published yet; it starts under BIOS and UEFI x64');
    const of = async (bytes: Uint8Array) => imageHeadline(undefined, await inspectImage(bytesSource(bytes)));
    expect(await of(new Uint8Array(0))).toMatch(/the file is empty$/);
    expect(await of(new Uint8Array(4096))).toMatch(/nothing in it could start$/);
    expect(await of(Uint8Array.of(0x1f, 0x8b, 8, 0, 0, 0, 0, 0, 0, 0))).toMatch(/a gzip file, still packed$/);
  });
  it('survey, write, keep', () => {
    expect(surveyHeadline(undefined)).toMatch(/\?$/);
    expect(surveyHeadline(must(findMachine(demo, 'gull')))).toMatch(/is known/);
    expect(surveyHeadline(must(findMachine(demo, 'skerry')))).toMatch(/still open/);
    expect(surveyHeadline(scene({ 'ports.drives': undefined }).machine)).toMatch(/One fact/);
    expect(writeHeadline(demo, scene().box, image, 0)).toMatch(/byte for byte/);
    expect(writeHeadline(demo, { ...scene().box, written: null }, image, 0)).toBe('Which stick may be lost?');
    expect(keepHeadline(demo, must(findBox(demo, 'tea-room-music')), 0)).toBe(
      'Nothing is on record yet; 12 stops are left',
    );
  });
  it('the shelf tells one thing from the next', () => {
    const of = (id: string) => must(demo.items.find((i) => i.id === id));
    expect(itemSummary(of('gull'))).toBe('x86_64 v3 · 8 cores · 15.5 GiB · UEFI');
    expect(itemSummary(of('grandfather'))).toMatch(/^i686 · 1 core/);
    expect(itemSummary(of('blue'))).toBe('14.9 GiB (16.0 GB) · usb');
    expect(itemSummary(of('mem-16'))).toBe('16.0 GiB · DDR4 DIMM');
    expect(itemPlace(demo, of('gull'))).toBe('in “Games corner”');
    expect(itemPlace(demo, of('oak-a'))).toBe('in Old Oak');
    expect(itemPlace(demo, of('blue'))).toBe('loose');
    expect(shelfHeadline(demo)).toBe('9 machines and what goes into them');
    expect(shelfHeadline({ ...demo, items: [of('gull')] })).toBe('One machine and what goes into it');
    expect(shelfHeadline({ ...demo, items: [of('blue')] })).toBe('No machine is on the shelf yet');
    expect(shelfHeadline({ ...demo, items: [] })).toMatch(/\?$/);
  });
});

describe('the build sheet', () => {
  it('tells the whole box', () => {
    const s = scene();
    const text = buildSheet(s.bench, s.box);
    for (const part of [
      '# Games corner',
      '## Machine',
      '## Decisions',
      'Lantern Arcade 7.2',
      '## Image',
      'starts under UEFI x64',
      '## Stick',
      'ST16-40A7-7C20',
      '## Next start',
      '## Hazards',
      '- [x] Survey',
      '- [ ] Verify',
      '## Log',
    ])
      expect(text).toContain(part);
    expect(text.endsWith('\n')).toBe(true);
  });
  it('names cannot break its tables or smuggle markup', () => {
    const s = scene({ 'cpu.model': 'a | b\n# c' }, { name: '# <b>*x*</b>' });
    const text = buildSheet(s.bench, s.box);
    expect(text.split('\n')[0]).toBe('# \\# \\<b\\>\\*x\\*\\</b\\>');
    expect(text).toContain('a \\| b \\# c');
  });
  it('an empty box is a short sheet, not a fault', () =>
    expect(buildSheet(demo, must(findBox(demo, 'tea-room-music')))).toContain('No machine yet.'));
});

describe('a drive nobody has decided about', () => {
  const undecided = (change: Partial<Box>) => {
    const s = scene({}, change);
    const items = s.bench.items.map((i) =>
      'fate' in i && i.in === 'gull' ? { ...i, fate: 'not decided' as const } : i,
    );
    return ledger({ ...s.bench, items }, s.box).hazards.filter((h) => h.code === 'drive not decided');
  };
  it('is said from the first moment, and stops once a system is chosen that could erase it', () => {
    expect(undecided({ profileId: null }).map((h) => h.grade)).toEqual(['check']);
    expect(undecided({}).map((h) => h.grade)).toEqual(['stop']);
  });
});

describe('after a write', () => {
  it('says what to do next, by the machine’s own keys', () => {
    const s = scene();
    const steps = afterWrite(s.bench, s.box).join('\n');
    expect(steps).toMatch(/Plug it into Gull, through the dock/);
    // What to hold and in which order is told as it was noted; a single key is tapped.
    expect(steps).toMatch(/one-time menu.*This machine’s way: volume-down, then power\./);
    const tapped = scene({ 'firmware.menuKey': 'F12' });
    expect(afterWrite(tapped.bench, tapped.box).join('\n')).toMatch(/Tap F12 again and again from power-on/);
    const order = scene({ 'firmware.setupKey': undefined }, { startBy: 'order' });
    expect(afterWrite(order.bench, order.box).join()).toMatch(/not known yet: enter it at Firmware/);
    const none = scene({}, { machineId: null });
    expect(afterWrite(none.bench, none.box)).toHaveLength(2);
  });
  it('is silent where the stick is not proven, or holds another image', () => {
    const s = scene();
    const written = s.box.written;
    if (!written) throw new Error('the scene has a written stick');
    expect(afterWrite(s.bench, { ...s.box, written: { ...written, result: 'failed' } })).toEqual([]);
    expect(afterWrite(s.bench, { ...s.box, written: { ...written, imageId: 'other' } })).toEqual([]);
    expect(afterWrite(s.bench, { ...s.box, written: null })).toEqual([]);
  });
});

describe('facts that have no meaning for a machine', () => {
  it.each([
    [{ 'cpu.arch': 'aarch64' }, 'cpu.level', false],
    [{ 'cpu.arch': 'x86_64' }, 'cpu.level', true],
    [{ 'cpu.arch': undefined }, 'cpu.level', true],
    [{ 'firmware.mode': 'board' }, 'firmware.bits', false],
    [{ 'firmware.mode': 'bios' }, 'firmware.secureBoot', false],
    [{ 'firmware.mode': undefined }, 'firmware.secureBoot', true],
    [{ 'firmware.mode': 'board' }, 'ports.usb', true],
  ] as const)('%o: %s applies: %p', (facts, key, applies) =>
    expect(factApplies(scene(facts).machine, key)).toBe(applies),
  );
});

describe('a time axis', () => {
  it.each([
    [3, { max: 3, steps: 3 }],
    [42, { max: 50, steps: 5 }],
    [372, { max: 480, steps: 4 }],
    [0, { max: 1, steps: 1 }],
  ])('to %d s', (longest, axis) => expect(timeAxis(longest)).toEqual(axis));
  it('covers any time in at most five equal steps', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e7, noNaN: true }), (longest) => {
        const { max, steps } = timeAxis(longest);
        expect(max).toBeGreaterThanOrEqual(longest);
        expect(steps).toBeLessThanOrEqual(5);
      }),
    );
  });
});

describe('prediction against measurement', () => {
  it('counts proven writes within what was foretold', () => {
    const { runs, headline } = measuredWrites(demo);
    expect(runs).toHaveLength(2);
    expect(runs.every((r) => r.within)).toBe(true);
    expect(headline).toBe('2 of 2 writes took what was foretold');
  });
});
