import type { IsoVolume } from '../formats/iso9660/read';
import { removablePath } from './loaders';
import { readLoader } from '../formats/pe/read';
import { slice, type ByteSource } from '../formats/source';
import type { FileCopy, FirmwareKind } from '../model/inspection';

/** What copying the tree of an optical volume to a FAT stick starts: the removable-media loaders in it that can run. */
export async function fileCopy(source: ByteSource, iso: IsoVolume): Promise<FileCopy> {
  const starts: FirmwareKind[] = [];
  for (const arch of ['x64', 'ia32', 'aa64'] as const) {
    const entry = await iso.find(removablePath(arch));
    const header =
      entry && !entry.directory ? await readLoader(slice(source, entry.offset, entry.bytes)) : undefined;
    if (header?.machine === arch && header.fault === undefined) starts.push(`uefi-${arch}`);
  }
  const files = (await iso.walk()).filter((e) => !e.directory);
  const largest = files.reduce<FileCopy['largest']>(
    (most, e) => (most && most.bytes >= e.bytes ? most : { path: e.path, bytes: e.bytes }),
    null,
  );
  return { starts, largest, files: files.length };
}
