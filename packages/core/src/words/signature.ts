import type { SignatureCheck } from '../checksum/signature';

const PROVES =
  'It proves that the list is the one that the holder of this key signed. It does not prove who that is: hold the fingerprint against one from another place than the list came from. Nor does it prove that an image is harmless, only that it is the one they mean.';
const NOT_PROVEN =
  'It proves nothing about the list, good or bad. Sums that agree still say only that file and list belong together.';

function foundWords({ finding, signer, fingerprint }: SignatureCheck): string {
  switch (finding.code) {
    case 'good':
      return `Signed by “${signer ?? ''}”, key ${fingerprint ?? ''}, and not changed since.`;
    case 'list changed':
      return 'The signature is of this key, but the list is not what was signed: it was changed. Fetch both again.';
    case 'not valid':
      return `The signature is not valid: ${finding.why}.`;
    case 'other key':
      return `The list is signed by another key (${finding.ids.join(', ')}) than the one supplied.`;
    case 'no key in the file':
      return 'The key file holds no OpenPGP key that can be read. The list is unharmed; supply the public key.';
    case 'list not signed':
      return 'The list carries no signature of its own. Open the signature file beside it.';
    case 'a signed list instead':
      return 'That file is no signature beside the list, but a list that is signed itself. Open it as the list.';
    case 'no signature in the file':
      return 'The file holds no signature.';
    case 'signature not readable':
      return 'The signature cannot be read. The list is unharmed; fetch the signature again.';
  }
}

/** What was found of a signature, and what that proves and does not, for somebody who has never used a key. */
export const signatureWords = (check: SignatureCheck): { found: string; proves: string } => ({
  found: foundWords(check),
  proves: check.state === 'good' ? PROVES : NOT_PROVEN,
});
