import { keysOf } from '../../formats/loaderEntry';
import type { ByteSource } from '../../formats/source';
import type { Rung } from '../../model/inspection';
import { initialDiskRung, kernelRung, openWanted, readText, rung, type Wanted } from './files';
import type { Followed } from './grub';
import { specificationEntries } from './loaderEntries';
import type { ChainVolume } from './volumes';

/** Type of the part that may hold entries beside the loader's own (UAPI.2, Discoverable Partitions Specification). */
const EXTENDED_LOADER_GUID = 'BC13C2FF-59E6-4262-A352-B275FD6F7172';
const MAX_UNIFIED = 40;

interface Choice {
  id: string;
  path: string;
  volume: ChainVolume;
  follow(): Promise<Followed>;
}

async function unified(volume: ChainVolume): Promise<Choice[]> {
  const names = (await (await volume.open())?.names('/EFI/Linux')) ?? [];
  return names
    .filter((n) => /\.efi$/i.test(n))
    .sort((a, b) => b.localeCompare(a, 'en', { numeric: true }))
    .slice(0, MAX_UNIFIED)
    .map((name) => {
      const wanted: Wanted = { volume, path: `/EFI/Linux/${name}` };
      return {
        id: name,
        path: wanted.path,
        volume,
        follow: () => Promise.resolve({ rungs: [], program: wanted }),
      };
    });
}

async function entries(source: ByteSource, volume: ChainVolume, arch: string): Promise<Choice[]> {
  return (await specificationEntries(volume))
    .filter(({ entry }) => entry.architecture === undefined || entry.architecture.toLowerCase() === arch)
    .map(({ id, path, entry }) => ({
      id: `${id}.conf`,
      path,
      volume,
      async follow() {
        const program = entry.efi;
        if (entry.linux === undefined && program !== undefined)
          return { rungs: [], program: { volume, path: program } };
        const rungs: Rung[] = [];
        if (entry.linux !== undefined)
          rungs.push(await kernelRung(source, { volume, path: entry.linux }, 'efi'));
        else rungs.push(rung('kernel', { code: 'names nothing', path, place: volume.place }));
        for (const disk of entry.initrd) rungs.push(await initialDiskRung(source, { volume, path: disk }));
        return { rungs, program: undefined };
      },
    }));
}

/** A pattern of loader.conf: letters, ? for one and * for any. */
const matches = (pattern: string, id: string): boolean => {
  const source = pattern
    .toLowerCase()
    .replace(/[.+^${}()|[\]\\]/g, '\\$&')
    .replace(/\*+/g, '.*')
    .replace(/\?/g, '.');
  const whole = new RegExp(`^${source}$`);
  const plain = id.toLowerCase();
  return whole.test(plain) || whole.test(plain.replace(/\.(conf|efi)$/, ''));
};

/**
 * Follows a loader of the Boot Loader Specification: the entries on its own volume and on an extended loader part, unified
 * kernels among them, to the kernel of the one that is started when nobody chooses. Sources: UAPI.1 (entries, sorting),
 * UAPI.2 (the part), loader.conf(5) for the pattern.
 */
export async function followSpecification(
  source: ByteSource,
  own: ChainVolume,
  volumes: readonly ChainVolume[],
  arch: string,
): Promise<Followed> {
  const more = volumes.filter(
    (v) => v !== own && v.type.toUpperCase() === EXTENDED_LOADER_GUID && v.place.of === 'part',
  );
  const all: Choice[] = [];
  for (const volume of [own, ...more]) all.push(...(await entries(source, volume, arch)));
  for (const volume of [own, ...more]) all.push(...(await unified(volume)));
  const conf = await readText({ volume: own, path: '/loader/loader.conf' });
  const pattern = 'why' in conf ? undefined : keysOf(conf.text).findLast((k) => k.key === 'default')?.value;
  const choice = (pattern === undefined ? undefined : all.find((c) => matches(pattern, c.id))) ?? all[0];
  if (!choice)
    return {
      rungs: [
        rung('configuration', {
          code: 'no configuration',
          paths: ['/loader/entries/*.conf', '/EFI/Linux/*.efi'],
          place: own.place,
        }),
      ],
      program: undefined,
    };
  const { rungs, program } = await choice.follow();
  const there = await openWanted({ volume: choice.volume, path: choice.path });
  const found = rung(
    'configuration',
    'why' in there ? there.why : { code: 'there', path: choice.path, place: choice.volume.place },
  );
  return { rungs: [found, ...rungs], program };
}
