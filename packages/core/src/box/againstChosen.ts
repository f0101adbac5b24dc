import { writtenBytes } from '../model/written';
import { sameName, unsettledName } from '../system/called';
import { optionOf } from '../system/options';
import { hazard, type Hazard } from './hazard';
import type { Scene } from './scene';

/** No image of a whole system is so small a share of the drive it wants. Common practice, no source. */
const LEAST_SHARE = 0.005;

/** Is one version the beginning of the other, at a dot: 12 and 12.5? */
const sameVersion = (a: string, b: string): boolean => {
  const [one, other] = [a.split('.'), b.split('.')];
  const shorter = Math.min(one.length, other.length);
  return sameName(one.slice(0, shorter).join('.'), other.slice(0, shorter).join('.'));
};

/** Has the image said which processor, release, variant and system it is, and is that what was chosen? */
export function againstChosen({ image, reading, profile, box }: Scene): Hazard[] {
  if (!image || !reading || !profile) return [];
  const { release, variant } = optionOf(profile, box);
  const { name, version, variant: own, archs } = reading.identity ?? {};
  const params = { image: image.name, system: profile.name, version: release.version };
  const out: Hazard[] = [];
  const bytes = writtenBytes(image);
  const wants = profile.needs.bootBytes;
  if (bytes > 0 && bytes < wants * LEAST_SHARE)
    out.push(hazard('small for its system', 'check', 'verify', { ...params, bytes, wants }));
  const built = archs?.map((a) => a.value) ?? [];
  if (built.length > 0 && !built.some((a) => release.archs.includes(a)))
    out.push(
      hazard('for another processor', 'stop', 'verify', {
        ...params,
        built: built.join(', '),
        wants: release.archs.join(', '),
      }),
    );
  const says = unsettledName(profile, reading.identity);
  const called = profile.calls.length > 0;
  if (says !== undefined)
    out.push(hazard('calls itself otherwise', called ? 'check' : 'note', 'verify', { ...params, says }));
  // Of a name nobody has said to be this system, versions and variants cannot be held against each other.
  if (says !== undefined || !called) return out;
  if (version && !sameVersion(version.value, release.version))
    out.push(
      hazard('of another release', 'check', 'verify', { ...params, says: `${name?.value} ${version.value}` }),
    );
  const other = profile.variants.some((v) => v.id !== variant.id && sameName(v.name, own?.value ?? ''));
  if (own && other)
    out.push(
      hazard('of another variant', 'check', 'verify', { ...params, says: own.value, variant: variant.name }),
    );
  return out;
}
