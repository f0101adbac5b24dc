// Every platform has both (HTML standard, “Base64 utility methods”); this package names no platform's types.
const { atob, btoa } = globalThis as unknown as {
  atob: (text: string) => string;
  btoa: (bytes: string) => string;
};

/** The bytes of a Base64 text (RFC 4648 §4); undefined where it is none. */
export function fromBase64(text: string): Uint8Array | undefined {
  try {
    return Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
  } catch {
    return undefined;
  }
}

/** Bytes as Base64 (RFC 4648 §4). */
export const toBase64 = (bytes: Uint8Array): string => btoa(String.fromCharCode(...bytes));
