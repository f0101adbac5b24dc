/**
 * What an image says of itself, held against the tools that made it: mkfs.ext4 and xorriso wrote the files, as and ld the
 * programs with their notes, readelf and strings say what stands in them, sfdisk where the last part ends.
 */
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { readImageItem } from '@zb/core/model/blank';
import type { Inspection } from '@zb/core/model/inspection';
import { kernelYear } from '@zb/core/system/kernelYears';
import { profileFromImage } from '@zb/core/system/fromImage';
import { notSaid } from '@zb/core/system/notSaid';
import { blank, inspectFile, run, scratch } from './files';
import { prepareKernel } from './machines';
import { Maker, MIB } from './makeImages';

jest.setTimeout(300_000);
const room = scratch();
afterAll(() => room.clear());
const images = new Maker(room);
const SD_BOOT = '/usr/lib/systemd/boot/efi/systemd-bootx64.efi';

const text = (name: string, of: string): string => {
  writeFileSync(room.path(name), of);
  return room.path(name);
};

/** A program that does nothing, with the note that says which level of x86-64 it needs. */
function program(name: string, flags: string[], as: string[] = ['--64']): string {
  run('as', [...as, '-o', room.path(`${name}.o`), text(`${name}.s`, '.globl _start\n_start: ret\n')]);
  run('ld', [...flags, '-o', room.path(name), room.path(`${name}.o`)]);
  return room.path(name);
}

function tree(name: string, files: Record<string, string>): string {
  const root = room.path(name);
  for (const [to, from] of Object.entries(files)) {
    mkdirSync(`${root}${to}`.replace(/\/[^/]*$/, ''), { recursive: true });
    copyFileSync(from, `${root}${to}`);
  }
  return root;
}

/** A disk with an EFI part that starts a real kernel, and a system on ext4. */
function appliance(name: string, init: string, release: string): string {
  const { kernel } = prepareKernel();
  const entry = text(`${name}.conf`, 'title It\nlinux /vmlinuz\n');
  const esp = images.fat(`${name}.fat`, 40, '32', [
    ['/EFI/BOOT/BOOTX64.EFI', SD_BOOT],
    ['/loader/entries/it.conf', entry],
    ['/vmlinuz', kernel],
  ]);
  const root = tree(`${name}.root`, { '/etc/os-release': text(`${name}.os`, release), '/sbin/init': init });
  const ext = blank(room.path(`${name}.ext`), 16 * MIB);
  run('mkfs.ext4', ['-q', '-F', '-L', 'system', '-d', root, ext]);
  const script = 'label: gpt\nstart=2048, size=81920, type=U\nstart=83968, size=32768, type=L\n';
  return images.disk(`${name}.img`, 64, script, [
    [esp, 1],
    [ext, 41],
  ]);
}

describe('a disk image with a system on it', () => {
  const release = 'NAME="Gull \\"Box\\""\nVERSION_ID=4.2\nVARIANT="Small"\nID=gull\n';
  let path: string;
  let found: Inspection;
  beforeAll(async () => {
    path = appliance('whole', program('level3', ['-z', 'x86-64-v3']), release);
    found = await inspectFile(path);
  });

  it('says its name, version and variant as its os-release does', () => {
    const { name, version, variant } = found.identity ?? {};
    // os-release(5): the file is shell-compatible, so the shell is what says what stands in it.
    const of = (key: string): string =>
      run('sh', ['-c', `. "$1"; printf %s "$${key}"`, 'sh', room.path('whole.os')]);
    expect([name?.value, version?.value, variant?.value]).toEqual([
      of('NAME'),
      of('VERSION_ID'),
      of('VARIANT'),
    ]);
    expect(name?.from).toMatchObject({ code: 'os-release', path: '/etc/os-release', place: { index: 2 } });
  });

  it('says its processor and level as readelf reads them', () => {
    const note = run('readelf', ['-n', room.path('level3')]);
    expect(note).toContain('x86 ISA needed: x86-64-v3');
    expect(found.identity?.cpuLevel).toMatchObject({ value: 'v3', from: { path: '/sbin/init' } });
    expect(found.identity?.archs.map((a) => a.value)).toEqual(['x86_64']);
  });

  it('says the kernel’s version as it stands in the kernel', () => {
    const [kernel] = found.identity?.kernels ?? [];
    expect(kernel?.from).toMatchObject({ code: 'kernel header', path: '/vmlinuz' });
    const strings = run('strings', ['-n', '12', prepareKernel().kernel]).split('\n');
    expect(strings).toContain(kernel?.value);
  });

  it('wants as large a drive as its last part ends at', () => {
    const { partitiontable } = JSON.parse(run('sfdisk', ['--json', path])) as {
      partitiontable: { partitions: { start: number; size: number }[] };
    };
    const ends = partitiontable.partitions.map((p) => (p.start + p.size) * 512);
    expect(found.identity?.reaches).toBe(Math.max(...ends));
  });

  it('begins a system with these, where each comes from, and asks for the rest', () => {
    const profile = profileFromImage(readImageItem('x.img', found), 'new');
    const version = found.identity?.kernels[0]?.value ?? '';
    expect(profile).toMatchObject({
      name: 'Gull "Box"',
      calls: ['Gull "Box"'],
      releases: [
        { version: '4.2', archs: ['x86_64'], cpuLevel: 'v3', newestYear: kernelYear(version) ?? 'a year' },
      ],
      needs: { firmware: ['uefi'], bootBytes: 4e9 },
      installer: 'written straight to the final drive',
      writeMode: 'whole image',
      origins: {
        name: { code: 'image says' },
        'releases.0.newestYear': { code: 'age of its kernel' },
        'needs.firmware': { code: 'how it starts' },
        'needs.bootBytes': { code: 'its size' },
      },
    });
    expect(notSaid(profile as NonNullable<typeof profile>)).toEqual(
      expect.arrayContaining(['purpose', 'needs.memoryBytes', 'needs.cores', 'login']),
    );
  });
});

it('a program of 32 bits makes it a system of 32 bits, whatever the kernel is', async () => {
  const init = program('narrow', ['-m', 'elf_i386'], ['--32']);
  expect(run('readelf', ['-h', init])).toMatch(/Machine:.*80386/);
  const found = await inspectFile(appliance('narrow', init, 'NAME=Tern\n'));
  expect(found.identity?.archs.map((a) => a.value)).toEqual(['i686']);
  expect(found.identity?.cpuLevel).toBeNull();
});

it('a disc says its name by its information, and by its label where it has none', async () => {
  const disc = async (name: string, files: Record<string, string>): Promise<Inspection> => {
    const path = room.path(`${name}.iso`);
    run('xorriso', ['-as', 'mkisofs', '-R', '-V', 'GULL_5_1', '-o', path, tree(name, files)]);
    return inspectFile(path);
  };
  const info = text('info', 'Gull Box 5.1.0 "Skua" - Official amd64 NETINST 20260210\n');
  const { identity } = await disc('informed', { '/.disk/info': info });
  expect([identity?.name?.value, identity?.version?.value]).toEqual(['Gull Box', '5.1.0']);
  expect(identity?.archs.map((a) => a.value)).toEqual(['x86_64']);
  const bare = await disc('bare', { '/file': info });
  expect(bare.identity?.name).toEqual({
    value: 'GULL',
    from: { code: 'volume label', place: { of: 'optical volume' } },
  });
  const profile = profileFromImage(readImageItem('gull.iso', bare), 'new');
  // An installer unpacks onto the drive what nobody can read from its size.
  expect(profile?.origins['needs.bootBytes']).toEqual({ code: 'not said' });
  expect(profile?.origins.installer).toEqual({ code: 'not said' });
});
