import type { IsoVolume } from '../formats/iso9660/read';
import { readLoader } from '../formats/pe/read';
import { slice, type ByteSource } from '../formats/source';
import { isoAsVolume } from '../formats/volume';
import { removablePath, type UefiArch } from '../image/loaders';
import type { FileCopy, FirmwareKind } from '../model/inspection';
import { followEfi } from './chain/efi';
import type { ChainVolume } from './chain/volumes';

/** Names that a volume of FAT can have (FAT specification, “Directory Structure”): eleven characters, none of these. */
const FAT_LABEL = /^[^"*+,./:;<=>?[\\\]|a-z]{1,11}$/;

/** The files of an optical volume as the one FAT part of a stick: a number of its own, and the label it was given. */
const asStick = (source: ByteSource, iso: IsoVolume, label: string | undefined): ChainVolume => ({
  place: { of: 'part', index: 1, label: label ?? null },
  from: 'gpt',
  index: 1,
  start: undefined,
  filesystem: 'fat32',
  uuid: undefined,
  label,
  type: '',
  open: () => Promise.resolve(isoAsVolume(iso, source)),
});

/** Does a loader that can run come to its kernel on such a stick? Undefined where its chain cannot be read to the end. */
async function comes(
  source: ByteSource,
  iso: IsoVolume,
  arch: UefiArch,
  label: string | undefined,
): Promise<boolean | undefined> {
  const volume = asStick(source, iso, label);
  const rungs = await followEfi(
    { source, volumes: [volume], arch, attached: 'disk' },
    { volume, path: removablePath(arch) },
  );
  if (rungs.some((r) => r.state === 'missing')) return false;
  return rungs.some((r) => r.state === 'unreadable') ? undefined : true;
}

/**
 * What copying the tree of an optical volume to a FAT stick starts, followed to the kernel. A loader that looks for its
 * volume by label finds it only where the stick is given that label.
 */
export async function fileCopy(source: ByteSource, iso: IsoVolume): Promise<FileCopy> {
  const starts: FirmwareKind[] = [];
  let label: string | null = null;
  for (const arch of ['x64', 'ia32', 'aa64'] as const) {
    const entry = await iso.find(removablePath(arch));
    const header =
      entry && !entry.directory ? await readLoader(slice(source, entry.offset, entry.bytes)) : undefined;
    if (header?.machine !== arch || header.fault !== undefined) continue;
    if (await comes(source, iso, arch, undefined)) starts.push(`uefi-${arch}`);
    else if (FAT_LABEL.test(iso.label) && (await comes(source, iso, arch, iso.label))) {
      starts.push(`uefi-${arch}`);
      label = iso.label;
    }
  }
  const files = (await iso.walk()).filter((e) => !e.directory);
  const largest = files.reduce<FileCopy['largest']>(
    (most, e) => (most && most.bytes >= e.bytes ? most : { path: e.path, bytes: e.bytes }),
    null,
  );
  return { starts, label, largest, files: files.length };
}
