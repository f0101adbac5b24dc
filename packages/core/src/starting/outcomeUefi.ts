import { absent, field } from '../image/evidence';
import { no, unknown, yes, type StartVerdict } from '../image/verdict';
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
  if (!loader.signed || !signature) return no('not signed', ...evidence);
  const { signers } = signature;
  if (!signature.intact) return no({ code: 'signed, then changed', signers }, ...evidence);
  if (signature.trusted === true) return yes({ code: 'signed and trusted', signers }, ...evidence);
  if (signature.trusted === false) return no({ code: 'signed and not trusted', signers }, ...evidence);
  return unknown({ code: 'signed, trust not known', signers }, ...evidence);
}

function judgeVolume(volume: BootVolume, arch: UefiArch): UefiVerdict | undefined {
  const path = removablePath(arch).toLowerCase();
  const loader = volume.loaders.find((l) => l.path.toLowerCase() === path);
  if (!loader) return undefined;
  const name = nameOf(arch);
  const { place } = volume;
  const { fault } = loader;
  if (loader.machine === null)
    return plain(no({ code: 'not a loader', name, place, fault }, ...loader.evidence));
  if (loader.machine !== arch)
    return plain(
      no(
        { code: 'loader for another architecture', name, place, machine: loader.machine, wanted: arch },
        ...loader.evidence,
      ),
    );
  if (fault) return plain(no({ code: 'loader cannot run', name, place, fault }, ...loader.evidence));
  return {
    ...yes({ code: 'loader found', name, place }, ...loader.evidence),
    begins: { by: 'efi', volume, path: loader.path },
    secureBoot: secureVerdict(loader),
  };
}

/** A protective record must hold an entry of type 0xEE that begins at sector 1 (UEFI 2.10 §5.2.3). */
export const protectiveRecord = (facts: ImageFacts): boolean =>
  facts.mbr?.entries.some(
    (e) => e.type === 0xee && !e.active && e.start === (facts.gpt?.sectorSize ?? 512),
  ) ?? false;

/** Whether firmware goes by the GUID partition table: one copy is sound and sector 0 protects it (UEFI 2.10 §5.2.3, §5.3). */
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

/** Whether UEFI starts the image as optical media, by the UEFI entry of its boot catalogue (UEFI 2.10 §13.3.2.1). */
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
  if (!iso) return plain(no('not optical'));
  if (!catalogue) return plain(no('no boot catalogue', absent('boot record', 'El Torito §2.0')));
  const where = iso.bootCatalogue ?? 0;
  if (!catalogue.valid)
    return plain(
      no(
        'boot catalogue damaged',
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
        'no UEFI entry',
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
      { code: 'no loader behind the UEFI entry', name: nameOf(arch) },
      await field(source, entry.offset, 16, 'boot image of the UEFI entry', 'UEFI 2.10 §13.3.2.1'),
    ),
  );
}

/** Whether UEFI starts the image as a disk, by the removable-media path on a FAT part (UEFI 2.10 §3.5.1.1, §13.3.1). */
export async function uefiDisk(
  facts: ImageFacts,
  volumes: BootVolume[],
  arch: UefiArch,
): Promise<UefiVerdict> {
  const usable = gptUsable(facts);
  if (usable && facts.gpt?.sectorSize === 4096)
    return plain(
      no(
        'made for sectors of 4096 bytes',
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
    if (optical.starts === 'yes') return { ...optical, through: 'catalogue on a stick' };
  }
  const { gpt, source } = facts;
  if (gpt && gpt.parts.length === 0 && (gpt.primary?.faults.length ?? 1) > 0)
    return plain(
      no(
        'no copy of the table sound',
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
        'no protective record',
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
    const [other] = seen.flatMap((v) => v.loaders);
    const name = nameOf(arch);
    return plain(
      no(
        other
          ? { code: 'loader by another name', name, other: other.path }
          : { code: 'no loader', name, parts: seen.length },
        absent(removablePath(arch), 'UEFI 2.10 §3.5.1.1'),
      ),
    );
  }
  if (facts.iso) return plain(no('optical volume only'));
  return plain(
    no(
      facts.candidates.length > 0 ? 'no FAT part' : 'no table and no FAT volume',
      absent('FAT volume', 'UEFI 2.10 §13.3.1'),
    ),
  );
}
