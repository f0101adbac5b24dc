import { step, type StepDraft } from '../../runsheet/step';
import { optionOf } from '../../system/options';
import type { Scene } from '../scene';

/** The image fetched, and held against what was published. */
export function verifySteps({ box, profile, image }: Scene): StepDraft[] {
  if (!profile) return [];
  const { release, variant } = optionOf(profile, box);
  return [
    step(
      'verify',
      'verify:fetch',
      {
        code: 'fetch the image',
        system: profile.name,
        version: release.version,
        variant: profile.variants.length > 1 ? variant.name : null,
      },
      { after: ['choose:*'], seen: image !== undefined },
    ),
    step(
      'verify',
      'verify:sum',
      {
        code: 'compare the sum',
        image: image?.name ?? profile.name,
        sha256: image?.digests.sha256 ?? null,
      },
      { after: ['verify:fetch'], seen: image?.comparison?.verdict === 'same' },
    ),
  ];
}
