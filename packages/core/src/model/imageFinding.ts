import { z } from 'zod';
import { gptFaults } from '../formats/gpt/read';
import { chainFaults } from '../formats/mbr/read';
import { imagePlaceSchema, loaderFaultSchema } from './startReason';

const about = <const C extends string, S extends z.ZodRawShape>(code: C, shape: S) =>
  z.object({ code: z.literal(code), ...shape });
const bytes = z.number();

/** Why a packed file cannot be unpacked (container/fault.ts), as it is kept. */
const packedFaultSchema = z.discriminatedUnion('code', [
  z.object({ code: z.enum(['damaged', 'xz check not read', 'locked', 'method not read', 'scattered']) }),
  about('several images', { names: z.array(z.string()) }),
  about('no image among them', { files: z.number().int() }),
]);
export type PackedFaultRecord = z.infer<typeof packedFaultSchema>;

/** A fault of the file itself: a code and what it is about, sizes in bytes; words/image says it. */
export const imageFaultSchema = z.discriminatedUnion('code', [
  about('earlier rules', { words: z.string() }),
  about('packed', { kind: z.string() }),
  about('cannot be unpacked', { why: packedFaultSchema }),
  about('empty', {}),
  about('nothing known in it', {}),
  about('cut short', { wanted: bytes, missing: bytes }),
  /** `other` is true where the other copy is good and is used. */
  about('table copy unsound', {
    copy: z.enum(['first', 'second']),
    faults: z.array(z.enum(gptFaults)),
    there: z.boolean(),
    other: z.boolean(),
  }),
  about('table copies differ', {}),
  about('made for a smaller disk', { disk: bytes, more: bytes }),
  about('made for a larger disk', { disk: bytes, less: bytes }),
  about('part outside the usable range', { part: z.number().int() }),
  about('chain of logical drives', { fault: z.enum(chainFaults), drive: z.number().int().nullable() }),
  about('parts overlap', { first: z.number().int(), second: z.number().int() }),
  about('file system larger than its part', {
    part: z.number().int(),
    filesystem: z.string().nullable(),
    says: bytes,
    holds: bytes,
  }),
  about('loader cannot run', { path: z.string(), place: imagePlaceSchema, fault: loaderFaultSchema }),
  about('boot catalogue damaged', {}),
  about('appended', { bytes }),
  about('padded with zeros', { bytes }),
]);
export type ImageFault = z.infer<typeof imageFaultSchema>;

/** A fault with its grade (as hazards are graded) and the byte it is about, where there is one. */
export const imageFindingSchema = z.object({
  grade: z.enum(['stop', 'check', 'note']),
  fault: imageFaultSchema,
  offset: z.number().optional(),
});
export type ImageFinding = z.infer<typeof imageFindingSchema>;
