import { z } from 'zod';
import { emptyBench, machinesOf } from '@zb/core/model/bench';
import { benchFromText } from '@zb/core/model/file';
import { factKeys, factValueSchema, type FactKey } from '@zb/core/model/facts';
import { machineSchema } from '@zb/core/model/shelf';
import { machineView, type MachineView } from '@zb/core/system/view';
import { readSurvey } from '@zb/core/machine/read';
import { InputError } from './inputFile';
import { surveyOutput, type SurveyOutput } from './survey';

const surveyJson = z.object({
  facts: z.record(z.string(), factValueSchema),
  drives: z
    .array(
      z.object({
        name: z.string(),
        bytes: z.number(),
        transport: z.string().nullable().optional(),
        removable: z.boolean().optional(),
      }),
    )
    .default([]),
});

const parse = (text: string, what: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputError(`${what} is neither JSON nor a survey report`);
  }
};

function fromSurvey(survey: SurveyOutput | z.infer<typeof surveyJson>): MachineView {
  const facts: MachineView['facts'] = {};
  for (const key of factKeys) {
    const value = (survey.facts as Partial<Record<FactKey, MachineView['facts'][FactKey]>>)[key];
    if (value !== undefined) facts[key] = value;
  }
  const drives = survey.drives
    .filter((d) => !d.removable)
    .map((d) => ({
      name: d.name,
      bytes: d.bytes,
      transport: 'other' as const,
      removable: false,
      fate: 'not decided' as const,
    }));
  return { name: 'this machine', facts, drives, parts: [] };
}

const isBench = (json: unknown): boolean =>
  typeof json === 'object' && json !== null && 'format' in json && json.format === 'zealous-box-bench';

/** A machine from a survey report, from the survey's JSON, from a machine record, or the only machine of a bench file. */
export function machineInput(text: string): MachineView {
  if (/^\s*====/m.test(text)) return fromSurvey(surveyOutput(readSurvey(text)));
  const json = parse(text, 'the machine file');
  const record = machineSchema.safeParse(json);
  if (record.success) return machineView({ ...emptyBench(), items: [record.data] }, record.data);
  if (isBench(json)) {
    const bench = benchFromText(text);
    const machines = machinesOf(bench);
    const [only] = machines;
    if (!only || machines.length !== 1)
      throw new InputError(`the bench file holds ${machines.length} machines; give one`);
    return machineView(bench, only);
  }
  const survey = surveyJson.safeParse(json);
  if (survey.success) return fromSurvey(survey.data);
  throw new InputError(
    'the machine file is neither a survey report, a survey’s JSON, a machine record nor a bench file',
  );
}
