import type { UsbLink } from '../model/standIns';
import type { Store } from '../model/bench';
import { contentTitle } from '../model/content';
import { formatBoth, formatExact, formatIec } from '../units/bytes';

/** What can be seen of something plugged in, before anybody's word about it. */
export interface AttachedTarget {
  id: string;
  bytes: number;
  serial: string | null;
  model: string;
  port: string;
  /** What its port carries, where that is known. */
  link?: UsbLink;
}

export interface GuardRefusal {
  rule:
    | 'lies about its capacity'
    | 'holds what matters'
    | 'not decided'
    | 'too small'
    | 'cannot be told apart'
    | 'no serial'
    | 'two records'
    | 'is being written';
  because: string;
}

export interface GuardedTarget {
  target: AttachedTarget;
  /** The shelf's record of it, found by serial alone. */
  known: Store | undefined;
  refusals: GuardRefusal[];
  allowed: boolean;
  /** What must be typed: the last four of the serial. */
  tail: string;
}

/** The last four characters of a serial, the part a person reads off and types. */
export const serialTail = (serial: string | null): string => (serial ?? '').slice(-4).toUpperCase();

function refusalsFor(
  target: AttachedTarget,
  known: readonly Store[],
  all: readonly AttachedTarget[],
  imageBytes: number,
): GuardRefusal[] {
  const out: GuardRefusal[] = [];
  const kept = known.find((s) => s.fate === 'keep');
  const open = known.find((s) => s.fate === 'not decided');
  if (kept) {
    out.push({
      rule: 'holds what matters',
      because: `“${kept.name}” is marked to keep: ${contentTitle(kept) || 'its content'}. Nothing is written to it.`,
    });
  }
  if (!kept && open) {
    out.push({
      rule: 'not decided',
      because: `Whether what is on “${open.name}” may be lost is not decided: ${contentTitle(open) || 'empty, as far as known'}. Decide it first.`,
    });
  }
  if (known.length > 1) {
    out.push({
      rule: 'two records',
      because: `${known.length} things on the shelf carry this serial. Correct the shelf first.`,
    });
  }
  const real = known.find((s) => s.realBytes !== null)?.realBytes ?? target.bytes;
  if (real < target.bytes) {
    out.push({
      rule: 'lies about its capacity',
      because: `A read-back found that it holds about ${formatIec(real)}, not the ${formatIec(target.bytes)} it claims.`,
    });
  }
  if (target.bytes < imageBytes) {
    out.push({
      rule: 'too small',
      because: `It holds ${formatExact(target.bytes)} (${formatBoth(target.bytes)}); the image needs ${formatExact(imageBytes)} (${formatBoth(imageBytes)}).`,
    });
  }
  if (!target.serial || target.serial.length < 4) {
    out.push({
      rule: 'no serial',
      because:
        'It reports no serial of four characters or more, so it cannot be named for certain. Use another.',
    });
  } else {
    const twins = all.filter(
      (o) =>
        o.id !== target.id && serialTail(o.serial) === serialTail(target.serial) && o.bytes === target.bytes,
    );
    if (twins.length > 0) {
      const same = twins.some((o) => o.serial === target.serial)
        ? 'size and serial'
        : 'size and the last four of the serial';
      out.push({
        rule: 'cannot be told apart',
        because: `Another one attached has the same ${same}. Take one of the two out and look again.`,
      });
    }
  }
  return out;
}

/**
 * Judges everything attached as a target for an image of this size (bytes); `busy` names targets that a write is under way
 * to. Order as attached.
 */
export function guardTargets(
  attached: readonly AttachedTarget[],
  shelf: readonly Store[],
  imageBytes: number,
  busy: readonly string[] = [],
): GuardedTarget[] {
  return attached.map((target) => {
    const known = target.serial ? shelf.filter((s) => s.serial === target.serial) : [];
    const refusals = refusalsFor(target, known, attached, imageBytes);
    if (busy.includes(target.id))
      refusals.unshift({
        rule: 'is being written',
        because: 'A write to it is under way or waits for its turn.',
      });
    return {
      target,
      known: known[0],
      refusals,
      allowed: refusals.length === 0,
      tail: serialTail(target.serial),
    };
  });
}
