import { u8 } from './bytes';

/** What a stream was made with (LZMA specification, “LZMA properties”): literal context, literal position and position bits. */
export interface LzmaProperties {
  lc: number;
  lp: number;
  pb: number;
}

const TOP = 2 ** 24;
const HALF = 1024;
const MOVE = 5;
/** Length decoder of matches: probabilities for the choice, then low, middle and high trees. */
const LOW = 2;
const MIDDLE = LOW + 16 * 8;
const HIGH = MIDDLE + 16 * 8;
const LENGTHS = HIGH + 256;
const STATES = 12;

const probabilities = (count: number): Uint16Array => new Uint16Array(count).fill(HALF);

/** The range coder (LZMA specification, “Range Decoder”); bytes beyond the end read as zero and are counted. */
class RangeCoder {
  private range = 0xffffffff;
  private code = 0;
  private at = 5;

  constructor(private readonly input: Uint8Array) {
    for (let i = 1; i < 5; i += 1) this.code = (this.code * 256 + u8(input, i)) >>> 0;
  }

  /** Whether more was asked for than is there. */
  get starved(): boolean {
    return this.at > this.input.length + 4;
  }

  private refill(): void {
    if (this.range >= TOP) return;
    this.range = (this.range << 8) >>> 0;
    this.code = ((this.code << 8) | u8(this.input, this.at)) >>> 0;
    this.at += 1;
  }

  bit(probs: Uint16Array, index: number): number {
    const p = probs[index] ?? HALF;
    const bound = (this.range >>> 11) * p;
    let bit: number;
    if (this.code < bound) {
      this.range = bound;
      probs[index] = p + ((2048 - p) >> MOVE);
      bit = 0;
    } else {
      this.range = (this.range - bound) >>> 0;
      this.code = (this.code - bound) >>> 0;
      probs[index] = p - (p >> MOVE);
      bit = 1;
    }
    this.refill();
    return bit;
  }

  direct(count: number): number {
    let out = 0;
    for (let i = 0; i < count; i += 1) {
      this.range >>>= 1;
      const bit = this.code >= this.range ? 1 : 0;
      if (bit) this.code = (this.code - this.range) >>> 0;
      out = out * 2 + bit;
      this.refill();
    }
    return out;
  }

  tree(probs: Uint16Array, from: number, bits: number): number {
    let node = 1;
    for (let i = 0; i < bits; i += 1) node = 2 * node + this.bit(probs, from + node);
    return node - 2 ** bits;
  }

  reverse(probs: Uint16Array, from: number, bits: number): number {
    let node = 1;
    let out = 0;
    for (let i = 0; i < bits; i += 1) {
      const bit = this.bit(probs, from + node);
      node = 2 * node + bit;
      out |= bit << i;
    }
    return out;
  }

  length(probs: Uint16Array, position: number): number {
    if (this.bit(probs, 0) === 0) return 2 + this.tree(probs, LOW + position * 8, 3);
    if (this.bit(probs, 1) === 0) return 10 + this.tree(probs, MIDDLE + position * 8, 3);
    return 18 + this.tree(probs, HIGH, 8);
  }
}

/**
 * Unpacks a raw LZMA stream of `size` bytes that carries no header of its own. Undefined where it is damaged or ends
 * early. Source: LZMA specification (public domain, draft of 2015), sections as named beside the code.
 */
export function unpackLzma(
  input: Uint8Array,
  size: number,
  properties: LzmaProperties,
): Uint8Array | undefined {
  const { lc, lp, pb } = properties;
  if (u8(input, 0) !== 0) return undefined;
  const coder = new RangeCoder(input);
  const out = new Uint8Array(size);
  const literals = probabilities(0x300 << (lc + lp));
  const isMatch = probabilities(STATES << 4);
  const isRep = probabilities(STATES);
  const isRep0 = probabilities(STATES);
  const isRep1 = probabilities(STATES);
  const isRep2 = probabilities(STATES);
  const isRep0Long = probabilities(STATES << 4);
  const slots = probabilities(4 * 64);
  const special = probabilities(1 + 128);
  const align = probabilities(16);
  const lengths = probabilities(LENGTHS);
  const repLengths = probabilities(LENGTHS);
  const reps: [number, number, number, number] = [0, 0, 0, 0];
  let state = 0;
  let at = 0;

  const literal = (): void => {
    const before = at > 0 ? (out[at - 1] ?? 0) : 0;
    const context = ((at & ((1 << lp) - 1)) << lc) + (before >> (8 - lc));
    const from = 0x300 * context;
    let symbol = 1;
    if (state >= 7) {
      let matched = out[at - reps[0] - 1] ?? 0;
      while (symbol < 0x100) {
        const bit = (matched >> 7) & 1;
        matched = (matched << 1) & 0xff;
        const got = coder.bit(literals, from + ((1 + bit) << 8) + symbol);
        symbol = 2 * symbol + got;
        if (bit !== got) break;
      }
    }
    while (symbol < 0x100) symbol = 2 * symbol + coder.bit(literals, from + symbol);
    out[at] = symbol & 0xff;
    at += 1;
    state = state < 4 ? 0 : state < 10 ? state - 3 : state - 6;
  };

  const distance = (length: number): number => {
    const slot = coder.tree(slots, Math.min(length - 2, 3) * 64, 6);
    if (slot < 4) return slot;
    const bits = (slot >> 1) - 1;
    const base = (2 | (slot & 1)) * 2 ** bits;
    if (slot < 14) return base + coder.reverse(special, base - slot, bits);
    return base + coder.direct(bits - 4) * 16 + coder.reverse(align, 0, 4);
  };

  while (at < size) {
    if (coder.starved) return undefined;
    const position = at & ((1 << pb) - 1);
    if (coder.bit(isMatch, (state << 4) + position) === 0) {
      literal();
      continue;
    }
    let length: number;
    if (coder.bit(isRep, state) === 0) {
      reps[3] = reps[2];
      reps[2] = reps[1];
      reps[1] = reps[0];
      length = coder.length(lengths, position);
      state = state < 7 ? 7 : 10;
      reps[0] = distance(length);
      // The mark of the end; what follows it was foretold to come.
      if (reps[0] === 0xffffffff) return undefined;
    } else {
      if (at === 0) return undefined;
      if (coder.bit(isRep0, state) === 0) {
        if (coder.bit(isRep0Long, (state << 4) + position) === 0) {
          state = state < 7 ? 9 : 11;
          out[at] = out[at - reps[0] - 1] ?? 0;
          at += 1;
          continue;
        }
      } else {
        let far = reps[1];
        if (coder.bit(isRep1, state) !== 0) {
          if (coder.bit(isRep2, state) === 0) far = reps[2];
          else {
            far = reps[3];
            reps[3] = reps[2];
          }
          reps[2] = reps[1];
        }
        reps[1] = reps[0];
        reps[0] = far;
      }
      length = coder.length(repLengths, position);
      state = state < 7 ? 8 : 11;
    }
    if (reps[0] >= at) return undefined;
    for (let i = 0; i < length && at < size; i += 1, at += 1) out[at] = out[at - reps[0] - 1] ?? 0;
  }
  return out;
}
