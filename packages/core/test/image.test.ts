import { startWords } from '@zb/core/words/start';
import fc from 'fast-check';
import { depotImages, brokenDownload } from '@zb/core/demo/depot';
import { composeFat } from '@zb/core/formats/fat/write';
import { composeMbrDisk } from '@zb/core/formats/mbr/write';
import { composeGptDisk } from '@zb/core/formats/gpt/write';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { loadBootCode, mbrBootCode, sayKernel } from '@zb/core/demo/bootCode';
import { put16, put32, putText } from '@zb/core/formats/put';
import { containerKind } from '@zb/core/container/kind';
import { fatGeometry, openFat } from '@zb/core/formats/fat/read';
import { BASIC_DATA_GUID, ESP_GUID } from '@zb/core/formats/gpt/layout';
import { guidBytes, guidText, readGpt } from '@zb/core/formats/gpt/read';
import { readableHeights } from '@zb/core/image/heights';
import { inspectImage } from '@zb/core/starting/inspect';
import { bootCodeKind } from '@zb/core/image/bootCode';
import { readMbr } from '@zb/core/formats/mbr/read';
import { readLoader } from '@zb/core/formats/pe/read';
import { bytesSource, cachedSource, slice, type ByteSource } from '@zb/core/formats/source';
import type { FirmwareKind, Inspection } from '@zb/core/model/inspection';
import { runs } from './runs';

const MIB = 1024 * 1024;
const inspect = (b: Uint8Array): Promise<Inspection> => inspectImage(bytesSource(b));
const row = (i: Inspection, firmware: FirmwareKind, attached: 'disk' | 'optical' = 'disk') =>
  i.outcomes.find((o) => o.firmware === firmware && o.attached === attached);

const esp = (files = [{ path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader('hello') }]): Uint8Array =>
  composeFat({ bytes: 4 * MIB, label: 'ESP', files });
const gptDisk = (content = esp(), typeGuid = ESP_GUID): Uint8Array =>
  composeGptDisk({
    bytes: 8 * MIB,
    diskGuid: '00000000-0000-4000-8000-000000000001',
    parts: [{ start: MIB, content, typeGuid, guid: '00000000-0000-4000-8000-000000000002', name: 'esp' }],
  });

/** A source that counts what is asked of it. */
function counting(b: Uint8Array): ByteSource & { asked: number } {
  const source = {
    size: b.length,
    asked: 0,
    read: (o: number, n: number) => ((source.asked += n), Promise.resolve(b.subarray(o, o + n))),
  };
  return source;
}

describe('GUIDs', () => {
  // UEFI 2.10, table 5.7: the EFI system partition, and appendix A for the byte order.
  it('are mixed-endian', () => {
    const raw = guidBytes('C12A7328-F81F-11D2-BA4B-00A0C93EC93B');
    expect([...raw.subarray(0, 8)]).toEqual([0x28, 0x73, 0x2a, 0xc1, 0x1f, 0xf8, 0xd2, 0x11]);
    expect(guidText(raw, 0)).toBe(ESP_GUID);
  });
  it('come back as they went', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 16, maxLength: 16 }), (raw) =>
        expect(guidBytes(guidText(raw, 0))).toEqual(raw),
      ),
    );
  });
});

describe('GPT', () => {
  it('reads both copies of what was composed', async () => {
    const gpt = await readGpt(bytesSource(gptDisk()));
    expect(gpt?.primary?.sound).toBe(true);
    expect(gpt?.backup?.sound).toBe(true);
    expect(gpt?.parts).toMatchObject([
      { index: 1, start: MIB, bytes: 4 * MIB, name: 'esp', typeGuid: ESP_GUID },
    ]);
  });

  it('falls back to the second copy when a bit of the first turns', async () => {
    const disk = gptDisk();
    disk[512 + 72] = (disk[512 + 72] ?? 0) ^ 1;
    const gpt = await readGpt(bytesSource(disk));
    expect(gpt?.primary?.faults).toContain('header checksum wrong');
    expect(gpt?.parts).toHaveLength(1);
    const seen = await inspect(disk);
    expect(row(seen, 'uefi-x64')?.starts).toBe('yes');
    expect(seen.findings).toEqual(
      expect.arrayContaining([
        expect.objectContaining({
          grade: 'check',
          fault: expect.objectContaining({ code: 'table copy unsound', copy: 'first', other: true }),
        }),
      ]),
    );
  });

  it('trusts neither copy when both are wrong, and then UEFI starts nothing', async () => {
    const disk = gptDisk();
    disk[1024] = (disk[1024] ?? 0) ^ 1;
    disk[8 * MIB - 33 * 512] = (disk[8 * MIB - 33 * 512] ?? 0) ^ 1;
    expect((await readGpt(bytesSource(disk)))?.parts).toEqual([]);
    expect(row(await inspect(disk), 'uefi-x64')).toMatchObject({
      starts: 'no',
      reason: { code: 'no copy of the table sound' },
    });
  });

  it('any single flipped bit in header or array is noticed', async () => {
    const disk = gptDisk();
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 512, max: 512 + 91 }),
        fc.integer({ min: 0, max: 7 }),
        async (at, bit) => {
          const copy = disk.slice();
          copy[at] = (copy[at] ?? 0) ^ (1 << bit);
          expect((await readGpt(bytesSource(copy)))?.primary?.sound ?? false).toBe(false);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('says that the file is cut short', async () => {
    const seen = await inspect(gptDisk().slice(0, 3 * MIB));
    expect(seen.findings.find((f) => f.grade === 'stop')?.fault.code).toBe('cut short');
    expect(seen.regions.some((r) => r.kind === 'beyond')).toBe(true);
  });

  it('does not believe impossible dimensions', async () => {
    const disk = gptDisk();
    put32(disk, 512 + 80, 0xffffffff);
    expect((await readGpt(bytesSource(disk)))?.primary?.faults).toContain('array dimensions impossible');
  });
});

describe('MBR', () => {
  const disk = (): Uint8Array =>
    composeMbrDisk({ bytes: 6 * MIB, start: MIB, type: 0x0e, content: esp(), bootCode: mbrBootCode() });

  it('reads entries and the active flag', async () => {
    const mbr = await readMbr(bytesSource(disk()));
    expect(mbr?.entries).toEqual([
      { index: 1, flag: 0x80, active: true, type: 0x0e, start: MIB, bytes: 4 * MIB, at: 446 },
    ]);
    expect(bootCodeKind(mbr?.bootCode ?? new Uint8Array())).toBe('unrecognised');
  });

  it('is none without the end mark, with a strange flag, or without entries', async () => {
    for (const spoil of [
      (d: Uint8Array) => put16(d, 510, 0),
      (d: Uint8Array) => (d[446] = 0x41),
      (d: Uint8Array) => d.fill(0, 446, 510),
    ]) {
      const d = disk();
      spoil(d);
      expect(await readMbr(bytesSource(d))).toBeUndefined();
    }
  });

  it('walks logical drives and survives a chain that bites its tail', async () => {
    const d = new Uint8Array(4 * MIB);
    const entry = (at: number, slot: number, type: number, start: number, count: number): void => {
      d[at + 446 + 16 * slot + 4] = type;
      put32(d, at + 446 + 16 * slot + 8, start);
      put32(d, at + 446 + 16 * slot + 12, count);
      put16(d, at + 510, 0xaa55);
    };
    entry(0, 0, 0x05, 2048, 4096);
    entry(2048 * 512, 0, 0x83, 63, 1000);
    entry(2048 * 512, 1, 0x05, 1024, 1024);
    entry(3072 * 512, 0, 0x82, 63, 500);
    entry(3072 * 512, 1, 0x05, 0, 1024);
    const mbr = await readMbr(bytesSource(d));
    expect(mbr?.entries.map((e) => [e.index, e.type, e.start / 512])).toEqual([
      [1, 0x05, 2048],
      [5, 0x83, 2048 + 63],
      [6, 0x82, 3072 + 63],
    ]);
  });

  it('tells boot code by its messages', () => {
    const code = (text: string): Uint8Array => {
      const b = new Uint8Array(440);
      putText(b, 100, text);
      return b;
    };
    expect(bootCodeKind(new Uint8Array(440))).toBe('none');
    expect(bootCodeKind(code('Missing operating system.'))).toBe('numbered part');
    expect(bootCodeKind(code('This is not a bootable disk.'))).toBe('message only');
    expect(bootCodeKind(code('something else'))).toBe('unrecognised');
  });

  it('BIOS: active part with code starts; without an active part, boot code, or record it does not', async () => {
    const good = composeMbrDisk({
      bytes: 6 * MIB,
      start: MIB,
      type: 0x0e,
      bootCode: mbrBootCode(),
      content: composeFat({
        bytes: 4 * MIB,
        label: 'X',
        files: [],
        bootCode: loadBootCode(MIB / 512 + 1),
        reserved: sayKernel('hi'),
      }),
    });
    expect(row(await inspect(good), 'bios')).toMatchObject({ starts: 'yes' });
    const noCode = good.slice();
    noCode.fill(0, 0, 440);
    expect(row(await inspect(noCode), 'bios')).toMatchObject({
      starts: 'no',
      reason: { code: 'boot code empty' },
    });
    const emptyRecord = good.slice();
    emptyRecord.fill(0, MIB + 62, MIB + 510);
    expect(row(await inspect(emptyRecord), 'bios')?.starts).toBe('no');
    const inactive = good.slice();
    inactive[446] = 0;
    expect(row(await inspect(inactive), 'bios')).toMatchObject({
      starts: 'no',
      reason: { code: 'reads in a circle' },
    });
    const noKernel = good.slice();
    noKernel.fill(0, MIB + 512, MIB + 512 * 5);
    expect(row(await inspect(noKernel), 'bios')).toMatchObject({
      starts: 'no',
      reason: { code: 'goes on to nothing' },
    });
    const otherKernel = good.slice();
    otherKernel[MIB + 512 + 0x202] = 0;
    expect(row(await inspect(otherKernel), 'bios')?.starts).toBe('unknown');
    const beyond = good.slice();
    put32(beyond, MIB + 62 + 0x2c, 1_000_000);
    expect(row(await inspect(beyond), 'bios')).toMatchObject({
      starts: 'no',
      reason: { code: 'looks beyond the image' },
    });
  });
});

describe('FAT', () => {
  // FAT specification 1.03, §3.5: fewer than 4085 clusters is FAT12, fewer than 65525 FAT16, else FAT32.
  it.each([
    [4084, 'fat12'],
    [4085, 'fat16'],
    [65524, 'fat16'],
  ])('%d clusters make %s', (clusters, kind) => {
    const b = new Uint8Array(512);
    b.set([0xeb, 0x3c, 0x90]);
    put16(b, 11, 512);
    b[13] = 1;
    put16(b, 14, 1);
    b[16] = 2;
    put16(b, 17, 512);
    b[21] = 0xf8;
    put16(b, 22, 256);
    put32(b, 32, 1 + 2 * 256 + 32 + clusters);
    expect(fatGeometry(b)?.kind).toBe(kind);
  });

  it('reads label, tree and file bytes back, whatever the case asked for', async () => {
    const data = Uint8Array.from({ length: 5000 }, (_, i) => i % 251);
    const fat = await openFat(
      bytesSource(
        composeFat({
          bytes: 2 * MIB,
          label: 'SHELF',
          files: [
            { path: '/A/B/DATA.BIN', bytes: data },
            { path: '/README.TXT', bytes: new Uint8Array(3) },
          ],
        }),
      ),
    );
    expect(fat?.label).toBe('SHELF');
    expect((await fat?.list('/'))?.map((e) => [e.name, e.directory])).toEqual([
      ['A', true],
      ['README.TXT', false],
    ]);
    const entry = await fat?.find('/a/b/data.bin');
    expect(entry?.bytes).toBe(5000);
    expect(entry && (await fat?.readFile(entry))).toEqual(data);
    expect(await fat?.find('/a/none/data.bin')).toBeUndefined();
    expect(await fat?.find('/readme.txt/deeper')).toBeUndefined();
  });

  it('round trip for any files that fit', async () => {
    const name = fc.stringMatching(/^[A-Z][A-Z0-9]{0,7}$/);
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.tuple(name, fc.uint8Array({ minLength: 1, maxLength: 3000 })), {
          selector: ([n]) => n,
          maxLength: 12,
        }),
        async (files) => {
          const image = composeFat({
            bytes: MIB,
            label: 'P',
            files: files.map(([n, bytes]) => ({ path: `/D/${n}`, bytes })),
          });
          const fat = await openFat(bytesSource(image));
          for (const [n, bytes] of files) {
            const entry = await fat?.find(`/D/${n}`);
            expect(entry && (await fat?.readFile(entry))).toEqual(bytes);
          }
        },
      ),
      { numRuns: runs(25) },
    );
  });

  it('refuses names and contents that do not go in', () => {
    expect(() =>
      composeFat({
        bytes: MIB,
        label: 'X',
        files: [{ path: '/much-too-long.text', bytes: new Uint8Array(1) }],
      }),
    ).toThrow(/8\.3/);
    expect(() =>
      composeFat({ bytes: MIB, label: 'X', files: [{ path: '/BIG.BIN', bytes: new Uint8Array(2 * MIB) }] }),
    ).toThrow(/fit/);
  });

  it('a looped cluster chain ends', async () => {
    const image = composeFat({
      bytes: MIB,
      label: 'LOOP',
      files: [{ path: '/L.BIN', bytes: new Uint8Array(2000) }],
    });
    const fat = await openFat(bytesSource(image));
    const entry = await fat?.find('/L.BIN');
    image[512 + 3] = 0x02;
    image[512 + 4] = 0x20;
    image[512 + 5] = 0x00;
    expect(entry && (await fat?.readFile({ ...entry, bytes: 10_000 }))?.length).toBeLessThanOrEqual(10_000);
  });
});

describe('loaders', () => {
  const read = (b: Uint8Array) => readLoader(bytesSource(b));

  it.each(['x64', 'ia32', 'aa64'] as const)('reads our own loader for %s', async (arch) =>
    expect(await read(efiLoader('x', arch))).toMatchObject({
      machine: arch,
      signed: false,
      fault: undefined,
    }),
  );

  // PE/COFF specification, "Machine Types": i386 0x14c, ARM64 0xaa64.
  it.each([
    [0x14c, 'ia32'],
    [0xaa64, 'aa64'],
    [0x1c2, 'arm'],
    [0x1234, 'other'],
  ])('machine %p is %s', async (code, machine) => {
    const loader = efiLoader('x');
    put16(loader, 0x44, code);
    expect((await read(loader))?.machine).toBe(machine);
  });

  it('sees a certificate table, and no loader in damaged or foreign headers', async () => {
    const signed = efiLoader('x');
    put32(signed, 0x40 + 24 + 112 + 4 * 8, 4096);
    put32(signed, 0x40 + 24 + 112 + 4 * 8 + 4, 1000);
    expect((await read(signed))?.signed).toBe(true);
    const console = efiLoader('x');
    put16(console, 0x40 + 24 + 68, 3);
    expect(await read(console)).toBeUndefined();
    expect(await read(new Uint8Array(4096))).toBeUndefined();
    expect(await read(new Uint8Array(0))).toBeUndefined();
  });

  it('says what of a loader cannot run: cut off, or its first code wiped', async () => {
    const loader = efiLoader('x');
    expect((await read(loader.subarray(0, 600)))?.fault).not.toBe('');
    const wiped = loader.slice();
    wiped.fill(0, 512, 1024);
    expect((await read(wiped))?.fault).not.toBe('');
  });
});

describe('outcomes', () => {
  it('ten rows, one for each pair', async () => {
    const { outcomes } = await inspect(gptDisk());
    expect(outcomes).toHaveLength(10);
    expect(new Set(outcomes.map((o) => o.firmware + o.attached)).size).toBe(10);
    for (const o of outcomes) expect(startWords(o)).not.toBe('');
  });

  it('the architecture must be right, in name and in bytes', async () => {
    const ia32 = efiLoader('x', 'ia32');
    const disk = await inspect(gptDisk(esp([{ path: '/EFI/BOOT/BOOTX64.EFI', bytes: ia32 }])));
    expect(row(disk, 'uefi-x64')).toMatchObject({
      starts: 'no',
      reason: { code: 'loader for another architecture', machine: 'ia32' },
    });
    expect(row(disk, 'uefi-ia32')?.starts).toBe('no');
    const right = await inspect(gptDisk(esp([{ path: '/EFI/BOOT/BOOTIA32.EFI', bytes: ia32 }])));
    expect(row(right, 'uefi-ia32')?.starts).toBe('yes');
    expect(row(right, 'uefi-x64')?.starts).toBe('no');
  });

  it('a loader on a plain data part is found as well (removable media, UEFI 2.10 §3.5.1.1)', async () => {
    expect(row(await inspect(gptDisk(esp(), BASIC_DATA_GUID)), 'uefi-x64')?.starts).toBe('yes');
  });

  it('without the protective record the table is passed over', async () => {
    const disk = gptDisk();
    disk.fill(0, 446, 462);
    expect(row(await inspect(disk), 'uefi-x64')?.starts).toBe('no');
  });

  it('never yes where the loader bytes are destroyed', async () => {
    const good = gptDisk();
    const seen = await inspect(good);
    const at = seen.loaders[0]?.offset ?? 0;
    expect(at).toBeGreaterThan(MIB);
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ minLength: 512, maxLength: 512 }), async (junk) => {
        const copy = good.slice();
        copy.set(junk, at);
        if (junk[0] === 0x4d && junk[1] === 0x5a) return;
        expect(row(await inspect(copy), 'uefi-x64')?.starts).toBe('no');
      }),
      { numRuns: 20 },
    );
  });

  it.each([
    ['gzip', [0x1f, 0x8b, 8]],
    ['xz', [0xfd, 0x37, 0x7a, 0x58, 0x5a, 0]],
    ['zstd', [0x28, 0xb5, 0x2f, 0xfd]],
    ['bzip2', [0x42, 0x5a, 0x68, 0x39, 0x31, 0x41, 0x59, 0x26, 0x53, 0x59]],
    ['zip', [0x50, 0x4b, 3, 4]],
  ] as const)('%s is named, and starts nothing as it is', async (kind, magic) => {
    const b = new Uint8Array(4096);
    b.set(magic);
    expect(containerKind(b)).toBe(kind);
    const seen = await inspect(b);
    expect(seen.outcomes.every((o) => o.starts === 'no')).toBe(true);
    expect(seen.findings[0]).toMatchObject({ grade: 'stop' });
  });

  it.each([0, 1, 511, 512, 4096])('a file of %d zero bytes is nothing, and says so', async (n) => {
    const seen = await inspect(new Uint8Array(n));
    expect(seen.outcomes.some((o) => o.starts === 'yes')).toBe(false);
    expect(seen.findings.some((f) => f.grade === 'stop')).toBe(true);
  });

  it('a FAT volume without a table that is cut short is found out by its own boot sector', async () => {
    const whole = esp();
    expect((await inspect(whole)).findings).toEqual([]);
    const cut = await inspect(whole.subarray(0, 3 * MIB));
    expect(cut.findings).toMatchObject([{ grade: 'stop', fault: { code: 'cut short' } }]);
  });

  it('mutated and cut images never throw and are read within bounds', async () => {
    const seeds = [
      gptDisk(),
      composeMbrDisk({ bytes: 6 * MIB, start: MIB, type: 0x0e, content: esp(), bootCode: mbrBootCode() }),
      depotImages[1]?.build() ?? new Uint8Array(0),
    ];
    await fc.assert(
      fc.asyncProperty(
        fc.nat(seeds.length - 1),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 70_000 }), fc.integer({ min: 0, max: 255 })), {
          maxLength: 40,
        }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        async (which, edits, keep) => {
          const seed = seeds[which] ?? new Uint8Array(0);
          const copy = seed.slice(0, Math.floor(seed.length * keep));
          for (const [at, value] of edits) if (at < copy.length) copy[at] = value;
          const source = counting(copy);
          const seen = await inspectImage(source);
          if (seen.outcomes.length !== 10) throw new Error(`${seen.outcomes.length} rows`);
          expect(source.asked).toBeLessThan(64 * MIB);
        },
      ),
      { numRuns: runs(150) },
    );
  }, 60_000);
});

describe('anatomy', () => {
  it.each(depotImages.map((d) => [d.file, d] as const))(
    '%s: stretches follow each other without a hole',
    async (_name, image) => {
      const b = image.build();
      const { regions } = await inspect(b);
      let at = 0;
      for (const r of regions) {
        expect(r.start).toBe(at);
        expect(r.bytes).toBeGreaterThan(0);
        at += r.bytes;
      }
      expect(at).toBe(b.length);
      expect(regions.some((r) => r.starts)).toBe(true);
    },
  );

  it('gives every stretch a readable height and spends the room it has', () => {
    const heights = readableHeights(
      [
        { bytes: 512, kind: 'code', detail: '' },
        { bytes: 1e12, kind: 'part', detail: '' },
        { bytes: 1e6, kind: 'gap', detail: '' },
      ],
      400,
    );
    expect(Math.min(...heights)).toBeGreaterThanOrEqual(26);
    expect(Math.abs(heights.reduce((a, b) => a + b, 0) - 400)).toBeLessThanOrEqual(2);
  });
});

describe('sources', () => {
  it('a slice never reaches outside', async () => {
    const s = slice(bytesSource(Uint8Array.from([1, 2, 3, 4, 5])), 1, 3);
    expect(s.size).toBe(3);
    expect([...(await s.read(2, 10))]).toEqual([4]);
    expect((await s.read(3, 1)).length).toBe(0);
  });

  it('the cache answers as the source does and reads each page once', async () => {
    const data = Uint8Array.from({ length: 100_000 }, (_, i) => (i * 7) & 255);
    const cached = cachedSource(bytesSource(data));
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: 110_000 }),
        fc.integer({ min: 0, max: 40_000 }),
        // Held against each other by the runtime: comparing so many bytes one by one takes long.
        async (o, n) => expect(Buffer.compare(await cached.read(o, n), data.slice(o, o + n))).toBe(0),
      ),
    );
    expect(cached.bytesRead()).toBeLessThanOrEqual(data.length);
  });
});

describe('the depot', () => {
  it('inspecting a 32 MiB image reads a small part of it', async () => {
    const source = counting(depotImages[0]?.build() ?? new Uint8Array(0));
    await inspectImage(source);
    expect(source.asked).toBeLessThan(2 * MIB);
  });

  it('the broken download is cut and differs, and says so', async () => {
    const whole = depotImages.find((d) => d.file === brokenDownload.of)?.build() ?? new Uint8Array(0);
    const broken = brokenDownload.spoil(whole);
    expect(broken.length).toBeLessThan(whole.length);
    expect(
      (await inspect(broken)).findings.some((f) => f.grade === 'stop' && f.fault.code === 'cut short'),
    ).toBe(true);
  });
});
