import type { Bench, Box } from '../model/bench';
import type { Stop } from '../model/stops';
import { applyEffects } from '../runsheet/apply';
import type { Must } from '../runsheet/step';
import { conditionHolds } from './conditions';
import type { GoalResult, WayOut } from './goal';
import { goalsOf } from './goals';
import { isOpen, runSheetOf, type RunSheet, type RunStep } from './runSheet';

/** A step that cannot be done when it comes: the condition that does not hold then, and where that is mended. */
export interface Unmet {
  key: string;
  stage: Stop;
  must: Must;
  wayOut: WayOut;
}

/** The one plan of a box: its steps in order, the bench as they leave it, and whether they reach what they are for. */
export interface Plan {
  sheet: RunSheet;
  /** Bench and box once every open step is done. */
  end: { bench: Bench; box: Box };
  /** Steps that cannot be done when they come. */
  unmet: Unmet[];
  goals: GoalResult[];
  /** Does the plan reach its end? Null where something cannot be told. */
  reaches: boolean | null;
}

const MENDED_AT: Record<Must['code'], Stop> = {
  'medium is chosen': 'write',
  'stick is not the system drive': 'write',
  'way is decided': 'write',
  'adapter is at hand': 'gather',
  'another system runs': 'write',
  'drive may be lost': 'choose',
  'sum agrees': 'verify',
  'stick is proven': 'write',
  'image fits': 'write',
  'drive is in the machine': 'gather',
  'stick starts': 'firmware',
  'address is settled': 'network',
  'drives have serials': 'load',
  'machine is off': 'firmware',
};

/** Where a condition that does not hold is mended. */
export const wayOutOf = ({ code }: Pick<Must, 'code'>): WayOut => ({
  stage: MENDED_AT[code],
  act: { code: 'decide' },
});

/** When the plan is foretold, as an act would stamp it: no moment of the clock, so that the same bench gives the same plan. */
const FORETOLD = '1970-01-01T00:00:00.000Z';

/** Bench and box before each step that is still to be done, as the steps before it leave them; `null`: after the last. */
export function* walkPlan(
  bench: Bench,
  box: Box,
  { steps }: Pick<RunSheet, 'steps'>,
): Generator<{ step: RunStep | null; bench: Bench; box: Box }> {
  let now = { bench, box };
  for (const step of steps.filter(isOpen)) {
    yield { step, ...now };
    if (step.effects.length > 0) now = applyEffects(now.bench, now.box, step.effects, FORETOLD);
  }
  yield { step: null, ...now };
}

/**
 * The plan of a box. What is done lies in the bench already; the effects of the steps that are left are applied to it one
 * after the other by the same function as an act applies them, and every condition and goal is asked of the bench as it will
 * be then. A step that is skipped, or that nobody recorded, changes nothing.
 */
export function planOf(bench: Bench, box: Box, sheet: RunSheet = runSheetOf(bench, box)): Plan {
  const unmet: Unmet[] = [];
  // What fails because a step before it cannot be done is not lacking by itself.
  const behind = new Set<string>();
  let end = { bench, box };
  for (const at of walkPlan(bench, box, sheet)) {
    end = { bench: at.bench, box: at.box };
    const { step } = at;
    if (!step) continue;
    if (step.after.some((k) => behind.has(k))) {
      behind.add(step.key);
      continue;
    }
    const must = step.must.find((m) => conditionHolds(at.bench, at.box, m) === false);
    if (!must) continue;
    behind.add(step.key);
    unmet.push({
      key: step.key,
      stage: step.stop,
      must,
      wayOut: wayOutOf(must),
    });
  }
  const goals = goalsOf({
    now: { bench, box },
    end,
    notDone: sheet.steps
      .filter((s) => s.state === 'left out' || s.state === 'not recorded')
      .map((s) => s.key),
  });
  const open = goals.some((g) => g.holds === null);
  const fails = unmet.length > 0 || goals.some((g) => g.holds === false);
  return { sheet, end, unmet, goals, reaches: fails ? false : open ? null : true };
}
