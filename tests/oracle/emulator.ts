import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export const startedFirmwares = ['bios', 'uefi-x64', 'uefi-ia32', 'uefi-aa64', 'uefi-x64-secure'] as const;
export type StartedFirmware = (typeof startedFirmwares)[number];

export interface Start {
  firmware: StartedFirmware;
  attached: 'disk' | 'optical';
  image: string;
  /** What the loader says on the serial line when it runs. */
  token: string;
}

/** What firmware or boot code says when it has found nothing: no use in waiting longer. */
const GIVEN_UP =
  /No bootable device|No bootable option or device|Internal Shell|Interactive Shell|Boot failed: not a bootable disk|Missing operating system|Missing OS|Access Denied|Security Violation/;
/** The same of loaders: their prompts, and what they say before they wait for a key or end. */
const LOADER_GAVE_UP =
  /grub>|grub rescue>|Press any key to continue|boot: |Failed to load|No such file|No loader found|Failed to execute|Error loading|Failed to open|start_image\(\) returned|Not a kernel|Failed to start/;

interface Machine {
  command: string;
  args: string[];
  code?: string;
  vars?: string;
  seconds: number;
}

const PC = ['-M', 'pc', '-m', '256', '-vga', 'none'];
/** Firmware that guards its variables wants a machine with system-management mode. */
const SMM = [
  '-M',
  'q35,smm=on',
  '-m',
  '256',
  '-vga',
  'none',
  '-global',
  'driver=cfi.pflash01,property=secure,value=on',
];
const OVMF = '/usr/share/OVMF';
/** Debian's firmware builds; the secure one keeps the snakeoil test key in its variable store and needs SMM. */
const MACHINES: Record<StartedFirmware, Machine> = {
  bios: { command: 'qemu-system-x86_64', args: PC, seconds: 6 },
  'uefi-x64': {
    command: 'qemu-system-x86_64',
    args: PC,
    code: `${OVMF}/OVMF_CODE_4M.fd`,
    vars: `${OVMF}/OVMF_VARS_4M.fd`,
    seconds: 45,
  },
  'uefi-ia32': {
    command: 'qemu-system-x86_64',
    args: SMM,
    code: `${OVMF}/OVMF32_CODE_4M.secboot.fd`,
    vars: `${OVMF}/OVMF32_VARS_4M.fd`,
    seconds: 60,
  },
  'uefi-x64-secure': {
    command: 'qemu-system-x86_64',
    args: SMM,
    code: `${OVMF}/OVMF_CODE_4M.secboot.fd`,
    vars: `${OVMF}/OVMF_VARS_4M.snakeoil.fd`,
    seconds: 60,
  },
  'uefi-aa64': {
    command: 'qemu-system-aarch64',
    args: ['-M', 'virt', '-cpu', 'cortex-a57', '-m', '256'],
    code: '/usr/share/AAVMF/AAVMF_CODE.fd',
    vars: '/usr/share/AAVMF/AAVMF_VARS.fd',
    seconds: 90,
  },
};

const read = (file: string): string => (existsSync(file) ? readFileSync(file, 'latin1') : '');

/** One of the images of a start, and what its loader says on the serial line when it runs. */
interface Attached {
  image: string;
  token: string;
}

function argumentsFor(
  machine: Machine,
  start: Omit<Start, 'image' | 'token'>,
  images: string[],
  dir: string,
): string[] {
  const { attached, firmware } = start;
  const args = [...machine.args, '-display', 'none', '-monitor', 'none', '-nic', 'none', '-no-reboot'];
  args.push('-serial', `file:${join(dir, 'serial.txt')}`);
  const arm = firmware === 'uefi-aa64';
  if (!arm) args.push('-debugcon', `file:${join(dir, 'debug.txt')}`, '-global', 'isa-debugcon.iobase=0x402');
  if (machine.code && machine.vars) {
    const vars = join(dir, 'vars.fd');
    copyFileSync(machine.vars, vars);
    args.push('-drive', `if=pflash,format=raw,readonly=on,file=${machine.code}`);
    args.push('-drive', `if=pflash,format=raw,file=${vars}`);
  }
  args.push('-device', 'qemu-xhci,p2=8,p3=8');
  images.forEach((image, i) => {
    const drive = `file=${image},format=raw,if=none,id=d${i}`;
    if (attached === 'disk') {
      args.push('-drive', `${drive},snapshot=on`);
      args.push('-device', `usb-storage,drive=d${i},removable=on`);
    } else {
      args.push('-drive', `${drive},readonly=on,media=cdrom`);
      // Two channels of two drives each; the machine with system-management mode has one drive on each of its ports.
      const ide = PC === machine.args ? `ide-cd,bus=ide.${i >> 1},unit=${i & 1}` : `ide-cd,bus=ide.${i}`;
      args.push('-device', `${arm ? 'usb-storage' : ide},drive=d${i}`);
    }
  });
  return args;
}

/** The emulator wants whole sectors, so an odd tail is filled up in a copy, as a writer of whole sectors does. */
function inWholeSectors(image: string, dir: string, n: number): string {
  const { size } = statSync(image);
  if (size % 2048 === 0) return image;
  const whole = join(dir, `whole${n}.img`);
  copyFileSync(image, whole);
  truncateSync(whole, Math.ceil(size / 2048) * 2048);
  return whole;
}

/**
 * Starts the emulator with images attached and says which loaders spoke, and whether the firmware said that it found
 * nothing. Bounded: 6 s under BIOS, 45–90 s under UEFI; ends as soon as one spoke or the firmware gave up.
 */
async function observe(
  start: Omit<Start, 'image' | 'token'>,
  images: readonly Attached[],
): Promise<{ spoke: boolean[]; gaveUp: boolean; serial: string }> {
  const machine = MACHINES[start.firmware];
  const dir = mkdtempSync(join(tmpdir(), 'zb-start-'));
  const whole = images.map(({ image }, n) => inWholeSectors(image, dir, n));
  const child = spawn(machine.command, argumentsFor(machine, start, whole, dir), {
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let complaint = '';
  child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
  const ended = new Promise<number | null>((resolve, reject) => {
    child.on('close', resolve);
    child.on('error', reject);
  });
  const limit = Date.now() + machine.seconds * 1000;
  let over = false;
  void ended.then(() => (over = true)).catch(() => (over = true));
  const serial = join(dir, 'serial.txt');
  const heard = (): boolean[] => images.map(({ token }) => read(serial).includes(token));
  let spoke = heard();
  let gaveUp = false;
  let fault: string;
  let heardAll: string;
  try {
    while (!over && !gaveUp && !spoke.some(Boolean) && Date.now() < limit) {
      await new Promise((r) => setTimeout(r, 60));
      spoke = heard();
      gaveUp = [serial, join(dir, 'debug.txt')]
        .map(read)
        .some((t) => GIVEN_UP.test(t) || LOADER_GAVE_UP.test(t));
    }
    spoke = heard();
  } finally {
    child.kill('SIGKILL');
    const code = await ended;
    heardAll = read(serial);
    rmSync(dir, { recursive: true, force: true });
    fault = code !== null && code !== 0 ? `emulator failed (${code}): ${complaint}` : '';
  }
  if (fault) throw new Error(fault);
  return { spoke, gaveUp, serial: heardAll };
}

/** All that an image puts on the serial line, up to the token with which it ends. */
export const said = async (
  how: Omit<Start, 'image' | 'token'>,
  image: string,
  token: string,
): Promise<string> => (await observe(how, [{ image, token }])).serial;

/** Starts an image in the machine emulator and says whether its loader spoke. */
export async function starts({ image, token, ...how }: Start): Promise<boolean> {
  const { spoke } = await observe(how, [{ image, token }]);
  return spoke.includes(true);
}

/**
 * Starts several images that are foretold not to start in one machine: firmware that tried all of them and says that it
 * found nothing has shown it of each. Where one speaks, or the firmware says nothing, each is started by itself.
 */
export async function startTogether(
  how: Omit<Start, 'image' | 'token'>,
  images: readonly Attached[],
): Promise<boolean[]> {
  const { spoke, gaveUp } = await observe(how, images);
  if (images.length === 1 || (gaveUp && !spoke.includes(true))) return spoke;
  const singly: boolean[] = [];
  for (const one of images) singly.push(await starts({ ...how, ...one }));
  return singly;
}

/** Runs jobs two at a time: the tests' machines have two cores and the emulator keeps one busy. */
export async function inPairs<T>(jobs: readonly (() => Promise<T>)[]): Promise<PromiseSettledResult<T>[]> {
  const results: PromiseSettledResult<T>[] = [];
  let next = 0;
  const worker = async (): Promise<void> => {
    while (next < jobs.length) {
      const index = next;
      next += 1;
      const [result] = await Promise.allSettled([jobs[index]?.() as Promise<T>]);
      results[index] = result;
    }
  };
  await Promise.all([worker(), worker()]);
  return results;
}
