/**
 * A machine in the emulator through which a whole plan goes: it keeps its drives, its sticks and the variables of its firmware
 * from start to start. Its installer is a real kernel that boots from the stick, lays out the drive and makes a boot entry.
 */
import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { blank, put, run, type Scratch } from './files';
import { prepareKernel } from './machines';

const MIB = 1024 * 1024;
const OVMF = '/usr/share/OVMF';
const SECONDS = 300;
const GIVEN_UP = /No bootable option or device|Interactive Shell|Internal Shell|UEFI Shell|grub>/;
/** The installer has come to its end, and the machine is off. */
const INSTALLED = 'ZB-INSTALLED';

/** What a medium says on the serial line when it is booted. */
export const said = { installer: 'ZB-THE-INSTALLER', old: 'ZB-OLD-SYSTEM', own: 'ZB-OWN-SYSTEM' } as const;
export type Spoke = keyof typeof said | null;

/** How a medium is connected. `raid`: by a controller of which this firmware knows nothing, as others know nothing of NVMe. */
type Bus = 'sata' | 'usb' | 'raid';
export interface Medium {
  id: string;
  bytes: number;
  serial: string;
  bus: Bus;
}

/** A loader for UEFI that says its word, then does what else it is told. */
function loader(room: Scratch, name: string, commands: string): string {
  const out = room.path(`${name}.efi`);
  if (existsSync(out)) return out;
  const config = room.path(`${name}.cfg`);
  writeFileSync(config, `serial --unit=0 --speed=115200\nterminal_output serial\n${commands}`);
  const small = ['--locales=', '--fonts=', '--themes='];
  const modules = 'serial terminal echo halt linux normal boot part_gpt fat search search_fs_file';
  const kept = [`--modules=${modules}`, `--install-modules=${modules}`];
  run('grub-mkstandalone', [
    '-O',
    'x86_64-efi',
    '-o',
    out,
    ...kept,
    ...small,
    `boot/grub/grub.cfg=${config}`,
  ]);
  return out;
}
const speaks = (room: Scratch, word: 'old' | 'own'): string =>
  loader(room, word, `echo ${said[word]}\nhalt\n`);

/** A FAT volume with files, at the first MiB of an image with a GPT. */
function diskWith(room: Scratch, name: string, mib: number, files: readonly [string, string][]): string {
  const part = blank(room.path(`${name}.fat`), (mib - 2) * MIB);
  run('mkfs.vfat', ['-F', '32', part]);
  run('mmd', ['-i', part, '::/EFI', '::/EFI/BOOT']);
  for (const [to, from] of files) run('mcopy', ['-i', part, from, `::${to}`]);
  const disk = blank(room.path(`${name}.img`), mib * MIB);
  run('sfdisk', ['-q', disk], `label: gpt\nstart=2048, size=${(mib - 2) * 2048}, type=U\n`);
  put(disk, part, MIB);
  return disk;
}

/** A stick with a loader, the kernel, its initial disk, and a script of its own that it runs. */
function stickWith(room: Scratch, name: string, word: string, job: string, files: readonly string[]): string {
  const { kernel, initrd } = prepareKernel();
  writeFileSync(room.path('job.sh'), job);
  const archive = room.path(`${name}.cpio`);
  run('sh', [
    '-c',
    'cd "$1"; shift; out=$1; shift; printf "%s\\n" job.sh "$@" | cpio -o -H newc --quiet > "$out"',
    'sh',
    room.dir,
    archive,
    ...files,
  ]);
  const packed = room.path('initrd.gz');
  // Reading from a stick is slow here, unpacking is not.
  if (!existsSync(packed)) run('sh', ['-c', 'gzip -1 < "$1" > "$2"', 'sh', initrd, packed]);
  const line = 'console=ttyS0 quiet panic=-1 no_timer_check mitigations=off cryptomgr.notests';
  const efi = loader(
    room,
    name,
    `${word === '' ? '' : `echo ${word}\n`}search --file --set=root /${name}.cpio\nlinux /kernel ${line}\ninitrd /initrd /${name}.cpio\nboot\n`,
  );
  return diskWith(room, name, 128, [
    ['/EFI/BOOT/BOOTX64.EFI', efi],
    ['/kernel', kernel],
    ['/initrd', packed],
    [`/${name}.cpio`, archive],
  ]);
}

/** Finds a drive by its serial, as a person does who was told to. */
const FIND = (serial: string): string => `
d=
for n in $(ls /sys/block | grep -E '^sd'); do smartctl -i "/dev/$n" | grep -qiE '^serial number: +${serial}$' && d=$n; done
test -n "$d" || { echo "no drive ${serial}"; ls /sys/block; exit 1; }
`;

/** What an installer is told: which drive, how its table is written, and how its loader is found. */
export interface Install {
  serial: string;
  /** As sfdisk takes it; null: beside what is there. */
  table: string | null;
  entry: 'made' | 'fallback path only' | 'none';
  name: string;
}

/** The stick of an installer of ours: it installs on the drive with this serial and turns the machine off. */
export function installerStick(room: Scratch, { serial, table, entry, name }: Install): string {
  speaks(room, 'own');
  writeFileSync(room.path('table'), table ?? '');
  const path = entry === 'fallback path only' ? 'EFI/BOOT/BOOTX64.EFI' : 'EFI/small/grubx64.efi';
  const job = `${FIND(serial)}
set -e
modprobe -qa vfat nls_cp437 nls_iso8859_1 nls_ascii ext4
${
  table === null
    ? ''
    : `sfdisk -q --wipe always "/dev/$d" < /table
sleep 1
mkfs.vfat -F 32 "/dev/\${d}1" >/dev/null
mkfs.ext4 -q -F "/dev/\${d}2"`
}
mkdir -p /esp /root2
mount -t vfat "/dev/\${d}1" /esp
mkdir -p "/esp/$(dirname ${path})"
cp /own.efi "/esp/${path}"
umount /esp
${
  table === null
    ? ''
    : `mount -t ext4 "/dev/\${d}2" /root2
echo 'echo ${said.own}' > /root2/start.sh
umount /root2`
}
${entry === 'made' ? `efibootmgr -q -c -d "/dev/$d" -p 1 -L '${name}' -l '\\${path.replaceAll('/', '\\')}'` : ''}
sync
echo ${INSTALLED}`;
  return stickWith(room, 'installer', said.installer, job, ['own.efi', 'table']);
}

/** A chain loader: a kernel that knows the controller, and goes on to what the drive holds. */
export const chainStick = (room: Scratch, serial: string): string =>
  stickWith(
    room,
    'chain',
    '',
    `${FIND(serial)}
modprobe -qa ext4
mkdir -p /root2
mount -t ext4 "/dev/\${d}2" /root2 && sh /root2/start.sh`,
    [],
  );

/** An image that is written straight to the drive from which it runs. */
export const ownImage = (room: Scratch): string =>
  diskWith(room, 'straight', 48, [['/EFI/BOOT/BOOTX64.EFI', speaks(room, 'own')]]);

/** The machine of a plan, with what is plugged in now. */
export class PlanMachine {
  private readonly vars: string;
  private readonly plugged = new Set<string>();
  /** What a person has put first in the order. */
  private first: string | null = null;

  constructor(
    private readonly room: Scratch,
    readonly media: readonly Medium[],
    inside: readonly string[],
  ) {
    this.vars = room.path('vars.fd');
    copyFileSync(`${OVMF}/OVMF_VARS_4M.fd`, this.vars);
    for (const m of media) blank(this.file(m.id), m.bytes);
    for (const id of inside) this.plugged.add(id);
  }

  file(id: string): string {
    return this.room.path(`medium-${id}`);
  }

  /** A system that was there before: in the partitions of the table as sfdisk takes it. */
  holdsOld(id: string, table: string, espBytes: number): void {
    run('sfdisk', ['-q', this.file(id)], table);
    const esp = blank(this.room.path('old.fat'), espBytes);
    run('mkfs.vfat', ['-F', '32', esp]);
    run('mmd', ['-i', esp, '::/EFI', '::/EFI/BOOT']);
    run('mcopy', ['-i', esp, speaks(this.room, 'old'), '::/EFI/BOOT/BOOTX64.EFI']);
    put(this.file(id), esp, MIB);
  }

  /** What is in the file at a path of the partition that begins at the first MiB; null where there is none. */
  fileOn(id: string, path: string): Buffer | null {
    const out = this.room.path('read');
    try {
      run('mcopy', ['-n', '-o', '-i', `${this.file(id)}@@1M`, `::${path}`, out]);
      return readFileSync(out);
    } catch {
      return null;
    }
  }

  plug(id: string, inside: boolean): void {
    if (inside) this.plugged.add(id);
    else this.plugged.delete(id);
  }

  write(id: string, image: string): void {
    put(this.file(id), image, 0);
  }

  putFirst(id: string | null): void {
    this.first = id;
  }

  /** Starts the machine and answers what spoke; with `once` that medium is chosen in the one-time menu. */
  async start(once: string | null = null): Promise<Spoke> {
    const { text } = await this.turnOn(
      once,
      (t) => Object.values(said).some((word) => t.includes(word)) || GIVEN_UP.test(t),
    );
    const spoke = (Object.keys(said) as (keyof typeof said)[]).find((k) => text.includes(said[k]));
    return spoke ?? null;
  }

  /** Starts the installer from its stick and lets it come to its end. Throws with what it printed where it does not. */
  async install(stick: string): Promise<Spoke> {
    const { text } = await this.turnOn(stick, (t) => t.includes('ZB-SURVEYED') || GIVEN_UP.test(t));
    if (!text.includes(INSTALLED))
      throw new Error(`The installer did not come to its end:\n${text.slice(-3000)}`);
    return text.includes(said.installer) ? 'installer' : null;
  }

  private device(m: Medium, index: string): string[] {
    const of = `drive=${m.id},serial=${m.serial.slice(-20)}${index}`;
    if (m.bus === 'usb') return ['-device', `usb-storage,removable=on,${of}`];
    if (m.bus === 'raid') return ['-device', 'megasas', '-device', `scsi-hd,${of}`];
    return ['-device', `ide-hd,bus=ide.${this.media.filter((o) => o.bus === 'sata').indexOf(m)},${of}`];
  }

  private async turnOn(once: string | null, ended: (text: string) => boolean): Promise<{ text: string }> {
    const serial = this.room.path('serial.txt');
    const debug = this.room.path('debug.txt');
    for (const f of [serial, debug]) writeFileSync(f, '');
    const flash = (file: string, more = ''): string[] => [
      '-drive',
      `if=pflash,format=raw${more},file=${file}`,
    ];
    const args = [
      '-accel',
      'tcg,thread=single',
      '-M',
      'q35',
      '-m',
      '1024',
      '-vga',
      'none',
      '-display',
      'none',
    ];
    args.push('-monitor', 'none', '-nic', 'none', '-no-reboot', '-serial', `file:${serial}`);
    args.push('-debugcon', `file:${debug}`, '-global', 'isa-debugcon.iobase=0x402');
    args.push(
      ...flash(`${OVMF}/OVMF_CODE_4M.fd`, ',readonly=on'),
      ...flash(this.vars),
      '-device',
      'qemu-xhci',
    );
    // The order of this firmware: what was put first, drives inside by their ports, then USB. Without being told it, this one
    // would put whatever is plugged in later behind its own shell.
    const there = this.media.filter((m) => this.plugged.has(m.id));
    const usual = [...there.filter((m) => m.bus !== 'usb'), ...there.filter((m) => m.bus === 'usb')];
    const order = [...new Set([once, this.first, ...usual.map((m) => m.id)])].filter((id) => id !== null);
    for (const m of there) {
      args.push('-drive', `file=${this.file(m.id)},format=raw,if=none,id=${m.id},discard=unmap`);
      args.push(...this.device(m, `,bootindex=${order.indexOf(m.id) + 1}`));
    }
    const child = spawn('qemu-system-x86_64', args, { stdio: ['ignore', 'ignore', 'pipe'] });
    let complaint = '';
    child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
    const closed = new Promise<number | null>((resolve) => child.on('close', resolve));
    const limit = Date.now() + SECONDS * 1000;
    const heard = (): string => readFileSync(serial, 'latin1');
    try {
      while (Date.now() < limit) {
        await new Promise((r) => setTimeout(r, 200));
        if (ended(heard() + readFileSync(debug, 'latin1'))) return { text: heard() };
        if (child.exitCode !== null) {
          if (child.exitCode !== 0) throw new Error(`The emulator ended: ${complaint}`);
          return { text: heard() };
        }
      }
      throw new Error(`Nothing was said in time: ${heard().slice(-2000)}${complaint}`);
    } finally {
      child.kill('SIGKILL');
      await closed;
    }
  }
}
