import { textOf } from '../formats/bytes';
import { readDiscLine, readTreeInfo, type DiscInfo } from '../formats/discInfo';
import { readElf } from '../formats/elf';
import { readKernel } from '../formats/linuxKernel';
import { readOsRelease } from '../formats/osRelease';
import { slice } from '../formats/source';
import { fatAsVolume } from '../formats/volume';
import { reach } from '../image/findings';
import type { BootVolume } from '../image/loaders';
import type { ImageFacts } from '../image/read';
import type { IdentitySource, ImageIdentity } from '../model/imageIdentity';
import type { ImagePlace } from '../model/imagePlace';
import type { Outcome } from '../model/inspection';
import type { Architecture, cpuLevels } from '../model/architectures';
import { openWanted, readText } from './chain/files';
import { apart, chainVolumes, type ChainVolume } from './chain/volumes';

type Arch = Architecture;
type Said<T> = { value: T; from: IdentitySource };
type Names = Pick<ImageIdentity, 'name' | 'version' | 'variant'>;

/** In the order in which they count (os-release(5)): the one of the administrator before the one that came with it. */
const OS_RELEASE = ['/etc/os-release', '/usr/lib/os-release'] as const;
/** Programs every system has, and the first to be run by it. */
const PROGRAMS = [
  '/usr/lib/systemd/systemd',
  '/sbin/init',
  '/usr/sbin/init',
  '/bin/busybox',
  '/usr/bin/busybox',
  '/bin/sh',
  '/usr/bin/sh',
] as const;
/** Where a disc keeps its menu for a GRUB that opened it as a file. Common practice, no standard. */
const FROM_ITS_FILE = '/boot/grub/loopback.cfg';
/** EFI programs’ own sections of a unified kernel (UAPI.5, “Unified Kernel Image”). */
const UNIFIED = { release: '.osrel', version: '.uname' } as const;

const LOADER_ARCH: Readonly<Record<string, Arch>> = {
  x64: 'x86_64',
  ia32: 'i686',
  aa64: 'aarch64',
  arm: 'armv7l',
};
const SPELT: Readonly<Record<string, Arch>> = {
  ...LOADER_ARCH,
  'x86-64': 'x86_64',
  x86_64: 'x86_64',
  amd64: 'x86_64',
  aarch64: 'aarch64',
  arm64: 'aarch64',
  armv7l: 'armv7l',
  armhf: 'armv7l',
  i386: 'i686',
  i486: 'i686',
  i586: 'i686',
  i686: 'i686',
};

const said = <T>(value: T | undefined | null, from: IdentitySource): Said<T> | null =>
  value === undefined || value === null || value === '' ? null : { value, from };

function ofRelease(text: string, from: IdentitySource): Names & { arch: Said<Arch> | null } {
  const keys = readOsRelease(text);
  const of = (key: string): string | undefined => keys.get(key)?.slice(0, 200);
  return {
    name: said(of('NAME'), from),
    version: said(of('VERSION_ID') ?? of('BUILD_ID') ?? of('IMAGE_VERSION'), from),
    variant: said(of('VARIANT') ?? of('VARIANT_ID'), from),
    arch: said(SPELT[of('ARCHITECTURE')?.toLowerCase() ?? ''], from),
  };
}

const ofDisc = (info: DiscInfo, from: IdentitySource): Names & { arch: Said<Arch> | null } => ({
  name: said(info.name?.slice(0, 120), from),
  version: said(info.version?.slice(0, 40), from),
  variant: null,
  arch: said(info.arch === undefined ? undefined : SPELT[info.arch], from),
});

/** What the files of a volume say by name, the surest first. */
async function namesOn(volume: ChainVolume): Promise<(Names & { arch: Said<Arch> | null })[]> {
  const { place } = volume;
  const out: (Names & { arch: Said<Arch> | null })[] = [];
  const read = async (path: string): Promise<string | undefined> => {
    const file = await readText({ volume, path });
    return 'text' in file ? file.text : undefined;
  };
  for (const path of OS_RELEASE) {
    const text = await read(path);
    if (text !== undefined) out.push(ofRelease(text, { code: 'os-release', path, place }));
  }
  const tree = await read('/.treeinfo');
  if (tree !== undefined)
    out.push(ofDisc(readTreeInfo(tree), { code: 'tree information', path: '/.treeinfo', place }));
  const disc = await read('/.disk/info');
  const [line = ''] = (disc ?? '').split(/\r?\n/);
  if (line) out.push(ofDisc(readDiscLine(line), { code: 'disc information', path: '/.disk/info', place }));
  return out;
}

/** What unified kernels among the loaders say in their own sections. */
async function unified(volumes: readonly BootVolume[]): Promise<{
  names: (Names & { arch: null })[];
  kernels: Said<string>[];
}> {
  const names: (Names & { arch: null })[] = [];
  const kernels: Said<string>[] = [];
  for (const { place, loaders } of volumes)
    for (const { path, file, sections } of loaders) {
      const section = async (name: string): Promise<string | undefined> => {
        const found = sections.find((s) => s.name === name);
        if (!found) return undefined;
        return textOf(await slice(file, found.offset, found.bytes).read(0, 64 * 1024)).replaceAll('\0', '');
      };
      const from = (name: string): IdentitySource => ({
        code: 'section of a unified kernel',
        path,
        place,
        section: name,
      });
      const release = await section(UNIFIED.release);
      if (release !== undefined) names.push({ ...ofRelease(release, from(UNIFIED.release)), arch: null });
      const version = said((await section(UNIFIED.version))?.trim().slice(0, 200), from(UNIFIED.version));
      if (version) kernels.push(version);
    }
  return { names, kernels };
}

/** Volumes by the place a rung names them with, those the firmware alone sees among them. */
function byPlace(volumes: readonly ChainVolume[], boot: readonly BootVolume[]) {
  const all = [...volumes, ...boot.map((b) => apart(b.place, () => Promise.resolve(fatAsVolume(b.fat))))].map(
    (v): [string, ChainVolume] => [JSON.stringify(v.place), v],
  );
  const map = new Map(all.reverse());
  return (place: ImagePlace): ChainVolume | undefined => map.get(JSON.stringify(place));
}

/** The kernels that starts come to, read by their headers. */
async function kernelsOf(
  rows: readonly Outcome[],
  find: (place: ImagePlace) => ChainVolume | undefined,
): Promise<{ kernels: Said<string>[]; archs: Said<Arch>[] }> {
  const kernels: Said<string>[] = [];
  const archs: Said<Arch>[] = [];
  const seen = new Set<string>();
  for (const { why } of rows.flatMap((r) => r.chain.filter((c) => c.rung === 'kernel'))) {
    if (why.code !== 'there') continue;
    const { path, place } = why;
    const key = JSON.stringify([path, place]);
    const volume = seen.has(key) ? undefined : find(place);
    seen.add(key);
    const opened = volume && (await openWanted({ volume, path }));
    const head = opened && 'file' in opened ? await readKernel(opened.file) : undefined;
    if (!head) continue;
    const from: IdentitySource = { code: 'kernel header', path, place };
    const version = said(head.version?.slice(0, 200), from);
    const arch = said(head.machine, from);
    if (version) kernels.push(version);
    if (arch) archs.push(arch);
  }
  return { kernels, archs };
}

/** What a program on a volume says of the processor it wants; the first that is found. */
async function programOn(
  volume: ChainVolume,
): Promise<{ arch: Said<Arch>; level: Said<(typeof cpuLevels)[number]> | null } | undefined> {
  for (const path of PROGRAMS) {
    const opened = await openWanted({ volume, path });
    const program = 'file' in opened ? await readElf(opened.file) : undefined;
    if (!program) continue;
    const from: IdentitySource = { code: 'program', path, place: volume.place };
    return {
      arch: { value: program.machine, from },
      level: program.level ? { value: `v${program.level}`, from } : null,
    };
  }
  return undefined;
}

function different<T>(all: readonly Said<T>[]): Said<T>[] {
  const out = new Map<T, Said<T>>();
  for (const s of all) if (!out.has(s.value)) out.set(s.value, s);
  return [...out.values()];
}

/**
 * What an image says of itself: name, version and variant by os-release, disc information, a unified kernel or the label
 * of its volume; processors by its programs, kernels and loaders; how large a drive its tables want. Bounded like every
 * other reading. Sources: os-release(5), UAPI.5, “The Linux/x86 Boot Protocol”, System V ABI; disc information by common
 * practice.
 */
export async function identityOf(
  facts: ImageFacts,
  boot: readonly BootVolume[],
  rows: readonly Outcome[],
): Promise<ImageIdentity> {
  const volumes = chainVolumes(facts);
  const names: (Names & { arch: Said<Arch> | null })[] = [];
  const programs: NonNullable<Awaited<ReturnType<typeof programOn>>>[] = [];
  for (const volume of volumes) {
    names.push(...(await namesOn(volume)));
    const program = await programOn(volume);
    if (program) programs.push(program);
  }
  const own = await unified(boot);
  names.push(...own.names);
  const labels = volumes.flatMap((v): Names[] =>
    v.label && (v.from === 'whole' || volumes.length === 1)
      ? [ofDisc(readDiscLine(v.label), { code: 'volume label', place: v.place })]
      : [],
  );
  const first = <K extends keyof Names>(key: K): Names[K] =>
    [...names, ...labels].find((n) => n[key] !== null)?.[key] ?? null;
  const started = await kernelsOf(rows, byPlace(volumes, boot));
  const loaders = boot.flatMap(({ place, loaders: on }) =>
    on.flatMap((l) => {
      const arch = l.removable && l.fault === null ? LOADER_ARCH[l.machine ?? ''] : undefined;
      const from: IdentitySource = { code: 'loader', path: l.path, place };
      return arch ? [{ value: arch, from }] : [];
    }),
  );
  // A program tells what the system is built for; a kernel or a loader may be wider than what it starts.
  const archs = [
    programs.map((p) => p.arch),
    started.archs,
    names.flatMap((n) => n.arch ?? []),
    loaders,
  ].find((some) => some.length > 0);
  return {
    name: first('name'),
    version: first('version'),
    variant: first('variant'),
    archs: different(archs ?? []),
    kernels: different([...started.kernels, ...own.kernels]),
    cpuLevel: programs.find((p) => p.level !== null)?.level ?? null,
    fromItsFile: facts.iso && (await facts.iso.find(FROM_ITS_FILE)) ? FROM_ITS_FILE : null,
    reaches: reach(facts),
  };
}
