import type { Stop } from '../model/stops';
import type { Effect } from '../plan/effect';
import { middleOf, type Span } from '../units/duration';
import { traitsOf, type Traits } from './traits';
import type { StepWhat } from './what';

/** A condition that must hold before a step is begun, as data. */
export interface Must {
  code:
    | 'medium is chosen'
    | 'stick is not the system drive'
    | 'way is decided'
    | 'adapter is at hand'
    | 'another system runs'
    | 'drive may be lost'
    | 'sum agrees'
    | 'stick is proven'
    | 'image fits'
    | 'drive is in the machine'
    | 'stick starts'
    | 'address is settled'
    | 'drives have serials'
    | 'machine is off';
  /** The thing it is about, by name and by id; the id is null where it is not decided, or is not on the shelf. */
  of: string;
  id: string | null;
}

/** A step as its stop contributes it. `after` names keys, or all keys that begin alike: “write:*”. */
export interface StepDraft extends Traits {
  key: string;
  stop: Stop;
  what: StepWhat;
  after: readonly string[];
  must: readonly Must[];
  /** What is true of the hardware once it is done. */
  effects: readonly Effect[];
  /** The bench shows that it is done. */
  seen: boolean;
}

/** A step by its parts; what is not given is as of every step of its kind. Seconds. */
export const step = (
  stop: Stop,
  key: string,
  what: StepWhat,
  more: Partial<Omit<StepDraft, 'key' | 'stop' | 'what'>> = {},
): StepDraft => ({
  ...traitsOf[what.code],
  after: [],
  must: [],
  effects: [],
  seen: false,
  key,
  stop,
  what,
  ...more,
});

/** A person’s own time of a step and the time it goes on by itself, together. Seconds. */
export const wholeOf = ({ hands, alone }: Pick<Traits, 'hands' | 'alone'>): Span => ({
  low: hands.low + alone.low,
  high: hands.high + alone.high,
});

/** Another time of the whole step, parted into hands and alone as this one is by its middles. Seconds. */
export function partsOf(
  { hands, alone }: Pick<Traits, 'hands' | 'alone'>,
  { low, high }: Span,
): Pick<Traits, 'hands' | 'alone'> {
  const whole = middleOf(hands) + middleOf(alone);
  const share = whole > 0 ? middleOf(hands) / whole : 0;
  return {
    hands: { low: low * share, high: high * share },
    alone: { low: low * (1 - share), high: high * (1 - share) },
  };
}
