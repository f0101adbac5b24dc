import { withItem, withoutItem } from '../units/list';
import { runsOfBox, type Bench, type Box } from '../model/bench';
import { edited, type Act, type Change } from '../model/changes';
import {
  noTune,
  type ArmName,
  type Experiment,
  type Setting,
  type TunePlan,
  type TuneRun,
  type TuneVerdict,
} from '../model/tune';
import { setsOf } from '../tune/results';
import { armWords, questionTitle } from '../words/tune';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

const planOf = (box: Box): TunePlan => box.tune ?? noTune();
const put = (box: Box, changed: Partial<TunePlan>): Change =>
  edited('boxes', box, { ...box, tune: { ...planOf(box), ...changed } });

const gone = (run: TuneRun): Change => ({ in: 'runs', id: run.id, to: null });

/** Changes what is said of stop 11. */
export const editTune = (box: Box, changed: Partial<TunePlan>, label: string): Act =>
  updateBox(box, { tune: { ...planOf(box), ...changed } }, label);

/** Keeps a setting; where what it stands at changed, the log says from what to what. */
export function keepSetting(box: Box, setting: Setting, stamp: Stamp): Act {
  const { settings } = planOf(box);
  const before = settings.find((s) => s.id === setting.id);
  const [from, to] = [before?.now ?? setting.came, setting.now];
  return {
    label: `${setting.name} saved`,
    changes: [
      put(box, { settings: withItem(settings, setting) }),
      ...(from === to || to === ''
        ? []
        : [
            logged({
              kind: 'setting',
              ...logBase(box, 'tune', stamp),
              text: setting.why === '' ? setting.name : `${setting.name}: ${setting.why}`,
              from,
              to,
            }),
          ]),
    ],
  };
}

/** Takes a setting off the sheet, unless an experiment changes it: then nothing is done. */
export function dropSetting(box: Box, setting: Setting): Act {
  const { settings, experiments } = planOf(box);
  const used = experiments.some((e) => e.changes.includes(setting.id));
  return {
    label: used ? `${setting.name} stays: an experiment changes it` : `${setting.name} taken off the sheet`,
    changes: used ? [] : [put(box, { settings: withoutItem(settings, setting.id) })],
  };
}

/** Plans an experiment; settings it changes that are not on the sheet yet are put there. */
export function planExperiment(box: Box, e: Experiment, settings: readonly Setting[], stamp: Stamp): Act {
  const plan = planOf(box);
  const all = settings.reduce<Setting[]>((list, s) => withItem(list, s), plan.settings);
  const text = `Experiment planned: ${questionTitle(e.question).toLowerCase()}, ${e.order.length} runs in the order ${e.order}`;
  return {
    label: text,
    changes: [
      put(box, { settings: all, experiments: withItem(plan.experiments, e) }),
      logged({ kind: 'note', ...logBase(box, 'tune', stamp), text }),
    ],
  };
}

/** Takes an experiment away with its runs. */
export function dropExperiment(bench: Bench, box: Box, e: Experiment): Act {
  const runs = runsOfBox(bench, box.id).filter((r) => r.experimentId === e.id);
  return {
    label: `Experiment taken away, with ${runs.length} runs`,
    changes: [put(box, { experiments: withoutItem(planOf(box).experiments, e.id) }), ...runs.map(gone)],
  };
}

/** Keeps runs. */
export const keepRuns = (runs: readonly TuneRun[], label: string): Act => ({
  label,
  changes: runs.map((r) => ({ in: 'runs', id: r.id, to: r })),
});

/** Keeps a run in the place of those that were made there before and did not count. */
export const putRun = (run: TuneRun, spent: readonly TuneRun[]): Act => ({
  label: `Run ${run.place + 1} kept`,
  changes: [...spent.map(gone), { in: 'runs', id: run.id, to: run }],
});

/** Takes a run away for good. */
export const dropRun = (run: TuneRun): Act => ({
  label: `Run ${run.place + 1} taken away`,
  changes: [gone(run)],
});

/** Leaves a run out of the count with its reason, or takes it in again with an empty one. */
export const leaveRunOut = (run: TuneRun, reason: string): Act => ({
  label: reason === '' ? `Run ${run.place + 1} counts again` : `Run ${run.place + 1} left out: ${reason}`,
  changes: [edited('runs', run, { ...run, leftOut: reason })],
});

/** Keeps a state of an experiment: the settings sheet follows, and the log says why. */
export function keepArm(box: Box, e: Experiment, arm: ArmName, because: string, stamp: Stamp): Act {
  const plan = planOf(box);
  const sets = setsOf(e, arm);
  const settings = plan.settings.map((s) => {
    const now = sets[s.id];
    return now === undefined ? s : { ...s, now, why: because === '' ? s.why : because };
  });
  const words = armWords(plan.settings, sets);
  const text = `${words} kept${because === '' ? '' : `: ${because}`}`;
  return {
    label: text,
    changes: [
      put(box, {
        settings,
        experiments: withItem(plan.experiments, { ...e, kept: arm, because }),
      }),
      logged({ kind: 'decision', ...logBase(box, 'tune', stamp), text }),
    ],
  };
}

/** Says whether it works, or whether one would recommend it; null takes it back. */
export function sayVerdict(
  box: Box,
  which: 'works' | 'recommended',
  verdict: TuneVerdict | null,
  stamp: Stamp,
): Act {
  const title = which === 'works' ? 'Works' : 'Recommended';
  const text = verdict ? `${title}: ${verdict.is}. ${verdict.words}`.trim() : `${title}: taken back`;
  return {
    label: text,
    changes: [
      put(box, { [which]: verdict }),
      logged({ kind: 'decision', ...logBase(box, 'tune', stamp), text }),
    ],
  };
}
