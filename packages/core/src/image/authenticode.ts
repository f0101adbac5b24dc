import { createSHA1, createSHA256, createSHA384, createSHA512, type IHasher } from 'hash-wasm';
import { u16, u32 } from '../formats/bytes';
import type { LoaderHeader } from '../formats/pe/read';
import type { ByteSource } from '../formats/source';

const PIECE = 256 * 1024;
/** WIN_CERTIFICATE types: PKCS #7 signed data (UEFI 2.10 §32.2.4). */
const PKCS_SIGNED_DATA = 2;
const MAX_TABLE = 256 * 1024;
const MAX_SIGNATURES = 8;

const HASHERS: Record<string, () => Promise<IHasher>> = {
  '1.3.14.3.2.26': createSHA1,
  '2.16.840.1.101.3.4.2.1': createSHA256,
  '2.16.840.1.101.3.4.2.2': createSHA384,
  '2.16.840.1.101.3.4.2.3': createSHA512,
};

/** A fresh hasher for a digest algorithm named by its object identifier (RFC 5754 §2); undefined for any other. */
export const hasherFor = async (oid: string): Promise<IHasher | undefined> => HASHERS[oid]?.();

/**
 * The Authenticode digest of a PE file, in hexadecimal: everything but the checksum, the certificate table's directory
 * entry and the table itself, sections in the order they stand in the file (Authenticode PE specification,
 * "Calculating the PE Image Hash").
 */
export async function imageDigest(file: ByteSource, h: LoaderHeader, hasher: IHasher): Promise<string> {
  const take = async (from: number, to: number): Promise<void> => {
    for (let at = from; at < to; at += PIECE) hasher.update(await file.read(at, Math.min(PIECE, to - at)));
  };
  await take(0, h.checksumAt);
  await take(h.checksumAt + 4, h.certificateEntryAt);
  await take(h.certificateEntryAt + 8, Math.min(h.headerBytes, file.size));
  let end = h.headerBytes;
  for (const s of h.sections.filter((x) => x.bytes > 0).sort((a, b) => a.offset - b.offset)) {
    await take(s.offset, Math.min(s.offset + s.bytes, file.size));
    end += s.bytes;
  }
  await take(end, Math.min(h.certificates.offset, file.size));
  return hasher.digest('hex');
}

/** The PKCS #7 blobs of the certificate table, each eight bytes after its own header, on eight-byte boundaries. */
export async function signatureBlobs(file: ByteSource, h: LoaderHeader): Promise<Uint8Array<ArrayBuffer>[]> {
  const { offset, bytes } = h.certificates;
  const table = await file.read(offset, Math.min(bytes, MAX_TABLE));
  const out: Uint8Array<ArrayBuffer>[] = [];
  for (let o = 0; o + 8 < table.length && out.length < MAX_SIGNATURES;) {
    const length = u32(table, o);
    if (length <= 8 || o + length > table.length) break;
    if (u16(table, o + 6) === PKCS_SIGNED_DATA) out.push(Uint8Array.from(table.subarray(o + 8, o + length)));
    o += Math.ceil(length / 8) * 8;
  }
  return out;
}
