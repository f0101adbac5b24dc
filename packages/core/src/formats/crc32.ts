const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k += 1) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

/** CRC-32 with the polynomial of ISO 3309 / ITU-T V.42, as UEFI 2.10 §5.3.2 asks for GPT. */
export function crc32(bytes: Uint8Array, seed = 0): number {
  let c = ~seed;
  for (const byte of bytes) c = (TABLE[(c ^ byte) & 0xff] ?? 0) ^ (c >>> 8);
  return ~c >>> 0;
}
