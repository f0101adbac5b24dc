import { zodResolver } from '@hookform/resolvers/zod';
import { fieldProblemWords } from '@zb/core/words/fieldProblem';
import type { FieldError, FieldErrors, FieldValues, Resolver } from 'react-hook-form';
import type { z } from 'zod';

/** Checks a form by a schema of core; what is wrong stands at its field in the house's words. */
export function checked<In extends FieldValues, Out>(schema: z.ZodType<Out, In>): Resolver<In, unknown, Out> {
  const resolve = zodResolver(schema);
  const said = (errors: FieldErrors<In>): void => {
    for (const at of Object.values(errors) as (FieldError | FieldErrors<In> | undefined)[]) {
      if (at === undefined) continue;
      if (typeof (at as FieldError).type === 'string') {
        const error = at as FieldError;
        error.message = fieldProblemWords({ code: error.type as never, message: error.message ?? '' });
      } else said(at as FieldErrors<In>);
    }
  };
  return async (values, context, options) => {
    const found = await resolve(values, context, options);
    said(found.errors);
    return found;
  };
}
