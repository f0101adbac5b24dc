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

/** How much of something there is, in bytes: a size that may also be 0; null where the line is empty. */
export const amountOrNull: z.ZodType<number | null, string> = z.string().transform((t, ctx) => {
  if (t.trim() === '') return null;
  if (/^\s*0+(\s*[kmgtp]?i?b)?\s*$/i.test(t)) return 0;
  return through(size, t, ctx);
});

/** A line without blanks around it. */
export const trimmed = z.string().trim();
/** Words with blanks, commas or semicolons between them. */
export const wordsIn = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);
/** An hour of a day as people type it. */
export const HOUR = /^([01]?\d|2[0-3]):[0-5]\d$/;

/**
 * Carries a schema over what a transform made, with its messages at the fields they are about. `field`: where in the form a place
 * in the value stands; by default at the first part of it.
 */
export function through<T>(
  schema: z.ZodType<T>,
  value: unknown,
  ctx: z.RefinementCtx,
  field: (path: readonly PropertyKey[]) => PropertyKey[] = (path) => path.slice(0, 1),
): T {
  const found = schema.safeParse(value);
  if (found.success) return found.data;
  for (const issue of found.error.issues)
    ctx.addIssue({ code: 'custom', message: issue.message, path: field(issue.path) });
  return z.NEVER;
}
