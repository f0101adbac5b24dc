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
});
export type Photo = z.infer<typeof photoSchema>;
