import { z } from 'zod';
import { about } from './coded';
import { gptFaults } from '../formats/gpt/read';
import { chainFaults } from '../formats/mbr/read';
import { imagePlaceSchema } from './imagePlace';
import { loaderFaultSchema } from './startReason';

const bytes = z.number();

/** Why a packed file cannot be unpacked; words/packedFault.ts says it and what can be done. */
const packedFaultSchema = z.discriminatedUnion('code', [
  z.object({
    code: z.enum([
      /** Its data is damaged or ends early. */
      'damaged',
      /** An .xz file with a check or filter that is not read here. */
      'xz check not read',
      'locked',
      'method not read',
      /** What is inside lies so scattered that it cannot be read without unpacking all of it. */
      'scattered',
    ]),
  }),
  /** An archive with several images, by name. */
  about('several images', { names: z.array(z.string()) }),
  /** An archive with so many files, none of them named like an image. */
  about('no image among them', { files: z.number().int() }),
]);
export type PackedFaultReason = z.infer<typeof packedFaultSchema>;

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
  /** BIOS boot code, and no entry of the table marked active. */
  about('no entry active', {}),
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
