import { modeCard } from '@zb/core/words/forBox';
import { imageFaultWords } from '@zb/core/words/imageFinding';
import { mbrBootCode } from '@zb/core/demo/bootCode';
import { composeMbrDisk } from '@zb/core/formats/mbr/write';
import { composeGptDisk } from '@zb/core/formats/gpt/write';
import { composeFat } from '@zb/core/formats/fat/write';
import { composeIso } from '@zb/core/formats/iso9660/write';
import { efiLoader } from '@zb/core/demo/efiLoader';
import { boxAdvice } from '@zb/core/starting/forBox';
import { startOn } from '@zb/core/starting/forMachine';
import { ESP_GUID } from '@zb/core/formats/gpt/layout';
import { inspectImage } from '@zb/core/starting/inspect';
import { hexLines, loadersIn, trueScale } from '@zb/core/image/section';
import { bytesSource } from '@zb/core/formats/source';
import type { FirmwareKind, ImageReading, Inspection } from '@zb/core/model/inspection';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine, type Machine } from '@zb/core/model/bench';

const MIB = 1024 * 1024;
const inspect = (b: Uint8Array): Promise<Inspection> => inspectImage(bytesSource(b));
const row = (i: Inspection, firmware: FirmwareKind) =>
  i.outcomes.find((o) => o.firmware === firmware && o.attached === 'disk');
const esp = (): Uint8Array =>
  composeFat({
    bytes: 4 * MIB,
    label: 'ESP',
    files: [{ path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader('hello') }],
  });
const gptDisk = (): Uint8Array =>
  composeGptDisk({
    bytes: 8 * MIB,
    diskGuid: '00000000-0000-4000-8000-000000000001',
    parts: [
      {
        start: MIB,
        content: esp(),
        typeGuid: ESP_GUID,
        guid: '00000000-0000-4000-8000-000000000002',
        name: 'esp',
      },
    ],
  });

describe('what a file has too much or too little', () => {
  const stop = (i: Inspection): string[] => i.findings.map((f) => `${f.grade}: ${imageFaultWords(f.fault)}`);

  it('cut behind its last part: the table was made for a larger disk, and that is all', async () => {
    const seen = await inspect(gptDisk().slice(0, 6 * MIB));
    expect(stop(seen).join('\n')).toMatch(/check: The partition table was made for a disk of/);
    expect(stop(seen).join('\n')).not.toMatch(/cut short/);
    expect(row(seen, 'uefi-x64')?.starts).toBe('yes');
  });
  it('cut inside a part: cut short, and not said twice', async () => {
    const said = stop(await inspect(gptDisk().slice(0, 3 * MIB))).join('\n');
    expect(said).toMatch(/stop: The file is cut short/);
    expect(said).not.toMatch(/made for a disk/);
  });
  it('bytes appended behind everything it names are told from zeros', async () => {
    const longer = (fill: number): Uint8Array => {
      const out = new Uint8Array(9 * MIB).fill(fill, 8 * MIB);
      out.set(gptDisk());
      return out;
    };
    expect(stop(await inspect(longer(0))).join('\n')).not.toMatch(/appended/);
    const seen = await inspect(longer(0x41));
    expect(seen.findings.find((f) => f.fault.code === 'appended')).toMatchObject({
      grade: 'check',
      offset: 8 * MIB,
    });
  });
  it('two copies of the table that are both whole and differ', async () => {
    const other = composeGptDisk({
      bytes: 8 * MIB,
      diskGuid: '00000000-0000-4000-8000-000000000001',
      parts: [
        {
          start: 2 * MIB,
          content: esp(),
          typeGuid: ESP_GUID,
          guid: '00000000-0000-4000-8000-000000000002',
          name: 'x',
        },
      ],
    });
    const mixed = gptDisk();
    mixed.set(other.subarray(8 * MIB - 33 * 512), 8 * MIB - 33 * 512);
    expect(stop(await inspect(mixed)).join('\n')).toMatch(/both whole and do not name the same parts/);
  });
});

describe('boards', () => {
  const board = (files: { path: string; bytes: Uint8Array }[]) =>
    inspect(
      composeMbrDisk({
        bytes: 6 * MIB,
        start: MIB,
        type: 0x0c,
        bootCode: mbrBootCode(),
        content: composeFat({ bytes: 4 * MIB, label: 'BOOT', files }),
      }),
    );
  const one = new Uint8Array(10).fill(1);
  it('device trees or a start script on a first FAT part: made for boards, and which only its maker can say', async () => {
    expect(
      row(
        await board([
          { path: '/BOARD-2.DTB', bytes: one },
          { path: '/CONFIG.TXT', bytes: one },
        ]),
        'board',
      ),
    ).toMatchObject({
      starts: 'unknown',
      reason: { code: 'made for boards', trees: 1, script: 'CONFIG.TXT' },
    });
  });
  it('no FAT part first, or nothing on it: no', async () => {
    expect(row(await board([{ path: '/README.TXT', bytes: one }]), 'board')?.starts).toBe('no');
    expect(row(await inspect(new Uint8Array(MIB)), 'board')?.starts).toBe('no');
  });
});

describe('an image for a machine', () => {
  const demo = saltmarshHall();
  const found = findMachine(demo, 'gull');
  if (!found) throw new Error('the demo has no Gull');
  const gull = found;
  const startingBy = (mode: 'bios' | 'board'): Machine => ({
    ...gull,
    facts: { ...gull.facts, 'firmware.mode': { entered: { value: mode, at: '' } } },
  });
  const reading = (over: Partial<ImageReading>, base: Inspection): ImageReading => ({ ...base, ...over });

  it('Secure Boot on: not signed is refused, signed is assumed to be trusted, trusted is plain', async () => {
    const seen = await inspect(gptDisk());
    expect(startOn(seen, 'uefi-x64', true)).toMatchObject({ starts: 'no', refused: true });
    expect(startOn(seen, 'uefi-x64', false)).toMatchObject({ starts: 'yes', refused: false });
    for (const starts of ['unknown', 'yes'] as const) {
      const signed = seen.outcomes.map((o) =>
        o.secureBoot ? { ...o, secureBoot: { ...o.secureBoot, starts } } : o,
      );
      expect(startOn(reading({ outcomes: signed }, seen), 'uefi-x64', true)).toMatchObject({
        starts: 'yes',
        trustAssumed: starts === 'unknown',
      });
    }
    expect(startOn(seen, undefined, false)).toBeUndefined();
  });

  it('a whole image where it starts; its files where only they would, unless one is too large for FAT; else neither', async () => {
    const whole = await inspect(gptDisk());
    expect(boxAdvice(gull, whole)).toMatchObject({
      copy: 'whole image',
      table: 'brings a GPT',
    });
    const optical = await inspect(
      composeIso({ label: 'X', files: [], biosImage: new Uint8Array(2048), uefiImage: new Uint8Array(2048) }),
    );
    const none = boxAdvice(gull, optical);
    expect(none.copy).toBe('neither');
    const copied = (bytes: number) =>
      boxAdvice(
        gull,
        reading(
          { fileCopy: { starts: ['uefi-x64'], label: null, files: 9, largest: { path: '/big', bytes } } },
          optical,
        ),
      );
    // FAT file-system specification 1.03: DIR_FileSize is 32 bits wide.
    expect(copied(2 ** 32 - 1)).toMatchObject({
      copy: 'file copy',
      reason: { code: 'files start', files: 9 },
    });
    expect(copied(2 ** 32)).toMatchObject({
      copy: 'neither',
      reason: { code: 'file too large for FAT', path: '/big' },
    });
    expect(boxAdvice(startingBy('bios'), optical).table).toBe('for BIOS');
    const onBoard = startingBy('board');
    expect(modeCard(onBoard, boxAdvice(onBoard, optical)).title).toMatch(/board’s own loader/);
  });

  it('the tree of an optical volume: which loaders are in it, and the largest file', async () => {
    const seen = await inspect(
      composeIso({
        label: 'X',
        files: [
          { name: 'A.TXT', bytes: new Uint8Array(10) },
          { name: 'B.BIN', bytes: new Uint8Array(5000) },
        ],
        biosImage: new Uint8Array(2048),
        uefiImage: new Uint8Array(2048),
      }),
    );
    expect(seen.fileCopy).toMatchObject({ starts: [], files: 2, largest: { bytes: 5000 } });
    expect((await inspect(gptDisk())).fileCopy).toBeNull();
  });
});

describe('the section', () => {
  it('on the true scale the stretches stand end to end and fill it', async () => {
    const { regions } = await inspect(gptDisk());
    const scale = trueScale(regions);
    let top = 0;
    for (const s of scale) {
      expect(s.top).toBeCloseTo(top, 9);
      top += s.height;
    }
    expect(top).toBeCloseTo(1, 9);
  });
  it('a loader is marked where it lives, with what Secure Boot would say', async () => {
    const seen = await inspect(gptDisk());
    const part = seen.regions.find((r) => r.title === 'ESP');
    expect(part && loadersIn(seen, part)).toMatchObject([
      { loader: { path: '/EFI/BOOT/BOOTX64.EFI' }, secure: 'refuses it' },
    ]);
  });
  it('bytes are shown in lines of eight, as xxd has them', async () => {
    const { regions } = await inspect(gptDisk());
    const table = regions.find((r) => r.title === 'GPT, first copy');
    const [line] = hexLines(table?.hex ?? '', table?.start ?? 0);
    expect(line).toEqual({ offset: 512, hex: '45 46 49 20 50 41 52 54', text: 'EFI PART' });
    expect(hexLines('', 0)).toEqual([]);
  });
});
