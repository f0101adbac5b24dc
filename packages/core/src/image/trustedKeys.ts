import { u32, u8 } from '../formats/bytes';
import { guidText } from '../formats/gpt/read';
import type { TrustedKey } from './signature';

/** Type of a signature list that holds X.509 certificates: UEFI 2.10 §32.4.1, EFI_CERT_X509_GUID. */
const X509_LIST = 'A5C059A1-94E4-4AA7-87B5-AB155C2BF072';

function fromBase64(text: string): Uint8Array {
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  const out: number[] = [];
  let bits = 0;
  let held = 0;
  for (const c of text) {
    const value = alphabet.indexOf(c);
    if (value < 0) continue;
    held = ((held << 6) | value) & 0xffffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out.push((held >>> bits) & 0xff);
    }
  }
  return Uint8Array.from(out);
}

/**
 * Certificates in a file: PEM blocks (RFC 7468), one DER certificate, or a UEFI signature list as firmware setup saves
 * its "db". Empty where the bytes are none of these.
 */
export function readTrustedKeys(bytes: Uint8Array): TrustedKey[] {
  const text = Array.from(bytes.subarray(0, 1024 * 1024), (b) => String.fromCharCode(b)).join('');
  const blocks = [...text.matchAll(/-----BEGIN CERTIFICATE-----([^-]+)-----END CERTIFICATE-----/g)];
  if (blocks.length > 0) return blocks.map((m) => fromBase64(m[1] ?? ''));
  if (u8(bytes, 0) === 0x30 && u8(bytes, 1) === 0x82) return [bytes];
  const out: TrustedKey[] = [];
  for (let o = 0; o + 28 <= bytes.length;) {
    const listBytes = u32(bytes, o + 16);
    const headerBytes = u32(bytes, o + 20);
    const each = u32(bytes, o + 24);
    if (listBytes < 28 || each <= 16 || o + listBytes > bytes.length) break;
    if (guidText(bytes, o) === X509_LIST)
      for (let at = o + 28 + headerBytes; at + each <= o + listBytes; at += each)
        out.push(bytes.slice(at + 16, at + each));
    o += listBytes;
  }
  return out;
}
