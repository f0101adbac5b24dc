import { spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { connect, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TrialRequest } from '@zb/core/model/trial';
import { emulator, firmwareFiles, type Places } from './places';

/** How a machine is made. */
export interface MachineOrder extends Pick<TrialRequest, 'firmware' | 'attached' | 'memoryMiB'> {
  /** The image; it is read and never written. */
  path: string;
  places: Places;
  /** Variables to begin with, in place of the usual: a file with other keys. */
  vars?: string | undefined;
  /** Folder in which what the machine writes lies until it is off; undefined: the system's folder for such things. */
  folder?: string | undefined;
  /** Bytes the machine may write, and that it leaves free beside them; undefined: as is usual. */
  room?: { most: number; free: number } | undefined;
}

/** Why a machine was ended that went on writing. */
export type RoomFault = 'wrote too much' | 'no room left';

/** Common practice, no source: an installer that is only tried writes less, and a system wants this much to go on. */
const USUAL_ROOM = { most: 8 * 2 ** 30, free: 2 ** 30 };
/** So often the room is looked at: at a gigabyte a second, what is left free is not used up between two looks. */
const ROOM_MS = 250;
/** So much of what firmware tells its debug port is kept, bytes: a power of two, as the emulator has it. */
const DEBUG_KEPT = 64 * 1024;

/** So much of the serial line is kept, characters. */
const SERIAL_KEPT = 64 * 1024;
/** Text mode of a PC: 80 × 25 characters with their colours from here on (IBM VGA; common practice). */
const TEXT_AT = 0xb8000;
const COLUMNS = 80;
const ROWS = 25;

/** A picture of 720 × 400 points is that of text mode (9 × 16 points a character). Width and height stand in the header (PNG, §11.2.2). */
const showsText = (png: Buffer): boolean => png.readUInt32BE(16) === 720 && png.readUInt32BE(20) === 400;

/** Keeps the emulator only as long as its keeper lives: when the pipe breaks, because whoever held it is gone, it is ended. */
const WATCH =
  'exec 3<&0; "$@" </dev/null & pid=$!; (cat <&3 >/dev/null; kill -9 $pid 2>/dev/null) & watch=$!; wait $pid; code=$?; kill $watch 2>/dev/null; exit $code';

function argumentsFor(
  { firmware, attached, memoryMiB, path, places, vars }: MachineOrder,
  dir: string,
): string[] {
  const secure = firmware === 'uefi-x64-secure';
  const files = firmwareFiles(firmware, places, vars);
  const own = join(dir, 'vars.fd');
  if (files) copyFileSync(files.vars, own);
  return [
    ...['-M', secure ? 'q35,smm=on,accel=tcg' : 'pc,accel=tcg', '-m', String(memoryMiB), '-smp', '2'],
    ...['-nodefaults', '-display', 'none', '-vga', 'std', '-nic', 'none', '-no-reboot'],
    ...['-serial', 'stdio', '-monitor', 'none', '-qmp', `unix:${join(dir, 'qmp')},server=on,wait=off`],
    ...(secure ? ['-global', 'driver=cfi.pflash01,property=secure,value=on'] : []),
    ...(files
      ? [
          ...['-drive', `if=pflash,format=raw,readonly=on,file=${files.code}`],
          ...['-drive', `if=pflash,format=raw,file=${own}`],
        ]
      : [
          // Kept in memory, and of it the end alone: a file of it would grow for as long as firmware talks.
          ...['-chardev', `ringbuf,id=debug,size=${DEBUG_KEPT}`],
          ...['-device', 'isa-debugcon,iobase=0x402,chardev=debug'],
        ]),
    ...['-device', 'qemu-xhci'],
    // A comma in a name would begin the next option; it is written twice.
    ...(attached === 'disk'
      ? [
          ...['-drive', `file=${path.replaceAll(',', ',,')},format=raw,if=none,id=d,snapshot=on`],
          ...['-device', 'usb-storage,drive=d,removable=on'],
        ]
      : [
          ...['-drive', `file=${path.replaceAll(',', ',,')},format=raw,if=none,id=d,readonly=on,media=cdrom`],
          ...['-device', `ide-cd,drive=d,bus=ide.${secure ? 0 : 1}`],
        ]),
  ];
}

/** An emulated machine with its screen, its serial line and its keys. Bounded memory, no network, the image untouched. */
export class Machine {
  private readonly dir = mkdtempSync(join(tmpdir(), `zb-trial-${process.pid}-`));
  private readonly overlay: string;
  private readonly bios: boolean;
  private watch: NodeJS.Timeout | undefined;
  private readonly child: ChildProcess;
  private socket: Socket | undefined;
  private asked: { resolve: (said: unknown) => void; reject: (e: Error) => void }[] = [];
  private complaint = '';
  serial = '';
  /** What BIOS told its debug port so far, its end; what came since the screen was last looked at is not in it. */
  debug = '';
  /** Why it was ended by itself; null where it was not. */
  stopped: RoomFault | null = null;
  /** Resolves when it is over, with what the emulator complained of where it failed. */
  readonly ended: Promise<string | null>;
  private readonly ready: Promise<void>;

  constructor(order: MachineOrder) {
    const command = emulator(order.places);
    if (command === undefined) throw new Error('no emulator');
    const { folder = tmpdir(), room = USUAL_ROOM } = order;
    mkdirSync(folder, { recursive: true });
    this.overlay = mkdtempSync(join(folder, `zb-trial-${process.pid}-`));
    this.bios = order.firmware === 'bios';
    this.child = spawn('/bin/sh', ['-c', WATCH, 'sh', command, ...argumentsFor(order, this.dir)], {
      stdio: ['pipe', 'pipe', 'pipe'],
      // What it writes over the image lies where it is watched, and cleared away with the rest.
      env: { ...process.env, TMPDIR: this.overlay },
      detached: true,
    });
    this.child.stdin?.on('error', () => undefined);
    this.child.stdout?.on('data', (d: Buffer) => {
      this.serial = (this.serial + d.toString('latin1')).slice(-SERIAL_KEPT);
    });
    this.child.stderr?.on(
      'data',
      (d: Buffer) => (this.complaint = (this.complaint + d.toString()).slice(-2000)),
    );
    this.ended = new Promise((resolve) => {
      const over = (fault: string | null): void => {
        this.socket?.destroy();
        clearInterval(this.watch);
        for (const a of this.asked) a.reject(new Error('the machine is off'));
        for (const dir of [this.dir, this.overlay]) rmSync(dir, { recursive: true, force: true });
        resolve(this.stopped === null ? fault : null);
      };
      this.child.once('error', (e) => over(e.message));
      this.child.once('close', (code) =>
        over(
          code === 0 || code === null || code >= 128 ? null : this.complaint.trim() || `ended with ${code}`,
        ),
      );
    });
    this.ready = this.talk();
    this.ready.catch(() => undefined);
    this.watch = setInterval(() => {
      this.lookAtRoom(room).catch(() => undefined);
    }, ROOM_MS);
  }

  /** Ends the machine before it fills the disk. */
  private async lookAtRoom({ most, free }: { most: number; free: number }): Promise<void> {
    let fault: RoomFault | null = null;
    try {
      const { bavail, bsize } = statfsSync(this.overlay);
      if (bavail * bsize < free) fault = 'no room left';
      else if (this.socket && (await this.written()) > most) fault = 'wrote too much';
    } catch {
      // A machine that is just off answers no more.
    }
    if (fault === null || this.stopped !== null) return;
    this.stopped = fault;
    await this.off();
  }

  /** Bytes that it has written over the image so far (QMP, query-block). */
  private async written(): Promise<number> {
    const blocks = (await this.ask('query-block')) as {
      device: string;
      inserted?: { ro?: boolean; image?: { 'actual-size'?: number } };
    }[];
    return blocks
      .filter((b) => b.device === 'd' && b.inserted?.ro === false)
      .reduce((sum, b) => sum + (b.inserted?.image?.['actual-size'] ?? 0), 0);
  }

  /** Opens the machine's own line (QMP), which is there a moment after the emulator began. */
  private async talk(): Promise<void> {
    let over = false;
    this.ended.then(() => (over = true)).catch(() => (over = true));
    while (!over) {
      const socket = await new Promise<Socket | null>((resolve) => {
        const s = connect(join(this.dir, 'qmp'));
        s.once('connect', () => resolve(s));
        s.once('error', () => resolve(null));
      });
      if (socket) {
        this.listen(socket);
        await this.ask('qmp_capabilities');
        return;
      }
      await new Promise((r) => setTimeout(r, 50));
    }
    throw new Error('the machine is off');
  }

  private listen(socket: Socket): void {
    this.socket = socket;
    let rest = '';
    socket.on('error', () => undefined);
    socket.on('data', (d: Buffer) => {
      const lines = (rest + d.toString()).split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) {
        const said = JSON.parse(line) as { return?: unknown; error?: { desc: string } };
        if (said.error) this.asked.shift()?.reject(new Error(said.error.desc));
        else if ('return' in said) this.asked.shift()?.resolve(said.return);
      }
    });
  }

  private ask(execute: string, args?: object): Promise<unknown> {
    return new Promise((resolve, reject) => {
      this.asked.push({ resolve, reject });
      this.socket?.write(`${JSON.stringify({ execute, ...(args ? { arguments: args } : {}) })}\n`);
    });
  }

  /** The screen: as PNG, and its text where it shows text (else null). Rejects where the machine is off. */
  async screen(): Promise<{ picture: Buffer; text: string | null }> {
    await this.ready;
    if (this.bios) await this.listenToDebug();
    const file = join(this.dir, 'screen.png');
    await this.ask('screendump', { filename: file, format: 'png' });
    const picture = await readFile(file);
    return { picture, text: showsText(picture) ? await this.text() : null };
  }

  private async text(): Promise<string> {
    const file = join(this.dir, 'text');
    await this.ask('pmemsave', { val: TEXT_AT, size: COLUMNS * ROWS * 2, filename: file });
    const cells = await readFile(file);
    const row = (y: number): string =>
      Array.from({ length: COLUMNS }, (_, x) => {
        const code = cells[(y * COLUMNS + x) * 2] ?? 0;
        return code >= 32 && code < 127 ? String.fromCharCode(code) : ' ';
      })
        .join('')
        .trimEnd();
    return Array.from({ length: ROWS }, (_, y) => row(y))
      .join('\n')
      .trim();
  }

  /** Takes what firmware told its debug port since it was last asked (QMP, ringbuf-read). */
  private async listenToDebug(): Promise<void> {
    const said = (await this.ask('ringbuf-read', {
      device: 'debug',
      size: DEBUG_KEPT,
      format: 'base64',
    })) as string;
    this.debug = (this.debug + Buffer.from(said, 'base64').toString('latin1')).slice(-DEBUG_KEPT);
  }

  /** Presses keys together. */
  async press(keys: readonly string[]): Promise<void> {
    await this.ready;
    await this.ask('send-key', { keys: keys.map((data) => ({ type: 'qcode', data })) });
  }

  /** Switches it off, whatever it does. */
  async off(): Promise<void> {
    try {
      // The whole group: the keeper, its watch, and the emulator.
      if (this.child.pid !== undefined) process.kill(-this.child.pid, 'SIGKILL');
    } catch {
      this.child.kill('SIGKILL');
    }
    await this.ended;
  }
}
