import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export interface Start {
  firmware: 'bios' | 'uefi-x64';
  attached: 'disk' | 'optical';
  image: string;
  /** What the loader says on the serial line when it runs. */
  token: string;
}

const GIVEN_UP = /No bootable device|No bootable option or device|Shell>|Boot failed: not a bootable disk/;
const OVMF = '/usr/share/OVMF';

const read = (file: string): string => (existsSync(file) ? readFileSync(file, 'latin1') : '');

/**
 * Starts an image in the machine emulator and says whether its loader spoke. Bounded: 6 s under BIOS, 40 s under
 * UEFI; ends at once when the firmware itself says that it found nothing.
 */
export async function starts({ firmware, attached, image, token }: Start): Promise<boolean> {
  const dir = mkdtempSync(join(tmpdir(), 'zb-start-'));
  const serial = join(dir, 'serial.txt');
  const debug = join(dir, 'debug.txt');
  const args = [
    '-M',
    'q35',
    '-m',
    '256',
    '-display',
    'none',
    '-monitor',
    'none',
    '-nic',
    'none',
    '-no-reboot',
  ];
  args.push(
    '-serial',
    `file:${serial}`,
    '-debugcon',
    `file:${debug}`,
    '-global',
    'isa-debugcon.iobase=0x402',
  );
  if (firmware === 'uefi-x64') {
    const vars = join(dir, 'vars.fd');
    copyFileSync(`${OVMF}/OVMF_VARS_4M.fd`, vars);
    args.push('-drive', `if=pflash,format=raw,readonly=on,file=${OVMF}/OVMF_CODE_4M.fd`);
    args.push('-drive', `if=pflash,format=raw,file=${vars}`);
  }
  if (attached === 'disk') {
    args.push('-drive', `file=${image},format=raw,if=none,id=d,snapshot=on`);
    args.push('-device', 'qemu-xhci', '-device', 'usb-storage,drive=d,removable=on');
  } else {
    args.push(
      '-drive',
      `file=${image},format=raw,if=none,id=d,readonly=on,media=cdrom`,
      '-device',
      'ide-cd,drive=d',
    );
  }
  const child = spawn('qemu-system-x86_64', args, { stdio: ['ignore', 'ignore', 'pipe'] });
  let complaint = '';
  child.stderr.on('data', (d: Buffer) => (complaint += d.toString()));
  const ended = new Promise<number | null>((resolve, reject) => {
    child.on('close', resolve);
    child.on('error', reject);
  });
  const limit = Date.now() + (firmware === 'bios' ? 6_000 : 40_000);
  let over = false;
  void ended.then(() => (over = true)).catch(() => (over = true));
  let spoke = false;
  let fault: string;
  try {
    while (!over && !spoke && Date.now() < limit) {
      await new Promise((r) => setTimeout(r, 100));
      const said = read(serial);
      spoke = said.includes(token);
      if (GIVEN_UP.test(said) || GIVEN_UP.test(read(debug))) break;
    }
    spoke ||= read(serial).includes(token);
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
