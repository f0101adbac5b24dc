import { tuneOf } from '../../tune/forBox';
import { step, type StepDraft } from '../../runsheet/step';
import { span } from '../../units/duration';
import type { Scene } from '../scene';

/** Every experiment that was planned. */
export function tuneSteps({ bench, box }: Scene): StepDraft[] {
  if (box.tune === null) return [];
  return tuneOf(bench, box).results.map((r) => {
    const { settleSeconds, measureSeconds, coolSeconds, id, question } = r.experiment;
    const left = r.next === null ? 0 : r.planned - r.made;
    const each = settleSeconds + measureSeconds + coolSeconds;
    return step(
      'tune',
      `tune:${id}`,
      { code: 'measure', question, runs: r.made, planned: r.planned },
      {
        after: ['load:*', 'first:*', 'net:*'],
        seen: r.next === null,
        hands: span(left * 40, left * 150),
        alone: span(left * each, left * each * 1.1),
      },
    );
  });
}
