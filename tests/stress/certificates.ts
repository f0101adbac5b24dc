import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import * as openpgp from 'openpgp';
import { checkListSignature } from '@zb/core/checksum/signature';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { readLoader } from '@zb/core/formats/pe/read';
import { readSignature } from '@zb/core/image/signature';
import { readTrustedKeys } from '@zb/core/image/trustedKeys';
import type { Random } from './random';
import type { Bench } from './part';

const LIST = `${'a'.repeat(64)}  one.iso\n${'b'.repeat(64)}  two.iso\n`;

/** Some bytes changed, cut, doubled or put elsewhere; lengths of ASN.1 and of packets are among them. */
export function damaged(random: Random, bytes: Uint8Array, from = 0): Uint8Array {
  let out = Buffer.from(bytes);
  for (let n = random.int(1, 4); n > 0; n -= 1) {
    const at = random.int(from, Math.max(from, out.length - 1));
    out = random.pick([
      () => {
        out[at] = random.pick([0, 0x7f, 0x80, 0x84, 0xff, random.int(0, 255)]);
        return out;
      },
      () => out.subarray(0, Math.max(1, at)),
      () => Buffer.concat([out.subarray(0, at), out.subarray(from)]),
      () => Buffer.concat([out.subarray(0, at), random.bytes(16), out.subarray(at)]),
      () => Buffer.concat([out.subarray(0, at), out.subarray(Math.min(out.length, at + random.int(1, 64)))]),
    ])();
  }
  return out;
}

/** The public key of a certificate by OpenSSL; undefined where it reads none. */
function keyOf(bytes: Uint8Array): string | undefined {
  try {
    return new X509Certificate(bytes).publicKey.export({ type: 'spki', format: 'der' }).toString('hex');
  } catch {
    return undefined;
  }
}

function signedLoader(dir: string): { loader: Uint8Array; certificate: Uint8Array } {
  mkdirSync(dir, { recursive: true });
  const at = (name: string): string => join(dir, name);
  const quiet = { stdio: 'ignore' } as const;
  const subject = ['-subj', '/CN=A key of the stress test', '-days', '30'];
  const key = ['-newkey', 'rsa:2048', '-nodes', '-keyout', at('key.pem'), '-out', at('own.pem')];
  execFileSync('openssl', ['req', '-x509', ...key, ...subject], quiet);
  writeFileSync(at('plain.efi'), efiLoader('stress'));
  const out = ['--output', at('signed.efi'), at('plain.efi')];
  execFileSync('sbsign', ['--key', at('key.pem'), '--cert', at('own.pem'), ...out], quiet);
  return { loader: readFileSync(at('signed.efi')), certificate: readFileSync(at('own.pem')) };
}

async function signedList() {
  const { privateKey, publicKey } = await openpgp.generateKey({
    userIDs: [{ name: 'Stress' }],
    format: 'object',
  });
  const message = await openpgp.createMessage({ binary: Buffer.from(LIST) });
  const signature = await openpgp.sign({ message, signingKeys: privateKey, detached: true });
  const clear = await openpgp.sign({
    message: await openpgp.createCleartextMessage({ text: LIST }),
    signingKeys: privateKey,
  });
  return {
    keys: Buffer.from(publicKey.armor()),
    signature: Buffer.from(signature),
    clear: Buffer.from(clear),
  };
}

/** Signed programs, certificates, signed lists and their keys, damaged: what is not what was signed is never told to be good. */
export async function certificateKinds({
  random,
  dir,
  wrong,
}: Bench): Promise<Record<string, () => unknown>> {
  const { loader, certificate } = signedLoader(join(dir, 'certificates'));
  const { keys, signature, clear } = await signedList();
  const trusted = readTrustedKeys(certificate);
  const sourceOf = (bytes: Uint8Array) => ({
    size: bytes.length,
    read: (offset: number, length: number) =>
      Promise.resolve(new Uint8Array(bytes.subarray(offset, Math.min(bytes.length, offset + length)))),
  });
  const sound = await readLoader(sourceOf(loader));
  if (!sound) throw new Error('the signed loader cannot be read');
  return {
    'signed programs': async () => {
      // The signature alone is damaged, or anything.
      const inTable = random.chance(0.7);
      const bytes = damaged(random, loader, inTable ? sound.certificates.offset : 0);
      const file = sourceOf(bytes);
      const header = await readLoader(file);
      if (!header?.signed) return;
      const { intact } = await readSignature(file, header, trusted);
      // The digest leaves out the checksum, the entry of the table and the table (Authenticode PE specification).
      const [now, before] = [bytes, loader].map((b) => {
        const code = Buffer.from(b.subarray(0, sound.certificates.offset));
        return code
          .fill(0, sound.checksumAt, sound.checksumAt + 4)
          .fill(0, sound.certificateEntryAt, sound.certificateEntryAt + 8);
      });
      if (intact && !now?.equals(before ?? Buffer.alloc(0)))
        wrong('a program that was changed is told to be as it was signed');
    },
    certificates: async () => {
      const given = readTrustedKeys(
        damaged(random, random.chance(0.5) ? certificate : (trusted[0] ?? certificate)),
      );
      const { trusted: vouched, intact } = await readSignature(sourceOf(loader), sound, given);
      if (!intact && given.length < 100) return;
      // Its key is what vouches: of a trusted certificate nothing else is checked (RFC 5280 §6.1.1 (d)).
      const keys = given.map(keyOf);
      if (vouched === true && !keys.includes(undefined) && !keys.includes(keyOf(certificate)))
        wrong('a certificate that was damaged vouches for a program');
    },
    'signed lists': async () => {
      const list = Buffer.from(LIST);
      const what = random.pick(['list', 'signature', 'keys', 'clear'] as const);
      const changed = what === 'list' ? damaged(random, list) : list;
      const found =
        what === 'clear'
          ? await checkListSignature(damaged(random, clear), undefined, keys)
          : await checkListSignature(
              changed,
              what === 'signature' ? damaged(random, signature) : signature,
              what === 'keys' ? damaged(random, keys) : keys,
            );
      if (what === 'list' && found.state === 'good' && !Buffer.from(changed).equals(list))
        wrong('a list that was changed is told to be as it was signed');
    },
  };
}
