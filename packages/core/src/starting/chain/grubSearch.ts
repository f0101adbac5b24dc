import type { ChainVolume } from './volumes';

/**
 * The first volume with this UUID, label or file, as GRUB looks through its devices; `open` is one that is not opened here
 * and could hold the file.
 */
export async function searchVolumes(
  volumes: readonly ChainVolume[],
  by: 'uuid' | 'label' | 'file',
  what: string,
): Promise<{ found: ChainVolume | undefined; open: ChainVolume | undefined }> {
  const same = (value: string | undefined): boolean => value?.toLowerCase() === what.toLowerCase();
  if (by === 'uuid') return { found: volumes.find((v) => same(v.uuid)), open: undefined };
  if (by === 'label') return { found: volumes.find((v) => v.label === what), open: undefined };
  let open: ChainVolume | undefined;
  for (const volume of volumes) {
    const opened = await volume.open();
    if (!opened) {
      // A swap area or a container of other volumes holds no files that a loader could see.
      if (volume.filesystem !== undefined && volume.filesystem !== 'swap') open ??= volume;
      continue;
    }
    if (await opened.find(what.replace(/^\([^)]*\)/, ''))) return { found: volume, open: undefined };
  }
  return { found: undefined, open };
}
