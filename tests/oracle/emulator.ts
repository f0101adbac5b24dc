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

function argumentsFor(machine: Machine, start: Start, dir: string): string[] {
  const { attached, image, firmware } = start;
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
  args.push('-device', 'qemu-xhci');
  if (attached === 'disk') {
    args.push('-drive', `file=${image},format=raw,if=none,id=d,snapshot=on`);
    args.push('-device', 'usb-storage,drive=d,removable=on');
  } else {
    args.push('-drive', `file=${image},format=raw,if=none,id=d,readonly=on,media=cdrom`);
    args.push(...(arm ? ['-device', 'usb-storage,drive=d'] : ['-device', 'ide-cd,drive=d']));
  }
  return args;
}

/**
 * Starts an image in the machine emulator and says whether its loader spoke. Bounded: 6 s under BIOS, 45–90 s under
 * UEFI; ends at once when the firmware itself says that it found nothing. The emulator wants whole sectors, so an odd
 * tail is filled up in a copy, as a writer of whole sectors does.
 */
export async function starts(start: Start): Promise<boolean> {
  const machine = MACHINES[start.firmware];
  const dir = mkdtempSync(join(tmpdir(), 'zb-start-'));
  const { size } = statSync(start.image);
  let image = start.image;
  if (size % 2048 !== 0) {
    image = join(dir, 'whole.img');
    copyFileSync(start.image, image);
    truncateSync(image, Math.ceil(size / 2048) * 2048);
  }
  const child = spawn(machine.command, argumentsFor(machine, { ...start, image }, dir), {
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
  let spoke = false;
  let fault: string;
  try {
    while (!over && !spoke && Date.now() < limit) {
      await new Promise((r) => setTimeout(r, 60));
      const said = read(serial);
      spoke = said.includes(start.token);
      if (GIVEN_UP.test(said) || GIVEN_UP.test(read(join(dir, 'debug.txt')))) break;
    }
    spoke ||= read(serial).includes(start.token);
  } finally {
    child.kill('SIGKILL');
    const code = await ended;
    rmSync(dir, { recursive: true, force: true });
    fault = code !== null && code !== 0 ? `emulator failed (${code}): ${complaint}` : '';
  }
  if (fault) throw new Error(fault);
  return spoke;
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
