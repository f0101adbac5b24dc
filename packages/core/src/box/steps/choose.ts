import { laidBox } from '../../layout/forBox';
import { contentTitle } from '../../model/content';
import { step, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';

/** The system, and what may become of each drive inside. */
export function chooseSteps({ bench, box, machine, profile, inside }: Scene): StepDraft[] {
  if (!machine) return [];
  const which = laidBox(bench, box);
  return [
    step(
      'choose',
      'choose:system',
      { code: 'choose a system', machine: machine.name },
      { after: ['survey:*'], seen: profile !== undefined },
    ),
    ...inside
      .filter((s) => s.fate === 'not decided')
      .map((s) =>
        step(
          'choose',
          `choose:drive:${s.id}`,
          { code: 'decide a drive', drive: s.name, serial: s.serial, holds: contentTitle(s) },
          { after: ['survey:read'] },
        ),
      ),
    ...(which.why?.code === 'which drive'
      ? [
          step(
            'choose',
            'choose:which',
            { code: 'say which drive', drives: which.drives.map((d) => d.name) },
            { after: ['choose:system', 'choose:drive:*'] },
          ),
        ]
      : []),
  ];
}
