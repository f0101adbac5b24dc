/** A display as its EDID tells. Sizes in millimetres, modes in pixels. VESA E-EDID 1.4; extension block CTA-861. */
export interface Edid {
  name: string | null;
  native: { width: number; height: number } | null;
  /** How often its own mode is drawn, hertz. */
  refreshHz: number | null;
  /** Rates it takes between, hertz: what a variable rate moves in. */
  rates: { least: number; most: number } | null;
  sizeMm: { width: number; height: number } | null;
  /** The longer side is upright: such a panel shows its first screens sideways. */
  portrait: boolean;
  /** Takes sound over HDMI or DisplayPort (basic audio, or an audio data block). */
  audio: boolean;
}

/** An EDID that cannot be read, and why. */
export class EdidError extends RangeError {
  override name = 'EdidError';
}

const BLOCK = 128;
const HEADER = [0, 255, 255, 255, 255, 255, 255, 0];

/** Bytes of a text of hexadecimal digits with any space between them. Throws EdidError where it is none. */
export function hexBytes(hex: string): Uint8Array {
  const clean = hex.replace(/\s+/g, '');
  if (!/^([0-9a-f]{2})*$/i.test(clean)) throw new EdidError('The EDID is not hexadecimal.');
  return Uint8Array.from(clean.match(/../g) ?? [], (b) => parseInt(b, 16));
}

const sound = (block: Uint8Array): boolean => block.reduce((n, b) => n + b, 0) % 256 === 0;

interface Timing {
  width: number;
  height: number;
  mm: { width: number; height: number };
  refreshHz: number | null;
}

/** An 18-byte detailed timing descriptor (E-EDID 1.4 §3.10.2); undefined where the bytes describe something else. */
function timing(d: Uint8Array): Timing | undefined {
  const at = (i: number): number => d[i] ?? 0;
  if (at(0) === 0 && at(1) === 0) return undefined;
  const interlaced = (at(17) & 0x80) !== 0;
  // Clock in steps of 10 kHz over the dots of a whole picture, what is blank included. Of two fields each is drawn by itself.
  const clock = (at(0) | (at(1) << 8)) * 10_000;
  const across = (at(2) | ((at(4) & 0xf0) << 4)) + (at(3) | ((at(4) & 0x0f) << 8));
  const down = (at(5) | ((at(7) & 0xf0) << 4)) + (at(6) | ((at(7) & 0x0f) << 8));
  // Of an interlaced mode a field has half a line more than it says (E-EDID 1.4 §3.10.2).
  const lines = interlaced ? down + 0.5 : down;
  return {
    width: at(2) | ((at(4) & 0xf0) << 4),
    height: (at(5) | ((at(7) & 0xf0) << 4)) * (interlaced ? 2 : 1),
    refreshHz: clock > 0 && across > 0 && lines > 0 ? clock / (across * lines) : null,
    mm: { width: at(12) | ((at(14) & 0xf0) << 4), height: at(13) | ((at(14) & 0x0f) << 8) },
  };
}

/** Display range limits (E-EDID 1.4 §3.10.3.3): bits 0 and 1 of byte 4 add 255 to the rates. */
function ratesOf(descriptors: readonly Uint8Array[]): Edid['rates'] {
  const d = descriptors.find((x) => x[0] === 0 && x[1] === 0 && x[3] === 0xfd);
  if (!d) return null;
  const [flags = 0, low = 0, high = 0] = d.subarray(4, 7);
  const most = high + ((flags & 2) !== 0 ? 255 : 0);
  const least = low + ((flags & 3) === 3 ? 255 : 0);
  return least > 0 && most >= least ? { least, most } : null;
}

/** CTA-861 §7.3: bit 6 of byte 3 is basic audio; data blocks run from byte 4 up to the timings, tag 1 is audio. */
function takesSound(block: Uint8Array): boolean {
  if (block[0] !== 2 || (block[1] ?? 0) < 2) return false;
  if (((block[3] ?? 0) & 0x40) !== 0) return true;
  const end = Math.min(block[2] ?? 0, BLOCK - 1);
  for (let at = 4; at < end; at += 1 + ((block[at] ?? 0) & 0x1f))
    if ((block[at] ?? 0) >> 5 === 1) return true;
  return false;
}

/** Reads an EDID of one or more blocks. Throws EdidError with words where the first block is not one. */
export function readEdid(bytes: Uint8Array): Edid {
  if (bytes.length < BLOCK)
    throw new EdidError(`The EDID has ${bytes.length} bytes; its first block alone has 128.`);
  const base = bytes.subarray(0, BLOCK);
  if (!HEADER.every((b, i) => base[i] === b)) throw new EdidError('The bytes do not begin as an EDID does.');
  if (!sound(base)) throw new EdidError('The EDID’s checksum is wrong: it was read or copied badly.');
  const descriptors = [54, 72, 90, 108].map((o) => base.subarray(o, o + 18));
  const preferred = descriptors.map(timing).find((t) => t !== undefined);
  const named = descriptors.find((d) => d[0] === 0 && d[1] === 0 && d[3] === 0xfc);
  const name = named
    ? String.fromCharCode(...named.subarray(5))
        .split('\n')[0]
        ?.replace(/[^\x20-\x7e]/g, '')
        .trim()
    : undefined;
  const cm = { width: base[21] ?? 0, height: base[22] ?? 0 };
  // With one of the two zero the bytes are an aspect ratio and no size (E-EDID 1.4 §3.6.2).
  const sizeMm =
    preferred && preferred.mm.width > 0 && preferred.mm.height > 0
      ? preferred.mm
      : cm.width > 0 && cm.height > 0
        ? { width: cm.width * 10, height: cm.height * 10 }
        : null;
  const extensions = Array.from({ length: Math.floor(bytes.length / BLOCK) - 1 }, (_, i) =>
    bytes.subarray((i + 1) * BLOCK, (i + 2) * BLOCK),
  );
  return {
    name: name || null,
    native: preferred ? { width: preferred.width, height: preferred.height } : null,
    refreshHz: preferred?.refreshHz ?? null,
    rates: ratesOf(descriptors),
    sizeMm,
    portrait: preferred ? preferred.height > preferred.width : false,
    audio: extensions.some((b) => sound(b) && takesSound(b)),
  };
}
