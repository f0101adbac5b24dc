interface Decoder {
  decode(bytes: Uint8Array): string;
}
// Every platform has it (WHATWG Encoding); this package names no platform's types.
const { TextDecoder } = globalThis as unknown as { TextDecoder: new () => Decoder };

/** Bytes as UTF-8 text; what is not UTF-8 becomes the replacement character. */
export const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
