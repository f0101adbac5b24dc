import { findImage, findProfile, type Bench, type Box, type Store } from '../model/bench';
import { laidBox } from '../layout/forBox';
import { writtenBytes } from '../model/written';
import { addSpans, middleOf, span, type Span } from '../units/duration';
import { predictTimes } from '../write/time';
import { runSheetOf } from './runSheet';
import { partsOf } from '../runsheet/step';
import type { StepWhat } from '../runsheet/what';

/** A system unpacks onto its drive to about this many times its image. Common practice, no source. */
const UNPACKS: Span = span(1.5, 3);
/** Hands that a copy of a whole drive takes, and bringing it back: start from a stick, name the drives, look at the end. Common practice, no source. */
const COPY_HANDS = span(300, 900);
/** What is set up once more when the drive is gone: what lies before it is not. */
const AGAIN = ['write', 'firmware', 'install', 'first-start', 'network', 'load', 'tune'] as const;

/** Memory that passed once and what went wrong once are not done again. */
const isRepeated = (what: StepWhat): boolean =>
  what.code !== 'cure' && !(what.code === 'first start' && what.line === 'memory test');

/** Ways to have a box again whose drive is gone. Seconds, bytes. */
export interface CopyOrAgain {
  drive: Store;
  /** What a copy takes: where nothing is packed, and where what is empty is. */
  room: { whole: number; packed: Span };
  copy: { hands: Span; alone: Span };
  /** Bringing the copy back. */
  back: { hands: Span; alone: Span };
  /** Doing it all again, by what it took or should take. */
  again: { hands: Span; alone: Span; steps: number; measured: number };
  /** From this chance on that the drive is lost, the copy saves hands in the middle; null where it never does. */
  breakEven: number | null;
}

/** An image of the finished drive against setting it up again; null where no drive is known. */
export function copyOrAgain(bench: Bench, box: Box): CopyOrAgain | null {
  const { drive } = laidBox(bench, box);
  if (!drive) return null;
  const image = findImage(bench, box.imageId);
  const profile = findProfile(bench, box.profileId);
  const system = image ? writtenBytes(image) : (profile?.needs.bootBytes ?? drive.bytes);
  const filled = (by: number): number => Math.min(drive.bytes, system * by);
  const { write, verify } = predictTimes(drive.bytes, drive, bench.log);
  const sheet = runSheetOf(bench, box);
  const mine = sheet.steps.filter(
    (s) => (AGAIN as readonly string[]).includes(s.stop) && s.state !== 'left out' && isRepeated(s.what),
  );
  const took = mine.map((s) => (s.done?.seconds == null ? s : partsOf(s, span(s.done.seconds))));
  const again = { hands: addSpans(took.map((t) => t.hands)), alone: addSpans(took.map((t) => t.alone)) };
  const saves = middleOf(again.hands) - middleOf(COPY_HANDS);
  const chance = saves > 0 ? middleOf(COPY_HANDS) / saves : Infinity;
  return {
    drive,
    room: { whole: drive.bytes, packed: span(filled(UNPACKS.low), filled(UNPACKS.high)) },
    // Reading is what takes long of a copy; what it is written to is not known.
    copy: { hands: COPY_HANDS, alone: verify.value },
    back: { hands: COPY_HANDS, alone: write.value },
    again: {
      ...again,
      steps: mine.length,
      measured: mine.filter((s) => s.done?.seconds != null).length,
    },
    breakEven: chance <= 1 ? chance : null,
  };
}
