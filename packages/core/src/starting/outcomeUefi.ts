import { absent, field, no, unknown, yes, type StartVerdict } from '../image/evidence';
import { ESP_GUID } from '../formats/gpt/layout';
import { removablePath, type BootVolume, type FoundLoader, type UefiArch } from '../image/loaders';
import type { ImageFacts } from '../image/read';

/** A start and the same start with Secure Boot on (null where nothing starts without it either). */
export interface UefiVerdict extends StartVerdict {
  secureBoot: StartVerdict | null;
}

const plain = (v: StartVerdict): UefiVerdict => ({ ...v, secureBoot: null });
const nameOf = (arch: UefiArch): string => removablePath(arch).split('/').pop() ?? '';

/** What Secure Boot says of a loader: UEFI 2.10 §32.5 (image authorization); the keys are the machine's, not the image's. */
export function secureVerdict(loader: FoundLoader): StartVerdict {
  const { signature, evidence } = loader;
  if (!loader.signed || !signature) return no('the loader carries no signature', ...evidence);
  const by = signature.signers.join(' and ') || 'an unreadable signature';
  if (!signature.intact)
    return no(`the loader is signed (${by}), but its bytes are not what was signed`, ...evidence);
  if (signature.trusted === true) return yes(`signed by ${by}, which this firmware trusts`, ...evidence);
  if (signature.trusted === false)
    return no(`signed by ${by}, which is not among this firmware’s keys`, ...evidence);
  return unknown(`signed by ${by}; whether the machine trusts that key is not in the image`, ...evidence);
}

function judgeVolume(volume: BootVolume, arch: UefiArch): UefiVerdict | undefined {
  const path = removablePath(arch).toLowerCase();
  const loader = volume.loaders.find((l) => l.path.toLowerCase() === path);
  if (!loader) return undefined;
  const name = nameOf(arch);
  if (loader.machine === null)
    return plain(no(`${name} on ${volume.place} is not a loader: ${loader.fault}`, ...loader.evidence));
  if (loader.machine !== arch)
    return plain(
      no(`${name} on ${volume.place} is built for ${loader.machine}, not ${arch}`, ...loader.evidence),
    );
  if (loader.fault !== '')
    return plain(no(`${name} on ${volume.place} cannot run: ${loader.fault}`, ...loader.evidence));
  return {
    ...yes(`loader ${name} on ${volume.place}`, ...loader.evidence),
    secureBoot: secureVerdict(loader),
  };
}

/** A protective record must hold an entry of type 0xEE that begins at sector 1 (UEFI 2.10 §5.2.3). */
export const protectiveRecord = (facts: ImageFacts): boolean =>
  facts.mbr?.entries.some(
    (e) => e.type === 0xee && !e.active && e.start === (facts.gpt?.sectorSize ?? 512),
  ) ?? false;

export const gptUsable = (facts: ImageFacts): boolean =>
  facts.gpt !== undefined && facts.gpt.parts.length > 0 && protectiveRecord(facts);

/** The first volume whose loader starts, else what was wrong with the first that has one. */
function firstOf(volumes: BootVolume[], arch: UefiArch): UefiVerdict | undefined {
  let wrong: UefiVerdict | undefined;
  for (const volume of volumes) {
    const verdict = judgeVolume(volume, arch);
    if (verdict?.starts === 'yes') return verdict;
    wrong ??= verdict;
  }
  return wrong;
}

export async function uefiOptical(
  facts: ImageFacts,
  volumes: BootVolume[],
  arch: UefiArch,
): Promise<UefiVerdict> {
  // No standard asks for it, but the reference firmware opens a FAT volume on any medium (seen in the emulator).
  const whole = firstOf(
    volumes.filter((v) => v.from === 'whole'),
    arch,
  );
  if (whole) return whole;
  const { iso, catalogue, source } = facts;
  if (!iso) return plain(no('not an optical image'));
  if (!catalogue)
    return plain(no('the optical volume has no boot catalogue', absent('boot record', 'El Torito §2.0')));
  const where = iso.bootCatalogue ?? 0;
  if (!catalogue.valid)
    return plain(
      no(
        'the boot catalogue is damaged',
        await field(
          source,
          where,
          32,
          'validation entry: key bytes 55 AA, all words add up to 0',
          'El Torito §2.1',
        ),
      ),
    );
  const entries = catalogue.entries.filter((e) => e.platform === 'uefi' && e.bootable);
  const entry = entries[0];
  if (!entry)
    return plain(
      no(
        'no UEFI entry in the boot catalogue',
        await field(
          source,
          where,
          16,
          'boot catalogue without an entry of platform EF',
          'El Torito §2.3; UEFI 2.10 §13.3.2.1',
        ),
      ),
    );
  const behind = firstOf(
    volumes.filter((v) => v.from === 'catalogue'),
    arch,
  );
  if (behind) return behind;
  return plain(
    no(
      `no ${nameOf(arch)} behind the UEFI boot entry`,
      await field(source, entry.offset, 16, 'boot image of the UEFI entry', 'UEFI 2.10 §13.3.2.1'),
    ),
  );
}

export async function uefiDisk(
  facts: ImageFacts,
  volumes: BootVolume[],
  arch: UefiArch,
): Promise<UefiVerdict> {
  const usable = gptUsable(facts);
  if (usable && facts.gpt?.sectorSize === 4096)
    return plain(
      no(
        'its table is laid out for 4096-byte sectors; sticks have sectors of 512 bytes, where nothing is found',
        await field(facts.source, 4096, 8, 'GPT header at byte 4096', 'UEFI 2.10 §5.3.1'),
      ),
    );
  const seen = volumes.filter(
    (v) => v.from !== 'catalogue' && (usable ? v.from === 'gpt' : v.from !== 'gpt'),
  );
  const isEsp = (v: BootVolume): number => Number(v.candidate?.type === ESP_GUID);
  const found = firstOf(
    [...seen].sort((a, b) => isEsp(b) - isEsp(a)),
    arch,
  );
  if (found) return found;
  // Firmware built on the reference code also looks for the boot catalogue on a disk with an optical volume.
  if (facts.iso && facts.catalogue?.valid && !(facts.gpt && protectiveRecord(facts))) {
    const optical = await uefiOptical(facts, volumes, arch);
    if (optical.starts === 'yes')
      return { ...optical, because: `${optical.because}, which firmware also finds on a stick` };
  }
  const { gpt, source } = facts;
  if (gpt && gpt.parts.length === 0 && (gpt.primary?.faults.length ?? 1) > 0)
    return plain(
      no(
        'neither copy of the partition table can be trusted',
        await field(
          source,
          gpt.sectorSize + 16,
          4,
          'header CRC-32 of the first copy',
          'UEFI 2.10 §5.3.2, table 5.5',
        ),
      ),
    );
  if (gpt && !protectiveRecord(facts) && seen.length === 0)
    return plain(
      no(
        'the partition table has no protective record in sector 0, so firmware ignores it',
        await field(
          source,
          446,
          16,
          'first entry of sector 0: type is not EE, or not at sector 1',
          'UEFI 2.10 §5.2.3',
        ),
      ),
    );
  if (seen.length > 0) {
    const others = seen.flatMap((v) => v.loaders).map((l) => l.path);
    return plain(
      no(
        others.length > 0
          ? `no ${nameOf(arch)}; firmware does not look for ${others[0] ?? ''} by itself`
          : `no ${nameOf(arch)} on ${seen.length === 1 ? 'the FAT part' : 'any FAT part'}`,
        absent(`${removablePath(arch)} on ${seen.map((v) => v.place).join(', ')}`, 'UEFI 2.10 §3.5.1.1'),
      ),
    );
  }
  if (facts.iso) return plain(no('an optical volume only; nothing a disk could start'));
  return plain(
    no(
      facts.candidates.length > 0
        ? 'no FAT part for the firmware to read'
        : 'no partition table and no FAT volume',
      absent('FAT volume', 'UEFI 2.10 §13.3.1'),
    ),
  );
}
