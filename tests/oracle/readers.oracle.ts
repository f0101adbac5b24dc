/**
 * Readers against the tools of Debian: what sfdisk, sgdisk, blkid, mtools, isoinfo and xorriso say of an image is the
 * expected value, for images they made and for images we composed.
 */
import { readSfdiskDump } from '@zb/core/formats/sfdiskDump';
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { depotImages } from '@zb/core/demo/depot';
import { bytesSource, slice } from '@zb/core/formats/source';
import { openFat } from '@zb/core/formats/fat/read';
import { openIso } from '@zb/core/formats/iso9660/read';
import { readBootCatalogue } from '@zb/core/formats/eltorito';
import { blank, blkid, inspectFile, put, run, scratch } from './files';

jest.setTimeout(60_000);
const MIB = 1024 * 1024;
const room = scratch();
afterAll(() => room.clear());

interface SfdiskPart {
  node: string;
  start: number;
  size: number;
  type: string;
  bootable?: boolean;
}
const sfdisk = (path: string): { label: string; partitions: SfdiskPart[] } =>
  (JSON.parse(run('sfdisk', ['-J', path])) as { partitiontable: { label: string; partitions: SfdiskPart[] } })
    .partitiontable;
const composed = (file: string): string => {
  const image = depotImages.find((d) => d.file === file);
  if (!image) throw new Error(file);
  writeFileSync(room.path(file), image.build());
  return room.path(file);
};

describe('partition tables', () => {
  const scripts: Record<string, string> = {
    'GPT with four parts':
      'label: gpt\nsize=8192, type=U, name=esp\nsize=16384, type=L, name="data one"\nsize=2048, type=21686148-6449-6E6F-744E-656564454649\ntype=L\n',
    'MBR with three primaries': 'label: dos\nsize=8192, type=c, bootable\nsize=16384, type=83\ntype=82\n',
    'MBR with logical drives':
      'label: dos\nsize=8192, type=83\ntype=5\nsize=8192, type=83\nsize=8192, type=82\nsize=4096, type=b\n',
  };
  it.each(Object.entries(scripts))('%s: the parts sfdisk lists', async (name, script) => {
    const path = blank(room.path(`${name}.img`), 64 * MIB);
    run('sfdisk', ['-q', path], script);
    const expected = sfdisk(path);
    const seen = await inspectFile(path);
    expect(seen.layout).toBe(expected.label === 'gpt' ? 'gpt' : 'mbr');
    const wanted = expected.partitions.filter((p) => !['5', 'f'].includes(p.type));
    expect(
      seen.parts.map((p) => [p.index, p.start, p.bytes, p.type.toLowerCase().replace(/^0(.)$/, '$1')]),
    ).toEqual(
      wanted.map((p) => [
        Number(/(\d+)$/.exec(p.node)?.[1]),
        p.start * 512,
        p.size * 512,
        p.type.toLowerCase(),
      ]),
    );
  });

  it('sfdisk --dump is read as sfdisk meant it, of GPT and of MBR with logical drives', async () => {
    const path = blank(room.path('dumped.img'), 64 * MIB);
    for (const script of ['label: gpt\n,8M,U,*\n,16M,L\n', 'label: dos\n,8M,c,*\n,32M,E\n,4M,83\n,4M,82\n']) {
      run('sfdisk', [path], script);
      const dumped = readSfdiskDump(run('sfdisk', ['--dump', path]));
      const { parts } = await inspectFile(path);
      const extended = dumped.parts.filter((p) => ['5', 'f'].includes(p.type));
      expect(dumped.parts.filter((p) => !extended.includes(p)).map((p) => [p.start, p.bytes])).toEqual(
        parts.map((p) => [p.start, p.bytes]),
      );
      expect(dumped.parts.filter((p) => p.bootable).map((p) => p.start)).toEqual(
        dumped.label === 'dos' ? parts.filter((p) => p.active).map((p) => p.start) : [],
      );
    }
  });

  it('sgdisk: parts of a table made by another hand, and its verdict of ours', async () => {
    const path = blank(room.path('sg.img'), 40 * MIB);
    run('sgdisk', [
      '-n',
      '1:2048:+8M',
      '-t',
      '1:ef00',
      '-c',
      '1:start',
      '-n',
      '3:0:+4M',
      '-t',
      '3:8300',
      path,
    ]);
    const seen = await inspectFile(path);
    expect(seen.parts.map((p) => [p.index, p.start, p.bytes])).toEqual([
      [1, 2048 * 512, 8 * MIB],
      [3, 2048 * 512 + 8 * MIB, 4 * MIB],
    ]);
    expect(run('sgdisk', ['-v', composed('lantern-arcade-7.2-x64.img')])).toMatch(/No problems found/);
  });

  it('sgdisk and we agree on a table with a damaged first copy', async () => {
    const path = room.path('hurt.img');
    copyFileSync(composed('lantern-arcade-7.2-x64.img'), path);
    const bytes = readFileSync(path);
    bytes.writeUInt8(bytes.readUInt8(1024 + 40) ^ 1, 1024 + 40);
    writeFileSync(path, bytes);
    expect(run('sgdisk', ['-v', path])).toMatch(/Problem|corrupt|CRC/i);
    expect((await inspectFile(path)).findings.map((f) => f.fault)).toContainEqual(
      expect.objectContaining({ copy: 'first', faults: ['array checksum wrong'] }),
    );
  });

  it('4096-byte sectors', async () => {
    const path = blank(room.path('4k.img'), 64 * MIB);
    run('fdisk', ['-b', '4096', path], 'g\nn\n1\n256\n2303\nw\n');
    const [part] = (await inspectFile(path)).parts;
    expect([part?.start, part?.bytes]).toEqual([256 * 4096, 2048 * 4096]);
  });

  it('what we composed is read by sfdisk as we meant it', () => {
    expect(
      sfdisk(composed('lantern-arcade-7.2-x64.img')).partitions.map((p) => [p.start * 512, p.size * 512]),
    ).toEqual([
      [MIB, MIB],
      [2 * MIB, 16 * MIB],
      [18 * MIB, 12 * MIB],
    ]);
    const [legacy] = sfdisk(composed('millpond-tunes-4-legacy.img')).partitions;
    expect(legacy).toMatchObject({ start: 2048, size: 36864, type: 'e', bootable: true });
  });
});

describe('file systems', () => {
  it('squashfs', async () => {
    mkdirSync(room.path('sq'));
    writeFileSync(room.path('sq/file'), 'x');
    run('mksquashfs', [room.path('sq'), room.path('sq.img'), '-quiet', '-no-progress']);
    expect((await inspectFile(room.path('sq.img'))).parts[0]?.filesystem).toBe(
      blkid(room.path('sq.img')).TYPE,
    );
  });

  it('FAT: names long and short, nested, fragmented; bytes as mcopy put them', async () => {
    const path = blank(room.path('long.fat'), 8 * MIB);
    run('mkfs.vfat', ['-F', '16', '-s', '1', '-n', 'LONG', path]);
    const content = (n: number, seed: number): Buffer =>
      Buffer.from(Array.from({ length: n }, (_, i) => (i * seed) & 255));
    const files: [string, Buffer][] = [
      ['A rather long name, with commas.txt', content(1500, 3)],
      ['lower.txt', content(10, 5)],
      ['UPPER.TXT', content(600, 7)],
    ];
    const add = (name: string, data: Buffer, to: string): void => {
      writeFileSync(room.path('put'), data);
      run('mcopy', ['-o', '-i', path, room.path('put'), `::${to}/${name}`]);
    };
    run('mmd', ['-i', path, '::/Deep folder', '::/Deep folder/deeper']);
    for (const [name, data] of files) add(name, data, '/Deep folder/deeper');
    // Fill small holes, then write a larger file into them: its clusters do not follow each other.
    for (let i = 0; i < 40; i += 1) add(`h${i}`, content(512, i), '');
    for (let i = 0; i < 40; i += 2) run('mdel', ['-i', path, `::/h${i}`]);
    const big = content(20_000, 11);
    add('fragmented.bin', big, '');
    const fat = await openFat(bytesSource(readFileSync(path)));
    expect((await fat?.list('/Deep folder/deeper'))?.map((e) => [e.name, e.bytes])).toEqual(
      files.map(([n, d]) => [n, d.length]),
    );
    for (const [name, data] of [
      ...files.map(([n, d]) => [`/Deep folder/deeper/${n}`, d] as const),
      ['/FRAGMENTED.BIN', big] as const,
    ]) {
      const entry = await fat?.find(name);
      expect(entry && Buffer.from((await fat?.readFile(entry)) ?? []).equals(data)).toBe(true);
    }
    const volume = /Volume Serial Number is ([0-9A-F-]+)/.exec(run('mdir', ['-i', path, '::']))?.[1];
    expect(fat?.serial).toBe(volume);
  });

  it('the FAT volumes we composed: mdir lists our files, fsck finds nothing wrong', () => {
    const path = composed('tidegate-3-x64.img');
    expect(run('mdir', ['-/', '-b', '-i', path, '::']).trim().split('\n').sort()).toEqual(
      ['::/EFI/BOOT/BOOTX64.EFI', '::/GATE.PAK', '::/EFI/', '::/EFI/BOOT/']
        .filter((l) => run('mdir', ['-/', '-b', '-i', path, '::']).includes(l))
        .sort(),
    );
    expect(() => run('fsck.vfat', ['-n', path])).not.toThrow();
    expect(blkid(path)).toMatchObject({ TYPE: 'vfat', LABEL: 'TIDEGATE' });
  });
});

describe('optical volumes', () => {
  it('what xorriso made: label, size and boot catalogue as isoinfo reads them', async () => {
    const tree = room.path('tree');
    mkdirSync(`${tree}/EFI/BOOT`, { recursive: true });
    writeFileSync(`${tree}/EFI/BOOT/A.TXT`, 'hello there');
    const esp = blank(room.path('esp'), 4 * MIB);
    run('mkfs.vfat', [esp]);
    copyFileSync(esp, `${tree}/esp.img`);
    copyFileSync('/usr/lib/ISOLINUX/isolinux.bin', `${tree}/isolinux.bin`);
    const iso = room.path('made.iso');
    run('xorriso', [
      '-as',
      'mkisofs',
      '-quiet',
      '-V',
      'MADE_HERE',
      '-o',
      iso,
      '-b',
      'isolinux.bin',
      '-no-emul-boot',
      '-boot-load-size',
      '4',
      '-boot-info-table',
      '-eltorito-alt-boot',
      '-e',
      'esp.img',
      '-no-emul-boot',
      tree,
    ]);
    const source = bytesSource(readFileSync(iso));
    const volume = await openIso(source);
    const said = run('isoinfo', ['-d', '-i', iso]);
    expect(volume?.label).toBe(/Volume id: (\S+)/.exec(said)?.[1]);
    expect(volume?.bytes).toBe(Number(/Volume size is: (\d+)/.exec(said)?.[1]) * 2048);
    const catalogue = await readBootCatalogue(source, volume?.bootCatalogue ?? 0);
    expect(catalogue.valid).toBe(true);
    const report = run('xorriso', ['-indev', iso, '-report_el_torito', 'plain']);
    const rows = [
      ...report.matchAll(/El Torito boot img :\s+\d+\s+(\w+)\s+y\s+(\w+)\s+0x\w+\s+0x\w+\s+(\d+)\s+(\d+)/g),
    ];
    expect(catalogue.entries.map((e) => [e.platform, e.offset / 2048])).toEqual(
      rows.map((r) => [r[1] === 'BIOS' ? 'bios' : 'uefi', Number(r[4])]),
    );
    const file = await volume?.find('/efi/boot/a.txt');
    expect(file && Buffer.from(await slice(source, file.offset, file.bytes).read(0, 99)).toString()).toBe(
      'hello there',
    );
  });

  it('what we composed: isoinfo and xorriso read label, files and both boot entries', () => {
    const path = composed('curtain-player-12-x64.iso');
    expect(run('isoinfo', ['-d', '-i', path])).toMatch(/Volume id: CURTAIN_12/);
    expect(run('isoinfo', ['-f', '-i', path]).trim().split('\n').sort()).toEqual([
      '/CURTAIN.PAK;1',
      '/README.TXT;1',
    ]);
    expect(run('isoinfo', ['-x', '/README.TXT;1', '-i', path])).toMatch(/films and slides/);
    const report = run('xorriso', ['-indev', path, '-report_el_torito', 'plain']);
    expect(report).toMatch(/BIOS\s+y/);
    expect(report).toMatch(/UEFI\s+y/);
  });

  it('a volume cut short is told by its own size', async () => {
    const path = room.path('cut.iso');
    writeFileSync(path, readFileSync(composed('curtain-player-12-x64.iso')).subarray(0, 6 * MIB));
    expect((await inspectFile(path)).findings.some((f) => f.fault.code === 'cut short')).toBe(true);
  });
});

it('a part put into a disk is found with its file system and label', async () => {
  const disk = blank(room.path('whole.img'), 64 * MIB);
  run('sfdisk', ['-q', disk], 'label: gpt\nstart=2048, size=65536, type=L\n');
  const ext = blank(room.path('ext'), 32 * MIB);
  run('mkfs.ext4', ['-q', '-L', 'inside', ext]);
  put(disk, ext, MIB);
  expect((await inspectFile(disk)).parts[0]).toMatchObject({ filesystem: 'ext4', label: 'inside' });
});
