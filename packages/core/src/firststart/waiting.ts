import type { Store } from '../model/bench';
import type { FirstManner, FirstRecord } from '../model/firstStart';
import { quantity, type Quantity } from '../units/quantity';
import { addSpans, span, type Span } from '../units/duration';

/** Growing a file system writes its tables anew: seconds for each TiB, on a drive that turns and on one that does not. Common practice, no source. */
const GROW_PER_TIB = { turning: span(60, 240), solid: span(10, 60) };
const TIB = 1024 ** 4;

/** One round of updates, its restart with it. Common practice, no source. */
const ROUND = span(3 * 60, 12 * 60);

/** What is done while the screen stays black. */
export interface BlackScreen {
  /** It may be black for so long, seconds. */
  normal: Span;
}

/** Seconds of the first start until it answers: what its system tells, and longer where it grows onto a large drive. */
export function firstStartTime(
  manner: FirstManner,
  grows: boolean,
  drive: Store | undefined,
): Quantity<Span> {
  const [low, high] = manner.minutes;
  const told = span(low * 60, high * 60);
  const because = [`its system tells ${low} to ${high} minutes`];
  if (!grows || !drive) return quantity(told, 'seconds', ...because);
  const each = drive.rotational === true ? GROW_PER_TIB.turning : GROW_PER_TIB.solid;
  const share = drive.bytes / TIB;
  const growing = span(each.low * share, each.high * share);
  return quantity(
    addSpans([told, growing]),
    'seconds',
    ...because,
    `it grows onto “${drive.name}” (common practice, no source)`,
  );
}

/** Up to when a black screen is nothing to worry about, seconds. */
export const blackUpTo = (manner: FirstManner): Span =>
  span(manner.blackMinutes[0] * 60, manner.blackMinutes[1] * 60);

/** Seconds of all rounds of updates still to come: as its own rounds took, where some were measured. */
export function updatesLeft(manner: FirstManner, record: FirstRecord): Span {
  const { rounds } = record;
  if (rounds.at(-1)?.offered === 0) return span(0);
  const measured = rounds.flatMap((r) => r.seconds ?? []);
  const each = measured.length > 0 ? span(Math.min(...measured), Math.max(...measured)) : ROUND;
  const left = (n: number): number => Math.max(1, n - rounds.length);
  return span(each.low * left(manner.rounds[0]), each.high * left(manner.rounds[1]));
}

/** Whether the last round offered nothing: only then are updates done. */
export const updatesDone = (record: FirstRecord): boolean => record.rounds.at(-1)?.offered === 0;
