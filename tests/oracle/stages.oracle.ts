/**
 * What later stages are kept in, read as the tools that made it meant it: files on ext2, ext3 and ext4 (mkfs -d, debugfs),
 * raw LZMA (xz --format=raw), tar (tar), and what is built into GRUB’s images (grub-mkimage).
 */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { openExt } from '@zb/core/formats/ext/read';
import { readGrubCore } from '@zb/core/formats/grub/core';
import { grubFromSection } from '@zb/core/formats/grub/modules';
import { unpackLzma } from '@zb/core/formats/lzma';
import { readLoader } from '@zb/core/formats/pe/read';
import { bytesSource, slice } from '@zb/core/formats/source';
import { openTar } from '@zb/core/formats/tar';
import type { Volume } from '@zb/core/formats/volume';
import { blank, run, scratch } from './files';

const room = scratch();
afterAll(() => room.clear());
const MIB = 1024 * 1024;
const load = (path: string): Uint8Array => new Uint8Array(readFileSync(path));

async function content(volume: Volume | undefined, path: string): Promise<Buffer | undefined> {
  const found = await volume?.find(path);
  if (!found || found.directory) return undefined;
  const file = await found.open();
  return Buffer.from(await file.read(0, file.size));
}

function tree(): string {
  const dir = room.path('tree');
  mkdirSync(`${dir}/a/b`, { recursive: true });
  writeFileSync(`${dir}/small`, 'small');
  writeFileSync(`${dir}/empty`, '');
  let x = 7;
  const large = Buffer.alloc(3 * MIB + 77);
  for (let i = 0; i < large.length; i += 1) large[i] = (x = (x * 1103515245 + 12345) & 0x7fffffff) >> 16;
  writeFileSync(`${dir}/a/large`, large);
  // A file with holes, which read as zeros.
  writeFileSync(
    `${dir}/a/holes`,
    Buffer.concat([Buffer.from('front'), Buffer.alloc(700_000), Buffer.from('end')]),
  );
  run('ln', ['-s', '../large', `${dir}/a/b/up`]);
  run('ln', ['-s', `/a/${'./'.repeat(40)}large`, `${dir}/long-link`]);
  run('ln', ['-s', 'loop', `${dir}/loop`]);
  for (let i = 0; i < 900; i += 1) writeFileSync(`${dir}/a/b/file number ${i}`, `${i}`);
  return dir;
}

const from = tree();
describe.each([
  ['ext2', '1024', []],
  ['ext2', '4096', []],
  ['ext3', '2048', []],
  ['ext4', '1024', []],
  ['ext4', '4096', []],
  ['ext4', '4096', ['-O', '^64bit,^flex_bg', '-I', '128']],
  ['ext4', '4096', ['-O', '^extents,^64bit']],
] as const)('%s with blocks of %s %s', (kind, block, more) => {
  const path = blank(room.path(`${kind}${block}${more.length}${more[1] ?? ''}`.replace(/\W/g, '')), 24 * MIB);
  run(`mkfs.${kind}`, ['-q', '-F', '-b', block, ...more, '-d', from, path]);

  it('has the files, by name, through links and with holes', async () => {
    const volume = await openExt(bytesSource(load(path)));
    for (const file of ['small', 'empty', 'a/large', 'a/holes', 'a/b/file number 899'])
      expect((await content(volume, `/${file}`))?.equals(readFileSync(`${from}/${file}`))).toBe(true);
    for (const link of ['/a/b/up', '/long-link'])
      expect((await content(volume, link))?.equals(readFileSync(`${from}/a/large`))).toBe(true);
    expect(await volume?.find('/loop')).toBeUndefined();
    expect(await volume?.find('/SMALL')).toBeUndefined();
    const names = run('debugfs', ['-R', 'ls -p /a/b', path])
      .split('\n')
      .map((l) => l.split('/')[5] ?? '')
      .filter((n) => n !== '' && n !== '.' && n !== '..');
    expect([...((await volume?.names('/a/b')) ?? [])].sort()).toEqual(names.sort());
  });

  it('says that a file is cut where the image ends inside it', async () => {
    const bytes = load(path);
    const blocks = run('debugfs', ['-R', 'blocks /a/large', path]).trim().split(/\s+/).map(Number);
    const last = Math.max(...blocks);
    const volume = await openExt(bytesSource(bytes.subarray(0, last * Number(block))));
    const found = await volume?.find('/a/large');
    const whole = found && !found.directory ? (await found.open()).whole : undefined;
    expect(whole).toBe(false);
  });
});

it.each([
  ['text', Buffer.from('a line that comes again and again\n'.repeat(5000))],
  ['what does not shrink', readFileSync(`${from}/a/large`).subarray(0, 300_000)],
  ['a program', readFileSync('/bin/busybox').subarray(0, 600_000)],
  ['zeros', Buffer.alloc(100_000)],
])('unpacks raw LZMA as xz packs it: %s', (_name, bytes) => {
  const plain = room.path('plain');
  writeFileSync(plain, bytes);
  const packed = room.path('packed');
  run('sh', ['-c', 'xz --format=raw --lzma1=lc=3,lp=0,pb=2 -c "$1" > "$2"', 'sh', plain, packed]);
  const out = unpackLzma(load(packed), bytes.length, { lc: 3, lp: 0, pb: 2 });
  expect(out && Buffer.from(out).equals(bytes)).toBe(true);
  const short = unpackLzma(load(packed).subarray(0, 20), bytes.length, { lc: 3, lp: 0, pb: 2 });
  expect(short && Buffer.from(short).equals(bytes)).toBeFalsy();
});

it('reads a tar archive as tar made it', async () => {
  const archive = room.path('x.tar');
  run('tar', ['--format=ustar', '-cf', archive, '-C', from, 'a/large', 'small']);
  const volume = await openTar(bytesSource(load(archive)));
  expect((await content(volume, '/a/large'))?.equals(readFileSync(`${from}/a/large`))).toBe(true);
  expect(await volume?.names('/')).toEqual(['a', 'small']);
});

describe('what grub-mkimage builds in', () => {
  const early = room.path('early.cfg');
  writeFileSync(early, 'search --file --set=root /x\nset prefix=($root)/boot/grub\n');
  const modules = ['normal', 'linux', 'ext2', 'search_fs_file'];

  it('is read from an EFI program', async () => {
    const path = room.path('grub.efi');
    run('grub-mkimage', ['-O', 'x86_64-efi', '-p', '(,gpt2)/boot/grub', '-c', early, '-o', path, ...modules]);
    const source = bytesSource(load(path));
    const section = (await readLoader(source))?.sections.find((s) => s.name === 'mods');
    const image = section && (await grubFromSection(slice(source, section.offset, section.bytes), true));
    expect(image?.prefix).toBe('(,gpt2)/boot/grub');
    expect(image?.config).toBe(readFileSync(early, 'utf8').trimEnd());
    for (const m of modules) expect(image?.modules.has(m)).toBe(true);
    expect(image?.modules.has('chain')).toBe(false);
  });

  it('is read from a second stage for BIOS, and a damaged one is told', async () => {
    const path = room.path('core.img');
    run('grub-mkimage', [
      '-O',
      'i386-pc',
      '-p',
      '/boot/grub',
      '-c',
      early,
      '-o',
      path,
      'biosdisk',
      ...modules,
    ]);
    const stage = load(path).subarray(512);
    const core = await readGrubCore(stage);
    expect('image' in core && [core.image.prefix, core.image.modules.has('biosdisk')]).toEqual([
      '/boot/grub',
      true,
    ]);
    expect(await readGrubCore(stage.subarray(0, 20_000))).toEqual({ fault: 'cut short' });
    const wiped = stage.slice();
    wiped.fill(0, 8000);
    expect('fault' in (await readGrubCore(wiped))).toBe(true);
  });
});
