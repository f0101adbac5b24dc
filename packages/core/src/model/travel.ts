import { z } from 'zod';
import { STEP_LENGTH, stepRecordSchema } from './run';
import { stopSchema } from './stops';

const line = z.string().max(4000);

/** A step as a sheet that travels shows it, whole: it has nothing else to look anything up in. Seconds. */
export const travelStepSchema = z.object({
  key: z.string().min(1).max(400),
  number: z.number().int().positive(),
  stop: stopSchema,
  title: line,
  lines: z.array(line).max(200),
  exact: z.array(z.object({ label: line, text: z.string().max(100_000) })).max(50),
  change: z.object({ from: line, to: line }).nullable(),
  first: z.array(line).max(50),
  why: line,
  see: line,
  wrong: line,
  hurts: z.array(line).max(20),
  back: line,
  usual: z.string().max(200),
  asks: line.nullable(),
  after: z.array(z.string()).max(1000),
  /** What the step is, as it is kept with a tick. */
  as: z.string().max(STEP_LENGTH),
});
/** A step as a sheet that travels shows it. */
export type TravelStep = z.infer<typeof travelStepSchema>;

/** What a sheet that travels carries: the steps of one box, and what was done of them. */
export const travelSchema = z.object({
  format: z.literal('zealous-box-run'),
  version: z.literal(1),
  box: z.object({ id: z.string().min(1).max(80), name: z.string().max(200) }),
  bench: z.string().max(120),
  madeAt: z.iso.datetime(),
  steps: z.array(travelStepSchema).max(2000),
  done: z.record(z.string().min(1).max(400), stepRecordSchema),
});
/** What a sheet that travels carries. */
export type Travel = z.infer<typeof travelSchema>;

/** Why a file was not taken as a sheet that travelled. */
export type TravelFault =
  | { code: 'no record in it' }
  | { code: 'not JSON' }
  | { code: 'not as it was made'; path: string; why: string }
  | { code: 'a tick without its step'; key: string }
  | { code: 'of another box'; box: string };

/** A file that was not taken; nothing of it was used. */
export class TravelError extends Error {
  constructor(readonly fault: TravelFault) {
    super(fault.code);
    this.name = 'TravelError';
  }
}

/** The element of the file that holds what it carries. */
export const TRAVEL_ID = 'zealous-box-run';
const RECORD = new RegExp(`<script type="application/json" id="${TRAVEL_ID}">([\\s\\S]*?)</script>`);

/** Reads what a sheet that travelled carries. Throws TravelError; nothing is taken in part. */
export function readTravel(html: string): Travel {
  const inside = RECORD.exec(html)?.[1];
  if (inside === undefined) throw new TravelError({ code: 'no record in it' });
  let value: unknown;
  try {
    value = JSON.parse(inside);
  } catch {
    throw new TravelError({ code: 'not JSON' });
  }
  const parsed = travelSchema.safeParse(value);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new TravelError({
      code: 'not as it was made',
      path: issue?.path.join('.') ?? '',
      why: issue?.message ?? '',
    });
  }
  const keys = new Set(parsed.data.steps.map((s) => s.key));
  const stray = Object.keys(parsed.data.done).find((k) => !keys.has(k));
  if (stray !== undefined) throw new TravelError({ code: 'a tick without its step', key: stray });
  return parsed.data;
}
