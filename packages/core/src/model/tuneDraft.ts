import { z } from 'zod';
import { number, numberOrNull, through, trimmed } from './typedFields';
import {
  panelSchema,
  quantityCodes,
  questionCodes,
  roomSchema,
  settingKinds,
  settingPlaces,
  settingSchema,
  tuneVerdictSchema,
  type Panel,
  type QuantityCode,
  type QuestionCode,
  type Setting,
  type SettingKind,
  type TunePlan,
  type TuneRun,
  type TuneVerdict,
} from './tune';

/** What a form says of a setting. */
export type SettingDraft = Omit<Setting, 'id'>;
/** Reads a setting from the form. */
export const settingOfDraft = (id: string): z.ZodType<Setting, SettingDraft> =>
  z
    .object({
      kind: z.enum(settingKinds),
      name: trimmed,
      place: z.enum(settingPlaces),
      came: trimmed,
      now: trimmed,
      why: trimmed,
      back: trimmed,
    })
    .transform((d, ctx) => through(settingSchema, { ...d, id }, ctx));

/** What a form says of panel and battery. */
export interface PanelDraft {
  hz: string;
  low: string;
  high: string;
  wattHours: string;
}
const rate = z.number().min(1).max(1000);
/** Reads panel and battery from the form. */
export const panelOfDraft: z.ZodType<Pick<TunePlan, 'panel' | 'batteryWattHours'>, PanelDraft> = z
  .object({
    hz: numberOrNull(z.number().min(10).max(1000)),
    low: numberOrNull(rate),
    high: numberOrNull(rate),
    wattHours: numberOrNull(z.number().positive().max(10_000)),
  })
  .transform((d, ctx) => {
    if (d.hz === null && (d.low !== null || d.high !== null)) {
      ctx.addIssue({ code: 'custom', path: ['hz'], message: 'is needed where it can vary, too' });
      return z.NEVER;
    }
    const panel =
      d.hz === null ? null : through<Panel>(panelSchema, { hz: d.hz, low: d.low, high: d.high }, ctx);
    return { panel, batteryWattHours: d.wattHours };
  });
/** Panel and battery for their form. */
export const panelDraftOf = (plan: TunePlan): PanelDraft => ({
  hz: text(plan.panel?.hz),
  low: text(plan.panel?.low),
  high: text(plan.panel?.high),
  wattHours: text(plan.batteryWattHours),
});
const text = (n: number | null | undefined): string => (n == null ? '' : String(n));

/** A temperature of the room as it is typed, °C; null where the line is empty. */
export const roomOfText: z.ZodType<number | null, string> = numberOrNull(roomSchema);

/** What a form says of a run whose figures are typed, by the code of each. */
export type RunDraft = Partial<Record<QuantityCode, string>> & { steady: boolean };
/** Reads typed figures; at least one is wanted. Rates of disks and wires are typed in MB/s. */
export const valuesOfDraft: z.ZodType<{ values: TuneRun['values']; steady: boolean }, RunDraft> = z
  .object({
    steady: z.boolean(),
    ...(Object.fromEntries(
      quantityCodes.map((c) => [c, numberOrNull(z.number().min(-1e12).max(1e12)).optional()]),
    ) as Record<QuantityCode, z.ZodOptional<z.ZodType<number | null, string>>>),
  })
  .transform(({ steady, ...d }, ctx) => {
    const values: TuneRun['values'] = {};
    for (const code of quantityCodes) {
      const v = d[code];
      if (v != null) values[code] = ['write', 'read', 'network'].includes(code) ? v * 1e6 : v;
    }
    if (Object.keys(values).length > 0) return { values, steady };
    ctx.addIssue({ code: 'custom', path: ['steady'], message: 'type one figure at least' });
    return z.NEVER;
  });

/** What a form says of a new experiment. */
export interface ExperimentDraft {
  question: QuestionCode;
  /** A setting of the sheet, or empty for a new one of the kind below. */
  settingId: string;
  kind: SettingKind;
  name: string;
  from: string;
  /** One value, or several with commas between them. */
  to: string;
  /** A second setting, for a planned factorial. */
  two: boolean;
  secondId: string;
  secondKind: SettingKind;
  secondFrom: string;
  secondTo: string;
  matters: string;
  runs: string;
  settle: string;
  seed: string;
}
/** The same, read. */
export interface ReadExperiment {
  question: QuestionCode;
  changes: { settingId: string | null; kind: SettingKind; name: string; values: string[] }[];
  matters: number | undefined;
  runs: number | undefined;
  settleSeconds: number | undefined;
  seed: number;
}
const orUndefined = (n: number | null): number | undefined => n ?? undefined;
const valuesIn = (t: string): string[] =>
  t
    .split(/[,;]/)
    .map((v) => v.trim())
    .filter(Boolean);

/** Reads a new experiment from the form: one setting with two to eight values, or two with two each. */
export const experimentOfDraft: z.ZodType<ReadExperiment, ExperimentDraft> = z
  .object({
    question: z.enum(questionCodes),
    settingId: z.string(),
    kind: z.enum(settingKinds),
    name: trimmed.max(200),
    from: trimmed.min(1).max(200),
    to: trimmed.min(1).max(1000),
    two: z.boolean(),
    secondId: z.string(),
    secondKind: z.enum(settingKinds),
    secondFrom: trimmed.max(200),
    secondTo: trimmed.max(200),
    matters: numberOrNull(z.number().positive().max(1e15)),
    runs: numberOrNull(z.number().int().min(2).max(12)),
    settle: numberOrNull(z.number().min(0).max(600)),
    seed: number(
      z
        .number()
        .int()
        .min(0)
        .max(2 ** 31),
    ),
  })
  .transform((d, ctx): ReadExperiment => {
    const refuse = (path: keyof ExperimentDraft, message: string): void =>
      ctx.addIssue({ code: 'custom', path: [path], message });
    const values = [d.from, ...valuesIn(d.to)];
    if (new Set(values).size !== values.length)
      refuse('to', 'names one value twice, or the one it stands at');
    if (values.length > 8) refuse('to', 'are more values than eight with the one it stands at');
    const name = (id: string, kind: SettingKind): string => (kind === 'other' && id === '' ? d.name : '');
    if (d.settingId === '' && d.kind === 'other' && d.name === '') refuse('name', 'is needed');
    if (d.two) {
      if (values.length !== 2) refuse('to', 'takes one value where two settings are changed');
      if (d.secondFrom === '') refuse('secondFrom', 'is needed');
      if (d.secondTo === '') refuse('secondTo', 'is needed');
      if (d.secondFrom !== '' && d.secondFrom === d.secondTo) refuse('secondTo', 'is the value it stands at');
      if (d.secondId !== '' ? d.secondId === d.settingId : d.settingId === '' && d.secondKind === d.kind)
        refuse('secondId', 'is the first setting again');
    }
    return {
      question: d.question,
      changes: [
        { settingId: d.settingId || null, kind: d.kind, name: name(d.settingId, d.kind), values },
        ...(d.two
          ? [
              {
                settingId: d.secondId || null,
                kind: d.secondKind,
                name: '',
                values: [d.secondFrom, d.secondTo],
              },
            ]
          : []),
      ],
      matters: orUndefined(d.matters),
      runs: orUndefined(d.runs),
      settleSeconds: d.settle === null ? undefined : d.settle * 60,
      seed: d.seed,
    };
  });

/** What a form says of a verdict. */
export interface VerdictDraft {
  is: TuneVerdict['is'];
  words: string;
}
/** Reads a verdict from the form. */
export const verdictOfDraft = (at: string): z.ZodType<TuneVerdict, VerdictDraft> =>
  z
    .object({ is: z.enum(['yes', 'partly', 'no']), words: trimmed })
    .transform((d, ctx) => through(tuneVerdictSchema, { ...d, at }, ctx));
