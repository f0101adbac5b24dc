import type { LogEntry, Store } from '../model/bench';
import { quantity, type Quantity } from '../units/quantity';
import { formatRate, span, type Span } from '../units/duration';
import { cardClassIn, cardClassRate, linkOfStore, slowest, type Link } from '../machine/links';

/** Bytes per second, low to high, for kinds of target: common practice, no source. Own measurements replace them. */
const WRITE_RATE: Record<string, [number, number]> = {
  stick: [8e6, 30e6],
  card: [6e6, 25e6],
  'drive-usb': [30e6, 150e6],
  'drive-ssd': [150e6, 400e6],
  'drive-hdd': [60e6, 130e6],
};
/** Reading back runs at roughly three times the writing rate on flash, as fast as writing on turning disks: common practice, no source. */
const READ_FACTOR = 3;
const TURNING_FACTOR = 1;

const kindOf = (target: Pick<Store, 'kind' | 'transport' | 'rotational'>): string =>
  target.kind !== 'drive'
    ? target.kind
    : target.transport === 'usb'
      ? 'drive-usb'
      : target.rotational
        ? 'drive-hdd'
        : 'drive-ssd';

/** Value at a share of a sorted list, between neighbours by their distance (the usual linear quantile). */
export const percentile = (sorted: readonly number[], p: number): number => {
  const at = (sorted.length - 1) * p;
  const low = sorted[Math.floor(at)] ?? 0;
  const high = sorted[Math.ceil(at)] ?? low;
  return low + (high - low) * (at - Math.floor(at));
};

/** What a prediction needs to know of a target. */
export type TimedTarget = Pick<Store, 'kind' | 'transport' | 'rotational' | 'serial'> &
  Partial<Pick<Store, 'm2' | 'model' | 'notes'>>;

/** A stick that the shelf has no record of, or (serial null) that is not picked yet. */
export const unknownStick = (serial: string | null): TimedTarget => ({
  kind: 'stick',
  transport: 'usb',
  rotational: false,
  serial,
});

/** A rate as a range, slow and fast, and where it comes from. Bytes per second. */
interface Rate {
  slow: number;
  fast: number;
  because: string;
}

/** Times of one write, each a range of seconds, and the link that holds them up most. */
export interface WriteTimes {
  write: Quantity<Span>;
  verify: Quantity<Span>;
  whole: Quantity<Span>;
  slowest: Link | undefined;
}

type Run = Extract<LogEntry, { kind: 'write' }>;

const ownRuns = (target: TimedTarget, log: readonly LogEntry[]): Run[] =>
  log.filter(
    (e): e is Run =>
      e.kind === 'write' &&
      e.result === 'proven' &&
      e.serial === target.serial &&
      target.serial !== null &&
      e.seconds > 0,
  );

/** Median and middle half of the target's own rates; one or two runs are widened by a tenth. */
function fromRuns(rates: readonly number[], doing: string): Rate | undefined {
  if (rates.length === 0) return undefined;
  const sorted = [...rates].sort((a, b) => a - b);
  const spread = sorted.length < 3 ? 0.1 : 0;
  const slow = percentile(sorted, 0.25) * (1 - spread);
  const fast = percentile(sorted, 0.75) * (1 + spread);
  return {
    slow,
    fast,
    because: `${sorted.length} earlier ${sorted.length === 1 ? 'run' : 'runs'} with this target: ${formatRate(percentile(sorted, 0.5))} ${doing} in the middle, half of them between ${formatRate(percentile(sorted, 0.25))} and ${formatRate(percentile(sorted, 0.75))}`,
  };
}

function fromKind(target: TimedTarget): Rate {
  const mark =
    target.kind === 'card' ? cardClassIn(`${target.model ?? ''} ${target.notes ?? ''}`) : undefined;
  const kind = kindOf(target);
  const [slow, fast] = WRITE_RATE[kind] ?? [8e6, 30e6];
  if (mark) {
    const least = cardClassRate[mark];
    return {
      slow: least,
      fast: Math.max(least, fast),
      because: `no earlier run; its mark ${mark} promises ${formatRate(least)} (SD Physical Layer §4.13)`,
    };
  }
  return {
    slow,
    fast,
    because: `no earlier run; a ${kind.replace('-', ' on ')} writes ${formatRate(slow)} to ${formatRate(fast)} (common practice)`,
  };
}

/** No link carries more than its own rate, whatever the target could do. */
const capped = (rate: Rate, limit: Link | undefined): Rate =>
  limit && limit.bytesPerSecond < rate.fast
    ? {
        slow: Math.min(rate.slow, limit.bytesPerSecond),
        fast: limit.bytesPerSecond,
        because: `${rate.because}; held up by ${limit.name}: ${formatRate(limit.bytesPerSecond)} at most, ${limit.because}`,
      }
    : rate;

const seconds = (bytes: number, rate: Rate): Quantity<Span> =>
  quantity(span(bytes / rate.fast, bytes / rate.slow), 'seconds', rate.because);

/**
 * Seconds to write an image, to read it back, and both. From the target's own proven runs in the log where there are
 * any, else from its kind; never faster than the slowest link between (`port` is what it is plugged into).
 */
export function predictTimes(
  bytes: number,
  target: TimedTarget,
  log: readonly LogEntry[],
  port?: Link,
): WriteTimes {
  const runs = ownRuns(target, log);
  const split = runs.filter((r) => r.writeSeconds !== null && r.writeSeconds < r.seconds);
  const link = slowest([port, linkOfStore({ ...target, m2: target.m2 ?? null })]);
  const kind = fromKind(target);
  const factor = target.rotational === true ? TURNING_FACTOR : READ_FACTOR;
  const reading: Rate = {
    slow: kind.slow * factor,
    fast: kind.fast * factor,
    because: `${kind.because}; reading runs about ${factor === 1 ? 'as fast' : `${factor} times as fast`} (common practice)`,
  };
  const write = capped(
    fromRuns(
      split.map((r) => r.bytes / (r.writeSeconds ?? r.seconds)),
      'writing',
    ) ?? kind,
    link,
  );
  const verify = capped(
    fromRuns(
      split.map((r) => r.bytes / (r.seconds - (r.writeSeconds ?? 0))),
      'reading back',
    ) ?? reading,
    link,
  );
  const both = fromRuns(
    runs.map((r) => r.bytes / r.seconds),
    'for writing and reading back',
  );
  const whole = both
    ? seconds(bytes, both)
    : quantity(
        span(bytes / write.fast + bytes / verify.fast, bytes / write.slow + bytes / verify.slow),
        'seconds',
        write.because,
      );
  return { write: seconds(bytes, write), verify: seconds(bytes, verify), whole, slowest: link };
}

/** Seconds to write an image and read it back. */
export const predictWrite = (
  bytes: number,
  target: TimedTarget,
  log: readonly LogEntry[],
  port?: Link,
): Quantity<Span> => predictTimes(bytes, target, log, port).whole;
