/**
 * Images whose loader starts and whose next stage is whole, absent, renamed, cut or wiped: chains of every kind that is
 * followed. The last stage of each is the kernel of lastStage.S, which speaks only when it is entered.
 */
import { copyFileSync, mkdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { KERNEL } from '@zb/core/formats/linuxKernel';
import type { StartedFirmware } from './emulator';
import { blank, put, run, type Scratch } from './files';
import { ISOLINUX_BOOT, Maker, MIB, TOKEN, type Made } from './makeImages';
import { madeOnce } from './once';

export interface Chain extends Made {
  attached: 'disk' | 'optical';
}

type Files = Record<string, string>;

const QUIET = 'serial --unit=0 --speed=115200\nterminal_output serial\nset timeout=0\n';
const entry = (...lines: string[]): string => `${QUIET}menuentry last {\n${lines.join('\n')}\n}\n`;
const SIGNED = '/usr/lib/grub/x86_64-efi-signed/gcdx64.efi.signed';
const SHIM = '/usr/lib/shim/shimx64.efi.signed';
const SD_BOOT = '/usr/lib/systemd/boot/efi/systemd-bootx64.efi';
const STUB = '/usr/lib/systemd/boot/efi/linuxx64.efi.stub';
const C32 = '/usr/lib/syslinux/modules/bios';
const EFI: StartedFirmware[] = ['uefi-x64'];
const BIOS: StartedFirmware[] = ['bios'];

export class ChainMaker {
  readonly made: Chain[] = [];
  private readonly images: Maker;
  private count = 0;

  constructor(private readonly room: Scratch) {
    this.images = new Maker(room);
  }

  private add(
    name: string,
    path: string,
    firmwares: StartedFirmware[],
    attached: Chain['attached'] = 'disk',
  ): void {
    this.made.push({ name, path, token: TOKEN, firmwares, attached });
  }

  private file(text: string | Uint8Array): string {
    const path = this.room.path(`chain${(this.count += 1)}`);
    writeFileSync(path, text);
    return path;
  }

  get kernel(): string {
    return this.images.lastStage();
  }
  /** Speaks only with an initial disk. */
  get kernelWithDisk(): string {
    return this.images.lastStage(true);
  }
  private cachedDisk: string | undefined;
  get disk(): string {
    return (this.cachedDisk ??= this.file(
      `070701${'0'.repeat(104 - 16)}0000000B${'0'.repeat(8)}TRAILER!!!\0`.padEnd(512, '\0'),
    ));
  }
  private wiped(of: string): string {
    return this.file(new Uint8Array(readFileSync(of).length));
  }
  /** The program with sections of other names: what is told by their names alone is gone, its code is not. */
  private renamed(of: string, ...sections: string[]): string {
    const bytes = readFileSync(of);
    for (const name of sections) {
      const at = bytes.indexOf(name.padEnd(8, '\0'));
      if (at < 0 || at > 4096) throw new Error(`no section ${name} in ${of}`);
      bytes.write('?', at + name.length - 1);
    }
    return this.file(bytes);
  }
  private cut(of: string, bytes: number): string {
    return this.file(readFileSync(of).subarray(0, bytes));
  }

  /** A disk with one FAT system part of 20 MiB. */
  esp(name: string, files: Files, firmwares = EFI): string {
    const n = (this.count += 1);
    const part = this.images.fat(`part${n}.fat`, 20, '16', Object.entries(files));
    const path = this.images.disk(`chain${n}.img`, 24, 'label: gpt\nstart=2048, size=40960, type=U\n', [
      [part, 1],
    ]);
    this.add(name, path, firmwares);
    return path;
  }

  /** An ext file system of 16 MiB with these files. */
  ext(kind: 'ext2' | 'ext4', files: Files, options: string[] = []): string {
    const n = (this.count += 1);
    const tree = this.room.path(`tree${n}`);
    for (const [to, from] of Object.entries(files)) {
      mkdirSync(dirname(`${tree}${to}`), { recursive: true });
      if (from.startsWith('->')) run('ln', ['-s', from.slice(2), `${tree}${to}`]);
      else copyFileSync(from, `${tree}${to}`);
    }
    const path = blank(this.room.path(`ext${n}`), 16 * MIB);
    run(`mkfs.${kind}`, ['-q', '-F', '-L', 'system', ...options, '-d', tree, path]);
    return path;
  }

  /** GRUB as an EFI program with what it takes to read these images. */
  private efiGrub(prefix: string, config?: string): string {
    const out = this.room.path(`grub${(this.count += 1)}.efi`);
    const early = config === undefined ? [] : ['-c', this.file(config)];
    const modules =
      'fat ext2 iso9660 part_gpt part_msdos search search_label search_fs_uuid search_fs_file configfile normal linux chain test serial terminal loopback'.split(
        ' ',
      );
    run('grub-mkimage', ['-O', 'x86_64-efi', '-p', prefix, ...early, '-o', out, ...modules]);
    return out;
  }

  grubOnFat(): void {
    const boot = '/EFI/BOOT/BOOTX64.EFI';
    const grub = this.efiGrub('/boot/grub');
    const cfg = this.file(entry('linux /kernel'));
    const all = { [boot]: grub, '/boot/grub/grub.cfg': cfg, '/kernel': this.kernel };
    this.esp('GRUB on FAT: whole', all);
    this.esp('GRUB on FAT: kernel absent', { [boot]: grub, '/boot/grub/grub.cfg': cfg });
    this.esp('GRUB on FAT: kernel renamed', { ...without(all, '/kernel'), '/kernel.old': this.kernel });
    this.esp('GRUB on FAT: kernel wiped', { ...all, '/kernel': this.wiped(this.kernel) });
    this.esp('GRUB on FAT: kernel cut', { ...all, '/kernel': this.cut(this.kernel, 1028) });
    this.esp('GRUB on FAT: configuration absent', without(all, '/boot/grub/grub.cfg'));
    this.esp('GRUB on FAT: configuration wiped', { ...all, '/boot/grub/grub.cfg': this.wiped(cfg) });
    this.esp('GRUB on FAT: configuration with an open quote and no end', {
      ...all,
      '/boot/grub/grub.cfg': this.file(`${QUIET}menuentry 'last {\nlinux /kernel\n}\n`),
    });
    this.esp('GRUB on FAT: configuration that names no kernel', {
      ...all,
      '/boot/grub/grub.cfg': this.file(entry('echo nothing', 'sleep 1')),
    });
    const disked = {
      ...all,
      '/boot/grub/grub.cfg': this.file(entry('linux /kernel quiet', 'initrd /disk')),
      '/kernel': this.kernelWithDisk,
    };
    this.esp('GRUB on FAT: initial disk whole', { ...disked, '/disk': this.disk });
    this.esp('GRUB on FAT: initial disk absent', disked);
    this.esp('GRUB on FAT: the command that loads the kernel is misspelled', {
      ...disked,
      '/disk': this.disk,
      '/boot/grub/grub.cfg': this.file(entry('linus /kernel quiet', 'initrd /disk')),
    });
    this.esp('GRUB on FAT: the second entry is the default, by its id', {
      ...all,
      '/boot/grub/grub.cfg': this.file(
        `${QUIET}set default=two\nmenuentry one --id one {\nlinux /none\n}\nsubmenu more --id two {\nmenuentry in --id in {\nlinux /kernel\n}\n}\n`,
      ),
    });
    this.esp('GRUB on FAT: the default entry breaks, another would hold', {
      ...all,
      '/boot/grub/grub.cfg': this.file(
        `${QUIET}set default=0\nmenuentry one {\nlinux /none\n}\nmenuentry two {\nlinux /kernel\n}\n`,
      ),
    });
    this.esp('GRUB on FAT: functions, tests and variables lead to it', {
      ...all,
      '/boot/grub/grub.cfg': this.file(
        `${QUIET}function pick {\n  set name=kernel\n}\nif [ -e /none -o "$grub_platform" = pc ]; then\n  set dir=/none\nelif test -f "/kernel" -a ! -d /kernel; then\n  set dir=''\nfi\npick\nfor i in a b; do set last="$i"; done\nif [ "\${last}" = b ]; then\nmenuentry 'it # goes' { linux "$dir/\${name}" }\nfi\n`,
      ),
    });
    const missing = this.room.path(`bare${(this.count += 1)}.efi`);
    run('grub-mkimage', ['-O', 'x86_64-efi', '-p', '/boot/grub', '-o', missing, 'fat', 'part_gpt']);
    this.esp('GRUB on FAT: the section of its modules has another name', {
      ...all,
      [boot]: this.renamed(grub, 'mods'),
    });
    this.esp('GRUB on FAT: its modules are not there', { ...all, [boot]: missing });
    this.esp('GRUB on FAT: chain-loads a kernel as a program', {
      ...all,
      '/boot/grub/grub.cfg': this.file(entry('chainloader /kernel')),
    });
    this.esp('GRUB on FAT: chain-loads what is not there', {
      ...all,
      '/boot/grub/grub.cfg': this.file(entry('chainloader /EFI/none.efi')),
    });
  }

  grubOnExt(): void {
    const uuid = '5b1a8f10-6c1e-4b6e-9d6c-0f2d3c4b5a69';
    const script = 'label: gpt\nstart=2048, size=40960, type=U\nstart=43008, size=32768, type=L\n';
    const config = (by: string): string => `search.fs_uuid ${by} root\nset prefix=($root)/boot/grub\n`;
    const on = (name: string, ext: string, by = uuid): string => {
      const n = (this.count += 1);
      const grub = this.efiGrub('/nowhere', config(by));
      const part = this.images.fat(`part${n}.fat`, 20, '16', [['/EFI/BOOT/BOOTX64.EFI', grub]]);
      const path = this.images.disk(`chain${n}.img`, 40, script, [
        [part, 1],
        [ext, 21],
      ]);
      this.add(name, path, EFI);
      return path;
    };
    const cfg = this.file(entry('linux /vmlinuz', 'initrd /boot/disk.img'));
    const all: Files = {
      '/boot/grub/grub.cfg': cfg,
      '/boot/vmlinuz-6.1': this.kernelWithDisk,
      '/boot/disk.img': this.disk,
      '/vmlinuz': '->boot/vmlinuz-6.1',
    };
    const ext4 = this.ext('ext4', all, ['-U', uuid]);
    const whole = on('GRUB on ext4: whole, through a link', ext4);
    on('GRUB on ext2: whole', this.ext('ext2', all, ['-U', uuid, '-b', '1024']));
    on(
      'GRUB on ext4: the kernel behind the link is absent',
      this.ext('ext4', without(all, '/boot/vmlinuz-6.1'), ['-U', uuid]),
    );
    on('GRUB on ext4: another UUID', ext4, '00000000-0000-4000-8000-000000000000');
    const cutShort = this.room.path(`chain${(this.count += 1)}.img`);
    copyFileSync(whole, cutShort);
    // Its files lie at the front of the file system; what is left is its tables alone.
    truncateSync(cutShort, 21 * MIB + 300 * 1024);
    this.add('GRUB on ext4: the image ends inside the file system', cutShort, EFI);
  }

  shim(): void {
    const boot = '/EFI/BOOT/BOOTX64.EFI';
    const grub = this.efiGrub('/boot/grub');
    const rest = { '/boot/grub/grub.cfg': this.file(entry('linux /kernel')), '/kernel': this.kernel };
    const all: Files = { [boot]: SHIM, '/EFI/BOOT/grubx64.efi': grub, ...rest };
    this.esp('shim, then GRUB: whole', all);
    this.esp('shim, then GRUB: second stage absent', without(all, '/EFI/BOOT/grubx64.efi'));
    this.esp('shim, then GRUB: second stage cut', {
      ...all,
      '/EFI/BOOT/grubx64.efi': this.cut(grub, 40_000),
    });
    this.esp('shim, then GRUB: kernel absent', without(all, '/kernel'));
  }

  specification(): void {
    const boot = '/EFI/BOOT/BOOTX64.EFI';
    const all: Files = {
      [boot]: SD_BOOT,
      '/loader/loader.conf': this.file('timeout 0\nconsole-mode keep\n'),
      '/loader/entries/last.conf': this.file('title Last\nversion 1\nlinux /kernel\noptions quiet\n'),
      '/kernel': this.kernel,
    };
    this.esp('loader entries: whole', all);
    this.esp('loader entries: kernel absent', without(all, '/kernel'));
    this.esp('loader entries: none there', without(all, '/loader/entries/last.conf'));
    this.esp('loader entries: initial disk absent', {
      ...all,
      '/loader/entries/last.conf': this.file('title Last\nlinux /kernel\ninitrd /none.img\n'),
    });
    const marksGone = this.renamed(SD_BOOT, '.sdmagic', '.sbat');
    this.esp('loader entries: marks of the loader gone, else whole', { ...all, [boot]: marksGone });
    this.esp('loader entries: marks of the loader gone, and the kernel', {
      ...without(all, '/kernel'),
      [boot]: marksGone,
    });
    const unified = this.unified(this.kernel);
    this.esp('unified kernel image among the entries: whole', {
      [boot]: SD_BOOT,
      '/EFI/Linux/last-1.efi': unified,
    });
    this.esp('unified kernel image at the removable path: whole', { [boot]: unified });
    this.esp('unified kernel image: its kernel is wiped', { [boot]: this.unified(this.wiped(this.kernel)) });
    this.esp('kernel at the removable path', { [boot]: this.kernel });
  }

  private unified(kernel: string): string {
    const out = this.room.path(`unified${(this.count += 1)}.efi`);
    const sections: [string, string, string][] = [
      ['.osrel', this.file('NAME=Last\nID=last\nVERSION_ID=1\n'), '0x20000'],
      ['.cmdline', this.file('quiet\0'), '0x30000'],
      ['.linux', kernel, '0x2000000'],
    ];
    const added = sections.flatMap(([name, file, at]) => [
      '--add-section',
      `${name}=${file}`,
      '--change-section-vma',
      `${name}=${at}`,
    ]);
    run('objcopy', [...added, STUB, out]);
    return out;
  }

  biosGrub(): void {
    const boot = '/usr/lib/grub/i386-pc/boot.img';
    const core = (prefix: string, config?: string): string => {
      const out = this.room.path(`core${(this.count += 1)}.img`);
      const early = config === undefined ? [] : ['-c', this.file(config)];
      const modules =
        'biosdisk part_msdos ext2 fat normal linux configfile search search_fs_uuid test serial terminal'.split(
          ' ',
        );
      run('grub-mkimage', ['-O', 'i386-pc', '-p', prefix, ...early, '-o', out, ...modules]);
      return out;
    };
    const script = 'label: dos\nstart=2048, size=32768, type=83, bootable\n';
    const on = (name: string, stage: string, ext: string): void => {
      const path = this.images.disk(`chain${(this.count += 1)}.img`, 20, script, [[ext, 1]]);
      this.images.code(path, boot);
      put(path, stage, 512);
      this.add(name, path, BIOS);
    };
    const stage = core('(,msdos1)/boot/grub');
    const all: Files = {
      '/boot/grub/grub.cfg': this.file(entry('linux /boot/kernel', 'initrd /boot/disk')),
      '/boot/kernel': this.kernelWithDisk,
      '/boot/disk': this.disk,
    };
    on('BIOS GRUB on ext4: whole', stage, this.ext('ext4', all));
    on(
      'BIOS GRUB on ext4: kernel cut',
      stage,
      this.ext('ext4', { ...all, '/boot/kernel': this.cut(this.kernel, 700) }),
    );
    on(
      'BIOS GRUB on ext4: configuration absent',
      stage,
      this.ext('ext4', without(all, '/boot/grub/grub.cfg')),
    );
    on(
      'BIOS GRUB on ext4: it looks on a part that is not there',
      core('(,msdos3)/boot/grub'),
      this.ext('ext4', all),
    );
    on(
      'BIOS GRUB on ext4: setup code of the kernel is entered',
      stage,
      this.ext('ext4', {
        ...all,
        '/boot/grub/grub.cfg': this.file(entry('linux16 /boot/kernel', 'initrd16 /boot/disk')),
        '/boot/grub/i386-pc/linux16.mod': '/usr/lib/grub/i386-pc/linux16.mod',
        '/boot/grub/i386-pc/command.lst': '/usr/lib/grub/i386-pc/command.lst',
      }),
    );
  }

  syslinux(): void {
    const code = '/usr/lib/SYSLINUX/mbr.bin';
    const script = 'label: dos\nstart=2048, size=40960, type=e, bootable\n';
    const on = (name: string, files: Files, folder?: string): void => {
      const n = (this.count += 1);
      const part = this.images.fat(`part${n}.fat`, 20, '16', Object.entries(files));
      run('syslinux', [...(folder === undefined ? [] : ['--directory', folder]), '--install', part]);
      const path = this.images.code(this.images.disk(`chain${n}.img`, 24, script, [[part, 1]]), code);
      if (name.endsWith('module absent')) run('mdel', ['-i', `${path}@@1M`, '::/ldlinux.c32']);
      this.add(name, path, BIOS);
    };
    const head = 'SERIAL 0 115200\nPROMPT 0\nTIMEOUT 10\n';
    const cfg = (...lines: string[]): string => this.file(`${head}${lines.join('\n')}\n`);
    const all: Files = {
      '/syslinux.cfg': cfg('DEFAULT last', 'LABEL last', 'LINUX kernel', 'APPEND quiet initrd=disk'),
      '/kernel': this.kernelWithDisk,
      '/disk': this.disk,
    };
    on('SYSLINUX: whole', all);
    on('SYSLINUX: kernel absent', without(all, '/kernel'));
    on('SYSLINUX: initial disk absent', without(all, '/disk'));
    on('SYSLINUX: configuration renamed', {
      ...without(all, '/syslinux.cfg'),
      '/syslinux.old': all['/syslinux.cfg'] ?? '',
    });
    on('SYSLINUX: kernel cut in its setup', { ...all, '/kernel': this.cut(this.kernel, 600) });
    on('SYSLINUX: module absent', all);
    const menu = {
      ...all,
      '/syslinux.cfg': cfg(
        'UI menu.c32',
        'LABEL none',
        'LINUX none',
        'LABEL last',
        'MENU DEFAULT',
        'KERNEL kernel',
        'INITRD disk',
      ),
    };
    on('SYSLINUX: a drawn menu, whole', {
      ...menu,
      '/menu.c32': `${C32}/menu.c32`,
      '/libutil.c32': `${C32}/libutil.c32`,
    });
    on('SYSLINUX: a drawn menu without the library that it needs', {
      ...menu,
      '/menu.c32': `${C32}/menu.c32`,
    });
    on(
      'SYSLINUX: installed in a folder, with a file included',
      {
        '/boot/syslinux/syslinux.cfg': cfg('INCLUDE more.cfg', 'DEFAULT last'),
        '/boot/syslinux/more.cfg': this.file('LABEL last\nLINUX ../../kernel\nINITRD /disk\n'),
        '/kernel': this.kernelWithDisk,
        '/disk': this.disk,
      },
      '/boot/syslinux',
    );
  }

  optical(): void {
    const tree = (files: Files): string => {
      const dir = this.room.path(`disc${(this.count += 1)}`);
      for (const [to, from] of Object.entries(files)) {
        mkdirSync(dirname(`${dir}${to}`), { recursive: true });
        copyFileSync(from, `${dir}${to}`);
      }
      return dir;
    };
    const filler = this.file(new Uint8Array(4 * MIB).fill(0x5a));
    const linux: Files = {
      '/isolinux/isolinux.bin': '/usr/lib/ISOLINUX/isolinux.bin',
      '/isolinux/ldlinux.c32': `${C32}/ldlinux.c32`,
      '/isolinux/isolinux.cfg': this.file(
        'SERIAL 0 115200\nPROMPT 0\nDEFAULT last\nLABEL last\nLINUX /live/kernel\nINITRD /live/disk\n',
      ),
      '/live/kernel': this.kernelWithDisk,
      '/live/disk': this.disk,
      '/zz/filler': filler,
    };
    const iso = (name: string, files: Files): string => {
      const path = this.room.path(`chain${(this.count += 1)}.iso`);
      run('genisoimage', ['-quiet', '-r', '-J', '-o', path, ...ISOLINUX_BOOT, tree(files)]);
      this.add(name, path, BIOS, 'optical');
      return path;
    };
    iso('ISOLINUX: whole', linux);
    // What is wrapped as a kernel and is none says sizes that no loader checks.
    const speaks = this.file(
      `serial --unit=0 --speed=115200\nterminal_output serial\necho ${TOKEN}\nsleep --verbose 60\n`,
    );
    const core = this.room.path(`core${(this.count += 1)}.img`);
    run('grub-mkimage', [
      '-O',
      'i386-pc',
      '-p',
      '/none',
      '-c',
      speaks,
      '-o',
      core,
      ...'serial terminal echo sleep'.split(' '),
    ]);
    const head = readFileSync('/usr/lib/grub/i386-pc/lnxboot.img');
    head.writeUInt32LE(0x7fff, KERNEL.protectedParagraphs);
    const wrapped = this.file(Buffer.concat([head, readFileSync(core)]));
    iso('ISOLINUX: a loader wrapped as its kernel, with sizes beyond it: whole', {
      ...linux,
      '/live/kernel': wrapped,
    });
    iso('ISOLINUX: kernel absent', without(linux, '/live/kernel'));
    iso('ISOLINUX: module absent', without(linux, '/isolinux/ldlinux.c32'));
    iso('ISOLINUX: configuration absent', without(linux, '/isolinux/isolinux.cfg'));

    const small = [
      '--fonts=',
      '--locales=',
      '--themes=',
      '--install-modules=serial terminal linux boot iso9660 part_gpt part_msdos fat normal configfile search test',
    ];
    const rescue = (name: string, files: Files, third = false): void => {
      const path = this.room.path(`chain${(this.count += 1)}.iso`);
      // The kernel is sorted behind what fills the disc, so that a cut disc has lost it and not its loader.
      run('grub-mkrescue', [
        '-o',
        path,
        ...small,
        tree(files),
        '--',
        '-find',
        '/zz',
        '-exec',
        'sort_weight',
        '-100',
        '--',
      ]);
      if (third) truncateSync(path, Math.floor(readFileSync(path).length / 3 / 2048) * 2048);
      this.add(name, path, third ? ['bios', 'uefi-x64'] : EFI, 'optical');
    };
    const disc: Files = {
      '/boot/grub/grub.cfg': this.file(entry('linux /zz/kernel')),
      '/aa/filler': this.file(new Uint8Array(30 * MIB).fill(0x5a)),
      '/zz/kernel': this.kernel,
    };
    rescue('rescue disc: whole', disc);
    rescue('rescue disc: kernel absent', { ...without(disc, '/zz/kernel'), '/zz/note': this.disk });
    rescue('rescue disc: cut to a third', disc, true);

    const signedDisc = tree({
      '/boot/grub/grub.cfg': this.file(entry('linux /kernel')),
      '/.disk/info': this.file('made for tests\n'),
      '/kernel': this.kernel,
    });
    const esp = this.images.fat(`esp${(this.count += 1)}.fat`, 12, '12', [['/EFI/BOOT/BOOTX64.EFI', SIGNED]]);
    copyFileSync(esp, `${signedDisc}/efi.img`);
    const path = this.room.path(`chain${(this.count += 1)}.iso`);
    run('xorriso', ['-as', 'mkisofs', '-r', '-o', path, '-e', 'efi.img', '-no-emul-boot', signedDisc]);
    this.add('a distribution’s own GRUB that searches for its disc', path, EFI, 'optical');
  }

  all(): Chain[] {
    this.grubOnFat();
    this.grubOnExt();
    this.shim();
    this.specification();
    this.biosGrub();
    this.syslinux();
    this.optical();
    return this.made;
  }
}

const without = (files: Files, path: string): Files =>
  Object.fromEntries(Object.entries(files).filter(([p]) => p !== path));

/** All of them, made once in a run. */
export const allChains = (): Chain[] => madeOnce('chains', (room) => new ChainMaker(room).all());
