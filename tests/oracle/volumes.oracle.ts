/**
 * File systems, volumes and trees against Debian's tools: blkid names kind, label and UUID of what mkfs.*, cryptsetup and
 * mkswap made; bsdtar, isoinfo and mdir list the trees. Two super blocks that no tool makes on a plain file are written
 * here by their formats, and blkid has to recognise them first.
 */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { crc32 } from 'node:zlib';
import { openFat } from '@zb/core/formats/fat/read';
import { openIso } from '@zb/core/formats/iso9660/read';
import { bytesSource } from '@zb/core/formats/source';
import { blank, blkid, inspectFile, put, run, scratch } from './files';

jest.setTimeout(120_000);
const MIB = 1024 * 1024;
const room = scratch();
afterAll(() => room.clear());

/** What the reader calls a kind that blkid has another word for. */
const OURS: Record<string, string> = {
  crypto_LUKS: 'luks',
  LVM2_member: 'lvm',
  linux_raid_member: 'raid member',
};

/** LVM2 label (lib/format_text/layout.h): "LABELONE" in sector 1, its CRC over bytes 20 to 511, the volume's UUID. */
function lvm(path: string): void {
  const sector = Buffer.alloc(512);
  sector.write('LABELONE', 0);
  sector.writeBigUInt64LE(1n, 8);
  sector.writeUInt32LE(32, 20);
  sector.write('LVM2 001', 24);
  sector.write('abcdefGHIJklmnOPQRstuvWXYZ012345', 32);
  // The format's own CRC-32: another start value, no turning over at the end.
  const crc = (crc32Of(sector.subarray(20), 0xf597a6cf ^ 0xffffffff) ^ 0xffffffff) >>> 0;
  sector.writeUInt32LE(crc, 16);
  writeAt(path, 512, sector);
}

/** MD super block 1.2 (the kernel's md_p.h) at byte 4096; its sum is over all its 32-bit words. */
function raid(path: string): void {
  const block = Buffer.alloc(258);
  block.writeUInt32LE(0xa92b4efc, 0);
  block.writeUInt32LE(1, 4);
  block.write('0123456789abcdef', 16);
  block.write('bench:0', 32);
  block.writeUInt32LE(1, 72);
  block.writeBigUInt64LE(2048n, 128);
  block.writeBigUInt64LE(8n, 144);
  block.writeUInt32LE(1, 220);
  let sum = 0n;
  for (let i = 0; i + 4 <= block.length; i += 4) sum += BigInt(block.readUInt32LE(i));
  sum += BigInt(block.readUInt16LE(256));
  block.writeUInt32LE(Number((sum & 0xffffffffn) + (sum >> 32n)) >>> 0, 216);
  writeAt(path, 4096, block);
}

function crc32Of(bytes: Uint8Array, start: number): number {
  return (crc32 as (b: Uint8Array, start?: number) => number)(bytes, start >>> 0);
}

function writeAt(path: string, at: number, bytes: Uint8Array): void {
  const whole = readFileSync(path);
  whole.set(bytes, at);
  writeFileSync(path, whole);
}

const makers: [name: string, mib: number, make: (p: string) => unknown][] = [
  ['FAT12', 4, (p) => run('mkfs.vfat', ['-F', '12', '-n', 'TWELVE', p])],
  ['FAT16', 32, (p) => run('mkfs.vfat', ['-F', '16', '-n', 'SIXTEEN', p])],
  ['FAT32', 64, (p) => run('mkfs.vfat', ['-F', '32', '-n', 'THIRTY', p])],
  ['ext2', 16, (p) => run('mkfs.ext2', ['-q', '-L', 'two', p])],
  ['ext3', 16, (p) => run('mkfs.ext3', ['-q', '-L', 'three', p])],
  ['ext4', 16, (p) => run('mkfs.ext4', ['-q', '-L', 'four', p])],
  ['XFS', 320, (p) => run('mkfs.xfs', ['-q', '-L', 'xname', p])],
  ['Btrfs', 160, (p) => run('mkfs.btrfs', ['-q', '-L', 'bname', p])],
  ['F2FS', 64, (p) => run('mkfs.f2fs', ['-q', '-l', 'fname', p])],
  ['exFAT', 16, (p) => run('mkfs.exfat', ['-L', 'ename', p])],
  ['NTFS', 16, (p) => run('mkfs.ntfs', ['-q', '-F', '-L', 'nname', p])],
  ['swap', 16, (p) => run('mkswap', ['-L', 'swappy', p])],
  [
    'LUKS',
    32,
    (p) =>
      run(
        'cryptsetup',
        [
          'luksFormat',
          '--type',
          'luks2',
          '--batch-mode',
          '--pbkdf',
          'pbkdf2',
          '--pbkdf-force-iterations',
          '1000',
          p,
          '-',
        ],
        'pass',
      ),
  ],
  ['an LVM volume', 8, lvm],
  ['a RAID member', 8, raid],
];

it.each(makers)(
  '%s: kind, label and UUID as blkid has them, bare and inside a part',
  async (name, mib, make) => {
    const path = blank(room.path('fs.img'), mib * MIB);
    make(path);
    const expected = blkid(path);
    // blkid names all FAT "vfat" and keeps the width in VERSION.
    const kind =
      expected.TYPE === 'vfat'
        ? expected.VERSION?.toLowerCase()
        : (OURS[expected.TYPE ?? ''] ?? expected.TYPE);
    const disk = blank(room.path('disk.img'), (mib + 2) * MIB);
    run('sfdisk', ['-q', disk], `label: gpt\nstart=2048, size=${mib * 2048}, type=L\n`);
    put(disk, path, MIB);
    for (const image of [path, disk]) {
      const [part] = (await inspectFile(image)).parts;
      expect(part?.filesystem).toBe(kind);
      expect(part?.label ?? undefined).toBe(expected.LABEL);
      const uuid = expected.UUID?.toLowerCase().replace(/-/g, '');
      expect(part?.uuid?.toLowerCase().replace(/-/g, '')).toBe(uuid);
    }
    expect(kind).toBeDefined();
    expect(name).not.toBe('');
  },
);

describe('trees', () => {
  const files: Record<string, string> = {
    'short.txt': 'one',
    'A long name, with commas and ümlauts.conf': 'two',
    'deep/deeper/deepest/x.bin': 'three',
    'deep/EMPTY': '',
  };
  const tree = room.path('t');
  beforeAll(() => {
    mkdirSync(`${tree}/deep/deeper/deepest`, { recursive: true });
    for (const [name, text] of Object.entries(files)) writeFileSync(`${tree}/${name}`, text);
  });
  const listed = (path: string): string[] =>
    run('bsdtar', ['-tf', path])
      .split('\n')
      .map((l) => `/${l.replace(/^\.?\/?/, '').replace(/\/$/, '')}`)
      .filter((l) => l !== '/' && l !== '/.')
      .sort();
  const walked = async (path: string): Promise<string[]> =>
    ((await (await openIso(bytesSource(readFileSync(path))))?.walk()) ?? []).map((e) => e.path).sort();

  it.each([
    ['Rock Ridge', ['-r'], 'Rock Ridge'],
    ['Rock Ridge and Joliet', ['-r', '-J'], 'Rock Ridge'],
    ['Joliet', ['-J', '-input-charset', 'utf-8'], 'Joliet'],
  ])('optical, %s: the tree bsdtar lists', async (_, options, names) => {
    const path = room.path('t.iso');
    run('genisoimage', ['-quiet', ...options, '-o', path, tree]);
    expect(await walked(path)).toEqual(listed(path));
    const volume = await openIso(bytesSource(readFileSync(path)));
    expect(volume?.names).toBe(names);
    expect(run('isoinfo', ['-d', '-i', path])).toMatch(
      names === 'Joliet' ? /Joliet with UCS/ : /Rock Ridge signatures/,
    );
  });
  it('optical with UDF beside it is said to have both', async () => {
    const path = room.path('udf.iso');
    run('genisoimage', ['-quiet', '-udf', '-r', '-o', path, tree]);
    expect(blkid(path).TYPE).toMatch(/udf|iso9660/);
    const volume = await openIso(bytesSource(readFileSync(path)));
    expect(volume?.udf).toBe(true);
    expect((await inspectFile(path)).parts[0]?.filesystem).toBe('iso9660');
  });
  it('FAT: the tree mdir lists', async () => {
    const path = blank(room.path('t.fat'), 20 * MIB);
    run('mkfs.vfat', ['-F', '16', path]);
    run('mcopy', ['-s', '-i', path, `${tree}/deep`, `${tree}/short.txt`, '::/']);
    const expected = run('mdir', ['-/', '-b', '-i', path, '::'])
      .split('\n')
      .filter(Boolean)
      .map((l) => l.replace(/^::/, '').replace(/\/$/, ''))
      .sort();
    const fat = await openFat(bytesSource(readFileSync(path)));
    expect((await fat?.walk())?.map((e) => e.path).sort()).toEqual(expected);
  });
});
