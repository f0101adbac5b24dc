import { UnwritableError } from './template';

/** What nft(8) takes as a comment, in octets; its strings end at a quote and know no escape. */
const MOST = 100;

/** A text as a string of nft(8): without quotes, backslashes and control characters, cut where it would be too long. */
export function nftString(text: string): string {
  const plain = text.replace(/["\\\p{Cc}\p{Zl}\p{Zp}]/gu, ' ').trim();
  let out = '';
  let octets = 0;
  for (const c of plain) {
    octets += new TextEncoder().encode(c).length;
    if (octets > MOST) break;
    out += c;
  }
  return `"${out.trim()}"`;
}

/** The name of an interface as nft(8) compares it. Throws UnwritableError for any other text. */
export function nftInterface(name: string): string {
  if (!/^[\w.-]{1,15}\*?$/.test(name)) throw new UnwritableError('nftables', name);
  return `"${name}"`;
}

/** The name of a set or chain (nft(8), “identifier”). Throws UnwritableError for any other text. */
export function nftName(name: string): string {
  if (!/^[A-Za-z_][\w./-]*$/.test(name)) throw new UnwritableError('nftables', name);
  return name;
}
