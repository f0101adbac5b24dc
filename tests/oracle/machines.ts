/**
 * Machines of other shapes with a real kernel: Debian's own, with an initial disk of busybox and the tools the survey asks,
 * started in the emulator. The command line that makes a machine is the truth its survey is held against.
 */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { blank, run } from './files';

const CACHE = fileURLToPath(new URL('../../node_modules/.cache/zb-kernel', import.meta.url));
/** Folders of modules that a machine may want; the rest of the kernel stays out. */
const MODULES = [
  'block',
  'lib',
  'crypto',
  'arch',
  'drivers/nvme',
  'drivers/ata',
  'drivers/scsi',
  'drivers/message',
  'drivers/usb',
  'drivers/mmc',
  'drivers/virtio',
  'drivers/net/ethernet',
  'drivers/net/mii.ko',
  'drivers/net/phy',
  'drivers/net/virtio_net.ko',
  'drivers/net/net_failover.ko',
  'net/core',
  'drivers/gpu/drm',
  'drivers/firmware',
  'drivers/i2c',
  'drivers/video',
  'drivers/hid',
  'drivers/cdrom',
  'drivers/base',
  'drivers/block',
  'drivers/char',
  'fs/efivarfs',
  'drivers/md',
  'fs/ext4',
  'fs/jbd2',
  'fs/mbcache.ko',
  'fs/fat',
  'fs/nls',
  'fs/nfsd',
  'fs/nfs',
  'fs/nfs_common',
  'fs/lockd',
  'fs/fscache',
  'fs/netfs',
  'net/sunrpc',
  'net/dns_resolver',
  'drivers/pps',
  'drivers/ptp',
  'drivers/dca',
  'drivers/power',
  'drivers/acpi',
  'drivers/hwmon',
  'drivers/pci',
  'drivers/memstick',
  'drivers/dma-buf',
];
/** The largest drivers of these are for parts that no machine of the emulator has; without them the initial disk is much smaller. */
const LARGE = ['-mindepth', '2', '-name', '*.ko', '-size', '+1M', '-delete'];
const OF_CARDS = ['drivers/gpu/drm', 'drivers/net/ethernet', 'drivers/scsi'];
const TOOLS = [
  'lsblk',
  'lscpu',
  'dmidecode',
  'smartctl',
  'efibootmgr',
  'ethtool',
  'kmod',
  'mdadm',
  'mkfs.ext4',
  'mkfs.vfat',
  'sfdisk',
  'wipefs',
  'exportfs',
  'rpc.nfsd',
  'rpc.mountd',
  'mount.nfs4',
];
const INIT = `#!/bin/busybox sh
/bin/busybox mkdir -p /proc /sys /dev /bin
/bin/busybox --install -s /bin 2>/dev/null
export PATH=/tools:/bin
mount -t proc proc /proc
mount -t sysfs sysfs /sys
mount -t devtmpfs devtmpfs /dev
drivers() { find /sys -name modalias -exec sed -e 's/$//' {} + 2>/dev/null | sort -u | xargs modprobe -qa; }
drivers
for m in sd_mod sr_mod usb_storage uas mmc_block nvme virtio_blk; do modprobe -q $m; done
sleep 3
drivers
[ -d /sys/firmware/efi ] && modprobe -q efivarfs && mount -t efivarfs efivarfs /sys/firmware/efi/efivars
for i in 1 2 3 4 5 6 7 8 9 10 11 12; do ls /sys/block | grep -qE '^(sd|nvme|vd|mmcblk)' && break; sleep 1; done
sleep 2
# A system that was installed: its entry is made by the usual tool before anything is asked.
for word in $(cat /proc/cmdline); do
  case $word in zb_entry=*) efibootmgr -q -c -d /dev/sda -p 1 -L "\${word#zb_entry=}" -l '\\EFI\\old\\grubx64.efi' ;; esac
done
# Installers of ours, each in its manner: the first drive, the largest, the one with a serial. Each leaves its own mark.
for word in $(cat /proc/cmdline); do
  case $word in zb_install=*)
    serial=\${word#zb_install=}
    lsblk -dnbo NAME,TYPE,SIZE | grep ' disk ' >/drives
    take() { [ -n "$2" ] && printf 'ZB-TOOK-%s' "$1" | dd of="/dev/$2" bs=512 seek="$3" conv=notrunc,fsync 2>/dev/null; }
    take first "$(head -n 1 /drives | awk '{print $1}')" 100
    take largest "$(sort -k 3 -n -r /drives | head -n 1 | awk '{print $1}')" 200
    named=
    for d in $(awk '{print $1}' /drives); do smartctl -i "/dev/$d" | grep -qE "^Serial Number: +$serial$" && named=$d; done
    take serial "$named" 300
    sync
    cat /drives >/dev/ttyS0
    echo ZB-SURVEYED >/dev/ttyS0
    poweroff -f ;;
  esac
done
stty -F /dev/ttyS0 -onlcr 2>/dev/null
# A script of its own, from a second archive behind this one.
if [ -f /job.sh ]; then sh /job.sh >/dev/ttyS0 2>&1; echo ZB-SURVEYED >/dev/ttyS0; sleep 1; poweroff -f; fi
sh /survey.sh >/dev/ttyS0 2>/dev/null
echo ZB-SURVEYED >/dev/ttyS0
sleep 1
poweroff -f
`;

/** The name of Debian's present kernel package. */
const kernelPackage = (): string =>
  /Depends: (linux-image-\d\S+)/.exec(run('apt-cache', ['depends', 'linux-image-amd64']))?.[1] ?? '';

export interface Kernel {
  kernel: string;
  initrd: string;
}

/** The libraries of a program, as the dynamic loader finds them; none of one that is linked statically. */
function librariesOf(program: string): string[] {
  try {
    return [...run('ldd', [program]).matchAll(/(\/\S+\.so\S*)/g)].flatMap((m) => m[1] ?? []);
  } catch {
    return [];
  }
}

/** Copies a program and what it needs to run into the tree of an initial disk. */
function tool(name: string, folder: string, into: string): void {
  const from = run('sh', ['-c', 'command -v "$1"', 'sh', name]).trim();
  mkdirSync(join(into, folder), { recursive: true });
  copyFileSync(run('readlink', ['-f', from]).trim(), join(into, folder, name));
  for (const lib of librariesOf(from)) {
    mkdirSync(join(into, dirname(lib)), { recursive: true });
    copyFileSync(run('readlink', ['-f', lib]).trim(), join(into, lib));
  }
}

/** Fetches the kernel once and builds the initial disk; both are kept beside the other caches. */
export function prepareKernel(): Kernel {
  const contents = createHash('sha256')
    .update([SURVEY_SCRIPT, INIT, ...MODULES, ...OF_CARDS, ...LARGE, ...TOOLS].join('\n'))
    .digest('hex')
    .slice(0, 12);
  const made = { kernel: join(CACHE, 'vmlinuz'), initrd: join(CACHE, `initrd-${contents}`) };
  if (existsSync(made.kernel) && existsSync(made.initrd)) return made;
  mkdirSync(CACHE, { recursive: true });
  // Beside the place they are for: several test files may want them at once, and none may find half of one.
  const work = mkdtempSync(join(CACHE, 'made-'));
  try {
    run('sh', ['-c', 'cd "$1" && apt-get download -qq "$2"', 'sh', work, kernelPackage()]);
    const deb = readdirSync(work).find((f) => f.endsWith('.deb')) ?? '';
    run('dpkg', ['-x', join(work, deb), join(work, 'x')]);
    const version = readdirSync(join(work, 'x/lib/modules'))[0] ?? '';
    const root = join(work, 'root');
    const modules = `lib/modules/${version}`;
    for (const folder of MODULES) {
      const from = join(work, 'x', modules, 'kernel', folder);
      if (!existsSync(from)) continue;
      const to = join(root, modules, 'kernel', folder);
      mkdirSync(dirname(to), { recursive: true });
      run('cp', ['-a', from, to]);
    }
    run('find', [...OF_CARDS.map((folder) => join(root, modules, 'kernel', folder)), ...LARGE]);
    for (const list of ['modules.order', 'modules.builtin', 'modules.builtin.modinfo'])
      copyFileSync(join(work, 'x', modules, list), join(root, modules, list));
    run('depmod', ['-b', root, version]);
    for (const name of TOOLS) tool(name, 'tools', root);
    tool('busybox', 'bin', root);
    run('ln', ['-s', 'kmod', join(root, 'tools/modinfo')]);
    run('ln', ['-s', 'kmod', join(root, 'tools/modprobe')]);
    writeFileSync(join(root, 'survey.sh'), SURVEY_SCRIPT);
    writeFileSync(join(root, 'init'), INIT, { mode: 0o755 });
    // Packed, the machine would spend seconds on it: here a processor is made of software.
    run('sh', ['-c', 'cd "$1" && find . | cpio -o -H newc --quiet > ../initrd', 'sh', root]);
    renameSync(join(work, `x/boot/vmlinuz-${version}`), made.kernel);
    renameSync(join(work, 'initrd'), made.initrd);
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
  return made;
}

/** A machine by the command line that makes it. `drive` stands for a file of so many MiB. */
export interface Shape {
  name: string;
  firmware: 'bios' | 'uefi';
  args: readonly string[];
  /** Drives by their id, MiB. */
  drives: Readonly<Record<string, number>>;
  /** Partition tables of drives, as sfdisk takes them. */
  tables?: Readonly<Record<string, string>>;
  /** Label of a boot entry that is made before the survey, on the first part of the first disk. */
  entry?: string;
  /** SMBIOS structures in place of the emulator's own of their kind. */
  smbios?: readonly Uint8Array[];
}

const OVMF = '/usr/share/OVMF';

/** Starts a machine and answers what its survey printed. Throws where it did not come to its end in 240 s. */
export async function surveyOf(shape: Shape, kernel: Kernel): Promise<string> {
  const word = shape.entry === undefined ? '' : ` zb_entry=${shape.entry}`;
  return startMachine(shape, kernel, word, (text) => {
    const at = text.indexOf('==== zb-survey ====');
    if (at < 0) throw new Error(`${shape.name}: no whole report.\n${text.slice(-2000)}`);
    return text.slice(at, text.indexOf('ZB-SURVEYED')).replaceAll('\r', '');
  });
}

/** Has a script run in a machine as root, with the tools of the initial disk, and answers what it printed. */
export async function ranIn(shape: Shape, { kernel, initrd }: Kernel, script: string): Promise<string> {
  const dir = mkdtempSync(join(tmpdir(), 'zb-job-'));
  try {
    writeFileSync(join(dir, 'job.sh'), script);
    // The kernel takes several archives, one behind the other (initramfs buffer format, kernel documentation).
    const both = join(dir, 'initrd');
    run('sh', [
      '-c',
      'cd "$1" && { cat "$2"; echo job.sh | cpio -o -H newc --quiet | gzip -1; } > "$3"',
      'sh',
      dir,
      initrd,
      both,
    ]);
    return await startMachine(shape, { kernel, initrd: both }, '', (text) =>
      text.slice(0, text.indexOf('ZB-SURVEYED')).replaceAll('\r', ''),
    );
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** In which manner our installers choose. */
export const manners = ['first', 'largest', 'serial'] as const;
/** Where each leaves its mark, sectors. */
const MARKS = { first: 100, largest: 200, serial: 300 };

/** Has our installers run in a machine and answers which drive each has overwritten, by its id. */
export const overwritten = (
  shape: Shape,
  kernel: Kernel,
  serial: string,
): Promise<Record<(typeof manners)[number], string[]>> =>
  startMachine(shape, kernel, ` zb_install=${serial}`, (_text, dir) => {
    const found = (manner: (typeof manners)[number]): string[] =>
      Object.keys(shape.drives).filter((id) => {
        const at = MARKS[manner] * 512;
        return readFileSync(join(dir, id))
          .toString('latin1', at, at + 40)
          .startsWith(`ZB-TOOK-${manner}`);
      });
    return { first: found('first'), largest: found('largest'), serial: found('serial') };
  });

async function startMachine<T>(
  shape: Shape,
  { kernel, initrd }: Kernel,
  word: string,
  collect: (text: string, dir: string) => T,
): Promise<T> {
  const dir = mkdtempSync(join(tmpdir(), 'zb-machine-'));
  const serial = join(dir, 'serial.txt');
  const args = [
    '-display',
    'none',
    '-monitor',
    'none',
    '-no-reboot',
    '-nodefaults',
    '-serial',
    `file:${serial}`,
  ];
  if (shape.firmware === 'uefi') {
    copyFileSync(`${OVMF}/OVMF_VARS_4M.fd`, join(dir, 'vars.fd'));
    args.push('-drive', `if=pflash,format=raw,readonly=on,file=${OVMF}/OVMF_CODE_4M.fd`);
    args.push('-drive', `if=pflash,format=raw,file=${join(dir, 'vars.fd')}`);
  }
  for (const [id, mib] of Object.entries(shape.drives))
    args.push('-drive', `file=${blank(join(dir, id), mib * 1024 ** 2)},format=raw,if=none,id=${id}`);
  for (const [id, table] of Object.entries(shape.tables ?? {})) run('sfdisk', ['-q', join(dir, id)], table);
  (shape.smbios ?? []).forEach((bytes, i) => {
    writeFileSync(join(dir, `smbios${i}`), bytes);
    args.push('-smbios', `file=${join(dir, `smbios${i}`)}`);
  });
  // An emulated clock on a busy machine can fail the kernel's test of its timer, which then ends before it has said a word.
  const line = `console=ttyS0 quiet panic=-1 no_timer_check mitigations=off cryptomgr.notests${word}`;
  // One thread for all its processors: as quick where there are only two cores, and none of them waits for another for ever.
  args.push(
    '-accel',
    'tcg,thread=single',
    ...shape.args,
    '-kernel',
    kernel,
    '-initrd',
    initrd,
    '-append',
    line,
  );
  const child = spawn('qemu-system-x86_64', args, { stdio: ['ignore', 'ignore', 'pipe'] });
  let complaint = '';
  child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
  const ended = new Promise<number | null>((resolve, reject) => {
    child.on('close', resolve);
    child.on('error', reject);
  });
  let over = false;
  void ended.then(() => (over = true)).catch(() => (over = true));
  const limit = Date.now() + 240_000;
  const heard = (): string =>
    existsSync(serial) && statSync(serial).size > 0 ? readFileSync(serial, 'utf8') : '';
  try {
    while (!over && !heard().includes('ZB-SURVEYED') && Date.now() < limit)
      await new Promise((r) => setTimeout(r, 300));
    const text = heard();
    if (!text.includes('ZB-SURVEYED')) {
      // That it lacks features of a processor it says dozens of times, and would hide what matters.
      const words = complaint.replace(/^.*TCG doesn't support requested feature.*\n/gm, '');
      throw new Error(`${shape.name}: it did not come to its end. ${words}\n${text.slice(-2000)}`);
    }
    return collect(text, dir);
  } finally {
    child.kill('SIGKILL');
    await ended.catch(() => null);
    rmSync(dir, { recursive: true, force: true });
  }
}
