import { z } from 'zod';

/**
 * A photograph, as a data address made small by the page: of a label or a board of a machine, or one that a line of the
 * log names.
 */
export const photoSchema = z.object({
  id: z.string().min(1).max(80),
  at: z.string(),
  caption: z.string().max(200),
  data: z.string().startsWith('data:image/'),
  machineId: z.string().nullable(),
  /** Points on it, from its left and its top, 0 to 1, with what is there. */
  marks: z
    .array(
      z.object({
        x: z.number().min(0).max(1),
        y: z.number().min(0).max(1),
        text: z.string().max(120),
      }),
    )
    .max(60)
    .default([]),
});
/** A point on a photograph. */
export type PhotoMark = Photo['marks'][number];
/** A photograph with its marks. */
export type Photo = z.infer<typeof photoSchema>;
