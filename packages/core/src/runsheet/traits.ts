import { span, type Span } from '../units/duration';
import type { StepCode } from './what';

/** What a step takes up while it is done. Of most there is one. */
export const needs = ['monitor', 'keyboard', 'stick', 'writer', 'wire', 'tools'] as const;
/** What a step takes up. */
export type Need = (typeof needs)[number];

/** What can hurt in a step. */
export type Hurt =
  | 'what is on the drive is lost'
  | 'mains'
  | 'lithium cells'
  | 'ribbon cables'
  | 'the old system may not start'
  | 'you may lock yourself out'
  | 'what others use is gone meanwhile';

/** How a step is taken back. */
export type WayBack =
  'nothing to take back' | 'set it back as noted' | 'put it back' | 'do it again' | 'from a copy alone';

/** What is written down in a step. */
export type Asks = 'setting' | 'photo' | 'serial' | 'figure' | 'words';

/** What holds of every step of a kind. */
export interface Traits {
  /** A person’s own time, then the time it goes on by itself. Seconds; common practice, no source, where nothing foretells it. */
  hands: Span;
  alone: Span;
  needs: readonly Need[];
  /** It can be left in the middle and gone on with. */
  pauses: boolean;
  hurts: readonly Hurt[];
  back: WayBack;
  asks: Asks | null;
}

const MINUTE = 60;
const minutes = (low: number, high: number): Span => span(low * MINUTE, high * MINUTE);
const none = span(0);
const PLAIN: Traits = {
  hands: minutes(0.5, 2),
  alone: none,
  needs: [],
  pauses: true,
  hurts: [],
  back: 'nothing to take back',
  asks: null,
};
const traits = (more: Partial<Traits>): Traits => ({ ...PLAIN, ...more });

const setup = { needs: ['monitor', 'keyboard'], pauses: false } as const;
const inside = { needs: ['tools'] } as const;
const installer = { needs: ['monitor', 'keyboard', 'stick'], pauses: false } as const;

/** By kind of step. Minutes are common practice, no source; what can be foretold is told by the stop itself. */
export const traitsOf: Readonly<Record<StepCode, Traits>> = {
  'read the machine': traits({ hands: minutes(3, 6), needs: ['monitor', 'keyboard'] }),
  'look a fact up': traits({ hands: minutes(0.5, 3), asks: 'words' }),
  'choose a system': traits({ hands: minutes(2, 5) }),
  'decide a drive': traits({ hands: minutes(1, 5) }),
  'say which drive': traits({ hands: minutes(0.5, 2) }),
  'lay out': traits({ hands: minutes(1, 3), back: 'put it back' }),
  mend: traits({ hands: minutes(1, 5) }),
  'fetch drivers': traits({ hands: minutes(3, 10) }),
  'fetch the image': traits({ hands: minutes(1, 2), alone: minutes(3, 15), back: 'do it again' }),
  'compare the sum': traits({ hands: minutes(0.5, 1), alone: minutes(0.2, 1), back: 'do it again' }),
  'copy away': traits({ hands: minutes(1, 3), pauses: false, asks: 'words' }),
  'label the target': traits({ hands: minutes(1, 2), asks: 'words' }),
  'unplug at the writer': traits({ hands: minutes(0.5, 1), back: 'put it back' }),
  write: traits({
    hands: minutes(0.5, 1.5),
    alone: minutes(2, 10),
    needs: ['writer', 'stick'],
    pauses: false,
    hurts: ['what is on the drive is lost'],
    back: 'from a copy alone',
  }),
  'make the chain stick': traits({ hands: minutes(3, 8), needs: ['writer'], back: 'do it again' }),
  open: traits({ ...inside, hands: minutes(1, 3), back: 'put it back' }),
  'enter setup': traits({ ...setup, hands: minutes(2, 4), asks: 'photo' }),
  set: traits({ ...setup, back: 'set it back as noted', asks: 'setting' }),
  'save and leave': traits({ ...setup, hands: minutes(0.5, 1) }),
  'try the menu key': traits({ ...setup, hands: minutes(1, 2), asks: 'words' }),
  'put away': traits({ hands: minutes(0.5, 1), back: 'put it back' }),
  'secure the power': traits({ hands: minutes(1, 5), back: 'put it back' }),
  'wire in': traits({ needs: ['wire'], hands: minutes(0.5, 1), back: 'put it back' }),
  'plug the medium in': traits({ hands: minutes(0.3, 1), asks: 'serial', back: 'put it back' }),
  'stick in': traits({ needs: ['stick'], hands: minutes(0.3, 1), asks: 'serial', back: 'put it back' }),
  'start the stick': traits({ ...installer, hands: minutes(1, 3), back: 'do it again' }),
  'enrol the key': traits({ ...installer, hands: minutes(1, 2), back: 'do it again' }),
  'choose the drive': traits({ ...installer, hands: minutes(1, 3), back: 'do it again' }),
  'copy onto the drive': traits({
    ...installer,
    hands: minutes(1, 3),
    alone: minutes(3, 15),
    hurts: ['what is on the drive is lost'],
    back: 'from a copy alone',
  }),
  'lay the drive out': traits({ ...installer, hands: minutes(2, 6), back: 'do it again' }),
  'say yes': traits({
    ...installer,
    hands: minutes(0.3, 1),
    hurts: ['what is on the drive is lost'],
    back: 'from a copy alone',
  }),
  'let it install': traits({ ...installer, hands: none, alone: minutes(5, 20), back: 'do it again' }),
  'stick out': traits({
    needs: ['monitor', 'stick'],
    hands: minutes(0.3, 1),
    pauses: false,
    back: 'put it back',
  }),
  'put back': traits({ ...inside, hands: minutes(3, 15), hurts: ['the old system may not start'] }),
  'target first': traits({ ...setup, hands: minutes(1, 3), back: 'set it back as noted', asks: 'setting' }),
  'order back': traits({ ...setup, hands: minutes(1, 3), back: 'set it back as noted', asks: 'setting' }),
  'chain stick in': traits({ needs: ['stick'], hands: minutes(0.3, 1), asks: 'serial', back: 'put it back' }),
  'chain stick first': traits({
    ...setup,
    hands: minutes(1, 3),
    back: 'set it back as noted',
    asks: 'setting',
  }),
  answer: traits({ ...installer, hands: minutes(0.2, 1), back: 'do it again', asks: 'words' }),
  'first start': traits({ needs: ['monitor', 'keyboard'], asks: null }),
  'see that nobody answers': traits({ hands: minutes(0.3, 1) }),
  reserve: traits({ hands: minutes(1, 4), back: 'set it back as noted' }),
  'set by hand': traits({
    needs: ['monitor', 'keyboard'],
    hands: minutes(2, 5),
    hurts: ['you may lock yourself out'],
    back: 'set it back as noted',
  }),
  'see it come back': traits({ hands: minutes(0.5, 1), alone: minutes(1, 4) }),
  'open its page': traits({ hands: minutes(1, 3) }),
  pool: traits({ hands: minutes(0.5, 2), pauses: false }),
  share: traits({ hands: minutes(1, 3), back: 'set it back as noted' }),
  'try the share': traits({ hands: minutes(1, 3) }),
  'bring the rules': traits({ hands: minutes(1, 3), back: 'do it again' }),
  'keep the rules': traits({ hands: minutes(0.5, 1), pauses: false }),
  'load the rules': traits({
    hands: minutes(2, 6),
    hurts: ['you may lock yourself out', 'what others use is gone meanwhile'],
    back: 'set it back as noted',
  }),
  'try the rules': traits({ hands: minutes(2, 5) }),
  'make a guest': traits({ hands: minutes(3, 8), alone: minutes(5, 20), back: 'do it again' }),
  'start the guest by itself': traits({ hands: minutes(0.5, 2), back: 'set it back as noted' }),
  carry: traits({ hands: minutes(1, 3), alone: minutes(5, 60), back: 'do it again' }),
  move: traits({ hands: minutes(1, 5), hurts: ['what others use is gone meanwhile'], back: 'do it again' }),
  'copy of': traits({ hands: minutes(1, 3), alone: minutes(5, 60) }),
  measure: traits({ hands: minutes(1, 3), alone: minutes(5, 20), asks: 'figure' }),
  cure: traits({
    needs: ['monitor', 'keyboard'],
    hands: minutes(1, 8),
    back: 'set it back as noted',
    asks: 'words',
  }),
  'stick the label on': traits({ hands: minutes(1, 2) }),
  'print the build sheet': traits({ hands: minutes(0.5, 1) }),
  'password on paper': traits({ hands: minutes(0.5, 2) }),
  'keep the stick': traits({ hands: minutes(0.3, 1) }),
  'note the end of support': traits({ hands: minutes(0.3, 1) }),
};
