import { z } from 'zod';
import { FACTS, memoryKinds, type FactDefinition } from './factTable';

export type { FactDefinition };
export { FACTS, memoryKinds };
/** A fact by its key; keys are stable, files and the command line use them. */
export type FactKey = keyof typeof FACTS;
export const factKeys = Object.keys(FACTS) as FactKey[];
/** How a fact is shown, asked for and checked. */
export const factDefinition = (key: FactKey): FactDefinition => FACTS[key];

export const factValueSchema = z.union([z.string(), z.number(), z.boolean(), z.array(z.string())]);
export type FactValue = z.infer<typeof factValueSchema>;

/**
 * Three values kept apart: entered by hand wins over surveyed, surveyed over assumed (what machines of this kind usually
 * have). Each can be taken back without losing the others.
 */
export const factRecordSchema = z.object({
  surveyed: z.object({ value: factValueSchema, source: z.string(), at: z.string() }).optional(),
  entered: z.object({ value: factValueSchema, at: z.string() }).optional(),
  assumed: z.object({ value: factValueSchema, because: z.string() }).optional(),
});
export type FactRecord = z.infer<typeof factRecordSchema>;

export const factsSchema = z.partialRecord(z.enum(factKeys as [FactKey, ...FactKey[]]), factRecordSchema);
export type Facts = z.infer<typeof factsSchema>;
