import type { BaseBlock } from 'asn1js';
import type { Certificate, SignerInfo } from 'pkijs';
import { hasherFor, imageDigest, signatureBlobs } from './authenticode';
import type { LoaderHeader } from '../formats/pe/read';
import type { ByteSource } from '../formats/source';

/** A certificate that a machine's firmware trusts, as DER bytes (an entry of its "db", UEFI 2.10 §32.4.1). */
export type TrustedKey = Uint8Array;

/** What the signatures of an EFI program come to (Authenticode PE specification; UEFI 2.10 §32). */
export interface SignatureReading {
  /** Who signed, by the subject of each signing certificate. */
  signers: string[];
  /** False where no signature is that of these bytes: changed after it was signed, or the signature is damaged. */
  intact: boolean;
  /** Does one of the given keys vouch for it? Undefined where no keys were given or the loader is too large to digest. */
  trusted: boolean | undefined;
}

/** Larger loaders are not digested on sight; nothing that starts by the removable path is near it. */
const MAX_DIGESTED = 4 * 1024 * 1024;
const MAX_CHAIN = 6;
const MESSAGE_DIGEST = '1.2.840.113549.1.9.4';
const COMMON_NAME = '2.5.4.3';
const ORGANISATION = '2.5.4.10';
const SIGNATURE_HASH: Record<string, string> = {
  '1.3.14.3.2.26': 'SHA-1',
  '2.16.840.1.101.3.4.2.1': 'SHA-256',
  '2.16.840.1.101.3.4.2.2': 'SHA-384',
  '2.16.840.1.101.3.4.2.3': 'SHA-512',
};

const hexOf = (b: Uint8Array): string => Array.from(b, (x) => x.toString(16).padStart(2, '0')).join('');

/** The two libraries are large and only signed loaders need them. */
async function load() {
  const [pki, asn] = await Promise.all([import('pkijs'), import('asn1js')]);
  return { pki, asn };
}
type Libraries = Awaited<ReturnType<typeof load>>;

function nameOf(cert: Certificate): string {
  const value = (type: string): string | undefined => {
    const found = cert.subject.typesAndValues.find((t) => t.type === type)?.value as
      { valueBlock?: { value?: unknown } } | undefined;
    return typeof found?.valueBlock?.value === 'string' ? found.valueBlock.value : undefined;
  };
  return value(COMMON_NAME) ?? value(ORGANISATION) ?? 'a key without a name';
}

const children = ({ asn }: Libraries, block: BaseBlock | undefined): BaseBlock[] =>
  block instanceof asn.Sequence ? block.valueBlock.value : [];
const octets = ({ asn }: Libraries, block: BaseBlock | undefined): string | undefined =>
  block instanceof asn.OctetString ? hexOf(block.valueBlock.valueHexView) : undefined;

/** Is the digest that was signed (SpcIndirectDataContent, Authenticode PE specification) that of this file? */
async function digestAgrees(
  lib: Libraries,
  content: BaseBlock,
  file: ByteSource,
  header: LoaderHeader,
): Promise<boolean> {
  const [algorithm, sum] = children(lib, children(lib, content)[1]);
  const oid = children(lib, algorithm)[0];
  if (!(oid instanceof lib.asn.ObjectIdentifier)) return false;
  const hasher = await hasherFor(oid.valueBlock.toString());
  return hasher !== undefined && (await imageDigest(file, header, hasher)) === octets(lib, sum);
}

/** PKCS #7 §9.3: the attributes carry the digest of the content without its outer tag and length, and are what is signed. */
async function signatureHolds(
  lib: Libraries,
  content: BaseBlock,
  signer: SignerInfo,
  own: Certificate,
): Promise<boolean> {
  const oid = signer.digestAlgorithm.algorithmId;
  const hash = SIGNATURE_HASH[oid];
  const hasher = await hasherFor(oid);
  if (!signer.signedAttrs || !hasher || hash === undefined || !(content instanceof lib.asn.Sequence))
    return false;
  const attribute = signer.signedAttrs.attributes.find((a) => a.type === MESSAGE_DIGEST);
  const outer = hasher.update(content.valueBlock.valueBeforeDecodeView).digest('hex');
  if (octets(lib, attribute?.values[0] as BaseBlock | undefined) !== outer) return false;
  const engine = lib.pki.getCrypto(true);
  return engine.verifyWithPublicKey(
    signer.signedAttrs.encodedValue,
    signer.signature,
    own.subjectPublicKeyInfo,
    own.signatureAlgorithm,
    hash,
  );
}

const same = (a: Certificate, b: Certificate): boolean =>
  hexOf(new Uint8Array(a.toSchema().toBER())) === hexOf(new Uint8Array(b.toSchema().toBER()));

async function issuedBy(cert: Certificate, issuer: Certificate): Promise<boolean> {
  if (!cert.issuer.isEqual(issuer.subject)) return false;
  try {
    return await cert.verify(issuer);
  } catch {
    return false;
  }
}

/** Does the signing certificate, or one of those in the file that issued it, come from a trusted key? */
async function vouched(own: Certificate, inFile: Certificate[], trusted: Certificate[]): Promise<boolean> {
  let at: Certificate | undefined = own;
  for (let step = 0; at && step < MAX_CHAIN; step += 1) {
    const here: Certificate = at;
    for (const key of trusted) if (same(here, key) || (await issuedBy(here, key))) return true;
    at = undefined;
    for (const c of inFile) if (c !== here && (await issuedBy(here, c))) at = c;
  }
  return false;
}

/**
 * Reads who signed a loader, whether the file is still what was signed, and whether one of `keys` vouches for it: the
 * signing certificate is one of them or was issued, over the certificates in the file, by one of them.
 * A table that holds nothing readable is answered as not intact; nothing is thrown.
 */
export async function readSignature(
  file: ByteSource,
  header: LoaderHeader,
  keys: readonly TrustedKey[] | undefined,
): Promise<SignatureReading> {
  if (file.size > MAX_DIGESTED) return { signers: [], intact: true, trusted: undefined };
  const out: SignatureReading = { signers: [], intact: false, trusted: keys ? false : undefined };
  const lib = await load();
  for (const blob of await signatureBlobs(file, header)) {
    try {
      const signed = new lib.pki.SignedData({
        schema: lib.pki.ContentInfo.fromBER(blob).content as BaseBlock,
      });
      const signer = signed.signerInfos[0];
      const content = signed.encapContentInfo.eContent as BaseBlock | undefined;
      if (!signer || !content) continue;
      const certs = (signed.certificates ?? []).filter((c) => c instanceof lib.pki.Certificate);
      const sid: unknown = signer.sid;
      const own =
        sid instanceof lib.pki.IssuerAndSerialNumber
          ? certs.find((c) => c.serialNumber.isEqual(sid.serialNumber) && c.issuer.isEqual(sid.issuer))
          : undefined;
      out.signers.push(own ? nameOf(own) : 'a key that is not in the file');
      if (!own || !(await digestAgrees(lib, content, file, header))) continue;
      if (!(await signatureHolds(lib, content, signer, own))) continue;
      out.intact = true;
      const trusted = (keys ?? []).map((k) => lib.pki.Certificate.fromBER(Uint8Array.from(k)));
      if (keys && (await vouched(own, certs, trusted))) out.trusted = true;
    } catch {
      // What cannot be read vouches for nothing; the other signatures may.
    }
  }
  return out;
}
