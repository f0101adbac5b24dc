import { createMD5, createSHA1, createSHA256, createSHA512, type IHasher } from 'hash-wasm';
import { digestAlgorithms, type DigestAlgorithm } from '../formats/checksumList';

/** A running digest over several algorithms at once; bytes go through once. */
export interface StreamingDigest {
  update(chunk: Uint8Array): void;
  finish(): Partial<Record<DigestAlgorithm, string>>;
}

const MAKERS: Record<DigestAlgorithm, () => Promise<IHasher>> = {
  sha256: createSHA256,
  sha512: createSHA512,
  sha1: createSHA1,
  md5: createMD5,
};

/** SHA-2 and SHA-1 are FIPS 180-4; MD5 is RFC 1321, kept only because old lists use it. */
export async function createDigest(algorithms: readonly DigestAlgorithm[]): Promise<StreamingDigest> {
  const wanted = digestAlgorithms.filter((a) => algorithms.includes(a));
  const hashers = await Promise.all(wanted.map(async (a) => [a, await MAKERS[a]()] as const));
  return {
    update(chunk) {
      for (const [, hasher] of hashers) hasher.update(chunk);
    },
    finish: () => Object.fromEntries(hashers.map(([a, h]) => [a, h.digest('hex')])),
  };
}
