import type * as openpgp from 'openpgp';
import { textOf } from '../units/text';
import { groupedHex } from './compare';

/** What checking an OpenPGP signature over a checksum list answered. */
export interface SignatureCheck {
  state: 'good' | 'changed' | 'other key' | 'unreadable';
  /** One sentence: what was found. */
  found: string;
  /** What it proves and what it does not, for somebody who has never used a key. */
  proves: string;
  fingerprint: string | null;
  signer: string | null;
  /** When it says it was made, as an ISO date; null where it is not known. */
  at: string | null;
}

const PROVES =
  'It proves that the list is the one that the holder of this key signed. It does not prove who that is: hold the fingerprint against one from another place than the list came from. Nor does it prove that an image is harmless, only that it is the one they mean.';
const NOT_PROVEN =
  'It proves nothing about the list, good or bad. Sums that agree still say only that file and list belong together.';

const fail = (state: SignatureCheck['state'], found: string): SignatureCheck => ({
  state,
  found,
  proves: NOT_PROVEN,
  fingerprint: null,
  signer: null,
  at: null,
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
    return fail(
      'unreadable',
      'The key file holds no OpenPGP key that can be read. The list is unharmed; supply the public key.',
    );
  }
  if (!signature && !isClearSigned(list))
    return fail('unreadable', 'The list carries no signature of its own. Open the signature file beside it.');
  if (signature && isClearSigned(signature))
    return fail(
      'unreadable',
      'That file is no signature beside the list, but a list that is signed itself. Open it as the list.',
    );
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
    if (!first) return fail('unreadable', 'The file holds no signature.');
    if (!key)
      return fail(
        'other key',
        `The list is signed by another key (${ids.map((id) => id.toHex().toUpperCase()).join(', ')}) than the one supplied.`,
      );
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
      return {
        ...fail(
          'changed',
          /expired|revoked|not valid/i.test(String(wrong))
            ? `The signature is not valid: ${String(wrong).replace(/^Error: /, '')}.`
            : 'The signature is of this key, but the list is not what was signed: it was changed. Fetch both again.',
        ),
        fingerprint,
        signer,
      };
    const made = (await first.signature).packets[0]?.created;
    return {
      state: 'good',
      found: `Signed by “${signer}”, key ${fingerprint}, and not changed since.`,
      proves: PROVES,
      fingerprint,
      signer,
      at: made ? made.toISOString() : null,
    };
  } catch {
    return fail(
      'unreadable',
      'The signature cannot be read. The list is unharmed; fetch the signature again.',
    );
  }
}
