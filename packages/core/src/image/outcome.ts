import { allZero, u64 } from './bytes';
import { BIOS_BOOT_GUID, ESP_GUID } from './gpt';
import { openFat, type FatVolume } from './fat';
import { bootCodeKind } from './mbr';
import { readLoader, type LoaderHeader } from './pe';
import type { Candidate, ImageFacts } from './read';
import { slice } from './source';
import type { Outcome } from './types';

type Verdict = Pick<Outcome, 'starts' | 'because' | 'evidence' | 'signed'>;
type UefiArch = 'x64' | 'ia32' | 'aa64';

/** Removable-media loader names: UEFI 2.10 §3.5.1.1, table 3.2. */
export const LOADER_PATH: Record<UefiArch, string> = {
  x64: '/EFI/BOOT/BOOTX64.EFI',
  ia32: '/EFI/BOOT/BOOTIA32.EFI',
  aa64: '/EFI/BOOT/BOOTAA64.EFI',
};

const no = (because: string, evidence?: string): Verdict => ({ starts: 'no', because, evidence });
const unknown = (because: string, evidence?: string): Verdict => ({ starts: 'unknown', because, evidence });

/** The most of a loader that is read: its headers, which stand at the front. */
const LOADER_HEAD = 4096;

async function loaderIn(
  fat: FatVolume,
  arch: UefiArch,
): Promise<{ header: LoaderHeader | undefined; offset: number } | undefined> {
  const entry = await fat.find(LOADER_PATH[arch]);
  if (!entry || entry.directory) return undefined;
  const header = readLoader(await fat.readFile(entry, LOADER_HEAD));
  return { header, offset: entry.offset ?? 0 };
}

async function judgeFat(
  fat: FatVolume,
  base: number,
  arch: UefiArch,
  place: string,
): Promise<Verdict | undefined> {
  const loader = await loaderIn(fat, arch);
  if (!loader) return undefined;
  const name = LOADER_PATH[arch].split('/').pop() ?? '';
  const evidence = `${LOADER_PATH[arch]} at byte ${base + loader.offset}; PE header, machine type (UEFI 2.10 §2.1.1, §3.5.1.1)`;
  if (!loader.header)
    return no(`${name} on ${place} is not a loader: its header is damaged or empty`, evidence);
  if (loader.header.machine !== arch) {
    return no(`${name} on ${place} is built for ${loader.header.machine}, not ${arch}`, evidence);
  }
  return { starts: 'yes', because: `loader ${name} on ${place}`, evidence, signed: loader.header.signed };
}

const placeOf = (c: Candidate): string =>
  c.from === 'whole'
    ? 'the whole-image FAT volume'
    : `FAT part ${c.index}${c.mark?.label ? ` “${c.mark.label}”` : ''}`;

/** A protective record must hold an entry of type 0xEE that begins at sector 1 (UEFI 2.10 §5.2.3). */
const protectiveRecord = (facts: ImageFacts): boolean =>
  facts.mbr?.entries.some(
    (e) => e.type === 0xee && !e.active && e.start === (facts.gpt?.sectorSize ?? 512),
  ) ?? false;

/** Which of the candidates UEFI firmware would see: through the GPT if it is usable, else through the MBR. */
function visibleToUefi(facts: ImageFacts): Candidate[] {
  const gptUsable = facts.gpt && facts.gpt.parts.length > 0 && protectiveRecord(facts);
  return facts.candidates.filter((c) => (gptUsable ? c.from === 'gpt' : c.from !== 'gpt'));
}

async function uefiOptical(facts: ImageFacts, arch: UefiArch): Promise<Verdict> {
  const whole = facts.candidates.find((c) => c.from === 'whole' && c.fat)?.fat;
  if (whole) {
    // No standard asks for it, but the reference firmware opens a FAT volume on any medium (seen in the emulator).
    const verdict = await judgeFat(whole, 0, arch, 'the whole-image FAT volume');
    if (verdict) return verdict;
  }
  if (!facts.iso) return no('not an optical image');
  if (!facts.catalogue) return no('the optical volume has no boot catalogue');
  if (!facts.catalogue.valid) {
    return no(
      'the boot catalogue is damaged',
      `byte ${facts.iso.bootCatalogue}; El Torito §2.1, validation checksum`,
    );
  }
  const entries = facts.catalogue.entries.filter((e) => e.platform === 'uefi' && e.bootable);
  if (entries.length === 0)
    return no('no UEFI entry in the boot catalogue', 'El Torito §2.3; UEFI 2.10 §13.3.2.1');
  for (const entry of entries) {
    const bytes = entry.loadBytes > 512 ? entry.loadBytes : facts.source.size - entry.offset;
    const fat = await openFat(slice(facts.source, entry.offset, Math.max(bytes, 2880 * 512)));
    if (!fat) continue;
    const verdict = await judgeFat(fat, entry.offset, arch, 'the El Torito FAT image');
    if (verdict) return verdict;
  }
  return no(
    `no ${LOADER_PATH[arch].split('/').pop()} behind the UEFI boot entry`,
    `boot image at byte ${entries[0]?.offset}`,
  );
}

async function uefiDisk(facts: ImageFacts, arch: UefiArch): Promise<Verdict> {
  const name = LOADER_PATH[arch].split('/').pop() ?? '';
  const seen = visibleToUefi(facts);
  let wrong: Verdict | undefined;
  for (const c of [...seen].sort((a, b) => Number(b.type === ESP_GUID) - Number(a.type === ESP_GUID))) {
    if (!c.fat) continue;
    const verdict = await judgeFat(c.fat, c.start, arch, placeOf(c));
    if (verdict?.starts === 'yes') return verdict;
    wrong ??= verdict;
  }
  if (wrong) return wrong;
  // Firmware built on the reference code also looks for the boot catalogue on a disk with an optical volume.
  if (facts.iso && facts.catalogue?.valid && !(facts.gpt && protectiveRecord(facts))) {
    const optical = await uefiOptical(facts, arch);
    if (optical.starts === 'yes') {
      return { ...optical, because: `${optical.because}, which firmware also finds on a stick` };
    }
  }
  if (facts.gpt && facts.gpt.parts.length === 0) {
    return no(
      'neither copy of the partition table can be trusted',
      'UEFI 2.10 §5.3.2, header and array CRC-32',
    );
  }
  if (facts.gpt && !protectiveRecord(facts) && seen.length === 0) {
    return no(
      'the partition table has no protective record in sector 0, so firmware ignores it',
      'UEFI 2.10 §5.2.3',
    );
  }
  const fats = seen.filter((c) => c.fat).length;
  if (fats > 0)
    return no(`no ${name} on ${fats === 1 ? 'the FAT part' : 'any FAT part'}`, 'UEFI 2.10 §3.5.1.1');
  if (facts.iso) return no('an optical volume only; nothing a disk could start');
  return no(
    seen.length > 0 ? 'no FAT part for the firmware to read' : 'no partition table and no FAT volume',
  );
}

async function sectorZero(facts: ImageFacts, at: number): Promise<boolean> {
  const bytes = await facts.source.read(at, 512);
  return bytes.length === 0 || allZero(bytes);
}

async function biosVolume(facts: ImageFacts, c: Candidate): Promise<Verdict> {
  const boot = await facts.source.read(c.start, 512);
  const where = `boot sector at byte ${c.start}`;
  if (boot.length < 512 || boot[510] !== 0x55 || boot[511] !== 0xaa) {
    return no(`part ${c.index} is active but has no boot record`, where);
  }
  const kind = bootCodeKind(boot.subarray(c.fat?.kind === 'fat32' ? 90 : 62, 510));
  if (kind === 'none') return no(`part ${c.index} is active but its boot record is empty`, where);
  if (kind === 'message-only') return no('the boot record only prints that it cannot start', where);
  return { starts: 'yes', because: `boot code, then the boot record of part ${c.index}`, evidence: where };
}

async function biosDisk(facts: ImageFacts): Promise<Verdict> {
  const { head, mbr } = facts;
  const evidence = 'sector 0: boot code bytes 0–439, end mark at 510';
  if (head.length < 512 || head[510] !== 0x55 || head[511] !== 0xaa) {
    return no('no end mark 55 AA in sector 0, so BIOS passes it over', evidence);
  }
  const whole = facts.candidates.find((c) => c.from === 'whole' && c.fat);
  if (!mbr && whole) {
    const verdict = await biosVolume(facts, whole);
    if (verdict.starts === 'no')
      return verdict.because.startsWith('part') ? no('the boot record is empty', evidence) : verdict;
    const known = (await whole.fat?.find('/ldlinux.sys')) !== undefined;
    return known
      ? { starts: 'yes', because: 'boot record and its second stage on the FAT volume', evidence }
      : unknown('a boot record is there; the format does not tell what it loads', evidence);
  }
  const code = head.subarray(0, 440);
  const kind = mbr?.bootCodeKind ?? bootCodeKind(code);
  if (kind === 'none') return no('the boot code in sector 0 is empty', evidence);
  if (kind === 'message-only') return no('the boot code only prints that it cannot start', evidence);
  if (kind === 'grub') {
    const next = u64(head, 0x5c) * 512;
    return (await sectorZero(facts, next))
      ? no('the boot code points to a second stage that is empty or cut off', `byte 92 names byte ${next}`)
      : { starts: 'yes', because: 'boot code and its second stage', evidence: `byte 92 names byte ${next}` };
  }
  if (kind === 'isohybrid') {
    const next = u64(head, 432) * 512;
    return (await sectorZero(facts, next))
      ? no('the boot code points to a boot image that is empty or cut off', `byte 432 names byte ${next}`)
      : {
          starts: 'yes',
          because: 'boot code for disks in front of the optical volume',
          evidence: `byte 432 names byte ${next}`,
        };
  }
  const active = facts.candidates.filter((c) => c.from === 'mbr' && c.active);
  const [first] = active;
  if (first && active.length === 1) return biosVolume(facts, first);
  if (active.length > 1) return no('more than one part is marked active', evidence);
  const bootArea = facts.candidates.find((c) => c.type === BIOS_BOOT_GUID);
  if (bootArea && kind === 'unrecognised') {
    return (await sectorZero(facts, bootArea.start))
      ? no('boot code is there, but the BIOS boot area is empty', `byte ${bootArea.start}`)
      : { starts: 'yes', because: 'boot code and BIOS boot area', evidence: `byte ${bootArea.start}` };
  }
  if (kind === 'active-partition')
    return no('no part is marked active, which this boot code looks for', evidence);
  return unknown('boot code is there; the format does not tell what it loads', evidence);
}

async function biosOptical(facts: ImageFacts): Promise<Verdict> {
  if (!facts.iso) return no('not an optical image');
  if (!facts.catalogue) return no('the optical volume has no boot catalogue');
  if (!facts.catalogue.valid) {
    return no(
      'the boot catalogue is damaged',
      `byte ${facts.iso.bootCatalogue}; El Torito §2.1, validation checksum`,
    );
  }
  const entry = facts.catalogue.entries.find((e) => e.platform === 'bios' && e.bootable);
  if (!entry) return no('no BIOS entry in the boot catalogue', 'El Torito §2.2');
  const evidence = `boot image at byte ${entry.offset}; El Torito §2.2`;
  if (await sectorZero(facts, entry.offset)) return no('the boot image is empty or cut off', evidence);
  const how = entry.emulation === 'none' ? 'no-emulation' : `${entry.emulation} emulation`;
  return { starts: 'yes', because: `${how} boot image in the catalogue`, evidence };
}

/** The eight rows of the outcome grid: four firmwares, each as a disk and as optical media. */
export async function outcomes(facts: ImageFacts): Promise<Outcome[]> {
  if (facts.container !== 'none') {
    const because = `a ${facts.container} archive: unpack it first, written as it is it starts nothing`;
    return (['bios', 'uefi-x64', 'uefi-ia32', 'uefi-aa64'] as const).flatMap((firmware) =>
      (['disk', 'optical'] as const).map((attached) => ({
        firmware,
        attached,
        starts: 'no' as const,
        because,
      })),
    );
  }
  const rows: Outcome[] = [];
  const add = (firmware: Outcome['firmware'], attached: Outcome['attached'], verdict: Verdict): void => {
    rows.push({ firmware, attached, ...verdict });
  };
  add('bios', 'disk', await biosDisk(facts));
  add('bios', 'optical', await biosOptical(facts));
  for (const arch of ['x64', 'ia32', 'aa64'] as const) {
    add(`uefi-${arch}`, 'disk', await uefiDisk(facts, arch));
    add(`uefi-${arch}`, 'optical', await uefiOptical(facts, arch));
  }
  return rows;
}
