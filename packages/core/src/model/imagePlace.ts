import { z } from 'zod';

/** Where in an image a loader or a boot record lies. */
export const imagePlaceSchema = z.discriminatedUnion('of', [
  /** A part by its number in the table, with the label of its file system where it has one. */
  z.object({ of: z.literal('part'), index: z.number().int(), label: z.string().nullable() }),
  z.object({ of: z.literal('whole image') }),
  z.object({ of: z.literal('boot catalogue') }),
  z.object({ of: z.literal('floppy image') }),
  /** A volume that is no FAT part: its number in the table (0 for the whole image), what is on it, its label. */
  z.object({
    of: z.literal('volume'),
    index: z.number().int(),
    filesystem: z.string().nullable(),
    label: z.string().nullable(),
  }),
  z.object({ of: z.literal('optical volume') }),
  /** A file system in the loader's own file. */
  z.object({ of: z.literal('in the loader') }),
  /** A file system in a file of the image that a loader opens. */
  z.object({ of: z.literal('in a file'), path: z.string() }),
  /** As a reading of earlier rules had it, in its words. */
  z.object({ of: z.literal('earlier rules'), words: z.string() }),
]);
export type ImagePlace = z.infer<typeof imagePlaceSchema>;
