/**
 * A stick for several images, by our own menu: GRUB in the emulator starts each out of its own file, and its last stage
 * speaks. Our reader foretells the same of the finished stick.
 */
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readImageItem } from '@zb/core/model/blank';
import type { ImageItem } from '@zb/core/model/shelf';
import { severalOnStick } from '@zb/core/write/severalOnStick';
import { starts } from './emulator';
import { inspectFile, run, scratch } from './files';
import { Maker, TOKEN } from './makeImages';

jest.setTimeout(300_000);
const room = scratch();
afterAll(() => room.clear());
const images = new Maker(room);
const MODULES =
  'fat iso9660 part_gpt part_msdos loopback configfile normal linux test serial terminal echo search'.split(
    ' ',
  );

/** A disc that can be started out of its own file, or that has no menu for it. */
async function disc(name: string, menu: string | null): Promise<ImageItem> {
  const root = join(room.dir, `${name}.tree`);
  mkdirSync(join(root, 'boot/grub'), { recursive: true });
  copyFileSync(images.lastStage(), join(root, 'kernel'));
  if (menu !== null) writeFileSync(join(root, 'boot/grub/loopback.cfg'), menu);
  const path = room.path(name);
  run('xorriso', ['-as', 'mkisofs', '-quiet', '-R', '-V', 'DISC', '-o', path, root]);
  return readImageItem(name, await inspectFile(path));
}

/** The stick with GRUB, the menu and the images; what is chosen is `first`. */
function stick(config: string, names: readonly string[], first: number): string {
  const grub = room.path(`grub${first}.efi`);
  run('grub-mkimage', ['-O', 'x86_64-efi', '-p', '/boot/grub', '-o', grub, ...MODULES]);
  const cfg = room.path(`grub${first}.cfg`);
  const quiet = `serial --unit=0 --speed=115200\nterminal_output serial\n${config}set default=${first}\nset timeout=0\n`;
  writeFileSync(cfg, quiet);
  const part = images.fat(`stick${first}.fat`, 40, '16', [
    ['/EFI/BOOT/BOOTX64.EFI', grub],
    ['/boot/grub/grub.cfg', cfg],
    ...names.map((n): [string, string] => [`/images/${n}`, room.path(n)]),
  ]);
  return images.disk(`stick${first}.img`, 48, 'label: gpt\nstart=2048, size=81920, type=U\n', [[part, 1]]);
}

const MENU = 'set timeout=0\nmenuentry go {\nlinux /kernel iso-scan/filename=${iso_path}\n}\n';

it.each([0, 1])('image %s of the menu starts out of its own file', async (first) => {
  const names = ["gull's box.iso", 'tern-2.iso'];
  const discs = [await disc(names[0] ?? '', MENU), await disc(names[1] ?? '', MENU)];
  const plan = severalOnStick(discs, []);
  expect(plan.images.map((i) => i.not)).toEqual([null, null]);
  const path = stick(plan.config, names, first);
  const { outcomes } = await inspectFile(path);
  const row = outcomes.find((o) => o.firmware === 'uefi-x64' && o.attached === 'disk');
  expect({ starts: row?.starts, chain: row?.chain.map((r) => [r.rung, r.state, r.why]) }).toMatchObject({
    starts: 'yes',
  });
  expect(await starts({ firmware: 'uefi-x64', attached: 'disk', image: path, token: TOKEN })).toBe(true);
});

it('an image without a menu for it is not put on such a stick', async () => {
  const plan = severalOnStick([await disc('bare.iso', null)], []);
  expect(plan).toMatchObject({ images: [{ not: 'no configuration of its own' }], bytes: 0, config: '' });
});
