/** Little helpers to read fields; every one answers 0 or '' past the end, so that cut images cannot throw. */
export const u8 = (b: Uint8Array, o: number): number => b[o] ?? 0;
/** An unsigned number of two bytes, the lowest first; bytes beyond the end count as zero. */
export const u16 = (b: Uint8Array, o: number): number => u8(b, o) | (u8(b, o + 1) << 8);
/** An unsigned number of four bytes, the lowest first. */
export const u32 = (b: Uint8Array, o: number): number => (u16(b, o) | (u16(b, o + 2) << 16)) >>> 0;
/** 64-bit field as a number; beyond 2^53 it loses precision, which no real image reaches. */
export const u64 = (b: Uint8Array, o: number): number => u32(b, o) + u32(b, o + 4) * 2 ** 32;
/** An unsigned number of four bytes, the highest first. */
export const u32be = (b: Uint8Array, o: number): number =>
  ((u8(b, o) << 24) | (u8(b, o + 1) << 16) | (u8(b, o + 2) << 8) | u8(b, o + 3)) >>> 0;

/** Bytes as Latin-1 text up to the first NUL, trailing spaces removed. */
export function ascii(b: Uint8Array, offset: number, length: number): string {
  let out = '';
  for (let i = offset; i < Math.min(offset + length, b.length); i += 1) {
    const c = u8(b, i);
    if (c === 0) break;
    out += String.fromCharCode(c);
  }
  return out.trimEnd();
}

/** UTF-16LE text up to the first NUL. */
export function utf16(b: Uint8Array, offset: number, units: number): string {
  let out = '';
  for (let i = 0; i < units; i += 1) {
    const c = u16(b, offset + 2 * i);
    if (c === 0 || c === 0xffff) break;
    out += String.fromCharCode(c);
  }
  return out;
}

/** Whether nothing but zeros is there; true of no bytes at all. */
export const allZero = (b: Uint8Array): boolean => b.every((x) => x === 0);

/** Does this run of bytes hold the ASCII text? Used to recognise boot code by its messages. */
export function holds(b: Uint8Array, text: string): boolean {
  outer: for (let i = 0; i + text.length <= b.length; i += 1) {
    for (let j = 0; j < text.length; j += 1) if (b[i + j] !== text.charCodeAt(j)) continue outer;
    return true;
  }
  return false;
}

/** Bytes as text: UTF-8, or Latin-1 where it is not; up to the first NUL. */
export function textOf(b: Uint8Array): string {
  const nul = b.indexOf(0);
  const end = nul < 0 ? b.length : nul;
  let raw = '';
  for (let at = 0; at < end; at += 4096)
    raw += String.fromCharCode(...b.subarray(at, Math.min(end, at + 4096)));
  if (!/[\x80-\xff]/.test(raw)) return raw;
  try {
    return decodeURIComponent(
      raw.replace(/[%\x80-\xff]/g, (c) => '%' + c.charCodeAt(0).toString(16).padStart(2, '0')),
    );
  } catch {
    return raw;
  }
}

/** A field of text within bytes, as textOf reads it. */
export const utf8 = (b: Uint8Array, offset: number, length: number): string =>
  textOf(b.subarray(offset, offset + length));

/** Several runs of bytes as one. */
export function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(pieces.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
}

/** Are these the same bytes? A plain loop: whole images go through it. */
export function sameBytes(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return false;
  return true;
}

/** Bytes in hexadecimal, two digits each, a space between them. */
export const hexOf = (b: Uint8Array): string =>
  Array.from(b, (x) => x.toString(16).padStart(2, '0')).join(' ');
