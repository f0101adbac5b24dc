import { arms, type Experiment, type QuestionCode, type Setting, type TunePlan } from '../model/tune';
import type { ReadExperiment } from '../model/tuneDraft';
import { designOf, type Design, type DesignGround } from './design';
import { settingDefinitions } from './settings';

/** What somebody wants to try: a question, one setting with its values in order, or two with two values each. */
export interface Proposal {
  question: QuestionCode;
  /** Each setting with the values it takes, the one it stands at first. */
  changes: readonly { setting: Setting; values: readonly string[] }[];
  matters?: number | undefined;
  runs?: number | undefined;
  settleSeconds?: number | undefined;
  measureSeconds?: number | undefined;
  seed: number;
}

/** What a form proposes: settings of the sheet, or new ones made from their kind, which take these ids. */
export const proposalOf = (read: ReadExperiment, plan: TunePlan, ids: readonly string[]): Proposal => ({
  question: read.question,
  changes: read.changes.map(({ settingId, kind, name, values }, i) => {
    const { title, place, back } = settingDefinitions[kind];
    const [stands = ''] = values;
    const made: Setting = {
      id: ids[i] ?? `new-${i}`,
      kind,
      name: name || title,
      place,
      came: stands,
      now: stands,
      why: '',
      back,
    };
    return { setting: plan.settings.find((s) => s.id === settingId) ?? made, values };
  }),
  matters: read.matters,
  runs: read.runs,
  settleSeconds: read.settleSeconds,
  seed: read.seed,
});

/** States of a proposal: of one setting each of its values, of two all four together. */
function armsOf({ changes }: Proposal): Experiment['arms'] {
  const [first, second] = changes;
  if (!first) return [];
  const sets = second
    ? [0, 1].flatMap((b) =>
        [0, 1].map((a) => ({
          [first.setting.id]: first.values[a] ?? '',
          [second.setting.id]: second.values[b] ?? '',
        })),
      )
    : first.values.map((v) => ({ [first.setting.id]: v }));
  return sets.flatMap((s, i) => {
    const arm = arms[i];
    return arm ? [{ arm, sets: s }] : [];
  });
}

/** The plan of a proposal. */
export const designFor = (p: Proposal, ground: DesignGround): Design =>
  designOf(
    {
      question: p.question,
      arms: Math.min(8, Math.max(2, p.changes[0]?.values.length ?? 2)),
      factorial: p.changes.length === 2,
      seed: p.seed,
      ...(p.matters === undefined ? {} : { matters: p.matters }),
      ...(p.runs === undefined ? {} : { runs: p.runs }),
    },
    { ...ground, once: p.changes.some((c) => settingDefinitions[c.setting.kind].once) },
  );

/** The experiment of a proposal, to be checked by its schema and kept. */
export function experimentOf(p: Proposal, design: Design, of: { id: string; at: string }): Experiment {
  return {
    ...of,
    question: p.question,
    changes: p.changes.map((c) => c.setting.id),
    arms: armsOf(p),
    matters: design.matters,
    order: design.order,
    seed: p.seed,
    settleSeconds: p.settleSeconds ?? design.settle?.seconds ?? 0,
    measureSeconds: p.measureSeconds ?? design.measureSeconds,
    coolSeconds: design.coolSeconds,
    kept: null,
    because: '',
  };
}
