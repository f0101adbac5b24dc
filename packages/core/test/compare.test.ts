import fc from 'fast-check';
import { compareBlocks, BLOCK } from '@zb/core/write/compareBlocks';
import { compareImages, type ImageComparison } from '@zb/core/write/compareImages';
import { composeFat } from '@zb/core/formats/fat/write';
import { composeMbrDisk } from '@zb/core/formats/mbr/write';
import { composeGptDisk } from '@zb/core/formats/gpt/write';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { mbrBootCode } from '@zb/core/demo/bootCode';
import { put32 } from '@zb/core/formats/put';
import { ESP_GUID } from '@zb/core/formats/gpt/layout';
import { bytesSource } from '@zb/core/formats/source';
import { gzipSync } from 'node:zlib';
import { runs } from './runs';

const MIB = 1024 * 1024;
const noise = (n: number): Uint8Array =>
  Uint8Array.from({ length: n }, (_, i) => (Math.imul(i, 2654435761) >>> 13) & 255);
const fat = (name: string, arch: 'x64' | 'ia32' = 'x64'): Uint8Array =>
  composeFat({
    bytes: 4 * MIB,
    label: 'VOLUME',
    files: [
      { path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader('hello', arch) },
      { path: `/${name}`, bytes: noise(3 * MIB) },
    ],
  });
const disk = (content = fat('A.BIN'), bytes = 6 * MIB): Uint8Array =>
  composeGptDisk({
    bytes,
    diskGuid: '00000000-0000-4000-8000-000000000001',
    parts: [
      { start: MIB, content, typeGuid: ESP_GUID, guid: '00000000-0000-4000-8000-000000000002', name: 'esp' },
    ],
  });
const compare = async (a: Uint8Array, b: Uint8Array): Promise<ImageComparison> => {
  const found = await compareImages(bytesSource(a), bytesSource(b));
  if (!found) throw new Error('stopped');
  return found;
};
const image = disk();

describe('a dump against its image', () => {
  it('that agrees is proven, whatever follows on the stick', async () => {
    const { blocks, differences, trees } = await compare(image, image);
    expect(blocks).toMatchObject({ result: 'proven', pattern: 'same', differingBytes: 0, firstByte: null });
    expect(differences).toEqual([]);
    expect(trees).toMatchObject([{ onlyInFirst: [], onlyInSecond: [], sizes: [], same: 2 }]);
    const stick = new Uint8Array(image.length + MIB);
    stick.set(image);
    expect((await compare(image, stick)).blocks).toMatchObject({
      pattern: 'same',
      beyond: MIB,
    });
  });

  it('zeros from some offset to the end are a lying capacity', async () => {
    const dump = image.slice();
    dump.fill(0, 3 * MIB + 8192);
    const { blocks } = await compare(image, dump);
    expect(blocks).toMatchObject({ pattern: 'lying capacity', firstDifference: 3 * MIB + 8192 });
    expect(blocks.stretches.map((s) => s.title)).toContain('VOLUME');
  });

  it('one turned bit is told from a weak place, and its byte is named', async () => {
    const dump = image.slice();
    dump[2 * MIB + 77] = (dump[2 * MIB + 77] ?? 0) ^ 0x10;
    expect((await compare(image, dump)).blocks).toMatchObject({
      pattern: 'flipped bit',
      firstByte: 2 * MIB + 77,
      differingBytes: 1,
      differing: 1,
    });
    dump[2 * MIB + 78] = (dump[2 * MIB + 78] ?? 0) ^ 0xff;
    expect((await compare(image, dump)).blocks.pattern).toBe('weak place');
  });

  it.each([3, 8])('every %d-th block in equal steps is a lost chip', async (n) => {
    const dump = image.slice();
    for (let at = 2 * MIB; at < 4 * MIB; at += n * BLOCK) dump.fill(0xff, at, at + BLOCK);
    const { blocks } = await compare(image, dump);
    expect(blocks.pattern).toBe('every n-th block');
    expect(blocks.step).toBe(n);
  });

  it('a last part that has grown is a first start, and normal', async () => {
    const make = (sectors: number): Uint8Array => {
      const d = composeMbrDisk({
        bytes: 8 * MIB,
        start: MIB,
        type: 0x0c,
        content: fat('A.BIN'),
        bootCode: mbrBootCode(),
      });
      put32(d, 446 + 12, sectors);
      return d;
    };
    const dump = make((6 * MIB) / 512);
    dump.fill(7, 2 * MIB, 2 * MIB + 100);
    const { blocks, differences } = await compare(make((4 * MIB) / 512), dump);
    expect(blocks).toMatchObject({
      pattern: 'changed by the first start',
      grown: { from: 4 * MIB, to: 6 * MIB },
    });
    expect(differences.some((d) => d.about === 'part')).toBe(true);
  });

  it('only the tables changed: the parts were written well', async () => {
    const dump = image.slice();
    dump.fill(0xee, image.length - 512 * 4, image.length - 512);
    expect((await compare(image, dump)).blocks).toMatchObject({
      pattern: 'changed by the first start',
      grown: null,
    });
  });

  it('a short dump is said to be short', async () =>
    expect((await compare(image, image.slice(0, 2 * MIB))).blocks).toMatchObject({
      pattern: 'cut short',
      firstDifference: 2 * MIB,
      differing: 0,
    }));

  it('a packed image is compared by what is inside', async () => {
    const { blocks, trees } = await compare(new Uint8Array(gzipSync(image)), image);
    expect(blocks.pattern).toBe('same');
    expect(trees).toBeNull();
  });

  it('counts and places are those of a plain count, however the image comes in pieces', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uint8Array({ minLength: 1, maxLength: 30_000 }),
        fc.array(fc.tuple(fc.nat(29_999), fc.integer({ min: 1, max: 255 })), { maxLength: 6 }),
        fc.integer({ min: 1, max: 9000 }),
        async (bytes, edits, step) => {
          const dump = bytes.slice();
          for (const [at, x] of edits) if (at < dump.length) dump[at] = (dump[at] ?? 0) ^ x;
          async function* pieces(): AsyncGenerator<Uint8Array> {
            for (let at = 0; at < bytes.length; at += step)
              yield await Promise.resolve(bytes.subarray(at, at + step));
          }
          const tally = await compareBlocks(pieces(), bytesSource(dump));
          const wrong = [...bytes.keys()].filter((i) => bytes[i] !== dump[i]);
          expect(tally?.compared).toBe(bytes.length);
          expect(tally?.first).toBe(wrong[0] ?? null);
          expect(tally?.differingBytes).toBe(wrong.length);
          expect(tally?.bad.map((b) => b.index)).toEqual([
            ...new Set(wrong.map((i) => Math.floor(i / BLOCK))),
          ]);
        },
      ),
      { numRuns: runs(60) },
    );
  });
});

describe('two images', () => {
  it('are told apart by loaders, outcomes and trees', async () => {
    const { differences, trees } = await compare(image, disk(fat('B.BIN', 'ia32')));
    expect(differences.find((d) => d.about === 'loader')).toMatchObject({
      first: { machine: 'x64' },
      second: { machine: 'ia32' },
    });
    expect(differences.find((d) => d.about === 'outcome')).toMatchObject({
      first: 'yes',
      second: 'no',
    });
    expect(trees).toMatchObject([{ onlyInFirst: ['/A.BIN'], onlyInSecond: ['/B.BIN'] }]);
  });
  it('of other sizes say so first', async () =>
    expect((await compare(image, disk(fat('A.BIN'), 7 * MIB))).differences[0]).toMatchObject({
      about: 'size',
    }));
});
