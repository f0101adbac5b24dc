/**
 * The files of a disc copied onto a FAT stick: what is foretold of the disc, and what the emulator does with such a stick,
 * with the label its loader looks for and without.
 */
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FileCopy } from '@zb/core/model/inspection';
import { starts } from './emulator';
import { inspectFile, run, scratch } from './files';
import { Maker, TOKEN } from './makeImages';

jest.setTimeout(300_000);
const room = scratch();
afterAll(() => room.clear());
const images = new Maker(room);
const MODULES =
  'fat iso9660 part_gpt configfile normal linux test serial terminal search search_label search_fs_file'.split(
    ' ',
  );
const MENU =
  'serial --unit=0 --speed=115200\nterminal_output serial\nset timeout=0\nmenuentry go {\nlinux /kernel\n}\n';

interface Disc {
  files: [to: string, from: string][];
  foretold: FileCopy | null;
}
/** A disc whose GRUB finds its volume by `by`, and not by the drive it was started from. */
async function disc(name: string, by: string, label = 'GULL', kernel = images.lastStage()): Promise<Disc> {
  const early = room.path(`${name}.cfg`);
  writeFileSync(early, `${by}\nset root=$dev\nset prefix=($dev)/boot/grub\n`);
  const grub = room.path(`${name}.efi`);
  run('grub-mkimage', ['-O', 'x86_64-efi', '-p', '/none', '-c', early, '-o', grub, ...MODULES]);
  const menu = room.path(`${name}.menu`);
  writeFileSync(menu, MENU);
  const files: Disc['files'] = [
    ['/EFI/BOOT/BOOTX64.EFI', grub],
    ['/boot/grub/grub.cfg', menu],
    ['/kernel', kernel],
  ];
  const root = room.path(`${name}.tree`);
  for (const [to, from] of files) {
    mkdirSync(join(root, to, '..'), { recursive: true });
    copyFileSync(from, join(root, to));
  }
  const path = room.path(`${name}.iso`);
  run('xorriso', ['-as', 'mkisofs', '-quiet', '-R', '-V', label, '-o', path, root]);
  return { files, foretold: (await inspectFile(path)).fileCopy };
}

/** Does a stick with these files, under this label, come to the last stage? */
async function observed(name: string, { files }: Disc, label: string | null): Promise<boolean> {
  const part = images.fat(`${name}.fat`, 20, '16', files);
  if (label !== null) run('mlabel', ['-i', part, `::${label}`]);
  const path = images.disk(`${name}.img`, 24, 'label: gpt\nstart=2048, size=40960, type=U\n', [[part, 1]]);
  return starts({ firmware: 'uefi-x64', attached: 'disk', image: path, token: TOKEN });
}

it('a loader that looks for a file of its own starts from any such stick', async () => {
  const made = await disc('file', 'search.file /boot/grub/grub.cfg dev');
  expect(made.foretold).toMatchObject({ starts: ['uefi-x64'], label: null });
  expect(await observed('file', made, null)).toBe(true);
});

it('a loader that looks for its volume by label starts from a stick of that label alone', async () => {
  const made = await disc('label', 'search.fs_label GULL dev');
  expect(made.foretold).toMatchObject({ starts: ['uefi-x64'], label: 'GULL' });
  expect(await observed('labelled', made, 'GULL')).toBe(true);
  expect(await observed('bare', made, null)).toBe(false);
});

it('a label that FAT cannot have, or a kernel that is wiped, is no way', async () => {
  const long = await disc('long', 'search.fs_label A_LABEL_TOO_LONG dev', 'A_LABEL_TOO_LONG');
  expect(long.foretold?.starts).toEqual([]);
  const zeros = room.path('zeros');
  writeFileSync(zeros, new Uint8Array(4096));
  const wiped = await disc('wiped', 'search.file /boot/grub/grub.cfg dev', 'GULL', zeros);
  expect(wiped.foretold?.starts).toEqual([]);
  expect(await observed('wiped', wiped, null)).toBe(false);
});
