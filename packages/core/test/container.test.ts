import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { composeFat } from '@zb/core/formats/fat/write';
import { composeGptDisk } from '@zb/core/formats/gpt/write';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { GrowsBeyond } from '@zb/core/container/fault';
import { gunzipMembers } from '@zb/core/container/gzip';
import { PackedSource } from '@zb/core/container/packedSource';
import { readWhole, type Unpacked, type UnpackOptions } from '@zb/core/starting/whole';
import { openPacked } from '@zb/core/container/unpack';
import { ESP_GUID } from '@zb/core/formats/gpt/layout';
import { readDisk } from '@zb/core/starting/inspect';
import { bytesSource } from '@zb/core/formats/source';
import { runs } from './runs';

jest.setTimeout(120_000);
const MIB = 1024 * 1024;
const dir = mkdtempSync(join(tmpdir(), 'zb-packed-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const sha256 = (b: Uint8Array): string => createHash('sha256').update(b).digest('hex');

/** An image whose loader lies behind everything that the first pass keeps. */
function far(): Uint8Array {
  const noise = new Uint8Array(8 * MIB);
  for (let i = 0, x = 7; i < noise.length; i += 1) {
    x = (Math.imul(x, 1103515245) + 12345) >>> 0;
    noise[i] = (x >>> 24) & 0x03;
  }
  const esp = composeFat({
    bytes: 10 * MIB,
    label: 'FAR',
    files: [
      { path: '/SYSTEM.BIN', bytes: noise },
      { path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader('hello') },
    ],
  });
  return composeGptDisk({
    bytes: 12 * MIB,
    diskGuid: '00000000-0000-4000-8000-000000000001',
    parts: [
      {
        start: MIB,
        content: esp,
        typeGuid: ESP_GUID,
        guid: '00000000-0000-4000-8000-000000000002',
        name: 'esp',
      },
    ],
  });
}
const image = far();
const plain = join(dir, 'plain.img');
writeFileSync(plain, image);
const pack = (command: string): Uint8Array => {
  execFileSync('sh', ['-c', `${command} > packed`], { cwd: dir });
  return new Uint8Array(readFileSync(join(dir, 'packed')));
};
const PACKED = {
  gzip: pack('gzip -1 -c plain.img'),
  xz: pack('xz -0 -c plain.img'),
  zstd: pack('zstd -q -c plain.img'),
  bzip2: pack('bzip2 -1 -c plain.img'),
  zip: pack('(rm -f a.zip; echo read > README.txt; zip -q a.zip plain.img README.txt; cat a.zip)'),
} as const;
const kinds = Object.keys(PACKED) as (keyof typeof PACKED)[];

const whole = async (bytes: Uint8Array, more: Partial<UnpackOptions> = {}): Promise<Unpacked> => {
  const done = await readWhole(bytesSource(bytes), { algorithms: ['sha256'], ...more });
  if (!done) throw new Error('stopped');
  return done;
};
async function content(kind: (typeof kinds)[number], bytes: Uint8Array): Promise<Uint8Array> {
  const packed = await openPacked(kind, bytesSource(bytes));
  const pieces: Uint8Array[] = [];
  for await (const piece of packed.content()) pieces.push(piece.slice());
  return Buffer.concat(pieces);
}

// Reference tools: gzip, xz, zstd, bzip2 and zip of Debian made the files.
describe('packed images', () => {
  it.each(kinds)(
    '%s: file and content are digested in one pass, and the image inside is read',
    async (kind) => {
      const { inspection, digests } = await whole(PACKED[kind]);
      expect(digests.sha256).toBe(sha256(PACKED[kind]));
      expect(inspection.container).toEqual({
        kind,
        innerName: kind === 'zip' ? 'plain.img' : null,
        innerBytes: image.length,
        innerSha256: sha256(image),
      });
      expect(inspection.inner).toEqual(await readDisk(bytesSource(image)));
      expect(inspection.inner?.outcomes.find((o) => o.firmware === 'uefi-x64')?.starts).toBe('yes');
      expect(inspection.outcomes.every((o) => o.starts === 'no')).toBe(true);
    },
  );

  it.each(kinds)(
    '%s: cut short or with a byte changed it is said to be damaged, and nothing hangs',
    async (kind) => {
      const bytes = PACKED[kind];
      const changed = bytes.slice();
      const at = Math.floor(bytes.length / 2);
      changed[at] = (changed[at] ?? 0) ^ 0x55;
      for (const bad of [bytes.slice(0, Math.floor(bytes.length * 0.7)), changed]) {
        const { inspection, digests } = await whole(bad);
        expect(digests.sha256).toBe(sha256(bad));
        expect(inspection.inner).toBeNull();
        expect(inspection.findings.at(-1)).toMatchObject({
          grade: 'stop',
          fault: { code: 'cannot be unpacked', why: { code: 'damaged' } },
        });
      }
    },
  );

  it.each(kinds)(
    '%s: who wants the content is given all of it once, in its order, and waited for',
    async (kind) => {
      const got: Uint8Array[] = [];
      let bytes = 0;
      let busy = false;
      await whole(PACKED[kind], {
        onContent: async (piece, offset) => {
          expect({ offset, busy }).toEqual({ offset: bytes, busy: false });
          busy = true;
          await Promise.resolve();
          got.push(piece.slice());
          bytes += piece.length;
          busy = false;
        },
      });
      expect(sha256(Buffer.concat(got))).toBe(sha256(image));
      await expect(
        whole(PACKED[kind], { onContent: () => Promise.reject(new Error('no room')) }),
      ).rejects.toThrow('no room');
    },
  );

  it('gives nothing of the content beyond the limit', async () => {
    let most = 0;
    const limit = 5 * MIB;
    await expect(
      whole(PACKED.gzip, {
        limit,
        onContent: (piece, offset) => {
          most = Math.max(most, offset + piece.length);
          return Promise.resolve();
        },
      }),
    ).rejects.toThrow(GrowsBeyond);
    expect(most).toBeGreaterThan(0);
    expect(most).toBeLessThanOrEqual(limit);
  });

  it('several members, streams or frames in a row are one content', async () => {
    const half = Math.floor(image.length / 2);
    writeFileSync(join(dir, 'a'), image.subarray(0, half));
    writeFileSync(join(dir, 'b'), image.subarray(half));
    for (const [kind, command] of [
      ['gzip', 'gzip -c'],
      ['xz', 'xz -0 -c'],
      ['zstd', 'zstd -q -c'],
      ['bzip2', 'bzip2 -1 -c'],
    ] as const) {
      const bytes = pack(`(${command} a; ${command} b)`);
      expect(sha256(await content(kind, bytes))).toBe(sha256(image));
    }
  });

  it('the slower way through a gzip file of several members holds each against its own sum', async () => {
    const bytes = pack('(gzip -1 -c a; gzip -1 -c b)');
    const read = async (b: Uint8Array): Promise<string> => {
      const hash = createHash('sha256');
      for await (const piece of gunzipMembers(new PackedSource(bytesSource(b), () => undefined)))
        hash.update(piece);
      return hash.digest('hex');
    };
    expect(await read(bytes)).toBe(sha256(image));
    const first = pack('gzip -1 -c a').length;
    const wrong = bytes.slice();
    wrong[first - 8] = (wrong[first - 8] ?? 0) ^ 1;
    await expect(read(wrong)).rejects.toThrow(/damaged/);
  });

  it('says so of an .xz file with a check that is not read here', async () => {
    const { inspection } = await whole(pack('xz -0 -c --check=sha256 a'));
    expect(inspection.findings.at(-1)?.fault).toMatchObject({ why: { code: 'xz check not read' } });
  });

  it('of a zip archive takes the one image, and names the choice where there are several or none', async () => {
    const two = await whole(
      pack('(rm -f z.zip; cp a one.img; cp a two.iso; zip -q z.zip one.img two.iso; cat z.zip)'),
    );
    expect(two.inspection.findings.at(-1)?.fault).toMatchObject({
      why: { code: 'several images', names: ['one.img', 'two.iso'] },
    });
    const none = await whole(pack('(rm -f z.zip; echo 1 > n1; echo 2 > n2; zip -q z.zip n1 n2; cat z.zip)'));
    expect(none.inspection.findings.at(-1)?.fault).toMatchObject({
      why: { code: 'no image among them', files: 2 },
    });
    const stored = await whole(pack('(rm -f z.zip; zip -q -0 z.zip plain.img; cat z.zip)'));
    expect(stored.inspection.container.innerSha256).toBe(sha256(image));
  });

  it('ends when it is told to', async () => {
    let asked = 0;
    const stopped = (): boolean => (asked += 1) > 3;
    for (const kind of kinds)
      expect(await readWhole(bytesSource(PACKED[kind]), { algorithms: ['sha256'], stopped })).toBeUndefined();
  });

  it('whatever bytes follow the mark of a container, an answer comes', async () => {
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...kinds), fc.uint8Array({ maxLength: 3000 }), async (kind, junk) => {
        const bytes = PACKED[kind].slice(0, 12 + junk.length);
        bytes.set(junk, 12);
        const { inspection } = await whole(bytes);
        expect(inspection.outcomes.some((o) => o.starts === 'yes')).toBe(false);
      }),
      { numRuns: runs(60) },
    );
  });
});
