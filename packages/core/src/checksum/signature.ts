import type * as openpgp from 'openpgp';
import { textOf } from '../units/text';
import { groupedHex } from './compare';

/** What was found of a signature; `ids` are the keys that made it, `why` the library's reason. */
export type SignatureFinding =
  | { code: 'good' }
  | { code: 'list changed' }
  | { code: 'not valid'; why: string }
  | { code: 'other key'; ids: string[] }
  | { code: 'no key in the file' }
  | { code: 'list not signed' }
  | { code: 'a signed list instead' }
  | { code: 'no signature in the file' }
  | { code: 'signature not readable' };

/** What checking an OpenPGP signature over a checksum list answered; words/signature.ts says it. */
export interface SignatureCheck {
  state: 'good' | 'changed' | 'other key' | 'unreadable';
  finding: SignatureFinding;
  fingerprint: string | null;
  signer: string | null;
  /** When it says it was made, as an ISO date; null where it is not known. */
  at: string | null;
}

const STATE: Record<SignatureFinding['code'], SignatureCheck['state']> = {
  good: 'good',
  'list changed': 'changed',
  'not valid': 'changed',
  'other key': 'other key',
  'no key in the file': 'unreadable',
  'list not signed': 'unreadable',
  'a signed list instead': 'unreadable',
  'no signature in the file': 'unreadable',
  'signature not readable': 'unreadable',
};

const found = (
  finding: SignatureFinding,
  more: Partial<Pick<SignatureCheck, 'fingerprint' | 'signer' | 'at'>> = {},
): SignatureCheck => ({
  state: STATE[finding.code],
  finding,
  fingerprint: null,
  signer: null,
  at: null,
  ...more,
});

/** A list that carries its signature in itself says so at its front. */
const isClearSigned = (bytes: Uint8Array): boolean =>
  textOf(bytes.subarray(0, 2000)).includes('-----BEGIN PGP SIGNED MESSAGE-----');
const isArmoured = (bytes: Uint8Array): boolean => textOf(bytes.subarray(0, 2000)).includes('-----BEGIN PGP');

type OpenPgp = typeof openpgp;

async function readKeys(pgp: OpenPgp, bytes: Uint8Array) {
  return isArmoured(bytes)
    ? pgp.readKeys({ armoredKeys: textOf(bytes) })
    : pgp.readKeys({ binaryKeys: bytes });
}

/**
 * Checks a signature over a checksum list: a clear signature in the list itself, or a detached one beside it, armoured or
 * binary (RFC 9580 §7, §10.4), against the keys the user supplies. Never throws: whatever is wrong is said.
 */
export async function checkListSignature(
  list: Uint8Array,
  signature: Uint8Array | undefined,
  keys: Uint8Array,
): Promise<SignatureCheck> {
  const pgp = await import('openpgp');
  let verificationKeys;
  try {
    verificationKeys = await readKeys(pgp, keys);
  } catch {
    return found({ code: 'no key in the file' });
  }
  if (!signature && !isClearSigned(list)) return found({ code: 'list not signed' });
  if (signature && isClearSigned(signature)) return found({ code: 'a signed list instead' });
  try {
    const detached =
      signature &&
      (isArmoured(signature)
        ? await pgp.readSignature({ armoredSignature: textOf(signature) })
        : await pgp.readSignature({ binarySignature: signature }));
    const result = detached
      ? await pgp.verify({
          message: await pgp.createMessage({ binary: list }),
          signature: detached,
          verificationKeys,
        })
      : await pgp.verify({
          message: await pgp.readCleartextMessage({ cleartextMessage: textOf(list) }),
          verificationKeys,
        });
    const ids = result.signatures.map((s) => s.keyID);
    const [first] = result.signatures;
    const key = verificationKeys.find((k) => ids.some((id) => k.getKeys(id).length > 0));
    if (!first) return found({ code: 'no signature in the file' });
    if (!key) return found({ code: 'other key', ids: ids.map((id) => id.toHex().toUpperCase()) });
    const fingerprint = groupedHex(key.getFingerprint().toUpperCase());
    const signer = key.getUserIDs()[0] ?? 'a key without a name';
    const good = await Promise.all(
      result.signatures.map((s) =>
        s.verified.then(
          () => true,
          (e: unknown) => String(e),
        ),
      ),
    );
    const wrong = good.find((g) => g !== true);
    if (!good.includes(true))
      return found(
        /expired|revoked|not valid/i.test(String(wrong))
          ? { code: 'not valid', why: String(wrong).replace(/^Error: /, '') }
          : { code: 'list changed' },
        { fingerprint, signer },
      );
    const made = (await first.signature).packets[0]?.created;
    return found({ code: 'good' }, { fingerprint, signer, at: made ? made.toISOString() : null });
  } catch {
    return found({ code: 'signature not readable' });
  }
}
