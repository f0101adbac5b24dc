import type { BenchCard } from '../box/benchDay';
import { formatSpan } from '../units/duration';
import { plural } from './text';

/** The finding at the head of the bench: what must not go on, or what is done soonest. */
export function benchHeadline(cards: readonly BenchCard[], boxes: number): string {
  const [first] = cards;
  if (!first) return boxes === 0 ? 'What is the first box to be?' : 'Every box is finished';
  if (first.inTheWay?.grade === 'stop') {
    const others = cards.filter((c) => c.inTheWay?.grade !== 'stop').length;
    const rest = others === 0 ? '' : `; ${plural(others, 'other box', 'other boxes')} can go on`;
    return `${first.box.name} must not go on yet${rest}`;
  }
  return `${first.box.name} wants ${formatSpan(first.next.hands)} of yours at ${first.next.title.toLowerCase()}`;
}
