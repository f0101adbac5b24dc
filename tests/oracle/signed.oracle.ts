/**
 * Signatures against the tools that make them: loaders signed by sbsign with Debian's snakeoil test key are started under
 * its Secure Boot firmware; checksum lists are signed by GnuPG.
 */
import { signatureWords } from '@zb/core/words/signature';
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { checkListSignature } from '@zb/core/checksum/signature';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { readTrustedKeys } from '@zb/core/image/trustedKeys';
import type { TrustedKey } from '@zb/core/image/signature';
import { inPairs, starts } from './emulator';
import { inspectFile, run, scratch } from './files';
import { Maker, TOKEN } from './makeImages';

jest.setTimeout(300_000);
const room = scratch();
afterAll(() => room.clear());
const KEY = '/usr/share/ovmf/PkKek-1-snakeoil';

describe('Secure Boot', () => {
  const maker = new Maker(room);
  const at = (name: string): string => room.path(name);
  const sign = (from: string, to: string, key: string, cert: string): string => {
    run('sbsign', ['--key', key, '--cert', cert, '--output', to, from]);
    return to;
  };
  const image = (name: string, loader: string): string =>
    maker.disk(`${name}.img`, 24, 'label: gpt\nstart=2048, size=20480, type=U\n', [
      [maker.fat(`${name}.fat`, 10, '12', [['/EFI/BOOT/BOOTX64.EFI', loader]]), 1],
    ]);
  let images: [name: string, path: string][] = [];
  let trusted: TrustedKey[] = [];
  let observed: PromiseSettledResult<boolean>[] = [];

  beforeAll(async () => {
    const snakeoil = at('snakeoil.key');
    run('openssl', ['rsa', '-in', `${KEY}.key`, '-passin', 'pass:snakeoil', '-out', snakeoil]);
    const other = at('other.key');
    run('openssl', [
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-keyout',
      other,
      '-out',
      at('other.pem'),
      '-subj',
      '/CN=Another key',
      '-days',
      '30',
    ]);
    const plain = at('plain.efi');
    writeFileSync(plain, efiLoader(TOKEN));
    const grub = maker.grub('x86_64-efi');
    const signed = sign(plain, at('signed.efi'), snakeoil, `${KEY}.pem`);
    const changed = at('changed.efi');
    const bytes = readFileSync(signed);
    // The last letter of what it says: the code is whole, the signature is over something else.
    bytes[512 + 57 + 8] = 0x21;
    writeFileSync(changed, bytes);
    const twice = sign(signed, at('twice.efi'), other, at('other.pem'));
    images = [
      ['not signed', image('unsigned', plain)],
      ['signed by the firmware’s key', image('signed', signed)],
      ['signed by another key', image('foreign', sign(plain, at('foreign.efi'), other, at('other.pem')))],
      ['changed after it was signed', image('changed', changed)],
      ['signed twice, once by the firmware’s key', image('twice', twice)],
      [
        'a large loader, signed by the firmware’s key',
        image('grub', sign(grub, at('grub.efi'), snakeoil, `${KEY}.pem`)),
      ],
    ];
    trusted = readTrustedKeys(readFileSync(`${KEY}.pem`));
    observed = await inPairs(
      images.map(
        ([, path]) =>
          () =>
            starts({ firmware: 'uefi-x64-secure', attached: 'disk', image: path, token: TOKEN }),
      ),
    );
  });

  it('what is foretold with the firmware’s keys is what happens', async () => {
    expect(trusted).toHaveLength(1);
    const foretold = [];
    for (const [name, path] of images) {
      const { outcomes } = await inspectFile(path, { keys: trusted });
      foretold.push([
        name,
        outcomes.find((o) => o.firmware === 'uefi-x64' && o.attached === 'disk')?.secureBoot?.starts,
      ]);
    }
    const seen = images.map(([name], i) => {
      const result = observed[i];
      if (result?.status !== 'fulfilled') throw new Error(`not observed: ${String(result?.reason)}`);
      return [name, result.value ? 'yes' : 'no'];
    });
    expect(foretold).toEqual(seen);
    expect(seen.map(([, s]) => s)).toEqual(['no', 'yes', 'no', 'no', 'yes', 'yes']);
  });

  it('without keys a signature is “if trusted”, and what cannot pass is still refused', async () => {
    const said = [];
    for (const [, path] of images) {
      const { outcomes, loaders } = await inspectFile(path);
      said.push([outcomes.find((o) => o.firmware === 'uefi-x64')?.secureBoot?.starts, loaders[0]?.signed]);
    }
    expect(said).toEqual([
      ['no', false],
      ['unknown', true],
      ['unknown', true],
      ['no', true],
      ['unknown', true],
      ['unknown', true],
    ]);
  });

  it('sbverify and we agree on who signed', async () => {
    for (const [i, name] of [
      [1, 'signed.efi'],
      [2, 'foreign.efi'],
    ] as const) {
      const said = run('sbverify', ['--list', at(name)]);
      const signer = (await inspectFile(images[i]?.[1] ?? '')).loaders[0]?.signers[0] ?? 'none';
      expect(said).toContain(signer);
    }
  });
});

describe('signatures over checksum lists', () => {
  const home = (name: string): string => {
    mkdirSync(room.path(name), { recursive: true, mode: 0o700 });
    return room.path(name);
  };
  const gpg = (at: string, args: string[]): string =>
    run('gpg', ['--homedir', at, '--batch', '--yes', '--quiet', ...args]);
  const list = room.path('SUMS');
  const read = (name: string): Uint8Array => new Uint8Array(readFileSync(room.path(name)));
  let print = '';

  beforeAll(() => {
    writeFileSync(list, `${'a'.repeat(64)}  x.img\r\n${'b'.repeat(64)}  y.img\n`);
    for (const [who, kind] of [
      ['one', 'ed25519'],
      ['two', 'rsa2048'],
    ] as const) {
      const h = home(who);
      gpg(h, [
        '--passphrase',
        '',
        '--quick-gen-key',
        `Publisher ${who} <${who}@example.org>`,
        kind,
        'sign',
        'never',
      ]);
      writeFileSync(room.path(`${who}.asc`), gpg(h, ['--armor', '--export']));
      gpg(h, ['--output', room.path(`${who}.key`), '--export']);
      gpg(h, ['--armor', '--output', room.path(`${who}.sig.asc`), '--detach-sign', list]);
      gpg(h, ['--output', room.path(`${who}.sig`), '--detach-sign', list]);
      gpg(h, ['--output', room.path(`${who}.clear`), '--clearsign', list]);
    }
    print = /fpr:+([0-9A-F]+):/.exec(gpg(room.path('one'), ['--with-colons', '--fingerprint']))?.[1] ?? '';
    copyFileSync(list, room.path('changed'));
    writeFileSync(room.path('changed'), readFileSync(list, 'utf8').replace('y.img', 'z.img'));
  });

  it.each(['one', 'two'])('detached and clear, armoured and binary, by key %s', async (who) => {
    for (const [what, signature, key] of [
      ['SUMS', `${who}.sig.asc`, `${who}.asc`],
      ['SUMS', `${who}.sig`, `${who}.key`],
      [`${who}.clear`, undefined, `${who}.asc`],
    ] as const) {
      const found = await checkListSignature(read(what), signature && read(signature), read(key));
      expect(found).toMatchObject({ state: 'good', signer: `Publisher ${who} <${who}@example.org>` });
      expect(found.at).not.toBeNull();
    }
  });
  it('the fingerprint is the one GnuPG shows', async () => {
    const found = await checkListSignature(read('SUMS'), read('one.sig'), read('one.key'));
    expect(found.fingerprint?.replace(/ /g, '')).toBe(print);
    expect(signatureWords(found).proves).toMatch(/does not prove who that is/);
  });
  it('a changed list, another key, no key and no signature are each said as what they are', async () => {
    const state = async (...args: Parameters<typeof checkListSignature>) =>
      (await checkListSignature(...args)).state;
    expect(await state(read('changed'), read('one.sig'), read('one.key'))).toBe('changed');
    expect(await state(read('SUMS'), read('one.sig'), read('two.key'))).toBe('other key');
    expect(await state(read('SUMS'), read('one.sig'), read('SUMS'))).toBe('unreadable');
    expect(await state(read('SUMS'), undefined, read('one.key'))).toBe('unreadable');
    expect(await state(read('SUMS'), read('SUMS'), read('one.key'))).toBe('unreadable');
    const clear = readFileSync(room.path('one.clear'), 'utf8').replace('y.img', 'z.img');
    expect(await state(Buffer.from(clear), undefined, read('one.key'))).toBe('changed');
    expect((await checkListSignature(read('SUMS'), read('one.clear'), read('one.key'))).finding.code).toBe(
      'a signed list instead',
    );
  });
});
