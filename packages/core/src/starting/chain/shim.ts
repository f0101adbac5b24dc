import { utf16 } from '../../formats/bytes';
import { folderOf } from '../../formats/volume';
import type { RungWhy } from '../../model/chain';
import type { UefiArch } from '../../image/loaders';
import type { Wanted } from './files';

/** The name of the second stage by architecture, where its own bytes do not tell (shim, Makefile, DEFAULT_LOADER). */
const USUAL = { x64: 'grubx64.efi', ia32: 'grubia32.efi', aa64: 'grubaa64.efi' } as const;
/** The program that makes boot entries from lists; it is started where shim lies at the removable path (shim, README.fallback). */
const FALLBACK = { x64: 'fbx64.efi', ia32: 'fbia32.efi', aa64: 'fbaa64.efi' } as const;

/** The name of an EFI file that stands in data as UTF-16 text with a backslash in front. */
function nameIn(data: Uint8Array): string | undefined {
  for (let at = 0; at + 8 < data.length; at += 2) {
    if (data[at] !== 0x5c || data[at + 1] !== 0 || data[at + 3] !== 0) continue;
    const hit = /^\\([A-Za-z0-9_.-]+\.efi)$/i.exec(utf16(data, at, 64));
    const name = hit?.[1];
    if (name !== undefined && !/^(fb|mm)[a-z0-9]+\.efi$/i.test(name)) return name;
  }
  return undefined;
}

/**
 * The second stage of shim: the loader built into it by name, in its own folder. At the removable path it starts the
 * program that makes boot entries instead, where that lies beside it; what its lists name is followed.
 */
export async function followShim(
  arch: UefiArch,
  { volume, path }: Wanted,
  data: Uint8Array,
): Promise<{ program: Wanted } | { why: RungWhy }> {
  const folder = folderOf(path);
  const opened = await volume.open();
  const there = async (name: string): Promise<boolean> => (await opened?.find(name)) !== undefined;
  if (folder.toLowerCase() === '/efi/boot' && (await there(`${folder}/${FALLBACK[arch]}`))) {
    const listed = await firstListed(volume, arch);
    if (listed) return { program: { volume, path: listed } };
    return { why: { code: 'no configuration', paths: ['/EFI/*/BOOT*.CSV'], place: volume.place } };
  }
  const name = nameIn(data) ?? USUAL[arch];
  return { program: { volume, path: `${folder}/${name}` } };
}

/** The loader that the first list of boot entries names: /EFI/<folder>/BOOT<arch>.CSV, UTF-16, loader before the first comma. */
async function firstListed(volume: Wanted['volume'], arch: UefiArch): Promise<string | undefined> {
  const opened = await volume.open();
  for (const folder of (await opened?.names('/EFI')) ?? []) {
    if (folder.toLowerCase() === 'boot') continue;
    const file = await opened?.find(`/EFI/${folder}/BOOT${arch.toUpperCase()}.CSV`);
    if (!file || file.directory) continue;
    const bytes = await (await file.open()).read(0, 4096);
    const text = utf16(bytes, bytes[0] === 0xff ? 2 : 0, 512);
    const loader = text.split(',')[0]?.trim();
    // A list that names shim itself leads to its second stage.
    if (loader) return `/EFI/${folder}/${loader}`;
  }
  return undefined;
}
