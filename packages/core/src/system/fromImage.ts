import { sameValue } from '../model/change';
import type { Origin, Origins } from '../model/origin';
import { contentOf, type ImageReading } from '../model/inspection';
import type { ImageItem } from '../model/shelf';
import { writtenBytes } from '../model/written';
import type { Profile, Release } from '../model/profile';
import { blankProfile, blankRelease } from './draft';
import { kernelYear } from './kernelYears';
import { soldAs } from './sold';

/** What no image says, and a person has to: guesses stand there until then. */
const NEVER_SAID = [
  'purpose',
  'about',
  'releases.0.channel',
  'releases.0.supportEnd',
  'needs.cores',
  'needs.memoryBytes',
  'needs.dataDrives',
  'needs.graphics',
  'needs.wiredPorts',
  'needs.virtualisation',
  'growsAtFirstStart',
  'installMinutes',
  'networkAtInstall',
  'admin',
  'login',
  'swap',
  'layout',
] as const;

/** A name and a version out of a file’s name: the last resort. */
function ofFileName(name: string): { name: string; version: string } {
  const bare = name.replace(/(\.(iso|img|raw|gz|xz|zst|bz2|zip))+$/i, '').replaceAll(/[_-]+/g, ' ');
  const [, version = ''] = /(?:^|\s)v?(\d+(?:\.\d+)*)(?=\s|$)/i.exec(bare) ?? [];
  const words = version ? bare.slice(0, bare.indexOf(version)) : bare;
  return { name: words.replace(/\sv$/i, '').trim() || bare, version };
}

const FIRMWARE = { bios: 'bios', board: 'board' } as const;

/** Modes by which the image starts something, as far as its bytes tell. */
function firmwareOf(reading: ImageReading): Profile['needs']['firmware'] {
  const started = reading.outcomes.filter((o) => o.starts === 'yes').map((o) => o.firmware);
  const modes = started.map((f) => (f in FIRMWARE ? FIRMWARE[f as keyof typeof FIRMWARE] : 'uefi'));
  return [...new Set(modes)].sort();
}

/** How the image is copied, by what of it starts. */
function writeModeOf(reading: ImageReading): Profile['writeMode'] {
  const whole = reading.outcomes.some((o) => o.attached === 'disk' && o.starts === 'yes');
  const files = (reading.fileCopy?.starts.length ?? 0) > 0;
  return whole ? (files ? 'either' : 'whole image') : files ? 'file copy' : 'whole image';
}

/** Signed where something starts with Secure Boot on; undefined where no UEFI start was judged. */
function secureBootOf(reading: ImageReading): Profile['secureBoot'] | undefined {
  const judged = reading.outcomes.flatMap((o) => o.secureBoot ?? []);
  if (judged.length === 0) return undefined;
  return judged.some((v) => v.starts !== 'no') ? 'signed' : 'must be off';
}

/**
 * A system begun from what an image says of itself, every value with its origin; what the image does not say is a guess
 * and marked so. Undefined where the image was never read. Memory and cores are in no image: they are asked.
 */
export function profileFromImage(image: ImageItem, id: string): Profile | undefined {
  const reading = image.inspection && contentOf(image.inspection);
  if (!reading) return undefined;
  const { identity } = reading;
  const origins: Origins = {};
  const from = <T>(path: string, value: T | null | undefined, origin: Origin | undefined, guess: T): T => {
    origins[path] = value === null || value === undefined || !origin ? { code: 'not said' } : origin;
    return value ?? guess;
  };
  const saying = (said: { from: Extract<Origin, { code: 'image says' }>['source'] } | null | undefined) =>
    said ? ({ code: 'image says', source: said.from } as const) : undefined;
  const blank = blankProfile(id);
  const file = ofFileName(image.name);

  const [kernel] = [...(identity?.kernels ?? [])].sort(
    (a, b) => (kernelYear(b.value) ?? 0) - (kernelYear(a.value) ?? 0),
  );
  const year = kernel && kernelYear(kernel.value);
  const archs = identity?.archs.map((a) => a.value) ?? [];
  const wide = archs.length === 0 || archs.includes('x86_64');
  const release: Release = {
    ...blankRelease('r1'),
    version: from(
      'releases.0.version',
      identity?.version?.value.slice(0, 40) ?? (file.version || null),
      saying(identity?.version) ?? { code: 'file name' },
      '1',
    ),
    archs: from('releases.0.archs', archs.length > 0 ? archs : null, saying(identity?.archs[0]), ['x86_64']),
    cpuLevel: wide
      ? from('releases.0.cpuLevel', identity?.cpuLevel?.value, saying(identity?.cpuLevel), 'v1')
      : null,
    newestYear: from(
      'releases.0.newestYear',
      year,
      kernel && { code: 'age of its kernel', version: kernel.value, source: kernel.from },
      null,
    ),
  };

  const optical = reading.layout.startsWith('iso9660');
  const layout: Origin = { code: 'its layout', layout: reading.layout };
  const bytes = writtenBytes(image);
  const modes = firmwareOf(reading);
  const starts: Origin = { code: 'how it starts' };
  const reaches = Math.max(identity?.reaches ?? 0, bytes);
  const profile: Profile = {
    ...blank,
    name: from(
      'name',
      identity?.name?.value ?? file.name,
      saying(identity?.name) ?? { code: 'file name' },
      blank.name,
    ),
    releases: [release],
    needs: {
      ...blank.needs,
      firmware: from('needs.firmware', modes.length > 0 ? modes : null, starts, blank.needs.firmware),
      // A disc holds an installer: how much it unpacks onto the drive stands nowhere in it.
      bootBytes: from(
        'needs.bootBytes',
        optical ? null : soldAs(reaches),
        { code: 'its size', bytes: reaches },
        Math.max(blank.needs.bootBytes, soldAs(reaches)),
      ),
    },
    secureBoot: from('secureBoot', secureBootOf(reading), starts, blank.secureBoot),
    installer: from(
      'installer',
      optical ? null : 'written straight to the final drive',
      layout,
      blank.installer,
    ),
    stickBytes: from('stickBytes', soldAs(reaches), { code: 'its size', bytes: reaches }, blank.stickBytes),
    writeMode: from('writeMode', modes.length > 0 ? writeModeOf(reading) : null, starts, blank.writeMode),
  };
  for (const path of NEVER_SAID) origins[path] = { code: 'not said' };
  const { variant } = identity ?? {};
  return {
    ...profile,
    variants: variant
      ? [{ id: 'standard', name: variant.value.slice(0, 80), drivers: ['in-kernel'] }]
      : profile.variants,
    calls: identity?.name ? [identity.name.value] : [],
    origins: {
      ...origins,
      'variants.0.drivers': { code: 'not said' },
      ...(variant ? { 'variants.0.name': { code: 'image says', source: variant.from } } : {}),
    },
  };
}

const at = (value: unknown, path: string): unknown =>
  path.split('.').reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], value);

/** A system as it is saved: of values that somebody changed the origin goes, for it is theirs now. */
export function settled(before: Profile, after: Profile): Profile {
  const same = (path: string): boolean => {
    const [head, index] = path.split('.');
    // A release or a variant that another has moved to the place of keeps no origin of that one.
    const list = head === 'releases' || head === 'variants';
    const id = (p: Profile): unknown => at(p, `${head}.${index}.id`);
    if (list && id(before) !== id(after)) return false;
    return sameValue(at(before, path), at(after, path));
  };
  return {
    ...after,
    origins: Object.fromEntries(Object.entries(after.origins).filter(([path]) => same(path))),
  };
}
