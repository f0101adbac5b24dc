import { differenceInSeconds, isAfter, parseISO, subHours } from 'date-fns';
import { z } from 'zod';
import { recall, remember } from '../../storage/remembered';

const KEPT = 'zb-evening-pins';
/** A pin older than this is of another evening, hours. */
const OLD = 12;
const keptSchema = z.record(z.string(), z.iso.datetime());

/** Steps that were told when to begin, by their keys among those of an evening: a thing of this browser, not of the bench. */
export class Pins {
  constructor(readonly at: ReadonlyMap<string, Date> = new Map()) {}

  /** Those that this browser remembers, of tonight. */
  static recalled(this: void): Pins {
    try {
      const { data } = keptSchema.safeParse(JSON.parse(recall(KEPT) ?? '{}'));
      const since = subHours(new Date(), OLD);
      const all = Object.entries(data ?? {}).map(([key, at]): [string, Date] => [key, parseISO(at)]);
      return new Pins(new Map(all.filter(([, at]) => isAfter(at, since))));
    } catch {
      return new Pins();
    }
  }

  /** With one more, or moved; null lets it go. */
  with(key: string, at: Date | null): Pins {
    const next = new Map(this.at);
    if (at === null) next.delete(key);
    else next.set(key, at);
    return new Pins(next);
  }

  /** Seconds from a moment; what lies before it is to begin at once. */
  secondsFrom(moment: Date): Map<string, number> {
    return new Map([...this.at].map(([key, at]) => [key, Math.max(0, differenceInSeconds(at, moment))]));
  }

  remember(): void {
    const all = Object.fromEntries([...this.at].map(([key, at]) => [key, at.toISOString()]));
    remember(KEPT, this.at.size === 0 ? null : JSON.stringify(all));
  }
}
