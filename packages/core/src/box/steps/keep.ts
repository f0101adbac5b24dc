import { hostsOfBox } from '../../model/bench';
import { optionOf } from '../../system/options';
import { step, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';

const AFTER = [
  'survey:*',
  'choose:*',
  'verify:*',
  'first:*',
  'net:*',
  'load:*',
  'tune:*',
  'setup:*',
  'write:*',
];

/** What whoever stands before the box in three years wants to find. */
export function keepSteps({ bench, box, machine, profile, target }: Scene): StepDraft[] {
  if (!machine || !profile) return [];
  const addresses = hostsOfBox(bench, box.id).flatMap((h) => (h.address === null ? [] : [h.address]));
  const kept = box.first?.password?.kept ?? null;
  const { release } = optionOf(profile, box);
  return [
    ...(profile.login === 'no login'
      ? []
      : [
          step(
            'keep',
            'keep:password',
            { code: 'password on paper', kept },
            { after: AFTER, seen: box.first?.password != null },
          ),
        ]),
    step(
      'keep',
      'keep:label',
      { code: 'stick the label on', box: box.name, lines: [box.purpose, ...addresses] },
      { after: AFTER },
    ),
    step(
      'keep',
      'keep:sheet',
      { code: 'print the build sheet' },
      { after: [...AFTER, 'keep:label', 'keep:password'] },
    ),
    ...(target?.removable
      ? [
          step(
            'keep',
            'keep:stick',
            { code: 'keep the stick', stick: target.name },
            { after: ['back:stick', ...AFTER] },
          ),
        ]
      : []),
    ...(release.supportEnd === null
      ? []
      : [
          step(
            'keep',
            'keep:support',
            {
              code: 'note the end of support',
              system: `${profile.name} ${release.version}`,
              day: release.supportEnd,
            },
            { after: AFTER },
          ),
        ]),
  ];
}
