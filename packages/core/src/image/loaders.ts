import { openFat, type FatEntry, type FatVolume } from '../formats/fat/read';
import { field } from './evidence';
import { readLoader, type LoaderHeader } from '../formats/pe/read';
import type { Candidate, ImageFacts } from './read';
import { readSignature, type SignatureReading, type TrustedKey } from './signature';
import { slice, type ByteSource } from '../formats/source';
import type { Evidence, Loader } from '../model/inspection';
import type { ImagePlace } from '../model/imagePlace';
import type { LoaderFault } from '../model/startReason';

/** Architectures whose UEFI is judged. */
export type UefiArch = 'x64' | 'ia32' | 'aa64';

/** Removable-media loader names: UEFI 2.10 §3.5.1.1, table 3.2. */
const REMOVABLE: Record<string, string> = {
  x64: 'BOOTX64.EFI',
  ia32: 'BOOTIA32.EFI',
  aa64: 'BOOTAA64.EFI',
  arm: 'BOOTARM.EFI',
  riscv64: 'BOOTRISCV64.EFI',
};
/** The loader that firmware looks for by itself on removable media (UEFI 2.10 §3.5.1.1). */
export const removablePath = (arch: UefiArch): string => `/EFI/BOOT/${REMOVABLE[arch]}`;

/** A loader with what the judgement needs beyond what is kept on the shelf. */
export interface FoundLoader extends Loader {
  evidence: Evidence[];
  signature: SignatureReading | undefined;
  /** The file itself and its sections; none where its header is damaged. */
  file: ByteSource;
  sections: LoaderHeader['sections'];
}

/** A FAT volume that firmware may open: a part, the whole image, or the image behind an entry of the boot catalogue. */
export interface BootVolume {
  place: ImagePlace;
  base: number;
  fat: FatVolume;
  from: Candidate['from'] | 'catalogue';
  candidate: Candidate | undefined;
  loaders: FoundLoader[];
}

/** Folders below /EFI that are looked into, and loaders that are read: more than any image has. */
const MAX_FOLDERS = 40;
const MAX_LOADERS = 48;

async function readOne(
  facts: ImageFacts,
  volume: Omit<BootVolume, 'loaders'>,
  path: string,
  entry: FatEntry,
  keys: readonly TrustedKey[] | undefined,
): Promise<FoundLoader> {
  const file = await volume.fat.open(entry);
  const header = await readLoader(file);
  const removable =
    /^\/efi\/boot\/[^/]+$/i.test(path) && Object.values(REMOVABLE).includes(path.slice(10).toUpperCase());
  const signature = header?.signed ? await readSignature(file, header, keys) : undefined;
  const offset = volume.base + file.placeOf(0);
  const evidence = header
    ? [
        await field(
          facts.source,
          volume.base + file.placeOf(header.machineAt),
          2,
          `${path}, PE header, machine type ${header.machineType.toString(16).padStart(4, '0').toUpperCase()}h (${header.machine})`,
          'UEFI 2.10 §2.1.1, §3.5.1.1',
        ),
      ]
    : [
        await field(
          facts.source,
          offset,
          16,
          `${path}, first bytes: not an EFI application`,
          'PE/COFF, COFF File Header',
        ),
      ];
  const cut: LoaderFault | null = file.whole ? null : { code: 'cut short', bytes: entry.bytes };
  return {
    path,
    machine: header?.machine ?? null,
    signed: header?.signed ?? false,
    signers: signature?.signers ?? [],
    fault: header ? (cut ?? header.fault ?? null) : { code: 'header damaged' },
    place: volume.place,
    offset,
    bytes: entry.bytes,
    removable,
    evidence,
    signature,
    file,
    sections: header?.sections ?? [],
  };
}

/** Every file below /EFI whose name ends in .efi; folders in the order they stand. */
async function loadersOn(
  facts: ImageFacts,
  volume: Omit<BootVolume, 'loaders'>,
  keys: readonly TrustedKey[] | undefined,
): Promise<FoundLoader[]> {
  const out: FoundLoader[] = [];
  const top = (await volume.fat.list('/')).find((e) => e.directory && e.name.toLowerCase() === 'efi');
  const folders = top ? [`/${top.name}`] : [];
  for (let i = 0; i < Math.min(folders.length, MAX_FOLDERS) && out.length < MAX_LOADERS; i += 1) {
    const folder = folders[i] ?? '';
    for (const entry of await volume.fat.list(folder)) {
      const path = `${folder}/${entry.name}`;
      if (entry.directory) folders.push(path);
      else if (/\.efi$/i.test(entry.name) && out.length < MAX_LOADERS)
        out.push(await readOne(facts, volume, path, entry, keys));
    }
  }
  return out;
}

/** Where a FAT volume that a table names lies, or the whole image. */
export const placeOf = (c: Candidate): ImagePlace =>
  c.from === 'whole' ? { of: 'whole image' } : { of: 'part', index: c.index, label: c.mark?.label ?? null };

/** All FAT volumes of the image with the loaders on them, parts first, then what the boot catalogue names. */
export async function bootVolumes(
  facts: ImageFacts,
  keys: readonly TrustedKey[] | undefined,
): Promise<BootVolume[]> {
  const bare: Omit<BootVolume, 'loaders'>[] = facts.candidates.flatMap((c) =>
    c.fat ? [{ place: placeOf(c), base: c.start, fat: c.fat, from: c.from, candidate: c }] : [],
  );
  for (const entry of facts.catalogue?.entries ?? []) {
    if (entry.platform !== 'uefi' || !entry.bootable) continue;
    // A load size of 0 or 1 means "to the end of the volume" (UEFI 2.10 §13.3.2.1); small sizes are often wrong.
    const bytes = entry.loadBytes > 512 ? entry.loadBytes : facts.source.size - entry.offset;
    const fat = await openFat(slice(facts.source, entry.offset, Math.max(bytes, 2880 * 512)));
    if (fat)
      bare.push({
        place: { of: 'boot catalogue' },
        base: entry.offset,
        fat,
        from: 'catalogue',
        candidate: undefined,
      });
  }
  const out: BootVolume[] = [];
  for (const volume of bare) out.push({ ...volume, loaders: await loadersOn(facts, volume, keys) });
  return out;
}
