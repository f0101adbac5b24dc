import { attachments } from '@zb/core/model/medium';
import { z } from 'zod';
import { arranged, emptyBench, machinesOf } from '@zb/core/model/bench';
import { benchFromText } from '@zb/core/model/file';
import type { Stamp } from '@zb/core/acts/stamp';
import { surveyedBench } from '@zb/core/acts/surveyed';
import type { Survey } from '@zb/core/machine/types';
import { contentSchema, emptyContent } from '@zb/core/model/content';
import { detailsSchema, noDetails } from '@zb/core/model/details';
import { factKeys, factValueSchema } from '@zb/core/model/facts';
import { machineSchema, networkPortSchema } from '@zb/core/model/shelf';
import { machineView, type MachineView } from '@zb/core/system/view';
import { readSurvey } from '@zb/core/machine/read';
import { InputError } from './inputFile';

/** What `zb survey` prints, or by hand no more than facts and drives. */
const surveyJson = z.object({
  facts: z.record(z.string(), factValueSchema),
  sources: z.record(z.string(), z.string()).default({}),
  assumed: z.record(z.string(), z.object({ value: factValueSchema, because: z.string() })).default({}),
  drives: z
    .array(
      z.object({
        name: z.string(),
        bytes: z.number(),
        serial: z.string().nullable().default(null),
        model: z.string().nullable().default(null),
        transport: z.string().nullable().default(null),
        rotational: z.boolean().nullable().default(null),
        sectorBytes: z
          .union([z.literal(512), z.literal(4096)])
          .nullable()
          .default(null),
        shingled: z.literal(true).nullable().default(null),
        removable: z.boolean().default(false),
        removableMedium: z.boolean().nullable().default(null),
        attachment: z.enum(attachments).nullable().default(null),
        content: contentSchema.default(emptyContent('survey', '')),
      }),
    )
    .default([]),
  networkPorts: z.array(networkPortSchema).default([]),
  details: detailsSchema.default(noDetails()),
  missing: z.array(z.string()).default([]),
});

const parse = (text: string, what: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputError(`${what} is neither JSON nor a survey report`);
  }
};

/** Names need no more than to differ: the machine is thrown away when it is judged. */
const stamp = (): Stamp => {
  let n = 0;
  return { now: '', id: () => `surveyed-${(n += 1)}` };
};

const viewOf = (survey: Survey): MachineView => {
  const { bench, machine } = surveyedBench(survey, stamp());
  return machineView(bench, machine);
};

/** A survey's JSON as the reader gives it: widths are numbers on the command line, and text within. */
function fromJson(json: z.infer<typeof surveyJson>): Survey {
  const facts: Survey['facts'] = {};
  for (const key of factKeys) {
    const value = json.facts[key];
    if (value !== undefined)
      facts[key] = {
        value: key.endsWith('.bits') ? String(value) : value,
        source: json.sources[key] ?? 'the JSON that was given',
      };
  }
  const assumed: Survey['assumed'] = {};
  for (const key of factKeys) {
    const found = json.assumed[key];
    if (found) assumed[key] = found;
  }
  return { ...json, facts, assumed };
}

const isBench = (json: unknown): boolean =>
  typeof json === 'object' && json !== null && 'format' in json && json.format === 'zealous-box-bench';

/**
 * A machine from a survey report, from the survey's JSON, from a machine record, or from a bench file: the one that `id`
 * names, or the only one. Built by the page's own acts and seen by the page's own view.
 */
export function machineInput(text: string, id?: string): MachineView {
  if (/^\s*====/m.test(text)) return viewOf(readSurvey(text));
  const json = parse(text, 'the machine file');
  const record = machineSchema.safeParse(json);
  if (record.success) return machineView({ ...emptyBench(), items: [record.data] }, record.data);
  if (isBench(json)) {
    const bench = arranged(benchFromText(text));
    const machines = machinesOf(bench);
    const named = id === undefined ? machines : machines.filter((m) => m.id === id);
    const [only] = named;
    if (!only || named.length !== 1)
      throw new InputError(
        id === undefined
          ? `the bench file holds ${machines.length} machines; name one with --id`
          : `the bench file holds no machine “${id}”`,
      );
    return machineView(bench, only);
  }
  const survey = surveyJson.safeParse(json);
  if (survey.success) return viewOf(fromJson(survey.data));
  throw new InputError(
    'the machine file is neither a survey report, a survey’s JSON, a machine record nor a bench file',
  );
}
