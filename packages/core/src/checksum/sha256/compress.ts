import { Assembler, LOW_HALVES, moduleOf, ONE_ON, TURN, TWO_ON } from './assembler';

/** Memory of the module: the eight words of the state, the 64 of the schedule, and from here on what is digested. */
export const STATE = 0;
const SCHEDULE = 64;
export const INPUT = 1024;
/** Bytes digested by one call at most; small enough to stay in a processor's own cache. */
export const WINDOW = 128 * 1024;

function primes(count: number): number[] {
  const out: number[] = [];
  for (let n = 2; out.length < count; n += 1) if (out.every((p) => n % p !== 0)) out.push(n);
  return out;
}
/** FIPS 180-4 §4.2.2: the first 32 bits of the fractional parts of the cube roots of the first 64 primes. */
const K = primes(64).map((p) => Math.floor((Math.cbrt(p) % 1) * 2 ** 32));
/** FIPS 180-4 §5.3.3: the same of the square roots of the first eight. */
export const INITIAL = primes(8).map((p) => Math.floor((Math.sqrt(p) % 1) * 2 ** 32));

/** Operands: where the blocks begin, and how many there are. */
const POINTER = 0;
const BLOCKS = 1;
const WORKING = [2, 3, 4, 5, 6, 7, 8, 9];
const SUM = 10;
const WORDS = 11;
/** Vectors: the last sixteen words of the schedule, and two to reckon with. */
const LAST = [13, 14, 15, 16];
const NEXT = 17;
const OTHER = 18;
const VECTORS = 6;

/** σ0 and σ1 (FIPS 180-4 §4.1.2, 4.6 and 4.7) as shifts to the right, to the left where negative: vectors have no rotation. */
const SIGMA_0 = [7, -25, 18, -14, 3];
const SIGMA_1 = [17, -15, 19, -13, 10];

/** Shifts of four words, combined. */
function sigma(a: Assembler, shifts: readonly number[]): void {
  shifts.forEach((bits, i) => {
    a.get(OTHER);
    if (bits < 0) a.shiftLeft(-bits);
    else a.shiftRight(bits);
    if (i > 0) a.xorWords();
  });
}

/** Four words of the schedule from the sixteen before them (§6.2.2 step 1), and their sums with K put into memory. */
function schedule(a: Assembler, group: number): void {
  const [first = 0, second = 0, third = 0, fourth = 0] = [0, 1, 2, 3].map((i) => LAST[(group + i) & 3]);
  if (group < 4)
    a.get(POINTER)
      .loadVector(16 * group)
      .get(POINTER)
      .loadVector(16 * group)
      .shuffle(TURN)
      .set(first);
  else {
    a.get(first).get(second).shuffle(ONE_ON).set(OTHER);
    sigma(a, SIGMA_0);
    a.get(first).addWords().get(third).get(fourth).shuffle(ONE_ON).addWords().set(NEXT);
    // The last two words need the first two, so they come in two steps; σ1 of nothing is nothing.
    a.get(fourth).words(0, 0, 0, 0).shuffle(TWO_ON).set(OTHER);
    sigma(a, SIGMA_1);
    a.get(NEXT).addWords().set(NEXT);
    a.words(0, 0, 0, 0).get(NEXT).shuffle(LOW_HALVES).set(OTHER);
    sigma(a, SIGMA_1);
    a.get(NEXT).addWords().set(first);
  }
  a.constant(0)
    .get(first)
    .words(...K.slice(4 * group, 4 * group + 4))
    .addWords()
    .storeVector(SCHEDULE + 16 * group);
}

/**
 * The compression function (FIPS 180-4 §6.2.2) over several blocks, as a module. The 64 rounds are written out; a round's
 * “a xor b” is the next one's “b xor c” in Maj, and the rotations of Σ are nested, which saves a third of their work.
 */
export function compressModule(): Uint8Array {
  const a = new Assembler();
  a.loop();
  WORKING.forEach((local, i) =>
    a
      .constant(0)
      .load(STATE + 4 * i)
      .set(local),
  );
  let [ab, bc] = [11, 12];
  const [, b1 = 0, c1 = 0] = WORKING;
  a.get(b1).get(c1).xor().set(bc);
  schedule(a, 0);
  let names = [...WORKING];
  for (let round = 0; round < 64; round += 1) {
    if (round % 4 === 0 && round < 60) schedule(a, round / 4 + 1);
    const [A = 0, B = 0, C = 0, D = 0, E = 0, F = 0, G = 0, H = 0] = names;
    a.get(H)
      .constant(0)
      .load(SCHEDULE + 4 * round)
      .add();
    // Σ1(e): right by 6, 11 and 25.
    a.get(E).rotateRight(14).get(E).xor().rotateRight(5).get(E).xor().rotateRight(6).add();
    // Ch(e, f, g)
    a.get(F).get(G).xor().get(E).and().get(G).xor().add().set(SUM);
    a.get(D).get(SUM).add().set(D);
    // Σ0(a): right by 2, 13 and 22.
    a.get(SUM).get(A).rotateRight(9).get(A).xor().rotateRight(11).get(A).xor().rotateRight(2).add();
    // Maj(a, b, c)
    a.get(A).get(B).xor().tee(ab).get(bc).and().get(B).xor().add().set(H);
    [ab, bc] = [bc, ab];
    names = [H, A, B, C, D, E, F, G];
  }
  WORKING.forEach((local, i) =>
    a
      .constant(0)
      .constant(0)
      .load(STATE + 4 * i)
      .get(local)
      .add()
      .store(STATE + 4 * i),
  );
  a.get(POINTER).constant(64).add().set(POINTER);
  a.get(BLOCKS).constant(1).subtract().tee(BLOCKS).againIf();
  a.end().end();
  return moduleOf(a.code, WORDS, VECTORS, Math.ceil((INPUT + WINDOW) / 65536));
}
