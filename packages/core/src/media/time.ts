import type { LogEntry, Store } from '../schema/bench';
import { quantity, type Quantity } from '../units/quantity';
import { formatRate, span, type Span } from '../units/duration';

/** Bytes per second, low to high, for kinds of target: common practice, no source. Own measurements replace them. */
const WRITE_RATE: Record<string, [number, number]> = {
  stick: [8e6, 30e6],
  card: [6e6, 25e6],
  'drive-usb': [30e6, 150e6],
  'drive-ssd': [150e6, 400e6],
  'drive-hdd': [60e6, 130e6],
};

const kindOf = (target: Pick<Store, 'kind' | 'transport' | 'rotational'>): string =>
  target.kind !== 'drive'
    ? target.kind
    : target.transport === 'usb'
      ? 'drive-usb'
      : target.rotational
        ? 'drive-hdd'
        : 'drive-ssd';

const percentile = (sorted: readonly number[], p: number): number => {
  const at = (sorted.length - 1) * p;
  const low = sorted[Math.floor(at)] ?? 0;
  const high = sorted[Math.ceil(at)] ?? low;
  return low + (high - low) * (at - Math.floor(at));
};

/** What a prediction needs to know of a target. */
export type TimedTarget = Pick<Store, 'kind' | 'transport' | 'rotational' | 'serial'>;

/** A stick that the shelf has no record of, or (serial null) that is not picked yet. */
export const unknownStick = (serial: string | null): TimedTarget => ({
  kind: 'stick',
  transport: 'usb',
  rotational: false,
  serial,
});

/**
 * Seconds to write an image and read it back. From the target's own runs in the log where there are any (the rates
 * between the quartiles, widened by a tenth for a single run), else from its kind.
 */
export function predictWrite(bytes: number, target: TimedTarget, log: readonly LogEntry[]): Quantity<Span> {
  const rates = log
    .flatMap((e) =>
      e.kind === 'write' && e.result === 'proven' && e.serial === target.serial && e.seconds > 0
        ? [e.bytes / e.seconds]
        : [],
    )
    .sort((a, b) => a - b);
  if (rates.length > 0) {
    const spread = rates.length < 3 ? 0.1 : 0;
    const slow = percentile(rates, 0.25) * (1 - spread);
    const fast = percentile(rates, 0.75) * (1 + spread);
    return quantity(
      span(bytes / fast, bytes / slow),
      'seconds',
      `${rates.length} earlier ${rates.length === 1 ? 'run' : 'runs'} with this target: ${formatRate(percentile(rates, 0.5))} for writing and reading back`,
    );
  }
  const kind = kindOf(target);
  const [slow, fast] = WRITE_RATE[kind] ?? [8e6, 30e6];
  // Reading back runs at roughly three times the writing rate: common practice, no source.
  const whole = (rate: number): number => bytes / rate + bytes / (3 * rate);
  return quantity(
    span(whole(fast), whole(slow)),
    'seconds',
    `no earlier run; a ${kind.replace('-', ' on ')} writes ${formatRate(slow)} to ${formatRate(fast)} (common practice)`,
  );
}
