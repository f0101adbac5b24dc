import type { ByteSource } from '@zb/core/formats/source';

/** A 32-bit xorshift: the same damage for the same seed. */
export function random(seed: number): (below: number) => number {
  let x = seed | 1;
  return (below) => {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    return (x >>> 0) % below;
  };
}

/**
 * The seed of a run: `npm test` does the same damage each time, so that a fault it finds is of what was changed; the proof
 * looks for new damage each time. `ZB_SEED` has damage done again that a proof told of.
 */
export const seedOfRun = (): number =>
  Number(process.env.ZB_SEED ?? (process.env.ZB_FUZZ === 'all' ? Date.now() & 0x7fffffff : 20_261));

/** An image with some bytes changed and its end cut off, without copying it; counts what is read. */
export class Damaged implements ByteSource {
  asked = 0;
  constructor(
    private readonly base: Uint8Array,
    private readonly changes: ReadonlyMap<number, number>,
    readonly size: number,
  ) {}
  read(offset: number, length: number): Promise<Uint8Array> {
    const from = Math.max(0, offset);
    const to = Math.min(this.size, offset + length);
    this.asked += Math.max(0, to - from);
    if (to <= from) return Promise.resolve(new Uint8Array(0));
    let out = this.base.subarray(from, to);
    for (const [at, value] of this.changes) {
      if (at < from || at >= to) continue;
      if (out.buffer === this.base.buffer) out = out.slice();
      out[at - from] = value;
    }
    return Promise.resolve(out);
  }
}
