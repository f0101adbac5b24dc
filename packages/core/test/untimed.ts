import type { Bench } from '@zb/core/model/bench';

/** A bench on which nobody ever ran a clock: minutes are the usual ones, to the second. */
export const untimed = (bench: Bench): Bench => ({
  ...bench,
  boxes: bench.boxes.map((b) => ({ ...b, run: null })),
});
