import { z } from 'zod';

/** The schema of one code of a union with what it is about. */
export const about = <const C extends string, S extends z.ZodRawShape>(code: C, shape: S) =>
  z.object({ code: z.literal(code), ...shape });
