import { takeTicks } from '@zb/core/acts/run';
import { runSheetOf } from '@zb/core/box/runSheet';
import { closedAgainst } from '@zb/core/keeping/closed';
import { applyChanges } from '@zb/core/model/changes';
import { readTravel, TravelError, type Travel } from '@zb/core/model/travel';
import { wholeOf } from '@zb/core/runsheet/step';
import { hazardWords } from '@zb/core/words/hazard';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { backWords, hurtWords, mustWords } from '@zb/core/words/runsheet/around';
import { runSheetMarkdown } from '@zb/core/words/runsheet/markdown';
import { travelFaultWords, travelHtml, travelOf } from '@zb/core/words/runsheet/travel';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** Forms in which a run sheet is written. */
export const runSheetForms = ['json', 'md', 'html'] as const;

/** What `zb runsheet` prints: steps in order with times in seconds, or the sheet as Markdown or as a file that travels. */
export function runSheetOutput(text: string, id: string, as: string, madeAt: string): object | string {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const sheet = runSheetOf(bench, box);
  if (as === 'md') return runSheetMarkdown(sheet);
  if (as === 'html') return travelHtml(travelOf(sheet, box, bench.name, madeAt));
  if (as !== 'json') throw new InputError(`--as is one of: ${runSheetForms.join(', ')}`);
  return {
    ...sheet,
    next: sheet.next?.key ?? null,
    steps: sheet.steps.map((s) => ({
      ...s,
      seconds: wholeOf(s),
      against: s.against.map(hazardWords),
      must: s.must.map((m) => ({ ...m, words: mustWords(m) })),
      words: { ...runStepWords(s.what), hurts: s.hurts.map(hurtWords), back: backWords(s.back) },
    })),
  };
}

function travelFrom(html: string): Travel {
  try {
    return readTravel(html);
  } catch (error) {
    if (error instanceof TravelError) throw new InputError(travelFaultWords(error.fault));
    throw error;
  }
}

/** What `zb runsheet --read` prints: the bench with the ticks of a sheet that travelled, all of them or none. */
export function tickedOutput(text: string, id: string, html: string): object {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const travel = travelFrom(html);
  if (travel.box.id !== id)
    throw new InputError(travelFaultWords({ code: 'of another box', box: travel.box.name }));
  const { act, fresh, known, strange } = takeTicks(bench, box, travel.done);
  if (closedAgainst(bench, act))
    throw new InputError(
      `${box.name} is finished: nothing was changed. Open it again, with a reason, on its sheet Keep.`,
    );
  return { fresh, known, strange, bench: applyChanges(bench, act.changes) };
}
