import fc from 'fast-check';
import { DumpError, readSfdiskDump } from '@zb/core/formats/sfdiskDump';
import { contentFromDump } from '@zb/core/machine/dumped';
import { contentSchema, type Content } from '@zb/core/model/content';

const AT = '2026-11-26T00:00:00.000Z';
// Named-fields format of sfdisk's manual; the figures are made up.
const GPT = `label: gpt
label-id: 6F2B5C4E-0000-4000-8000-0000000000AA
device: /dev/sdx
unit: sectors
first-lba: 34
last-lba: 62500000
sector-size: 512

/dev/sdx1 : start=        2048, size=     1048576, type=C12A7328-F81F-11D2-BA4B-00A0C93EC93B, uuid=6F2B5C4E-0000-4000-8000-000000000001, name="EFI, start"
/dev/sdx2 : start=     1050624, size=    61449343, type=0FC63DAF-8483-4772-8E79-3D69D8477DE4, uuid=6F2B5C4E-0000-4000-8000-000000000002
`;
const MBR = `label: dos
label-id: 0x12345678
device: disk.img
unit: sectors

disk.img1 : start=2048, size=204800, type=c, bootable
disk.img5 : start=208896, size=4096, type=83
`;

describe('the dump of a partition table', () => {
  it('of a GPT: bytes, types, and a name with a comma in it', () => {
    expect(readSfdiskDump(GPT)).toMatchObject({
      label: 'gpt',
      sectorSize: 512,
      parts: [
        { start: 1048576, bytes: 536870912, name: 'EFI, start', bootable: false },
        { start: 537919488, uuid: '6F2B5C4E-0000-4000-8000-000000000002' },
      ],
    });
  });
  it('of an MBR: the active mark, and logical drives', () => {
    const { label, parts } = readSfdiskDump(MBR);
    expect(label).toBe('dos');
    expect(parts.map((p) => [p.start / 512, p.bytes / 512, p.type, p.bootable])).toEqual([
      [2048, 204800, 'c', true],
      [208896, 4096, '83', false],
    ]);
  });
  it('of sectors of 4096 bytes', () => {
    const [part] = readSfdiskDump(GPT.replace('sector-size: 512', 'sector-size: 4096')).parts;
    expect(part?.start).toBe(2048 * 4096);
  });

  it.each([
    ['', 'label'],
    ['hello', 'Line 1'],
    [GPT.replace('label: gpt\n', ''), 'label'],
    [GPT.replace('size=     1048576', 'size= many'), 'Line 9'],
    [GPT.replace('sector-size: 512', 'sector-size: 7'), 'sectors'],
    [`${GPT}\nmore words\n`, 'no line of a table'],
  ])('refuses what is none, and says where', (text, said) => {
    expect(() => readSfdiskDump(text)).toThrow(DumpError);
    expect(() => readSfdiskDump(text)).toThrow(new RegExp(said));
  });

  it('any text is read or refused, never half taken', () =>
    fc.assert(
      fc.property(fc.string(), fc.nat(GPT.length), (noise, at) => {
        const text = GPT.slice(0, at) + noise + GPT.slice(at);
        try {
          expect(contentSchema.safeParse(contentFromDump(text, null, AT)).success).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(DumpError);
        }
      }),
    ));
});

describe('what lies on a drive, by a dump', () => {
  const before: Content = {
    ...contentFromDump(GPT, null, AT),
    starts: [{ by: 'boot entry', firmware: 'uefi-x64', path: '/EFI/x.efi', title: 'a system' }],
    learnt: { from: 'survey', at: AT, imageId: null },
  };
  before.parts = before.parts.map((p, i) => ({ ...p, filesystem: ['vfat', 'ext4'][i] ?? null }));

  it('does not say what starts: a table does not tell', () => {
    expect(contentFromDump(GPT, null, AT)).toMatchObject({
      table: 'gpt',
      starts: null,
      learnt: { from: 'dump', at: AT },
    });
  });
  it('keeps what was known of parts that are still there', () => {
    const now = contentFromDump(GPT, before, AT);
    expect(now.parts.map((p) => p.filesystem)).toEqual(['vfat', 'ext4']);
    expect(now.starts).toEqual(before.starts);
  });
  it('and forgets it of parts that are not', () => {
    const moved = contentFromDump(GPT.replace('start=     1050624', 'start=     1050632'), before, AT);
    expect(moved.parts.map((p) => p.filesystem)).toEqual(['vfat', null]);
    expect(moved.starts).toBeNull();
  });
});
