import { allZero, u32 } from '../../formats/bytes';
import { openFat } from '../../formats/fat/read';
import { MAX_STAGE, readGrubCore, secondStage } from '../../formats/grub/core';
import { KERNEL, readKernel } from '../../formats/linuxKernel';
import { slice, type ByteSource } from '../../formats/source';
import { folderOf } from '../../formats/volume';
import { field } from '../../image/evidence';
import type { Begins } from '../../image/begins';
import type { ImageFacts } from '../../image/read';
import type { Rung } from '../../model/inspection';
import { kernelFault, rung } from './files';
import { followGrub } from './grub';
import { GrubDevices } from './grubEnvironment';
import { followSyslinux } from './syslinux';
import { chainVolumes, unnamed, type ChainVolume } from './volumes';

type Of<B extends Begins['by']> = Extract<Begins, { by: B }>;

/** The boot image of an optical volume: 2048 bytes of its own loader, then what also starts a disk: one sector, the stage. */
const OPTICAL_STAGE = 2048 + 512;

/** Follows GRUB's second stage for BIOS. */
export async function grubChain({ facts, at, optical }: Of<'grub'>): Promise<Rung[]> {
  const { source } = facts;
  const stage = optical ? await source.read(at + OPTICAL_STAGE, MAX_STAGE) : await secondStage(source, at);
  const evidence = [
    await field(source, at, 16, 'first bytes of the second stage', 'GRUB, boot/i386/pc/startup_raw.S'),
  ];
  const core = await readGrubCore(stage);
  if ('fault' in core) return [rung('loader', { code: `second stage ${core.fault}` }, evidence)];
  const volumes = chainVolumes(facts);
  const { rungs, program } = await followGrub({
    machine: {
      source,
      platform: 'pc',
      cpu: 'i386',
      image: core.image,
      devices: new GrubDevices(volumes, optical ? 'optical' : 'disk'),
    },
    volume: undefined,
    folder: '/boot/grub',
  });
  const onward = program
    ? [rung('kernel', { code: 'command not followed', command: `chainloader ${program.path}` })]
    : [];
  return [rung('loader', { code: 'built in' }, evidence), ...rungs, ...onward];
}

const majorOf = async (stage: ByteSource, name: string): Promise<number | undefined> => {
  const head = await stage.read(0, 64 * 1024);
  const text = Array.from(head, (c) => (c >= 32 && c < 127 ? String.fromCharCode(c) : ' ')).join('');
  const hit = new RegExp(`${name}LINUX (\\d+)\\.`).exec(text)?.[1];
  return hit === undefined ? undefined : Number(hit);
};

/** The first version whose core needs a module beside it. */
const MODULAR = 5;

/** Follows SYSLINUX or EXTLINUX from the file that its boot record names. */
export async function stageChain({ facts, base, candidate, path, stage }: Of<'stage file'>): Promise<Rung[]> {
  const { source } = facts;
  let volume: ChainVolume | undefined = chainVolumes(facts).find(
    (v) => v.start === base && (candidate !== undefined || v.index === 0),
  );
  if (!volume) {
    const fat = await openFat(slice(source, base, source.size - base));
    volume = fat && unnamed({ of: 'floppy image' }, fat, base);
  }
  if (!volume) return [];
  const first = await stage.read(0, 16);
  const loader = rung('loader', { code: 'there', path, place: volume.place }, [
    await field(source, base, 16, 'boot record that names it', 'SYSLINUX'),
  ]);
  if (allZero(first)) return [rung('loader', { code: 'empty', path, place: volume.place })];
  const as = volume.filesystem?.startsWith('ext') ? 'extlinux' : 'syslinux';
  const folder = folderOf(path) || '/';
  const needsModule = ((await majorOf(stage, as === 'extlinux' ? 'EXT' : 'SYS')) ?? MODULAR) >= MODULAR;
  return [loader, ...(await followSyslinux({ source, volume, folder, as, needsModule }))];
}

/** The boot information table (mkisofs, -boot-info-table): at byte 8 the descriptor's sector, then file, length and the sum of its words from 64 on. */
const BOOT_INFO = { descriptor: 8, file: 12, bytes: 16, sum: 20, from: 64 } as const;

async function opticalLoaderFault(facts: ImageFacts, at: number): Promise<Rung | undefined> {
  const { source } = facts;
  const head = await source.read(at, 64);
  if (u32(head, BOOT_INFO.descriptor) !== 16 || u32(head, BOOT_INFO.file) !== at / 2048) return undefined;
  const bytes = u32(head, BOOT_INFO.bytes);
  const evidence = [
    await field(source, at + BOOT_INFO.bytes, 8, 'length and sum of the loader', 'mkisofs, -boot-info-table'),
  ];
  if (bytes > MAX_STAGE || at + bytes > source.size)
    return rung('loader', { code: 'second stage cut short' }, evidence);
  const whole = await source.read(at, bytes);
  let sum = 0;
  for (let o = BOOT_INFO.from; o < whole.length; o += 4) sum = (sum + u32(whole, o)) >>> 0;
  return sum === u32(head, BOOT_INFO.sum)
    ? undefined
    : rung('loader', { code: 'second stage damaged' }, evidence);
}

/** Follows ISOLINUX from the boot image of an optical volume. */
export async function opticalLoaderChain({ facts, at }: Of<'optical loader'>): Promise<Rung[]> {
  const { source } = facts;
  const fault = await opticalLoaderFault(facts, at);
  if (fault) return [fault];
  const volume = chainVolumes(facts).find((v) => v.filesystem === 'iso9660');
  if (!volume) return [];
  const { place } = volume;
  const opened = await volume.open();
  const folders = ['/boot/isolinux', '/isolinux', '/boot/syslinux', '/syslinux', '/boot', '/'];
  let path: string | undefined;
  for (const folder of folders) {
    const found = await opened?.find(`${folder}/isolinux.bin`);
    if (!found || found.directory) continue;
    if ((await found.open()).placeOf(0) !== at) continue;
    path = found.path;
    break;
  }
  const folder = path === undefined ? '/isolinux' : folderOf(path) || '/';
  const stage = slice(source, at, MAX_STAGE);
  const needsModule = ((await majorOf(stage, 'ISO')) ?? MODULAR) >= MODULAR;
  const evidence = [await field(source, at + 64, 4, 'mark of the loader, 7078C0FBh', 'ISOLINUX')];
  const loader = rung(
    'loader',
    path === undefined ? { code: 'built in' } : { code: 'there', path, place },
    evidence,
  );
  return [loader, ...(await followSyslinux({ source, volume, folder, as: 'isolinux', needsModule }))];
}

/** A kernel that boot code has read and entered: whether all of it is there. */
export async function kernelChain({ source, at }: Of<'kernel'>): Promise<Rung[]> {
  const file = slice(source, at, source.size - at);
  const kernel = await readKernel(file);
  const place = { of: 'volume', index: 0, filesystem: null, label: null } as const;
  const evidence = [
    await field(
      source,
      at + KERNEL.markAt,
      4,
      'mark of a kernel’s header',
      'The Linux/x86 Boot Protocol, real-mode kernel header',
    ),
  ];
  const path = `byte ${at}`;
  const loader = rung('loader', { code: 'built in' });
  if (!kernel) return [loader, rung('kernel', { code: 'no kernel', path, place }, evidence)];
  const fault = kernelFault(kernel, file, { path, place });
  return [loader, rung('kernel', fault ?? { code: 'built in' }, evidence)];
}
