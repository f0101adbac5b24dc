/** Writers of little-endian and big-endian fields into an array; offsets in bytes. */
export function put16(b: Uint8Array, o: number, v: number): void {
  b[o] = v & 0xff;
  b[o + 1] = (v >>> 8) & 0xff;
}
/** Writes an unsigned number of four bytes at an offset, the lowest first. */
export function put32(b: Uint8Array, o: number, v: number): void {
  put16(b, o, v & 0xffff);
  put16(b, o + 2, v >>> 16);
}
/** Writes an unsigned number of eight bytes at an offset, the lowest first; exact up to 2^53. */
export function put64(b: Uint8Array, o: number, v: number): void {
  put32(b, o, v >>> 0);
  put32(b, o + 4, Math.floor(v / 2 ** 32));
}
/** Writes ASCII text at an offset, cut or filled up with spaces to `length` bytes. */
export function putText(b: Uint8Array, o: number, text: string, length = text.length): void {
  for (let i = 0; i < length; i += 1) b[o + i] = i < text.length ? text.charCodeAt(i) : 0x20;
}
/** Bytes of a text of hexadecimal digits, two for each. */
export const fromHex = (hex: string): Uint8Array =>
  Uint8Array.from({ length: hex.length / 2 }, (_, i) => parseInt(hex.slice(2 * i, 2 * i + 2), 16));
