/**
 * Images made by independent tools: sfdisk, sgdisk, mkfs.vfat and the other mkfs, mtools, GRUB, SYSLINUX and ISOLINUX,
 * xorriso, genisoimage, gzip, xz, zstd, zip; and by our own composer. Each names the firmware it is started under.
 */
import { copyFileSync, existsSync, mkdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import { depotImages } from '@zb/core/demo/depot';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { blank, put, run, type Scratch } from './files';
import type { StartedFirmware } from './emulator';
import { madeOnce } from './once';

export const MIB = 1024 * 1024;
/** How mkisofs is told of ISOLINUX in its usual folder. */
export const ISOLINUX_BOOT = [
  '-b',
  'isolinux/isolinux.bin',
  '-c',
  'isolinux/boot.cat',
  '-no-emul-boot',
  '-boot-load-size',
  '4',
  '-boot-info-table',
];
export const TOKEN = 'ZB-STARTED-HERE';
const LAST_STAGE = fileURLToPath(new URL('lastStage.S', import.meta.url));
/** The last stage of every chain is a kernel of ours that says so; see lastStage.S. */
const GRUB_CONFIG =
  'serial --unit=0 --speed=115200\nterminal_output serial\nset timeout=0\nmenuentry last {\n  linux /boot/last\n}\n';
const SYSLINUX_CONFIG = 'SERIAL 0 115200\nPROMPT 0\nDEFAULT x\nLABEL x\nLINUX /last\n';
const BOTH: StartedFirmware[] = ['bios', 'uefi-x64'];

export interface Made {
  name: string;
  path: string;
  token: string;
  firmwares: StartedFirmware[];
}

export class Maker {
  readonly made: Made[] = [];
  constructor(private readonly room: Scratch) {}

  private at(name: string): string {
    return this.room.path(name);
  }
  private add(name: string, path: string, token = TOKEN, firmwares = BOTH): string {
    this.made.push({ name, path, token, firmwares });
    return path;
  }
  private copy(from: string, name: string): string {
    copyFileSync(from, this.at(name));
    return this.at(name);
  }

  /** The kernel that speaks; with `disk` only where an initial disk was loaded with it. */
  lastStage(disk = false): string {
    const path = this.at(disk ? 'last-with-disk' : 'last');
    if (existsSync(path)) return path;
    const object = this.at('last.o');
    run('as', ['--64', ...(disk ? ['--defsym', 'DISK=1'] : []), '-o', object, LAST_STAGE]);
    run('objcopy', ['-O', 'binary', '-j', '.text', object, path]);
    return path;
  }

  grub(target: 'x86_64-efi' | 'i386-efi'): string {
    const cfg = this.at('efi.cfg');
    writeFileSync(cfg, GRUB_CONFIG);
    const out = this.at(`${target}.efi`);
    const modules = 'serial terminal linux normal boot';
    const small = [
      `--modules=${modules}`,
      `--install-modules=${modules}`,
      '--fonts=',
      '--locales=',
      '--themes=',
    ];
    run('grub-mkstandalone', [
      '-O',
      target,
      '-o',
      out,
      ...small,
      `boot/grub/grub.cfg=${cfg}`,
      `boot/last=${this.lastStage()}`,
    ]);
    return out;
  }

  /** A FAT volume made by mkfs.vfat, filled by mtools. */
  fat(
    name: string,
    mib: number,
    bits: '12' | '16' | '32',
    files: [string, string][] = [],
    more: string[] = [],
  ): string {
    const path = blank(this.at(name), mib * MIB);
    run('mkfs.vfat', ['-F', bits, '-n', 'ORACLE', ...more, path]);
    const folders = new Set<string>();
    for (const [to, from] of files) {
      const steps = to.split('/').slice(1, -1);
      steps.forEach((_, i) => {
        const folder = `/${steps.slice(0, i + 1).join('/')}`;
        if (!folders.has(folder)) run('mmd', ['-i', path, `::${folder}`]);
        folders.add(folder);
      });
      run('mcopy', ['-i', path, from, `::${to}`]);
    }
    return path;
  }

  /** SYSLINUX on a FAT volume, with a kernel. */
  staged(name: string, mib: number, bits: '12' | '16' | '32', files: [string, string][] = []): string {
    const cfg = this.at('syslinux.cfg');
    writeFileSync(cfg, SYSLINUX_CONFIG);
    const own: [string, string][] = [
      ['/syslinux.cfg', cfg],
      ['/last', this.lastStage()],
    ];
    const path = this.fat(name, mib, bits, [...own, ...files]);
    run('syslinux', ['--install', path]);
    return path;
  }

  disk(name: string, mib: number, script: string, parts: [string, number][]): string {
    const path = blank(this.at(name), mib * MIB);
    run('sfdisk', ['-q', path], script);
    for (const [part, at] of parts) put(path, part, at * MIB);
    return path;
  }

  code(path: string, from: string, bytes = 440): string {
    run('dd', [`if=${from}`, `of=${path}`, 'bs=1', `count=${bytes}`, 'conv=notrunc', 'status=none']);
    return path;
  }

  depot(): void {
    for (const image of depotImages) {
      const path = this.at(image.file);
      writeFileSync(path, image.build());
      this.add(`ours: ${image.file}`, path, image.says);
    }
  }

  gpt(x64: string): void {
    const esp = this.fat('esp.fat', 40, '32', [['/EFI/BOOT/BOOTX64.EFI', x64]]);
    const one = 'label: gpt\nstart=2048, size=81920, type=U, name=esp\n';
    const gpt = this.add('GPT, FAT32 loader part', this.disk('gpt.img', 48, one, [[esp, 1]]));
    const zero = blank(this.at('zero'), 512);
    const noPrimary = this.add('GPT, first copy gone', this.copy(gpt, 'noprimary.img'));
    put(noPrimary, zero, 512);
    const neither = this.add('GPT, both copies gone', this.copy(noPrimary, 'neither.img'));
    put(neither, zero, 48 * MIB - 512);
    const wrong = this.add('GPT, first copy with a wrong CRC', this.copy(gpt, 'crc.img'));
    this.poke(wrong, 512 + 40, [9]);
    const bare = this.add('GPT without its protective record', this.copy(gpt, 'bare.img'));
    this.poke(bare, 446, Array<number>(16).fill(0));
    const data = this.add('GPT, loader on a part of the data type', this.copy(gpt, 'data.img'));
    run('sgdisk', ['-t', '1:0700', data]);
    const small = this.fat('small.fat', 20, '16', [['/EFI/BOOT/BOOTX64.EFI', x64]]);
    const signed = this.disk('sgdisk.img', 32, 'label: gpt\n', []);
    run('sgdisk', ['-o', '-n', '1:2048:43007', '-t', '1:ef00', signed]);
    put(signed, small, MIB);
    this.add('GPT by sgdisk, FAT16', signed);
    const tail = this.add('GPT, cut behind the last part', this.copy(gpt, 'tail.img'));
    truncateSync(tail, 42 * MIB);
    const cut = this.add('GPT, cut inside the loader', this.copy(signed, 'cut.img'));
    truncateSync(cut, MIB + 256 * 1024);
    const inside = this.add('GPT, cut behind the loader, inside its part', this.copy(signed, 'inside.img'));
    truncateSync(inside, 9 * MIB);
    const longer = this.add('GPT, 5 MiB appended', this.copy(gpt, 'longer.img'));
    truncateSync(longer, 53 * MIB);
    const none = this.fat('none.fat', 20, '16');
    const two = 'label: gpt\nstart=2048, size=40960, type=U\nstart=43008, size=40960, type=U\n';
    this.add(
      'GPT, two system parts, the second has the loader',
      this.disk('two.img', 48, two, [
        [none, 1],
        [small, 21],
      ]),
    );
  }

  loaders(x64: string, ia32: string): void {
    const one = 'label: gpt\nstart=2048, size=40960, type=U\n';
    const on = (
      name: string,
      file: string,
      files: [string, string][],
      token = TOKEN,
      firmwares = BOTH,
    ): string =>
      this.add(
        name,
        this.disk(`${file}.img`, 32, one, [[this.fat(`${file}.fat`, 20, '16', files), 1]]),
        token,
        firmwares,
      );
    on('loader on a vendor path only', 'vendor', [['/EFI/OTHER/GRUBX64.EFI', x64]]);
    on('loader by a lower-case path', 'lower', [['/efi/boot/bootx64.efi', x64]]);
    const junk = this.at('junk.efi');
    writeFileSync(junk, Buffer.alloc(65536));
    on('loader whose bytes are destroyed', 'junk', [['/EFI/BOOT/BOOTX64.EFI', junk]]);
    const short = this.at('short.efi');
    writeFileSync(short, readFileSync(x64).subarray(0, 3000));
    on('loader cut off after 3000 bytes', 'short', [['/EFI/BOOT/BOOTX64.EFI', short]]);
    on('ia32 loader by the x64 name', 'misnamed', [['/EFI/BOOT/BOOTX64.EFI', ia32]]);
    on('ia32 loader', 'ia32', [['/EFI/BOOT/BOOTIA32.EFI', ia32]], TOKEN, ['bios', 'uefi-ia32']);
    const arm = this.at('aa64.efi');
    writeFileSync(arm, efiLoader(TOKEN, 'aa64'));
    on('aa64 loader', 'aa64', [['/EFI/BOOT/BOOTAA64.EFI', arm]], TOKEN, ['bios', 'uefi-aa64']);
    const own = this.at('own-ia32.efi');
    writeFileSync(own, efiLoader(TOKEN, 'ia32'));
    on('our own ia32 loader', 'own32', [['/EFI/BOOT/BOOTIA32.EFI', own]], TOKEN, ['uefi-ia32', 'uefi-x64']);
    const pieces = this.fat('pieces.fat', 20, '16');
    run('mmd', ['-i', pieces, '::/EFI', '::/EFI/BOOT']);
    const block = blank(this.at('block'), 3000);
    const names = Array.from({ length: 40 }, (_, i) => `::/F${i}`);
    for (const name of names) run('mcopy', ['-i', pieces, block, name]);
    const fill = blank(this.at('fill'), 17 * MIB);
    run('mcopy', ['-i', pieces, fill, '::/FILL']);
    run('mdel', ['-i', pieces, ...names.filter((_, i) => i % 2 === 0)]);
    run('mcopy', ['-i', pieces, x64, '::/EFI/BOOT/BOOTX64.EFI']);
    this.add('loader in pieces', this.disk('pieces.img', 32, one, [[pieces, 1]]));
  }

  records(x64: string): void {
    const active = 'label: dos\nstart=2048, size=40960, type=c, bootable\n';
    const plain = this.fat('mbr.fat', 20, '16', [['/EFI/BOOT/bootx64.efi', x64]]);
    this.add('MBR, FAT16 with a loader, no boot code', this.disk('mbr.img', 32, active, [[plain, 1]]));
    const code = '/usr/lib/SYSLINUX/mbr.bin';
    const sys16 = this.staged('sys16.fat', 20, '16');
    const sys = this.add(
      'MBR, SYSLINUX on FAT16',
      this.code(this.disk('sys.img', 24, active, [[sys16, 1]]), code),
      TOKEN,
    );
    const inactive = this.add('the same, no active part', this.copy(sys, 'inactive.img'));
    run('sfdisk', ['-q', '-A', inactive, '-'], '');
    const wiped = this.add('the same, boot record wiped', this.copy(sys, 'wiped.img'));
    this.poke(wiped, MIB + 62, Array<number>(448).fill(0));
    const both32 = this.staged('both32.fat', 40, '32', [['/EFI/BOOT/BOOTX64.EFI', x64]]);
    const wide = 'label: dos\nstart=2048, size=81920, type=c, bootable\n';
    this.add(
      'MBR, FAT32 with SYSLINUX and a loader',
      this.code(this.disk('both32.img', 48, wide, [[both32, 1]]), code),
      TOKEN,
      ['bios'],
    );
    this.add('the same under UEFI', this.at('both32.img'), TOKEN, ['uefi-x64']);
    const alt = this.code(
      this.disk('alt.img', 24, 'label: dos\nstart=2048, size=40960, type=c\n', [[sys16, 1]]),
      '/usr/lib/SYSLINUX/altmbr.bin',
      439,
    );
    this.poke(alt, 439, [1]);
    this.add('MBR, boot code that names part 1', alt);
    const logical = 'label: dos\nstart=2048, size=61440, type=5\nstart=4096, size=40960, type=e\n';
    this.add('loader on a logical drive', this.disk('logical.img', 36, logical, [[plain, 2]]));
    const marked = this.disk('marked.img', 32, 'label: gpt\nstart=2048, size=40960, type=U\n', [
      [this.staged('marked.fat', 20, '16'), 1],
    ]);
    this.code(marked, '/usr/lib/SYSLINUX/gptmbr.bin');
    const unmarked = this.copy(marked, 'unmarked.img');
    run('sgdisk', ['-A', '1:set:2', marked]);
    this.add('GPT, boot code and a marked part', marked);
    this.add('GPT, boot code and no marked part', unmarked);
    const hybrid = this.disk('hybrid.img', 32, 'label: gpt\nstart=2048, size=40960, type=U\n', [[plain, 1]]);
    run('sgdisk', ['-h', '1:EE', hybrid]);
    this.add('hybrid table', hybrid);
  }

  /** GRUB for BIOS by hand: boot.img in sector 0, its second stage behind the record or in a part of its own. */
  staging(): void {
    const cfg = this.at('early.cfg');
    writeFileSync(cfg, 'linux (memdisk)/last\nboot\n');
    const memory = this.at('memory.tar');
    run('tar', ['-cf', memory, '-C', this.room.dir, '--transform', 's/.*/last/', basename(this.lastStage())]);
    const core = this.at('core.img');
    run('grub-mkimage', [
      '-O',
      'i386-pc',
      '-p',
      '/',
      '-c',
      cfg,
      '-o',
      core,
      '-m',
      memory,
      'biosdisk',
      'memdisk',
      'tar',
      'linux',
      'boot',
    ]);
    const boot = '/usr/lib/grub/i386-pc/boot.img';
    const grub = this.disk('grub.img', 8, 'label: dos\nstart=2048, size=8192, type=83\n', []);
    this.code(grub, boot);
    put(grub, core, 512);
    this.add('MBR, second stage behind the record', grub);
    const lost = this.add('the same, second stage wiped', this.copy(grub, 'lost.img'));
    put(lost, blank(this.at('zeros'), MIB - 512), 512);
    const part = this.disk(
      'grubgpt.img',
      16,
      'label: gpt\nstart=2048, size=2048, type=21686148-6449-6E6F-744E-656564454649\n',
      [],
    );
    this.code(part, boot);
    const moved = readFileSync(core);
    moved.writeUInt32LE(2049, 500);
    writeFileSync(this.at('moved.img'), moved);
    put(part, this.at('moved.img'), MIB);
    this.poke(part, 0x5c, [0, 8]);
    this.add('GPT, second stage in a part of its own', part);
  }

  volumes(x64: string): void {
    this.add(
      'FAT32 without a table, with a loader',
      this.fat('super.img', 40, '32', [['/EFI/BOOT/BOOTX64.EFI', x64]]),
    );
    this.add('FAT12 without a table, with SYSLINUX', this.staged('super12.img', 4, '12'));
    for (const [kind, args] of [
      ['exfat', ['-f']],
      ['ext4', ['-q', '-F']],
    ] as const) {
      const path = blank(this.at(`${kind}.img`), 16 * MIB);
      run(`mkfs.${kind}`, [...args, path]);
      this.add(`${kind} without a table`, path);
    }
  }

  optical(x64: string): void {
    const tree = this.at('tree');
    mkdirSync(`${tree}/boot/grub`, { recursive: true });
    writeFileSync(`${tree}/boot/grub/grub.cfg`, GRUB_CONFIG);
    copyFileSync(this.lastStage(), `${tree}/boot/last`);
    const small = [
      '--fonts=',
      '--locales=',
      '--themes=',
      '--install-modules=serial terminal linux boot iso9660 part_gpt part_msdos fat normal configfile search',
    ];
    run('grub-mkrescue', ['-o', this.at('rescue.iso'), ...small, tree]);
    this.add('rescue disc for both, hybrid', this.at('rescue.iso'));
    run('grub-mkrescue', ['-d', '/usr/lib/grub/i386-pc', '-o', this.at('bios.iso'), ...small, tree]);
    this.add('rescue disc for BIOS', this.at('bios.iso'));

    const lin = this.at('isolinux');
    mkdirSync(`${lin}/isolinux`, { recursive: true });
    copyFileSync('/usr/lib/ISOLINUX/isolinux.bin', `${lin}/isolinux/isolinux.bin`);
    copyFileSync('/usr/lib/syslinux/modules/bios/ldlinux.c32', `${lin}/isolinux/ldlinux.c32`);
    writeFileSync(`${lin}/isolinux/isolinux.cfg`, SYSLINUX_CONFIG);
    copyFileSync(this.lastStage(), `${lin}/last`);
    run('genisoimage', ['-quiet', '-r', '-J', '-o', this.at('plain.iso'), ...ISOLINUX_BOOT, lin]);
    this.add('plain optical, ISOLINUX', this.at('plain.iso'), TOKEN);
    run('xorriso', [
      '-as',
      'mkisofs',
      '-r',
      '-J',
      '-o',
      this.at('hybrid.iso'),
      '-isohybrid-mbr',
      '/usr/lib/ISOLINUX/isohdpfx.bin',
      ...ISOLINUX_BOOT,
      lin,
    ]);
    this.add('hybrid optical, ISOLINUX', this.at('hybrid.iso'), TOKEN);
    const broken = this.add(
      'plain optical, catalogue damaged',
      this.copy(this.at('plain.iso'), 'broken.iso'),
      TOKEN,
    );
    const at = readFileSync(broken).readUInt32LE(17 * 2048 + 71) * 2048;
    this.poke(broken, at + 30, [0]);
    const sum = this.copy(this.at('plain.iso'), 'sum.iso');
    this.add('plain optical, sum of the catalogue wrong', sum, TOKEN);
    this.poke(sum, at + 4, [0x55]);

    const efi = this.at('efi');
    mkdirSync(efi, { recursive: true });
    copyFileSync(this.fat('efi.fat', 12, '12', [['/EFI/BOOT/BOOTX64.EFI', x64]]), `${efi}/efi.img`);
    run('xorriso', ['-as', 'mkisofs', '-r', '-o', this.at('efi.iso'), '-e', 'efi.img', '-no-emul-boot', efi]);
    this.add('optical for UEFI only', this.at('efi.iso'));
    run('genisoimage', ['-quiet', '-r', '-o', this.at('data.iso'), efi]);
    this.add('optical without a boot catalogue', this.at('data.iso'));
    const floppy = this.at('floppy');
    mkdirSync(floppy, { recursive: true });
    const disk = blank(`${floppy}/floppy.img`, 2880 * 512);
    run('mkfs.vfat', ['-F', '12', disk]);
    run('mcopy', ['-i', disk, this.at('syslinux.cfg'), this.lastStage(), '::/']);
    run('syslinux', ['--install', disk]);
    run('genisoimage', [
      '-quiet',
      '-r',
      '-o',
      this.at('floppy.iso'),
      '-b',
      'floppy.img',
      '-c',
      'boot.cat',
      floppy,
    ]);
    this.add('optical, floppy emulation', this.at('floppy.iso'));
  }

  packed(): void {
    const from = this.at('gpt.img');
    for (const [kind, command, args] of [
      ['gz', 'gzip', ['-kc', '-1']],
      ['xz', 'xz', ['-kc', '-0']],
      ['zst', 'zstd', ['-qc', '-1']],
      ['bz2', 'bzip2', ['-kc', '-1']],
    ] as const) {
      const to = `${from}.${kind}`;
      run('sh', ['-c', `${command} ${args.join(' ')} "$1" > "$2"`, 'sh', from, to]);
      this.add(`packed by ${command}`, to);
    }
  }

  poke(path: string, at: number, bytes: number[]): void {
    const whole = readFileSync(path);
    whole.set(bytes, at);
    writeFileSync(path, whole);
  }

  all(): Made[] {
    const x64 = this.grub('x86_64-efi');
    const ia32 = this.grub('i386-efi');
    this.depot();
    this.gpt(x64);
    this.loaders(x64, ia32);
    this.records(x64);
    this.staging();
    this.volumes(x64);
    this.optical(x64);
    this.packed();
    return this.made;
  }
}

/** All of them, made once in a run. */
export const allImages = (): Made[] => madeOnce('images', (room) => new Maker(room).all());
