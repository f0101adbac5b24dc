import { z } from 'zod';
import { readSize } from '../units/typedSize';

/** A number as people type it; null where the line is empty. */
export const numberOrNull = (schema: z.ZodType<number, number>): z.ZodType<number | null, string> =>
  z
    .string()
    .transform((t) => (t.trim() === '' ? null : Number(t.replace(',', '.'))))
    .pipe(schema.nullable());
/** A number as people type it. */
export const number = (schema: z.ZodType<number, number>): z.ZodType<number, string> =>
  z
    .string()
    .transform((t) => (t.trim() === '' ? NaN : Number(t.replace(',', '.'))))
    .pipe(schema);
/** A size with its unit, in bytes. */
export const size: z.ZodType<number, string> = z.string().transform((t, ctx) => {
  const read = readSize(t, false);
  if ('bytes' in read) return read.bytes;
  ctx.addIssue({ code: 'custom', message: 'is not a size: write “20 GB” or “500 MiB”' });
  return z.NEVER;
});
/** A size with its unit, in bytes; null where the line is empty. */
export const sizeOrNull: z.ZodType<number | null, string> = z
  .string()
  .transform((t) => (t.trim() === '' ? null : t))
  .pipe(z.union([z.null(), size]));
