import { createDigest } from '../checksum/digest';
import { fromBase64, toBase64 } from '../units/base64';

/** The fingerprint of a key as a remote shell shows it at the first visit (OpenSSH ssh-keygen(1), -l): SHA-256 of its bytes, in Base64 without padding; undefined where the key is none. */
export async function hostKeyFingerprint(key: string): Promise<string | undefined> {
  const bytes = fromBase64(key);
  if (!bytes || bytes.length === 0) return undefined;
  const digest = await createDigest(['sha256']);
  digest.update(bytes);
  const { sha256 = '' } = digest.finish();
  const raw = Uint8Array.from(sha256.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
  return `SHA256:${toBase64(raw).replace(/=+$/, '')}`;
}
