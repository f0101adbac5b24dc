import { createMD5, createSHA1, createSHA256, createSHA512, type IHasher } from 'hash-wasm';
import { digestAlgorithms, type DigestAlgorithm } from '../formats/checksumList';
import { createVectorSha256 } from './sha256/stream';

/** A running digest over several algorithms at once; bytes go through once. */
export interface StreamingDigest {
  update(chunk: Uint8Array): void;
  finish(): Partial<Record<DigestAlgorithm, string>>;
}

/** A digest that may run elsewhere: an update that answers a promise is to be waited for before the next. */
export interface PacedDigest {
  update(chunk: Uint8Array): void | Promise<void>;
  finish(): ReturnType<StreamingDigest['finish']> | Promise<ReturnType<StreamingDigest['finish']>>;
}

interface Running {
  update(chunk: Uint8Array): void;
  finish(): string;
}
const ofLibrary = (hasher: IHasher): Running => ({
  update: (chunk) => void hasher.update(chunk),
  finish: () => hasher.digest('hex'),
});

const MAKERS: Record<DigestAlgorithm, () => Promise<Running>> = {
  // Every image is digested by it, so it is worth a program of its own (docs/decisions/0022).
  sha256: async () => (await createVectorSha256()) ?? ofLibrary(await createSHA256()),
  sha512: async () => ofLibrary(await createSHA512()),
  sha1: async () => ofLibrary(await createSHA1()),
  md5: async () => ofLibrary(await createMD5()),
};

/** SHA-2 and SHA-1 are FIPS 180-4; MD5 is RFC 1321, kept only because old lists use it. Digests are answered in hex. */
export async function createDigest(algorithms: readonly DigestAlgorithm[]): Promise<StreamingDigest> {
  const wanted = digestAlgorithms.filter((a) => algorithms.includes(a));
  const running = await Promise.all(wanted.map(async (a) => [a, await MAKERS[a]()] as const));
  return {
    update(chunk) {
      for (const [, one] of running) one.update(chunk);
    },
    finish: () => Object.fromEntries(running.map(([a, one]) => [a, one.finish()])),
  };
}
