import { findMachine, storesOf, type Bench, type Box, type Store } from '../model/bench';
import { knownFact } from '../model/known';
import { storageOf } from '../storage/forBox';
import type { CarryAsk } from './view';

/** What can carry: sticks and cards of the shelf that may be written to, and loose drives; the largest first. */
export const carryingSticks = (bench: Bench): Store[] =>
  storesOf(bench)
    .filter((s) => s.owned && s.in === null && s.fate === 'may be lost' && s.kind !== 'drive')
    .sort((a, b) => roomOf(b) - roomOf(a));

/** What it really holds, where that was found out. */
const roomOf = (s: Store): number => s.realBytes ?? s.bytes;

/** Of a stick, what is left for files after its own tables. Common practice, no source. */
const FOR_FILES = 0.98;
/** A wire of a box whose card nobody told of, in Mb/s. */
const USUAL_MBPS = 1000;
/** What one drive writes where no pool was chosen, bytes a second. Common practice, no source. */
export const USUAL_WRITES = { slow: 60e6, fast: 130e6 };

/** How what was looked through would be carried to a box: by this stick, over its wire, onto its pool. */
export function carryFor(bench: Bench, box: Box, stickId: string | null): CarryAsk {
  const stick = carryingSticks(bench).find((s) => s.id === stickId);
  const machine = findMachine(bench, box.machineId);
  const speed = machine && knownFact(machine, 'network.speed')?.value;
  const { chosen } = storageOf(bench, box);
  return {
    stick: stick ? { target: stick, free: Math.floor(roomOf(stick) * FOR_FILES) } : null,
    log: stick ? bench.log.filter((e) => e.kind === 'write' && e.serial === stick.serial) : [],
    carrying: 'exfat',
    cluster: 131_072,
    mbps: typeof speed === 'number' ? speed : USUAL_MBPS,
    writes: chosen?.rates.write ?? USUAL_WRITES,
    room: chosen?.room.usable ?? null,
  };
}
