import { isKernel, KERNEL, KERNEL_HEAD_BYTES } from '../../formats/linuxKernel';
import type { ByteSource } from '../../formats/source';
import { allZero } from '../../formats/bytes';
import { runInstruction } from './execute';
import { callFirmware, LARGE_DISK, type DiskRead } from './firmware';
import { AX, CS, DX, RealModeMachine, SI, SP } from './machine';

/** A stretch of the source that boot code has put into memory, or that firmware put there to begin with. */
export interface Stage {
  /** Bytes: where it lies in the source, how long it is, and its linear address. */
  offset: number;
  bytes: number;
  address: number;
}

/** Where boot code lies (bytes), and the medium that firmware starts it from. */
export interface BootCode {
  at: number;
  bytes: number;
  /** The number that firmware hands over. */
  drive: number;
  sectorBytes: number;
  /** Sectors per track, where the medium is a floppy disk of two sides. */
  floppySectors?: number;
  /** The entry of the table that older boot code starts. */
  entry?: Uint8Array;
}

/** What came of following boot code. */
export interface Followed {
  /**
   * What came of it: a kernel entered by its own header; a program that turns protected mode on, or goes on asking for
   * keys; an end that nothing follows; or a way that cannot be followed.
   */
  end: 'kernel' | 'protected mode' | 'asks for keys' | 'stops' | 'gives up' | 'empty' | 'circle' | 'lost';
  /** The stages that ran, in order; the first is the boot code itself. */
  stages: Stage[];
  /** All that it has read, bytes, each sector once for each time. */
  loadedBytes: number;
  /** What it asked the disk for last, where that lies beyond the end of the source. */
  beyond: DiskRead | undefined;
  /** What it put on the screen. */
  printed: string;
  /** False where it asked for a service that is not answered as every firmware does, so that its end proves nothing. */
  certain: boolean;
}

/** Instructions of a boot code that has not lost its way; GRUB's and SYSLINUX's first sectors need some hundreds. */
const MAX_INSTRUCTIONS = 2_000_000;
const MAX_STAGES = 64;
/** The same sector read to the same place more often than this is a circle: nothing has changed in between. */
const MAX_SAME_READS = 8;
/** So many zero bytes are no code. */
const NO_CODE = 16;
/** Keys that are pressed where code waits for one, scan code and letter: Enter, Escape, 1, Space, Y (IBM PC keyboard, set 1). */
const KEYS = [0x1c0d, 0x011b, 0x0231, 0x3920, 0x1579] as const;
/** Who asks so often, reads nothing for it and does not give up is a program that talks with somebody. */
const MANY_KEYS = 2 * KEYS.length;
/** The clock of the firmware: ticks since midnight, and instructions for which it stands still here. */
const TICKS = { at: 0x46c, each: 4096 } as const;
const LOAD_ADDRESS = 0x7c00;
/** The firmware's own entry, where code jumps to that starts the machine anew: FFFFh:0, or F000h:FFF0h (IA-32 SDM volume 3, §10.1.4). */
const RESET = 0xffff0;
const WARM_RESET = 0xfe05b;
/** Where older boot code leaves the table of sector 0, and points DS:SI at the entry that it starts. */
const RELOCATED_TABLE = 0x7be;

/**
 * Follows BIOS boot code instruction by instruction in a machine of its own: bounded, over the firmware's disk services,
 * until it enters a kernel, comes to an end, or does what cannot be followed. Nothing is changed; the source is only read.
 * `at` is where the code lies (bytes), loaded to 7C00h with the drive's number in DL (common practice, held against
 * starts in an emulator); `sectorBytes` is 512 for disks, 2048 for optical media.
 */
export async function followBootCode(source: ByteSource, code: BootCode): Promise<Followed> {
  const m = new RealModeMachine();
  const shape = {
    sectorBytes: code.sectorBytes,
    ...(code.floppySectors === undefined ? LARGE_DISK : { heads: 2, sectors: code.floppySectors }),
  };
  let keys = 0;
  const first = await source.read(code.at, code.bytes);
  m.memory.set(first, LOAD_ADDRESS);
  m.ip = LOAD_ADDRESS;
  m.set(SP, 2, LOAD_ADDRESS);
  m.set(DX, 2, code.drive);
  if (code.entry) {
    m.memory.set(code.entry, RELOCATED_TABLE);
    m.set(SI, 2, RELOCATED_TABLE);
  }
  let here: Stage = { offset: code.at, bytes: first.length, address: LOAD_ADDRESS };
  const loaded: Stage[] = [here];
  const out: Followed = {
    end: 'lost',
    stages: [here],
    loadedBytes: 0,
    beyond: undefined,
    printed: '',
    certain: true,
  };
  const reads = new Map<string, number>();
  const ended = (end: Followed['end']): Followed => ({ ...out, end });

  /** Puts sectors into memory; false where some of them lie beyond the end of the source. */
  const readDisk = async (ask: DiskRead): Promise<boolean> => {
    const bytes = ask.sectors * code.sectorBytes;
    const offset = ask.lba * code.sectorBytes;
    const got = offset + bytes <= source.size ? await source.read(offset, bytes) : undefined;
    if (!got || ask.address + bytes > m.memory.length) return false;
    m.memory.set(got, ask.address);
    loaded.push({ offset, bytes, address: ask.address });
    out.loadedBytes += bytes;
    return true;
  };

  for (let i = 0; i < MAX_INSTRUCTIONS; i += 1) {
    const at = m.linear(CS, m.ip);
    // What was read last lies on top; code that has copied itself elsewhere is still the stage that it was.
    const stage = loaded.findLast((s) => at >= s.address && at < s.address + s.bytes) ?? here;
    if (stage !== here) {
      here = stage;
      if (!out.stages.includes(stage)) out.stages.push(stage);
      if (out.stages.length > MAX_STAGES) return ended('lost');
    }
    if (at === RESET || at === WARM_RESET) return ended('gives up');
    if (allZero(m.memory.subarray(at, at + NO_CODE))) return ended('empty');
    if (at === here.address + KERNEL.setup) {
      const head = m.memory.subarray(here.address, here.address + KERNEL_HEAD_BYTES);
      if (isKernel(head)) return ended('kernel');
    }
    if (i % TICKS.each === 0) m.store(TICKS.at, 4, m.load(TICKS.at, 4) + 1);
    const pause = runInstruction(m);
    if (!pause) continue;
    if (pause.kind === 'asked the hardware') {
      out.certain = false;
      continue;
    }
    if (pause.kind === 'protected mode') return ended('protected mode');
    if (pause.kind === 'halt' || pause.kind === 'stands') return ended('stops');
    if (pause.kind !== 'interrupt') return ended('lost');
    const answer = callFirmware(m, pause.vector, shape);
    if (answer.printed !== undefined) out.printed += answer.printed;
    if (answer.certain === false) out.certain = false;
    if (answer.gaveUp) return ended('gives up');
    if (answer.key) {
      if (keys === MANY_KEYS) return ended('asks for keys');
      m.set(AX, 2, KEYS[keys % KEYS.length] ?? 0);
      keys += 1;
    }
    if (!answer.read) continue;
    const key = `${answer.read.lba} ${answer.read.address}`;
    const times = (reads.get(key) ?? 0) + 1;
    reads.set(key, times);
    if (times > MAX_SAME_READS) return ended('circle');
    m.carry = !(await readDisk(answer.read));
    out.beyond = m.carry ? answer.read : undefined;
  }
  return ended('lost');
}
