import { isKernel, KERNEL, KERNEL_HEAD_BYTES } from '../../formats/linuxKernel';
import type { ByteSource } from '../../formats/source';
import { allZero } from '../../formats/bytes';
import { runInstruction } from './execute';
import { callFirmware, type DiskRead } from './firmware';
import { CS, DX, RealModeMachine, SI, SP } from './machine';

/** A stretch of the source that boot code has put into memory, or that firmware put there to begin with. */
export interface Stage {
  /** Bytes: where it lies in the source, how long it is, and its linear address. */
  offset: number;
  bytes: number;
  address: number;
}

/** What came of following boot code. */
export interface Followed {
  /** What came of it: a kernel entered by its own header; an end that nothing follows; or a way that cannot be followed. */
  end: 'kernel' | 'stops' | 'gives up' | 'waits for a key' | 'empty' | 'circle' | 'lost';
  /** The stages that ran, in order; the first is the boot code itself. */
  stages: Stage[];
  /** What it asked the disk for last, where that lies beyond the end of the source. */
  beyond: DiskRead | undefined;
  /** What it put on the screen. */
  printed: string;
  /** False where it asked for a service that is not answered as every firmware does, so that its end proves nothing. */
  certain: boolean;
}

/** Instructions of a boot code that has not lost its way; GRUB's and SYSLINUX's first sectors need some hundreds. */
const MAX_INSTRUCTIONS = 200_000;
const MAX_STAGES = 64;
/** The same sector read to the same place more often than this is a circle: nothing has changed in between. */
const MAX_SAME_READS = 8;
/** So many zero bytes are no code. */
const NO_CODE = 16;
const LOAD_ADDRESS = 0x7c00;
/** Where older boot code leaves the table of sector 0, and points DS:SI at the entry that it starts. */
const RELOCATED_TABLE = 0x7be;

/**
 * Follows BIOS boot code instruction by instruction in a machine of its own: bounded, over the firmware's disk services,
 * until it enters a kernel, comes to an end, or does what cannot be followed. Nothing is changed; the source is only read.
 * `at` is where the code lies (bytes), loaded to 7C00h with the drive's number in DL (common practice, held against
 * starts in an emulator); `sectorBytes` is 512 for disks, 2048 for optical media.
 */
export async function followBootCode(
  source: ByteSource,
  code: { at: number; bytes: number; drive: number; sectorBytes: number; entry?: Uint8Array },
): Promise<Followed> {
  const m = new RealModeMachine();
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
  const out: Followed = { end: 'lost', stages: [here], beyond: undefined, printed: '', certain: true };
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
    if (allZero(m.memory.subarray(at, at + NO_CODE))) return ended('empty');
    if (at === here.address + KERNEL.setup) {
      const head = m.memory.subarray(here.address, here.address + KERNEL_HEAD_BYTES);
      if (isKernel(head)) return ended('kernel');
    }
    const pause = runInstruction(m);
    if (!pause) continue;
    if (pause.kind === 'halt' || pause.kind === 'stands') return ended('stops');
    if (pause.kind !== 'interrupt') return ended('lost');
    const answer = callFirmware(m, pause.vector, code.sectorBytes);
    if (answer.printed !== undefined) out.printed += answer.printed;
    if (answer.certain === false) out.certain = false;
    if (answer.end) return ended(answer.end);
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
