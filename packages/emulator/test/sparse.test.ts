/** An image kept as it comes: byte for byte what came, filled up to whole sectors, and no room for what is empty in it. */
import fc from 'fast-check';
import { keepSparse, NotTaken, type Keeping } from '../src/sparse';
import { wholeSectors } from '../src/sectors';

/** A file in memory that counts what is written to it. */
class InMemory implements Keeping {
  bytes = new Uint8Array(0);
  written = 0;
  write = async (piece: Uint8Array, at: number): Promise<void> => {
    await Promise.resolve();
    if (at + piece.length > this.bytes.length) this.grow(at + piece.length);
    this.bytes.set(piece, at);
    this.written += piece.length;
  };
  truncate = async (bytes: number): Promise<void> => {
    await Promise.resolve();
    this.grow(bytes);
  };
  private grow(bytes: number): void {
    const next = new Uint8Array(bytes);
    next.set(this.bytes.subarray(0, bytes));
    this.bytes = next;
  }
}

async function* of(pieces: readonly Uint8Array[]): AsyncGenerator<Uint8Array> {
  for (const p of pieces) {
    await Promise.resolve();
    yield p;
  }
}

const MIB = 2 ** 20;
const piece = fc.oneof(
  fc.uint8Array({ minLength: 0, maxLength: 5000 }),
  fc.nat(3 * MIB).map((n) => new Uint8Array(n)),
  fc.tuple(fc.nat(2 * MIB), fc.nat()).map(([n, at]) => {
    const one = new Uint8Array(n);
    if (n > 0) one[at % n] = 1;
    return one;
  }),
);

describe('an image kept as it comes', () => {
  it('is what came, to the byte, and zeros up to a whole sector', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(piece, { maxLength: 6 }), async (pieces) => {
        const came = Buffer.concat(pieces);
        const file = new InMemory();
        const told: number[] = [];
        await keepSparse(file, came.length, of(pieces), (n) => told.push(n));
        expect(file.bytes.length).toBe(wholeSectors(came.length));
        expect(came.equals(file.bytes.subarray(0, came.length))).toBe(true);
        expect(file.bytes.subarray(came.length).every((b) => b === 0)).toBe(true);
        expect(told.at(-1) ?? 0).toBe(came.length);
      }),
      { numRuns: 40 },
    );
  });

  it('takes no room for what is empty', async () => {
    const file = new InMemory();
    const full = new Uint8Array(4096).fill(7);
    await keepSparse(file, 8 * MIB + 8192, of([full, new Uint8Array(8 * MIB), full]));
    expect(file.written).toBe(8192);
    expect(file.bytes.length).toBe(8 * MIB + 8192);
  });

  it.each([
    ['too little', 4096, [1000, 1000]],
    ['too much', 1500, [1000, 1000]],
    ['too little', 1, []],
  ] as const)('that is %s than was said is not taken', async (why, bytes, lengths) => {
    const file = new InMemory();
    const error: unknown = await keepSparse(
      file,
      bytes,
      of(lengths.map((n) => new Uint8Array(n).fill(1))),
    ).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(NotTaken);
    expect((error as NotTaken).why).toBe(why);
    // Nothing beyond what was announced reaches the file.
    expect(file.bytes.length).toBeLessThanOrEqual(bytes);
  });

  it('passes on what goes wrong with the content or the file', async () => {
    async function* breaks(): AsyncGenerator<Uint8Array> {
      await Promise.resolve();
      yield new Uint8Array(10).fill(1);
      throw new Error('the wire broke');
    }
    await expect(keepSparse(new InMemory(), 20, breaks())).rejects.toThrow('the wire broke');
    const full: Keeping = {
      write: () => Promise.reject(new Error('no room')),
      truncate: () => Promise.resolve(),
    };
    await expect(keepSparse(full, 10, of([new Uint8Array(10).fill(1)]))).rejects.toThrow('no room');
  });
});
