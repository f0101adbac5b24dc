import type { StepDraft } from '../../runsheet/step';
import { step } from '../../runsheet/step';
import type { Scene } from '../scene';

/** Reading the machine, and each fact that is still wanted. */
export function surveySteps({ machine, judged }: Scene): StepDraft[] {
  if (!machine) return [];
  const read = step(
    'survey',
    'survey:read',
    { code: 'read the machine', machine: machine.name },
    { seen: machine.surveyedAt !== null },
  );
  const facts = [...new Set((judged?.missing ?? []).map((m) => m.fact))];
  return [
    read,
    ...facts.map((fact) =>
      step('survey', `survey:fact:${fact}`, { code: 'look a fact up', fact }, { after: ['survey:read'] }),
    ),
  ];
}
