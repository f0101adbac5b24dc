import { allZero, ascii, holds, u32, u64, u8 } from '../formats/bytes';
import { bootCodeKind, opticalLoaderKind, STAGE_AT } from '../image/bootCode';
import { absent, field } from '../image/evidence';
import { no, unknown, yes, type StartVerdict } from '../image/verdict';
import { byFollowing, onDisk, onFloppy, OPTICAL } from './byFollowing';
import type { BootEntry } from '../formats/eltorito';
import { openExt } from '../formats/ext/read';
import { openFat } from '../formats/fat/read';
import { fatAsVolume, type Volume } from '../formats/volume';
import type { Evidence } from '../model/inspection';
import type { ImagePlace } from '../model/imagePlace';
import { readImage, type ImageFacts } from '../image/read';
import { slice, type ByteSource } from '../formats/source';

const CODE = 'common practice';
/** The parameter block of a FAT boot record ends here, and its code begins (FAT specification 1.03 §3.1–3.3). */
const codeFrom = (kind: string | undefined): number => (kind === 'fat32' ? 90 : 62);

const empty = (b: Uint8Array): boolean => b.length === 0 || allZero(b);

/** Is a second stage of the kind that GRUB installs at this sector? Its first sector tells by its messages. */
async function namedStage(facts: ImageFacts, at: number, from: number): Promise<StartVerdict> {
  const { source } = facts;
  const evidence = [
    await field(source, from, 8, `second stage at byte ${at}`, 'GRUB’s boot sector, kernel sector field'),
    await field(source, at, 16, 'first bytes of the second stage', CODE),
  ];
  const head = await source.read(at, 512);
  if (empty(head)) return no('second stage empty', ...evidence);
  if (!holds(head, 'loading')) return unknown('second stage not known', ...evidence);
  // The last twelve bytes list the rest of the stage: first sector, count, segment.
  const next = u64(head, 500) * 512;
  const rest = await source.read(next, 512);
  if (next > 0 && next < source.size && !empty(rest))
    return {
      ...yes('boot code and second stage', ...evidence),
      begins: { by: 'grub', facts, at, optical: false },
    };
  return no('second stage cut short', ...evidence);
}

/** The part that begins where a table's entry says, with the label of its file system. */
const partPlace = (facts: ImageFacts, entry: { index: number; start: number }): ImagePlace => ({
  of: 'part',
  index: entry.index,
  label: facts.candidates.find((c) => c.start === entry.start)?.mark?.label ?? null,
});

/** The boot record of a volume, and the stage it loads. `base` is where the volume begins in the source. */
async function volumeRecord(
  facts: ImageFacts,
  base: number,
  place: ImagePlace,
  floppySectors?: number,
): Promise<StartVerdict> {
  const { source } = facts;
  const boot = await source.read(base, 512);
  const where = await field(source, base, 16, `boot record at byte ${base}`, 'FAT specification 1.03 §3.1');
  if (u8(boot, 510) !== 0x55 || u8(boot, 511) !== 0xaa)
    return no(
      { code: 'no boot record', place },
      await field(source, base + 510, 2, 'end mark 55 AA', 'FAT specification 1.03 §3.5'),
    );
  const window = slice(source, base, source.size - base);
  const fat = await openFat(window);
  const kind = bootCodeKind(boot.subarray(fat ? codeFrom(fat.kind) : 0, 510));
  if (kind === 'none') return no({ code: 'boot record empty', place }, where);
  if (kind === 'message only') return no({ code: 'boot record only complains', place }, where);
  const staged = /^(SYS|EXT)LINUX$/.test(ascii(boot, 3, 8)) || kind === 'stage file';
  const volume = fat ? fatAsVolume(fat) : staged ? await openExt(window) : undefined;
  if (!staged || !volume)
    return byFollowing(
      source,
      {
        ...(floppySectors === undefined ? onDisk(base) : onFloppy(base, floppySectors)),
        who: { of: 'boot record', place },
        inFiles: fat !== undefined || place.of === 'part',
      },
      where,
    );
  return stageFile(facts, { boot, base, place, volume }, where);
}

/** Folders that the second stage of SYSLINUX or EXTLINUX is installed in (common practice; the installer takes any). */
const STAGE_FOLDERS = ['', '/syslinux', '/boot/syslinux', '/extlinux', '/boot/extlinux', '/boot'];

interface StagedVolume {
  boot: Uint8Array;
  base: number;
  place: ImagePlace;
  volume: Volume;
}

/** The second stage in a file of the volume: the boot record keeps the sector of its first bytes. */
async function stageFile(
  facts: ImageFacts,
  { boot, base, place, volume }: StagedVolume,
  where: Evidence,
): Promise<StartVerdict> {
  const { source } = facts;
  let elsewhere: Evidence | undefined;
  let damaged: Evidence | undefined;
  for (const folder of STAGE_FOLDERS) {
    const path = `${folder}/ldlinux.sys`;
    const found = await volume.find(path);
    if (!found || found.directory) continue;
    const stage = await found.open();
    const first = stage.placeOf(0) ?? 0;
    const at = await field(source, base + first, 16, 'first bytes of LDLINUX.SYS', 'SYSLINUX');
    if (!holds(await stage.read(0, 512), 'LINUX ')) damaged ??= at;
    // A copied stage lies elsewhere than where the record looks.
    const sector = first / 512;
    const named = Array.from({ length: 500 }, (_, i) => u32(boot, i)).some(
      (x) => x === sector || x === sector + base / 512,
    );
    elsewhere = at;
    if (!named || damaged) continue;
    return {
      ...yes({ code: 'boot record and stage file', place }, where, at),
      begins: {
        by: 'stage file',
        facts,
        base,
        candidate: facts.candidates.find((c) => c.start === base),
        path,
        stage,
      },
    };
  }
  if (damaged) return no({ code: 'stage file damaged', place }, damaged);
  if (elsewhere) return no({ code: 'stage file elsewhere', place }, where, elsewhere);
  return no({ code: 'stage file missing', place }, where, absent('/ldlinux.sys', 'SYSLINUX'));
}

async function activePart(facts: ImageFacts, source: ByteSource): Promise<StartVerdict | undefined> {
  // The table's own flags count, also of parts that are told twice in a hybrid table.
  const flagged = facts.mbr?.entries.filter((e) => e.active && e.index <= 4) ?? [];
  const [first] = flagged;
  if (!first) return undefined;
  const flag = await field(
    source,
    first.at,
    16,
    `entry ${first.index}, active flag 80`,
    'UEFI 2.10 §5.2.1, table 5.2',
  );
  if (flagged.length > 1) return no('several parts active', flag);
  const record = await volumeRecord(facts, first.start, partPlace(facts, first));
  return { ...record, evidence: [flag, ...record.evidence] };
}

/** The boot code of sector 0 and what it goes on to. */
async function sectorZero(facts: ImageFacts, head: Uint8Array): Promise<StartVerdict> {
  const { source } = facts;
  const code = await field(
    source,
    0,
    16,
    'boot code, bytes 0–439 of sector 0',
    'UEFI 2.10 §5.2.1, table 5.1',
  );
  const kind = bootCodeKind(head.subarray(0, 440));
  switch (kind) {
    case 'none':
      return no('boot code empty', code);
    case 'message only':
      return no('boot code only complains', code);
    case 'names a sector':
      return namedStage(facts, u64(head, STAGE_AT.disk) * 512, STAGE_AT.disk);
    case 'names a sector of an optical volume':
      return namedStage(facts, u64(head, STAGE_AT.optical) * 512, STAGE_AT.optical);
    case 'optical loader': {
      const at = u32(head, STAGE_AT.optical) * 512;
      const named = await field(
        source,
        STAGE_AT.optical,
        4,
        `optical loader at byte ${at}`,
        'ISOLINUX, isohybrid',
      );
      const marked = opticalLoaderKind(await source.read(at, 512)) === 'marked';
      return marked
        ? {
            ...yes('boot code in front of an optical volume', named),
            begins: { by: 'optical loader', facts, at },
          }
        : no('optical loader empty', named);
    }
    case 'active part': {
      const active = await activePart(facts, source);
      return active ?? no('no part active', code);
    }
    case 'numbered part': {
      const number = u8(head, 439);
      const entry = facts.mbr?.entries.find((e) => e.index === number);
      const which = await field(
        source,
        439,
        1,
        `part number ${number} for the boot code`,
        'SYSLINUX, alternative boot code',
      );
      if (!entry) return no({ code: 'numbered part missing', number }, which);
      const record = await volumeRecord(facts, entry.start, partPlace(facts, entry));
      return { ...record, evidence: [which, ...record.evidence] };
    }
    case 'marked GPT part': {
      const marked = (facts.gpt?.parts ?? []).filter((p) => p.legacyBoot);
      const [first] = marked;
      if (!first) return no('no GPT part marked', absent('attribute bit 2', 'UEFI 2.10 table 5.8'));
      const bit = await field(
        source,
        first.at + 48,
        8,
        `entry ${first.index}, attribute bit 2`,
        'UEFI 2.10 table 5.8',
      );
      if (marked.length > 1) return no('several GPT parts marked', bit);
      const record = await volumeRecord(facts, first.start, partPlace(facts, first));
      return { ...record, evidence: [bit, ...record.evidence] };
    }
    case 'stage file':
    case 'unrecognised':
      return byFollowing(
        source,
        {
          ...onDisk(0),
          who: { of: 'sector 0' },
          inFiles: (facts.mbr?.entries ?? []).some((e) => e.active) && !facts.iso,
        },
        code,
      );
  }
}

/** Whether BIOS starts the image as a disk: the end mark, the boot code of sector 0, and what that goes on to (UEFI 2.10 §5.2.1). */
export async function biosDisk(facts: ImageFacts): Promise<StartVerdict> {
  const { head, mbr, source } = facts;
  if (u8(head, 510) !== 0x55 || u8(head, 511) !== 0xaa)
    return no(
      'no end mark',
      await field(source, 510, 2, 'end mark of sector 0', 'UEFI 2.10 §5.2.1, table 5.1'),
    );
  const whole = facts.candidates.find((c) => c.from === 'whole' && c.fat);
  if (!mbr && whole) return volumeRecord(facts, 0, { of: 'whole image' });
  // A file system without a table keeps its own boot code in sector 0, with no room for messages that would tell it.
  if (!mbr && facts.candidates.some((c) => c.from === 'whole') && !facts.iso)
    return byFollowing(
      source,
      { ...onDisk(0), who: { of: 'sector 0' }, inFiles: true },
      await field(source, 0, 16, 'sector 0', CODE),
    );
  return sectorZero(facts, head);
}

async function emulated(
  facts: ImageFacts,
  { emulation, floppySectors, offset }: BootEntry,
): Promise<StartVerdict> {
  if (emulation === 'floppy') return volumeRecord(facts, offset, { of: 'floppy image' }, floppySectors);
  const image = slice(facts.source, offset, facts.source.size - offset);
  const inside = await readImage(image);
  return sectorZero({ ...inside, gpt: undefined }, inside.head);
}

async function opticalEntry(facts: ImageFacts): Promise<StartVerdict> {
  const { iso, catalogue, source } = facts;
  if (!iso) return no('not optical');
  if (!catalogue) return no('no boot catalogue', absent('boot record', 'El Torito §2.0'));
  const where = iso.bootCatalogue ?? 0;
  if (!catalogue.marked)
    return no(
      'boot catalogue damaged',
      await field(source, where, 32, 'validation entry: header 01, key bytes 55 AA', 'El Torito §2.1'),
    );
  const [entry] = catalogue.entries;
  const later = catalogue.entries.slice(1).some((e) => e.platform === 'bios' && e.bootable);
  if (!entry || entry.platform !== 'bios' || !entry.bootable)
    return no(
      later ? 'BIOS entry not the default' : 'no BIOS entry',
      await field(source, where + 32, 16, 'default entry of the boot catalogue', 'El Torito §2.2'),
    );
  const evidence = [
    await field(source, where + 32, 16, `default entry, ${entry.emulation} emulation`, 'El Torito §2.2'),
    await field(source, entry.offset, 16, 'first bytes of its boot image', 'El Torito §2.2'),
  ];
  if (entry.emulation !== 'none') {
    const inside = await emulated(facts, entry);
    return {
      ...inside,
      through: `${entry.emulation} emulation`,
      evidence: [...evidence, ...inside.evidence],
    };
  }
  const head = await source.read(entry.offset, 2048);
  switch (opticalLoaderKind(head)) {
    case 'none':
      return no('boot image empty', ...evidence);
    case 'unrecognised':
      return byFollowing(
        source,
        {
          at: entry.offset,
          bytes: entry.loadBytes || 2048,
          drive: OPTICAL,
          sectorBytes: 2048,
          who: { of: 'boot image' },
        },
        ...evidence,
      );
    case 'marked':
      return {
        ...yes('boot image without emulation', ...evidence),
        begins: { by: 'optical loader', facts, at: entry.offset },
      };
    case 'by message':
      return {
        ...yes('boot image without emulation', ...evidence),
        begins: { by: 'grub', facts, at: entry.offset, optical: true },
      };
  }
}

/** A catalogue whose sum is wrong is taken by some BIOS firmware and passed over by other (seen in the emulator). */
export async function biosOptical(facts: ImageFacts): Promise<StartVerdict> {
  const found = await opticalEntry(facts);
  if (found.starts !== 'yes' || facts.catalogue?.valid !== false) return found;
  return unknown(
    'boot catalogue sum wrong',
    await field(
      facts.source,
      facts.iso?.bootCatalogue ?? 0,
      32,
      'validation entry, sum of its words',
      'El Torito §2.1',
    ),
    ...found.evidence,
  );
}
