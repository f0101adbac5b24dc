import { takeTicks } from '@zb/core/acts/run';
import { planOf } from '@zb/core/box/plan';
import { planExport, type PlanExport } from '@zb/core/box/planExport';
import { runSheetOf } from '@zb/core/box/runSheet';
import { closedAgainst } from '@zb/core/keeping/closed';
import { applyChanges } from '@zb/core/model/changes';
import { readTravel, TravelError, type Travel } from '@zb/core/model/travel';
import { wholeOf } from '@zb/core/runsheet/step';
import { hazardWords } from '@zb/core/words/hazard';
import { findMachine, storesOf, type Bench, type Box } from '@zb/core/model/bench';
import { goalResultWords, planHeadline, unmetLine } from '@zb/core/words/planEnd';
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
  if (as === 'md') return runSheetMarkdown(planOf(bench, box, sheet));
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

/** What `zb plan` prints: every step with its conditions and effects, where the plan ends, and whether that is what it is for. */
export function planOutput(text: string, id: string): object {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const plan = planOf(bench, box);
  return {
    box: box.id,
    reaches: plan.reaches,
    words: planHeadline(plan),
    unmet: plan.unmet.map((u) => ({ ...u, words: unmetLine(plan, u) })),
    goals: plan.goals.map((g) => ({ ...g, words: goalResultWords(g) })),
    operations: plan.sheet.steps.map((s) => ({
      key: s.key,
      stage: s.stop,
      kind: s.what.code,
      title: runStepWords(s.what).title,
      state: s.state,
      evidence: s.done?.by ?? null,
      after: s.after,
      requires: s.must,
      effects: s.effects,
      hands: s.hands,
      alone: s.alone,
      undo: s.back,
      cautions: s.hurts,
      needs: s.needs,
    })),
    end: {
      media: storesOf(plan.end.bench).map((s) => ({
        id: s.id,
        name: s.name,
        in: s.in,
        retention: s.fate,
        revision: s.revision,
        image: s.wholeImage?.imageId ?? null,
        system: s.installed?.boxId ?? null,
        pool: s.pooled?.boxId ?? null,
      })),
      machine: machineEnd(plan.end.bench, plan.end.box),
    },
  };
}

/** What `zb plan --export` prints: the state and the operations, for another program to work out what they lead to. */
export function planExportOutput(text: string, id: string): PlanExport {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  return planExport(bench, box, runSheetOf(bench, box));
}

/** Boot order and ports of the machine of a box as they are at the end. */
function machineEnd(bench: Bench, box: Box): object | null {
  const machine = findMachine(bench, box.machineId);
  if (!machine) return null;
  const { id, bootFirst, portsOff, keysEnrolled } = machine;
  return { id, bootFirst, portsOff, keysEnrolled };
}
