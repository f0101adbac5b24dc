import { ascii, holds } from '../../formats/bytes';
import { grubFromSection } from '../../formats/grub/modules';
import { initialDiskKind } from '../../formats/initialDisk';
import { readKernel } from '../../formats/linuxKernel';
import { readLoader, type LoaderHeader } from '../../formats/pe/read';
import { slice, type ByteSource } from '../../formats/source';
import { folderOf, type VolumeFile } from '../../formats/volume';
import type { UefiArch } from '../../image/loaders';
import type { Rung } from '../../model/inspection';
import { firstBytes, kernelFault, openWanted, rung, type Wanted } from './files';
import { followGrub } from './grub';
import { GrubDevices } from './grubEnvironment';
import { followShim } from './shim';
import { followSpecification } from './specification';
import type { ChainVolume } from './volumes';

/** What an EFI program is followed with. */
export interface EfiChain {
  source: ByteSource;
  volumes: readonly ChainVolume[];
  arch: UefiArch;
  attached: 'disk' | 'optical';
}

/** Loaders that start each other are followed so far. */
const MAX_LOADERS = 6;
const CPU = { x64: 'x86_64', ia32: 'i386', aa64: 'arm64' } as const;
const PE_SOURCE = 'PE/COFF, COFF File Header';

const section = (header: LoaderHeader, file: ByteSource, name: string): ByteSource | undefined => {
  const found = header.sections.find((s) => s.name === name);
  return found && slice(file, found.offset, found.bytes);
};
/** What a section's front says, as text. */
const frontOf = async (bytes: ByteSource | undefined): Promise<string> =>
  bytes ? ascii(await bytes.read(0, 512), 0, 512) : '';

/** A unified kernel image: kernel and initial disk are sections of the program (UAPI.5, “Unified Kernel Image”). */
async function unifiedRungs(
  linux: ByteSource,
  initrd: ByteSource | undefined,
  { path, volume }: Wanted,
): Promise<Rung[]> {
  const at = { path, place: volume.place };
  const kernel = await readKernel(linux);
  const rungs = [
    rung(
      'kernel',
      kernel ? (kernelFault(kernel, linux, at) ?? { code: 'built in' }) : { code: 'no kernel', ...at },
    ),
  ];
  if (initrd)
    rungs.push(
      rung(
        'initial disk',
        initialDiskKind(await initrd.read(0, 16)) ? { code: 'built in' } : { code: 'no initial disk', ...at },
      ),
    );
  return rungs;
}

/**
 * Follows an EFI program that a firmware or another loader starts: a kernel, a unified kernel image, GRUB, shim, a loader
 * of the Boot Loader Specification, or a program of its own, of which nothing more is told.
 */
export async function followEfi(chain: EfiChain, wanted: Wanted, depth = 0): Promise<Rung[]> {
  if (depth >= MAX_LOADERS) return [rung('loader', { code: 'too deep' })];
  const at = { path: wanted.path, place: wanted.volume.place };
  const opened = await openWanted(wanted);
  if ('why' in opened) return [rung('loader', opened.why)];
  const { file } = opened;
  const header = await readLoader(file);
  const evidence = await firstBytes(chain.source, wanted, file, PE_SOURCE);
  if (!header || header.fault) return [rung('loader', { code: 'no loader', ...at }, evidence)];
  if (header.machine !== chain.arch)
    return [rung('loader', { code: 'another architecture', ...at, machine: header.machine }, evidence)];
  const loader = rung('loader', { code: 'there', ...at }, evidence);
  return (
    (await known(chain, wanted, file, header, loader, depth)) ?? [
      rung('loader', { code: 'a program of its own' }, evidence),
    ]
  );
}

async function known(
  chain: EfiChain,
  wanted: Wanted,
  file: VolumeFile,
  header: LoaderHeader,
  loader: Rung,
  depth: number,
): Promise<Rung[] | undefined> {
  const { path, volume } = wanted;
  const linux = section(header, file, '.linux');
  if (linux) return [loader, ...(await unifiedRungs(linux, section(header, file, '.initrd'), wanted))];
  const kernel = await readKernel(file);
  if (kernel) {
    const at = { path, place: volume.place };
    const fault = kernelFault(kernel, file, at);
    const evidence = fault?.code === 'cut short' ? [] : loader.evidence;
    return [loader, rung('kernel', fault ?? { code: 'there', ...at }, evidence)];
  }
  const mods = section(header, file, 'mods');
  const image = mods && (await grubFromSection(mods, chain.arch !== 'ia32'));
  // Its own section is there, and nothing in it can be read: its code finds nothing to run.
  if (mods && !image) return [loader, rung('loader', { code: 'second stage damaged' })];
  if (image) {
    const next = await followGrub({
      machine: {
        source: chain.source,
        platform: 'efi',
        cpu: CPU[chain.arch],
        image,
        devices: new GrubDevices(chain.volumes, chain.attached),
      },
      volume: chain.volumes.includes(volume) ? volume : undefined,
      folder: folderOf(path),
    });
    const onward = next.program ? await followEfi(chain, next.program, depth + 1) : [];
    return [loader, ...next.rungs, ...onward];
  }
  const generations = await frontOf(section(header, file, '.sbat'));
  const code = await file.read(0, MAX_DATA);
  // The marks of its sections may be damaged, its code still runs and asks for what it always asks for.
  if (
    /LoaderInfo: systemd-boot/.test(await frontOf(section(header, file, '.sdmagic'))) ||
    holds(code, ONE_SHOT)
  ) {
    const next = await followSpecification(chain.source, volume, chain.volumes, chain.arch);
    const onward = next.program ? await followEfi(chain, next.program, depth + 1) : [];
    return [loader, ...next.rungs, ...onward];
  }
  // Without the section of its modules it finds neither a configuration nor anything else to run.
  if (holds(code, GRUB_GREETING)) return [loader, rung('loader', { code: 'second stage damaged' })];
  const data = section(header, file, '.data');
  const isShim =
    /^shim,/m.test(generations) ||
    (generations === '' && data && holds(await data.read(0, MAX_DATA), wide('shim')));
  if (isShim) {
    const next = await followShim(chain.arch, wanted, await (data ?? file).read(0, MAX_DATA));
    if ('why' in next) return [loader, rung('loader', next.why)];
    return [loader, ...(await followEfi(chain, next.program, depth + 1))];
  }
  return undefined;
}
const MAX_DATA = 1024 * 1024;
const wide = (text: string): string => text.replace(/./g, '$&\0');
/** The variable that only a loader of entries reads (Boot Loader Interface, “LoaderEntryOneShot”), in UTF-16. */
const ONE_SHOT = wide('LoaderEntryOneShot');
/** What GRUB's kernel says first (GRUB, grub-core/kern/main.c). */
const GRUB_GREETING = 'Welcome to GRUB!';
