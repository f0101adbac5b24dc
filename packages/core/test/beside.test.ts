import { decideLayout } from '../src/acts/install';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { besideOf, keepsAll, withKept } from '../src/layout/beside';
import { canShrink } from '../src/layout/shrinks';
import { laidBox } from '../src/layout/forBox';
import { contentFromTable } from '../src/layout/read/content';
import { TableError } from '../src/layout/read/fault';
import { schoolsMean } from '../src/layout/schools';
import { driveThere } from '../src/layout/usual';
import type { Bench, Box, Profile, Store } from '../src/model/bench';
import { applyChanges } from '../src/model/changes';
import type { Content } from '../src/model/content';
import { partSchools, swapSchools } from '../src/model/layout';
import { boxPlan } from '../src/rehearsal/forBox';
import { Stage } from '../src/rehearsal/stage';
import { takenOf, tallyOf } from '../src/rehearsal/tally';
import { schoolMeansWords } from '../src/words/layout';

const GIB = 1024 ** 3;
const hall = saltmarshHall();
const ESP = 'C12A7328-F81F-11D2-BA4B-00A0C93EC93B';
const LINUX = '0FC63DAF-8483-4772-8E79-3D69D8477DE4';
/** An old system that matters: a start part of 512 MiB and ext4 up to 400 GiB, as lsblk prints it. */
const LSBLK = JSON.stringify({
  blockdevices: [
    {
      name: 'sda',
      type: 'disk',
      size: 480_103_981_056,
      pttype: 'gpt',
      'log-sec': 512,
      children: [
        {
          name: 'sda1',
          type: 'part',
          start: 2048,
          size: GIB / 2,
          parttype: ESP,
          fstype: 'vfat',
          label: 'ESP',
        },
        {
          name: 'sda2',
          type: 'part',
          start: 1_050_624,
          size: 400 * GIB,
          parttype: LINUX,
          fstype: 'ext4',
          label: 'OLD',
        },
      ],
    },
  ],
});
const content = (): Content => {
  const read = contentFromTable(LSBLK, null, '2026-01-01T00:00:00Z', { bytes: 480_103_981_056 });
  return {
    ...read,
    starts: [{ by: 'loader', firmware: 'uefi-x64', path: '/EFI/BOOT/BOOTX64.EFI', title: 'the old system' }],
  };
};
const old = (): Store => {
  const loose = hall.items.find((i) => i.id === 'loose-480') as Store;
  return { ...loose, in: 'clerk', fate: 'keep', holds: '', content: content() };
};
const bench: Bench = {
  ...hall,
  // The archive's pool has reserved loose drives that are chosen here.
  boxes: hall.boxes.filter((b) => b.id !== 'archive'),
  items: hall.items.map((i) => (i.id === 'loose-480' ? old() : i)),
  profiles: hall.profiles.map((p): Profile =>
    p.id === 'curtain-player' ? { ...p, manner: { ...p.manner, beside: true } } : p,
  ),
};
const night: Box = { ...(hall.boxes.find((b) => b.id === 'film-night') as Box), machineId: 'clerk' };
const decided = (changed: Parameters<typeof decideLayout>[1], of: Box = night): Box => {
  const act = decideLayout(of, changed, 'x');
  return applyChanges({ ...bench, boxes: [of] }, act.changes).boxes[0] as Box;
};

describe('a second system beside what is there', () => {
  it('keeps everything and makes the largest part that can be smaller half as large', () => {
    expect(besideOf(old())).toEqual([
      { number: 1, shrinkTo: null },
      { number: 2, shrinkTo: 200 * GIB },
    ]);
    // XFS and FAT cannot be made smaller.
    expect(
      ['ext4', 'ntfs', 'btrfs', 'xfs', 'vfat', null].map((filesystem) => canShrink({ filesystem })),
    ).toEqual([true, true, true, false, false, false]);
  });

  it('lets a drive that is kept take a second system only where all of it stays', () => {
    expect(laidBox(bench, night).why?.code).toBe('drive is kept');
    const some = decided({ kept: [{ number: 2, shrinkTo: 200 * GIB }] });
    expect(laidBox(bench, some).why?.code).toBe('drive is kept');
    const all = decided({ kept: besideOf(old()) });
    const { sheet, why } = laidBox(bench, all);
    expect(why).toBeNull();
    const parts = sheet?.layout.parts ?? [];
    expect(parts.filter((p) => p.fate !== 'new').map((p) => [p.number, p.fate, p.bytes])).toEqual([
      [1, 'kept', GIB / 2],
      [2, 'made smaller', 200 * GIB],
    ]);
    // One start part is enough for two systems.
    expect(parts.some((p) => p.fate === 'new' && p.use === 'start')).toBe(false);
    expect(sheet?.layout.problems).toEqual([]);
    expect(keepsAll({ ...old(), content: null }, [{ number: 1, shrinkTo: null }])).toBe(false);
  });

  it('takes the table that is there, and nothing where nothing stays', () => {
    const there = driveThere(old());
    const want = { table: 'mbr' as const, kept: [], wants: [], reserve: 0 };
    expect(withKept(want, there, [])).toBe(want);
    expect(withKept(want, there, besideOf(old())).table).toBe('gpt');
  });

  it('matters in the rehearsal: who does not read loses the old system', () => {
    const made = boxPlan(bench, decided({ kept: besideOf(old()) }));
    if ('code' in made) throw new Error(made.code);
    expect(made.plan.drives.find((d) => d.role === 'target')).toMatchObject({ matters: true });
    const stage = new Stage(made.plan);
    // The machine has Secure Boot on, and this system is not signed: it boots once that is off.
    const tally = tallyOf(stage, takenOf(stage, ['secure off']));
    expect(tally.endings.map((e) => e.ending)).toEqual(
      expect.arrayContaining(['kept drive erased', 'half written, for good']),
    );
    // Another drive, and nothing of this one is said any more.
    expect(decided({ driveId: 'loose-1t' }, decided({ kept: besideOf(old()) })).layout?.kept).toEqual([]);
  });
});

describe('what a tool prints of a table', () => {
  it('is taken over with file systems where it tells them, and with what was known where it does not', () => {
    expect(content().parts.map((p) => [p.start, p.bytes, p.filesystem, p.label])).toEqual([
      [1_048_576, GIB / 2, 'vfat', 'ESP'],
      [537_919_488, 400 * GIB, 'ext4', 'OLD'],
    ]);
    const dump = `label: gpt\nunit: sectors\n\n/dev/sda1 : start=2048, size=1048576, type=${ESP}\n/dev/sda2 : start=1050624, size=838860800, type=${LINUX}\n`;
    const again = contentFromTable(dump, content(), 'x', { bytes: 480_103_981_056 });
    expect(again.parts.map((p) => p.filesystem)).toEqual(['vfat', 'ext4']);
    expect(again.starts).toHaveLength(1);
    expect(() => contentFromTable('nothing', null, 'x', {})).toThrow(TableError);
  });
});

describe('what a school means here', () => {
  it('is computed for this drive: every school by its own parts', () => {
    const box = decided({ driveId: 'loose-1t' });
    const means = schoolsMean(bench, box);
    const one = means.parts['one system part'];
    const apart = means.parts['/var and /home apart'];
    expect(one?.parts.map((p) => p.use)).toEqual(['start', 'system', 'data']);
    expect(apart?.parts.map((p) => p.use)).toEqual(['start', 'system', '/var', '/home', 'data']);
    expect(means.swap['1 GB']?.parts.find((p) => p.use === 'swap')?.bytes).toBe(GIB);
    for (const s of [...partSchools.map((p) => means.parts[p]), ...swapSchools.map((w) => means.swap[w])])
      expect(schoolMeansWords(s)).toMatch(/GiB/);
  });
});
