import { z } from 'zod';
import { InputError } from './inputFile';

/** A plan as JSON, in the form a schema has. Throws InputError. */
export function readPlan<T>(text: string, schema: z.ZodType<T>): T {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new InputError('the plan is no JSON');
  }
  const read = schema.safeParse(value);
  if (!read.success) throw new InputError(`the plan cannot be used: ${z.prettifyError(read.error)}`);
  return read.data;
}
