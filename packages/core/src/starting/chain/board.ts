import { readSyslinuxConfig } from '../../formats/syslinuxConfig';
import type { Begins } from '../../image/begins';
import type { ByteSource } from '../../formats/source';
import { folderOf, pathFrom, plainPath } from '../../formats/volume';
import type { Rung } from '../../model/inspection';
import { initialDiskRung, openWanted, readText, rung } from './files';
import { unnamed } from './volumes';

/** Files that board loaders read, first come first: common practice, no source. */
const CONFIGS = ['/extlinux/extlinux.conf', '/boot/extlinux/extlinux.conf'];
const SETTINGS = '/config.txt';

/** Kernel and initial disk that settings of lines key=value name; kernels by their usual names where none is named. */
function named(text: string): { kernel: string | undefined; initrd: string | undefined } {
  const of = (key: string): string | undefined =>
    new RegExp(`^\\s*${key}\\s*[= ]\\s*(\\S+)`, 'm').exec(text)?.[1];
  return { kernel: of('kernel'), initrd: of('initramfs') };
}

/**
 * What the start files of a board name on the first FAT part: the kernel and initial disk of an entry, or those of its
 * settings. Which kernel a board can run only its maker can tell, so that it is asked only whether the files are there.
 */
export async function boardChain(
  source: ByteSource,
  { volume }: Extract<Begins, { by: 'board' }>,
): Promise<Rung[]> {
  const own = unnamed(volume.place, volume.fat, volume.base);
  const { place } = own;
  const exists = async (path: string): Promise<Rung> => {
    const opened = await openWanted({ volume: own, path });
    return rung('kernel', 'why' in opened ? opened.why : { code: 'there', path, place });
  };
  for (const path of CONFIGS) {
    const file = await readText({ volume: own, path });
    if ('why' in file) continue;
    const config = readSyslinuxConfig(file.text);
    const entry = config.entries.find((e) => e.label === config.standard) ?? config.entries[0];
    const there = rung('configuration', { code: 'there', path, place });
    if (entry?.kernel === undefined) return [there, rung('kernel', { code: 'names nothing', path, place })];
    const at = (p: string): string => pathFrom(folderOf(path), p);
    const out = [there, await exists(at(entry.kernel))];
    for (const disk of entry.initrd) out.push(await initialDiskRung(source, { volume: own, path: at(disk) }));
    return out;
  }
  const settings = await readText({ volume: own, path: SETTINGS });
  if ('why' in settings) return [];
  const { kernel, initrd } = named(settings.text);
  const out = [rung('configuration', { code: 'there', path: SETTINGS, place })];
  if (kernel !== undefined) out.push(await exists(plainPath(kernel)));
  if (kernel !== undefined && initrd !== undefined)
    out.push(await initialDiskRung(source, { volume: own, path: plainPath(initrd) }));
  return out;
}
