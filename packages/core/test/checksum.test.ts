import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { algorithmsWanted, compareDigests, groupedHex } from '@zb/core/checksum/compare';
import { createDigest } from '@zb/core/checksum/digest';
import { WINDOW } from '@zb/core/checksum/sha256/compress';
import { createVectorSha256 } from '@zb/core/checksum/sha256/stream';
import { parseChecksumList, sizeFor, sumsFor, type ChecksumList } from '@zb/core/formats/checksumList';
import { crc32 } from '@zb/core/formats/crc32';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const must = <T>(x: T | undefined): T => {
  if (x === undefined) throw new Error('not there');
  return x;
};
const NOW = '2026-01-01T00:00:00.000Z';

describe('digests', () => {
  // NIST example values for FIPS 180-4: "abc", and the 448-bit message.
  it.each([
    ['sha256', 'abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
    ['sha256', '', 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855'],
    [
      'sha256',
      'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
      '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
    ],
    ['sha1', 'abc', 'a9993e364706816aba3e25717850c26c9cd0d89d'],
    [
      'sha512',
      'abc',
      'ddaf35a193617abacc417349ae20413112e6fa4e89a97ea20a9eeee64b55d39a2192992a274fc1a836ba3c23a3feebbd454d4423643ce80e2a9ac94fa54ca49f',
    ],
    // RFC 1321, appendix A.5.
    ['md5', 'message digest', 'f96b697d7cb7938d525a2f31aaf161d0'],
  ] as const)('%s of %p', async (algorithm, text, hex) => {
    const digest = await createDigest([algorithm]);
    digest.update(bytes(text));
    expect(digest.finish()).toEqual({ [algorithm]: hex });
  });

  it('one million times "a" (NIST long message), in uneven pieces, several algorithms at once', async () => {
    const digest = await createDigest(['sha1', 'sha256']);
    const all = new Uint8Array(1_000_000).fill(0x61);
    for (let at = 0, step = 1; at < all.length; at += step, step = (step * 7 + 3) % 9973 || 1)
      digest.update(all.subarray(at, at + step));
    expect(digest.finish()).toEqual({
      sha1: '34aa973cd4c4daa4f61eeb2bdbad27316534016f',
      sha256: 'cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0',
    });
  });

  // Lengths about a block (64 bytes), about the room its padding takes (9 bytes) and about the window (FIPS 180-4 §5.1.1).
  it('the program of its own agrees with the system library at the lengths about its borders', async () => {
    const source = Uint8Array.from({ length: 2 * WINDOW + 200 }, (_, i) => (i * 131 + (i >> 8)) & 255);
    const lengths = [0, WINDOW, 2 * WINDOW].flatMap((n) =>
      [-65, -64, -63, -10, -9, -8, -1, 0, 1, 54, 55, 56, 57, 63, 64, 65].map((by) => Math.max(0, n + by)),
    );
    for (const length of new Set(lengths)) {
      const running = await createVectorSha256();
      if (!running) throw new Error('this platform has vector instructions');
      const cut = Math.floor(length / 3);
      running.update(source.subarray(0, cut));
      running.update(source.subarray(cut, length));
      expect([length, running.finish()]).toEqual([
        length,
        createHash('sha256').update(source.subarray(0, length)).digest('hex'),
      ]);
    }
  });

  it('two at once do not share anything', async () => {
    const [one, other] = [must(await createVectorSha256()), must(await createVectorSha256())];
    one.update(bytes('ab'));
    other.update(bytes('message'));
    one.update(bytes('c'));
    expect(one.finish()).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    expect(other.finish()).toBe(createHash('sha256').update('message').digest('hex'));
  });

  it('agrees with the system library however the bytes are cut', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.uint8Array({ maxLength: 300 }), { maxLength: 8 }), async (pieces) => {
        const digest = await createDigest(['sha256', 'md5']);
        const sha = createHash('sha256');
        const md = createHash('md5');
        for (const p of pieces) {
          digest.update(p);
          sha.update(p);
          md.update(p);
        }
        expect(digest.finish()).toEqual({ sha256: sha.digest('hex'), md5: md.digest('hex') });
      }),
      { numRuns: 40 },
    );
  });

  // The check value of CRC-32/ISO-HDLC in ITU-T V.42 style catalogues: "123456789" gives CBF43926.
  it('CRC-32 check value', () => {
    expect(crc32(bytes('123456789'))).toBe(0xcbf43926);
    expect(crc32(bytes('6789'), crc32(bytes('12345')))).toBe(0xcbf43926);
  });
});

const compare = (digests: object, list: ChecksumList, name: string, from: string, bytes = 1000) =>
  compareDigests({ name, bytes, digests }, list, from, NOW);
const A = 'a'.repeat(64);
const B = 'b'.repeat(64);

describe('checksum lists', () => {
  it('reads GNU, BSD and bare lines, mixed, with CRLF and a byte-order mark', () => {
    const list = parseChecksumList(
      `\ufeff# sums\r\n${A}  one.img\r\n${B} *two.img\r\nSHA256 (three (copy).img) = ${A.toUpperCase()}\r\nMD5 (four.img) = ${'c'.repeat(32)}\r\n\r\n${B}\r\n`,
    );
    expect(list.unread).toEqual([]);
    expect(list.sums.map((s) => [s.algorithm, s.file, s.line])).toEqual([
      ['sha256', 'one.img', 2],
      ['sha256', 'two.img', 3],
      ['sha256', 'three (copy).img', 4],
      ['md5', 'four.img', 5],
      ['sha256', null, 7],
    ]);
    expect(list.sums[2]?.hex).toBe(A);
  });

  it('undoes the escapes of GNU coreutils, and only where the line says so', () => {
    const list = parseChecksumList(`\\${A}  a\\nb\\\\c.img\n${B}  d\\n.img`);
    expect(list.sums.map((s) => s.file)).toEqual(['a\nb\\c.img', 'd\\n.img']);
  });

  it('says which lines it could not read', () => {
    const list = parseChecksumList(`hello\n${A}  x\nSHA256 (y) = ${'d'.repeat(40)}\n${'e'.repeat(50)}  z`);
    expect(list.unread).toEqual([1, 3, 4]);
    expect(list.sums).toHaveLength(1);
  });

  it('finds a file by its name without folders, and a bare sum for any file', () => {
    const list = parseChecksumList(`${A}  ./images/one.img`);
    expect(sumsFor(list, 'one.img')).toHaveLength(1);
    expect(sumsFor(list, 'other.img')).toHaveLength(0);
    expect(sumsFor(parseChecksumList(A), 'whatever.img')).toHaveLength(1);
  });

  it('knows which algorithms must be computed', () => {
    expect(algorithmsWanted(undefined, 'x')).toEqual(['sha256']);
    expect(algorithmsWanted(parseChecksumList(`${'f'.repeat(128)}  x`), 'x')).toEqual(['sha256', 'sha512']);
  });
});

describe('comparing', () => {
  it('matches, differs, is not listed', () => {
    const list = parseChecksumList(`${A}  x.img`);
    expect(compare({ sha256: A }, list, 'x.img', 'LIST')).toMatchObject({
      verdict: 'same',
      from: 'LIST, line 1',
    });
    expect(compare({ sha256: B }, list, 'x.img', 'LIST')).toMatchObject({
      verdict: 'differs',
      published: A,
      computed: B,
    });
    expect(compare({ sha256: A }, list, 'y.img', 'LIST')?.verdict).toBe('not-listed');
  });

  it('is undefined while the listed algorithm has not been computed', () => {
    expect(compare({ sha256: A }, parseChecksumList(`${'1'.repeat(40)}  x`), 'x', 'L')).toBeUndefined();
  });

  it('one wrong sum decides, even beside a right one', () => {
    const list = parseChecksumList(`${A}  x\n${'1'.repeat(32)}  x`);
    expect(compare({ sha256: A, md5: '2'.repeat(32) }, list, 'x', 'L')).toMatchObject({
      verdict: 'differs',
      algorithm: 'md5',
    });
  });

  it('groups a digest by four', () => expect(groupedHex('0123456789ab')).toBe('0123 4567 89ab'));
});

describe('lists that name sizes', () => {
  it.each([
    ['beside BSD lines', `SIZE (dir/x.img) = 2000\nSHA256 (dir/x.img) = ${A}\n`],
    ['as package archives write them', `SHA256:\n ${A}         2000 dir/x.img\n`],
  ])('%s: another size decides before any sum', (_, text) => {
    const list = parseChecksumList(text);
    expect(sizeFor(list, 'x.img')?.bytes).toBe(2000);
    expect(compare({ sha256: A }, list, 'x.img', 'LIST', 1999)).toMatchObject({
      verdict: 'other-size',
      publishedBytes: 2000,
    });
    expect(compare({ sha256: A }, list, 'x.img', 'LIST', 2000)).toMatchObject({
      verdict: 'same',
      publishedBytes: 2000,
    });
  });

  it('a GNU line whose name begins with digits is no size line', () => {
    const list = parseChecksumList(`${A}  12 inch.img\n`);
    expect(list.sizes).toEqual([]);
    expect(sumsFor(list, '12 inch.img')).toHaveLength(1);
  });

  it('the frame of a clear signature is passed over, line numbers stay', () => {
    const list = parseChecksumList(
      `-----BEGIN PGP SIGNED MESSAGE-----\nHash: SHA512\n\n${A}  x.img\n- --dash.img\n-----BEGIN PGP SIGNATURE-----\n\n${B}\n-----END PGP SIGNATURE-----\n`,
    );
    expect(list.sums.map((s) => [s.file, s.line])).toEqual([['x.img', 4]]);
    expect(list.unread).toEqual([5]);
  });
});

describe('packed files and lists', () => {
  const container = { kind: 'gzip', innerName: null, innerBytes: 5000, innerSha256: B } as const;
  const packed = (text: string) =>
    compareDigests(
      { name: 'x.img.gz', bytes: 900, digests: { sha256: A }, container },
      parseChecksumList(text),
      'L',
      NOW,
    );

  it('are compared as they are where they are listed so, else by what is inside', () => {
    expect(packed(`${A}  x.img.gz\n${A}  x.img\n`)).toMatchObject({ verdict: 'same', of: 'file' });
    expect(packed(`${B}  x.img\n`)).toMatchObject({ verdict: 'same', of: 'content', computed: B });
    expect(packed(`${A}  x.img\n`)).toMatchObject({ verdict: 'differs', of: 'content' });
    expect(packed(`SIZE (x.img) = 4999\nSHA256 (x.img) = ${B}\n`)).toMatchObject({
      verdict: 'other-size',
      of: 'content',
    });
    expect(packed(`${A}  y.img\n`)).toMatchObject({ verdict: 'not-listed' });
  });
  it('a bare sum may be of either', () => {
    expect(packed(A)).toMatchObject({ verdict: 'same', of: 'file' });
    expect(packed(B)).toMatchObject({ verdict: 'same', of: 'content' });
    expect(packed('c'.repeat(64))).toMatchObject({ verdict: 'differs', of: 'file' });
  });
});
