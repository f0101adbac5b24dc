/*
 * Just enough of the WebAssembly binary format (Core Specification 2.0 §5, with its vector instructions) to write one
 * function by hand: what a digest needs and nothing more.
 */

/** An unsigned number in LEB128 (§5.2.2). */
function unsigned(value: number): number[] {
  const out: number[] = [];
  let rest = value >>> 0;
  do {
    const low = rest & 0x7f;
    rest >>>= 7;
    out.push(rest === 0 ? low : low | 0x80);
  } while (rest !== 0);
  return out;
}

/** A signed number in LEB128 (§5.2.2). */
function signed(value: number): number[] {
  const out: number[] = [];
  let rest = value | 0;
  for (;;) {
    const low = rest & 0x7f;
    rest >>= 7;
    if ((rest === 0 && (low & 0x40) === 0) || (rest === -1 && (low & 0x40) !== 0)) return [...out, low];
    out.push(low | 0x80);
  }
}

/** Lanes of a shuffle that turn the bytes of each of four 32-bit words round. */
export const TURN = [3, 2, 1, 0, 7, 6, 5, 4, 11, 10, 9, 8, 15, 14, 13, 12] as const;
/** Lanes of a shuffle that take one word from the first vector's end on: the second to the fifth of eight words. */
export const ONE_ON = [4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19] as const;
/** Lanes of a shuffle: two words on. */
export const TWO_ON = [8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23] as const;
/** Lanes of a shuffle: the first two words of the first vector, then those of the second. */
export const LOW_HALVES = [0, 1, 2, 3, 4, 5, 6, 7, 16, 17, 18, 19, 20, 21, 22, 23] as const;

/** Instructions of one function, in the order they are asked for; operands come from the stack (§5.4). */
export class Assembler {
  readonly code: number[] = [];
  private put(...bytes: number[]): this {
    for (const b of bytes) this.code.push(b);
    return this;
  }
  private vector(op: number, ...more: number[]): this {
    return this.put(0xfd, ...unsigned(op), ...more);
  }

  get = (local: number): this => this.put(0x20, local);
  set = (local: number): this => this.put(0x21, local);
  tee = (local: number): this => this.put(0x22, local);
  constant = (value: number): this => this.put(0x41, ...signed(value));
  /** A word of memory, or one put there; the address is the number on the stack and `at` together. */
  load = (at: number): this => this.put(0x28, 2, ...unsigned(at));
  store = (at: number): this => this.put(0x36, 2, ...unsigned(at));
  add = (): this => this.put(0x6a);
  subtract = (): this => this.put(0x6b);
  and = (): this => this.put(0x71);
  xor = (): this => this.put(0x73);
  rotateRight = (bits: number): this => this.constant(bits).put(0x78);
  loop = (): this => this.put(0x03, 0x40);
  againIf = (): this => this.put(0x0d, 0);
  end = (): this => this.put(0x0b);

  loadVector = (at: number): this => this.vector(0, 0, ...unsigned(at));
  storeVector = (at: number): this => this.vector(11, 4, ...unsigned(at));
  words = (...four: number[]): this =>
    this.vector(12, ...four.flatMap((w) => [w & 255, (w >>> 8) & 255, (w >>> 16) & 255, w >>> 24]));
  shuffle = (lanes: readonly number[]): this => this.vector(13, ...lanes);
  addWords = (): this => this.vector(0xae);
  xorWords = (): this => this.vector(0x51);
  shiftLeft = (bits: number): this => this.constant(bits).vector(0xab);
  shiftRight = (bits: number): this => this.constant(bits).vector(0xad);
}

/**
 * A module of one function “run” of two numbers, and a memory “memory” of so many pages of 64 KiB (§5.5). `words` and
 * `vectors` are the function's own variables, numbered after its two operands.
 */
export function moduleOf(code: readonly number[], words: number, vectors: number, pages: number): Uint8Array {
  const section = (id: number, body: readonly number[]): number[] => [id, ...unsigned(body.length), ...body];
  const name = (text: string): number[] => [text.length, ...Array.from(text, (c) => c.charCodeAt(0))];
  const body = [2, words, 0x7f, vectors, 0x7b, ...code];
  return Uint8Array.from([
    ...[0, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
    ...section(1, [1, 0x60, 2, 0x7f, 0x7f, 0]),
    ...section(3, [1, 0]),
    ...section(5, [1, 0, ...unsigned(pages)]),
    ...section(7, [2, ...name('memory'), 2, 0, ...name('run'), 0, 0]),
    ...section(10, [1, ...unsigned(body.length), ...body]),
  ]);
}
