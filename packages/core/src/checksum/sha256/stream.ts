import { compressModule, INITIAL, INPUT, STATE, WINDOW } from './compress';

interface Exports {
  memory: { buffer: ArrayBuffer };
  run: (pointer: number, blocks: number) => void;
}
interface Platform {
  validate(bytes: Uint8Array): boolean;
  compile(bytes: Uint8Array): Promise<object>;
  instantiate(module: object): Promise<{ exports: unknown }>;
}
// Every platform has it (WebAssembly JavaScript Interface); this package names no platform's types.
const { WebAssembly } = globalThis as unknown as { WebAssembly: Platform | undefined };

const BLOCK = 64;

/** The program, written and compiled when it is first wanted; undefined where the platform has no vectors. */
let program: Promise<object | undefined> | undefined;
function compile(): Promise<object | undefined> {
  const bytes = compressModule();
  return WebAssembly?.validate(bytes) ? WebAssembly.compile(bytes) : Promise.resolve(undefined);
}

/** A SHA-256 of bytes that come in pieces. */
export interface Sha256 {
  update(piece: Uint8Array): void;
  /** The digest in hex; nothing can be added afterwards. */
  finish(): string;
}

/** The padding of a message of so many bytes whose rest is given: a one bit, zeros, its length in bits (FIPS 180-4 §5.1.1). */
function padded(rest: Uint8Array, bytes: number): Uint8Array {
  const out = new Uint8Array(rest.length + 9 <= BLOCK ? BLOCK : 2 * BLOCK);
  out.set(rest);
  out[rest.length] = 0x80;
  new DataView(out.buffer).setBigUint64(out.length - 8, BigInt(bytes) * 8n);
  return out;
}

/**
 * A running SHA-256 (FIPS 180-4) with vector instructions; undefined where the platform has none. Bytes are copied once,
 * into the module's own memory.
 */
export async function createVectorSha256(): Promise<Sha256 | undefined> {
  const module = await (program ??= compile());
  if (!module || !WebAssembly) return undefined;
  const { exports } = await WebAssembly.instantiate(module);
  const { memory, run } = exports as Exports;
  const bytes = new Uint8Array(memory.buffer);
  const state = new DataView(memory.buffer, STATE, 32);
  INITIAL.forEach((word, i) => state.setUint32(4 * i, word, true));
  /** What is in the window and not digested yet, and all bytes so far. */
  let filled = 0;
  let total = 0;
  const digest = (): void => {
    const blocks = Math.floor(filled / BLOCK);
    if (blocks === 0) return;
    run(INPUT, blocks);
    bytes.copyWithin(INPUT, INPUT + blocks * BLOCK, INPUT + filled);
    filled -= blocks * BLOCK;
  };
  const update = (piece: Uint8Array): void => {
    for (let at = 0; at < piece.length;) {
      const taken = Math.min(WINDOW - filled, piece.length - at);
      bytes.set(piece.subarray(at, at + taken), INPUT + filled);
      filled += taken;
      at += taken;
      if (filled === WINDOW) digest();
    }
    total += piece.length;
  };
  return {
    update,
    finish() {
      digest();
      const length = total;
      update(padded(bytes.slice(INPUT, INPUT + filled), length).subarray(filled));
      digest();
      return INITIAL.map((_, i) =>
        state
          .getUint32(4 * i, true)
          .toString(16)
          .padStart(8, '0'),
      ).join('');
    },
  };
}
