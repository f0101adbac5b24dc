import { allZero, textOf } from '../../formats/bytes';
import { initialDiskKind } from '../../formats/initialDisk';
import { readKernel, type KernelHead } from '../../formats/linuxKernel';
import { readLoader } from '../../formats/pe/read';
import type { VolumeFile } from '../../formats/volume';
import { field } from '../../image/evidence';
import type { ChainRung, RungWhy } from '../../model/chain';
import type { ImagePlace } from '../../model/imagePlace';
import type { Evidence, Rung } from '../../model/inspection';
import type { ByteSource } from '../../formats/source';
import { notOpened, type ChainVolume } from './volumes';

/** A file that a loader is told to take: where it looks. */
export interface Wanted {
  volume: ChainVolume;
  path: string;
}

const STATE: Partial<Record<RungWhy['code'], Rung['state']>> = {
  there: 'whole',
  'built in': 'whole',
  'a program of its own': 'whole',
  'second stage packed otherwise': 'unreadable',
  'too deep': 'unreadable',
  'file system not opened': 'unreadable',
  'another drive': 'unreadable',
  'command not followed': 'unreadable',
};

/** A rung with the state that its reason stands for; whatever is neither whole nor unreadable is missing. */
export const rung = (kind: ChainRung, why: RungWhy, evidence: Evidence[] = []): Rung => ({
  rung: kind,
  state: STATE[why.code] ?? 'missing',
  why,
  evidence,
});

/** A file that was opened, or why it cannot be. */
export type Opened = { file: VolumeFile; bytes: number; path: string } | { why: RungWhy };

/** Looks for a file and opens it; says why where it is not there, empty, or its end lies behind the end of the image. */
export async function openWanted({ volume, path }: Wanted): Promise<Opened> {
  const { place } = volume;
  const opened = await volume.open();
  if (!opened) return { why: notOpened(volume) };
  const found = await opened.find(path);
  if (!found || found.directory) return { why: { code: 'not there', path, place } };
  if (found.bytes === 0) return { why: { code: 'empty', path, place } };
  const file = await found.open();
  if (!file.whole) return { why: { code: 'cut short', path, place, bytes: found.bytes } };
  return { file, bytes: found.bytes, path: found.path };
}

/** The text of a file of at most 1 MiB, as a loader reads it. */
export async function readText(wanted: Wanted): Promise<{ text: string } | { why: RungWhy }> {
  const opened = await openWanted(wanted);
  if ('why' in opened) return opened;
  const bytes = await opened.file.read(0, MAX_TEXT);
  const { path } = wanted;
  if (allZero(bytes)) return { why: { code: 'empty', path, place: wanted.volume.place } };
  return { text: textOf(bytes) };
}
const MAX_TEXT = 1024 * 1024;

/** The first bytes of a file as evidence, by their place in the image where that can be told. */
export async function firstBytes(
  source: ByteSource,
  { volume, path }: Wanted,
  file: VolumeFile,
  standard: string,
): Promise<Evidence[]> {
  const at = file.placeOf(0);
  if (volume.start === undefined || at === undefined) return [];
  return [await field(source, volume.start + at, 16, `first bytes of ${path}`, standard)];
}

const PROTOCOL = 'The Linux/x86 Boot Protocol, real-mode kernel header';
/** A multiboot header is within the first 8 KiB, that of the second version within 32 KiB (Multiboot Specification §3.1). */
const MULTIBOOT = { marks: [0x1badb002, 0xe85250d6], within: 32 * 1024 } as const;

function holdsMultiboot(head: Uint8Array): boolean {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  for (let at = 0; at + 4 <= head.length; at += 4)
    if ((MULTIBOOT.marks as readonly number[]).includes(view.getUint32(at, true))) return true;
  return false;
}

/** What a kernel's own header says that is not there; undefined where all of it is. */
export function kernelFault(
  kernel: KernelHead,
  file: ByteSource,
  at: { path: string; place: ImagePlace },
): RungWhy | undefined {
  if (kernel.bytes > file.size) return { code: 'cut short', ...at, bytes: kernel.bytes };
  return kernel.wiped ? { code: 'empty', ...at } : undefined;
}

/** How a loader takes a kernel: by the boot protocol, as a multiboot program, or as an EFI program. */
export type KernelWay = 'linux' | 'multiboot' | 'efi';

/** A kernel that is named: whether all of it is there, and is one. */
export async function kernelRung(
  source: ByteSource,
  wanted: Wanted,
  way: KernelWay = 'linux',
): Promise<Rung> {
  const opened = await openWanted(wanted);
  if ('why' in opened) return rung('kernel', opened.why);
  const { file } = opened;
  const at = { path: wanted.path, place: wanted.volume.place };
  const evidence = await firstBytes(source, wanted, file, PROTOCOL);
  const fails = (code: 'no kernel' | 'empty'): Rung => rung('kernel', { code, ...at }, evidence);
  const head = await file.read(0, MULTIBOOT.within);
  if (allZero(head)) return fails('empty');
  if (way === 'multiboot')
    return holdsMultiboot(head) ? rung('kernel', { code: 'there', ...at }, evidence) : fails('no kernel');
  const kernel = await readKernel(file);
  if (!kernel || way === 'efi') {
    const program = way === 'efi' ? await readLoader(file) : undefined;
    if (!program || program.fault) return fails('no kernel');
  }
  const there: RungWhy = { code: 'there', ...at };
  return rung('kernel', (kernel && kernelFault(kernel, file, at)) ?? there, evidence);
}

/** An initial disk that is named: whether all of it is there, and begins as one. */
export async function initialDiskRung(source: ByteSource, wanted: Wanted): Promise<Rung> {
  const opened = await openWanted(wanted);
  if ('why' in opened) return rung('initial disk', opened.why);
  const at = { path: wanted.path, place: wanted.volume.place };
  const evidence = await firstBytes(
    source,
    wanted,
    opened.file,
    'kernel documentation, initramfs buffer format',
  );
  const head = await opened.file.read(0, 512);
  if (allZero(head)) return rung('initial disk', { code: 'empty', ...at }, evidence);
  const code = initialDiskKind(head) ? 'there' : 'no initial disk';
  return rung('initial disk', { code, ...at }, evidence);
}
