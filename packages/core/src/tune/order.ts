import { arms, type ArmName } from '../model/tune';
import { randomFrom } from '../units/random';
import { shuffle } from './numbers/dice';

/**
 * The order of runs that a seed gives. Two states go in blocks of four, A B B A or B A A B, so that a straight drift over the
 * evening cancels (counterbalanced order, common practice); what is left over is one pair. More states go in blocks that hold each
 * once, every other block being the one before read backwards. With `once` a state cannot be left and taken again: all runs of A
 * come first.
 */
export function orderOf(states: number, runs: number, seed: number, once = false): string {
  const names = arms.slice(0, states);
  if (once) return names.map((a) => a.repeat(runs)).join('');
  const random = randomFrom(seed);
  let out = '';
  let block: ArmName[] = [];
  for (let r = 0; r < runs; r += 1) {
    if (r % 2 === 1) block.reverse();
    else {
      block = [...names];
      shuffle(block, random);
    }
    out += block.join('');
  }
  return out;
}
