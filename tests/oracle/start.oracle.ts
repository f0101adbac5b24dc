/**
 * Predictions against observed starts. Images come from Debian's GRUB, SYSLINUX, xorriso, sfdisk, sgdisk, mkfs.vfat and
 * mtools, and from our own composer; each is started in the machine emulator with Debian's BIOS and UEFI firmware.
 */
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { depotImages } from '@zb/core/compose/depot';
import { blank, inspectFile, put, run, scratch } from './files';
import { inPairs, starts } from './emulator';

jest.setTimeout(60_000);
const room = scratch();
afterAll(() => room.clear());

const MIB = 1024 * 1024;
const TOKEN = 'ZB-STARTED-HERE';
const made = new Map<string, { path: string; token: string }>();

const config = `serial --unit=0 --speed=115200\nterminal_output serial\necho ${TOKEN}\nsleep 20\n`;

function efiFile(): string {
  const cfg = room.path('efi.cfg');
  writeFileSync(cfg, config);
  const out = room.path('x64.efi');
  run('grub-mkstandalone', [
    '-O',
    'x86_64-efi',
    '-o',
    out,
    '--modules=serial terminal echo sleep',
    '--install-modules=serial terminal echo sleep',
    '--fonts=',
    '--locales=',
    '--themes=',
    `boot/grub/grub.cfg=${cfg}`,
  ]);
  return out;
}

function fatWith(
  name: string,
  bytes: number,
  bits: '12' | '16' | '32',
  loader: string | undefined,
  as: string,
): string {
  const path = blank(room.path(name), bytes);
  run('mkfs.vfat', ['-F', bits, '-n', 'ORACLE', path]);
  if (loader) {
    run('mmd', ['-i', path, '::/EFI', '::/EFI/BOOT']);
    run('mcopy', ['-i', path, loader, `::/EFI/BOOT/${as}`]);
  }
  return path;
}

beforeAll(() => {
  for (const image of depotImages) {
    const path = room.path(image.file);
    writeFileSync(path, image.build());
    made.set(image.file, { path, token: image.says });
  }
  const add = (name: string, path: string): void => void made.set(name, { path, token: TOKEN });

  const tree = room.path('tree');
  mkdirSync(`${tree}/boot/grub`, { recursive: true });
  writeFileSync(`${tree}/boot/grub/grub.cfg`, config);
  const small = [
    '--fonts=',
    '--locales=',
    '--themes=',
    '--install-modules=serial terminal echo sleep iso9660 part_gpt part_msdos fat normal configfile search',
  ];
  run('grub-mkrescue', ['-o', room.path('rescue.iso'), ...small, tree]);
  add('rescue disc, both firmwares, hybrid', room.path('rescue.iso'));
  run('grub-mkrescue', ['-d', '/usr/lib/grub/i386-pc', '-o', room.path('bios.iso'), ...small, tree]);
  add('rescue disc, BIOS only', room.path('bios.iso'));

  const loader = efiFile();
  const esp = fatWith('esp.fat', 40 * MIB, '32', loader, 'BOOTX64.EFI');
  const gpt = blank(room.path('gpt.img'), 48 * MIB);
  run(
    'sfdisk',
    ['-q', gpt],
    'label: gpt\nstart=2048, size=81920, type=C12A7328-F81F-11D2-BA4B-00A0C93EC93B, name=esp\n',
  );
  put(gpt, esp, MIB);
  add('GPT with a FAT32 loader part', gpt);

  const noPrimary = room.path('noprimary.img');
  copyFileSync(gpt, noPrimary);
  put(noPrimary, blank(room.path('zero'), 512), 512);
  add('GPT whose first copy is gone', noPrimary);

  const neither = room.path('neither.img');
  copyFileSync(noPrimary, neither);
  put(neither, room.path('zero'), 48 * MIB - 512);
  add('GPT with both copies gone', neither);

  const data = room.path('data.img');
  copyFileSync(gpt, data);
  run('sgdisk', ['-t', '1:0700', data]);
  add('loader on a part of the data type', data);

  const mbr = blank(room.path('mbr.img'), 32 * MIB);
  run('sfdisk', ['-q', mbr], 'label: dos\nstart=2048, size=40960, type=c, bootable\n');
  put(mbr, fatWith('mbr.fat', 20 * MIB, '16', loader, 'bootx64.efi'), MIB);
  add('MBR, FAT16, lower-case loader, no boot code', mbr);

  const vendor = blank(room.path('vendor.img'), 32 * MIB);
  run('sfdisk', ['-q', vendor], 'label: gpt\nstart=2048, size=40960, type=U\n');
  const vendorFat = fatWith('vendor.fat', 20 * MIB, '16', undefined, '');
  run('mmd', ['-i', vendorFat, '::/EFI', '::/EFI/OTHER']);
  run('mcopy', ['-i', vendorFat, loader, '::/EFI/OTHER/GRUBX64.EFI']);
  put(vendor, vendorFat, MIB);
  add('loader on a vendor path only', vendor);

  const wrong = blank(room.path('damaged.img'), 32 * MIB);
  run('sfdisk', ['-q', wrong], 'label: gpt\nstart=2048, size=40960, type=U\n');
  const junk = room.path('junk.efi');
  writeFileSync(junk, Buffer.alloc(65536));
  put(wrong, fatWith('damaged.fat', 20 * MIB, '16', junk, 'BOOTX64.EFI'), MIB);
  add('loader whose bytes are destroyed', wrong);

  const sys = blank(room.path('syslinux.img'), 24 * MIB);
  run('sfdisk', ['-q', sys], 'label: dos\nstart=2048, size=40960, type=c, bootable\n');
  const sysFat = fatWith('syslinux.fat', 20 * MIB, '16', undefined, '');
  writeFileSync(
    room.path('syslinux.cfg'),
    `SERIAL 0 115200\nPROMPT 1\nTIMEOUT 0\nDEFAULT x\nLABEL x\nKERNEL none\n`,
  );
  run('mcopy', ['-i', sysFat, room.path('syslinux.cfg'), '::/syslinux.cfg']);
  run('syslinux', ['--install', sysFat]);
  put(sys, sysFat, MIB);
  const inactive = room.path('inactive.img');
  run('dd', ['if=/usr/lib/SYSLINUX/mbr.bin', `of=${sys}`, 'conv=notrunc', 'status=none']);
  made.set('MBR with a stage-two loader on FAT16', { path: sys, token: 'SYSLINUX 6' });
  copyFileSync(sys, inactive);
  run('sfdisk', ['-q', '-A', inactive, '-'], '');
  made.set('the same, no active part', { path: inactive, token: 'SYSLINUX 6' });
});

/** Every image as a disk under both firmwares; as optical media where that could differ. */
const cases: [name: string, optical: boolean][] = [
  ['lantern-arcade-7.2-x64.img', true],
  ['curtain-player-12-x64.iso', true],
  ['millpond-tunes-4-legacy.img', false],
  ['tidegate-3-x64.img', true],
  ['rescue disc, both firmwares, hybrid', true],
  ['rescue disc, BIOS only', true],
  ['GPT with a FAT32 loader part', false],
  ['GPT whose first copy is gone', false],
  ['GPT with both copies gone', false],
  ['loader on a part of the data type', false],
  ['MBR, FAT16, lower-case loader, no boot code', false],
  ['loader on a vendor path only', false],
  ['loader whose bytes are destroyed', false],
  ['MBR with a stage-two loader on FAT16', false],
  ['the same, no active part', false],
];
const attempts = cases.flatMap(([name, optical]) =>
  (['bios', 'uefi-x64'] as const).flatMap((firmware) =>
    (optical ? (['disk', 'optical'] as const) : (['disk'] as const)).map((attached) => ({
      name,
      firmware,
      attached,
    })),
  ),
);
let observed: PromiseSettledResult<boolean>[] = [];

beforeAll(async () => {
  observed = await inPairs(
    attempts.map(({ name, firmware, attached }) => () => {
      const image = made.get(name);
      if (!image) throw new Error(`${name} was not made`);
      return starts({ firmware, attached, image: image.path, token: image.token });
    }),
  );
}, 600_000);

it.each(attempts.map((a, i) => [a.name, a.firmware, a.attached, i] as const))(
  '%s: under %s as %s, what is predicted is what happens',
  async (name, firmware, attached, i) => {
    const result = observed[i];
    if (result?.status !== 'fulfilled') throw new Error(`not observed: ${String(result?.reason)}`);
    const { outcomes } = await inspectFile(made.get(name)?.path ?? '');
    const row = outcomes.find((o) => o.firmware === firmware && o.attached === attached);
    expect({ starts: row?.starts, because: row?.because }).toEqual({
      starts: result.value ? 'yes' : 'no',
      because: row?.because,
    });
  },
);
