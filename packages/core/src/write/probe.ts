import { sameBytes } from '../formats/bytes';
import type { ProbeResult } from '../model/standIns';

/** What a probe needs of a stick: places to write and to read. Offsets and lengths in bytes. */
export interface ProbedDevice {
  bytes: number;
  write(offset: number, bytes: Uint8Array): Promise<void>;
  read(offset: number, length: number): Promise<Uint8Array>;
  /** Takes the stick's power away and gives it back, so that nothing is left in a memory of its own. */
  replug?(): Promise<void>;
}

/** A stick may answer from a memory of its own what it never kept; so many other bytes push that out. Common practice, no source. */
const OUTRUN = 8 * 1024 * 1024;
const PIECE = 256 * 1024;

/** One mark; a flash page or more, so that it cannot share one with its neighbour. */
const MARK = 4096;

/** Bytes that stand for one place on one run: a 32-bit mixer over place and run, so that no two marks are alike. */
function markFor(offset: number, run: number): Uint8Array {
  const out = new Uint8Array(MARK);
  let x = (run ^ Math.imul(Math.floor(offset / MARK) + 1, 0x9e3779b1)) >>> 0;
  for (let i = 0; i < MARK; i += 1) {
    x = Math.imul(x ^ (x >>> 15), 0x2c1b3c6d) + i;
    out[i] = (x >>> 11) & 0xff;
  }
  return out;
}

/**
 * Finds what a stick really holds in about 2 · log2(size / 4 KiB) small writes instead of filling it. Marks go to the
 * end and to every half of what is left, far ones first, so that a stick that wraps its addresses round (at a power of
 * two) overwrites them; what does not come back is beyond its real size, and halving closes in on the border. What stood
 * at the marked places is put back. `run` is any number; another one for each run, so that old marks are not taken for
 * new ones. Common practice, no source.
 */
export async function probeCapacity(device: ProbedDevice, run: number): Promise<ProbeResult> {
  const places = Math.floor(device.bytes / MARK);
  const before = new Map<number, Uint8Array>();
  let writes = 0;
  const put = async (place: number, bytes: Uint8Array): Promise<void> => {
    await device.write(place * MARK, bytes);
    writes += 1;
  };
  const mark = async (place: number): Promise<void> => {
    if (!before.has(place)) before.set(place, await device.read(place * MARK, MARK));
    await put(place, markFor(place * MARK, run));
  };
  /** Before a mark is looked for, what the stick still has in memory is lost: by its power, or by reading other places. */
  const settle = async (place: number): Promise<void> => {
    if (device.replug) return device.replug();
    const far = place * MARK < device.bytes / 2 ? Math.floor(device.bytes / 2) : 0;
    const end = Math.min(far + OUTRUN, device.bytes);
    for (let at = far; at < end; at += PIECE) await device.read(at, Math.min(PIECE, end - at));
  };
  const holds = async (place: number): Promise<boolean> =>
    sameBytes(await device.read(place * MARK, MARK), markFor(place * MARK, run));

  const steps = [places - 1];
  for (let p = 1; p < places - 1; p *= 2) steps.push(p);
  steps.push(0);
  const ordered = [...new Set(steps)].filter((p) => p >= 0).sort((a, b) => b - a);
  for (const place of ordered) await mark(place);
  await settle(places - 1);
  let good = -1;
  let bad = places;
  for (const place of [...ordered].reverse()) {
    if (await holds(place)) good = place;
    else {
      bad = place;
      break;
    }
  }
  while (bad < places && bad - good > 1) {
    const middle = Math.floor((good + bad) / 2);
    await mark(middle);
    await settle(middle);
    // A wrapped write lands on a place that was good: the mark at the front tells.
    const whole = (await holds(middle)) && (good < 0 || (await holds(0)));
    if (whole) good = middle;
    else bad = middle;
  }
  for (const [place, bytes] of before) await put(place, bytes);
  const real = bad >= places ? device.bytes : bad * MARK;
  return { claimed: device.bytes, real, writes, bytesWritten: writes * MARK };
}
