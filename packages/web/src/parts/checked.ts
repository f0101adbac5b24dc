import { zodResolver } from '@hookform/resolvers/zod';
import { fieldProblemWords } from '@zb/core/words/fieldProblem';
import type { FieldValues, Resolver } from 'react-hook-form';
import type { z } from 'zod';

/** Checks a form by a schema of core; what is wrong stands at its field in the house's words, or in the check's own. */
export const checked = <In extends FieldValues, Out>(
  schema: z.ZodType<Out, In>,
): Resolver<In, unknown, Out> =>
  zodResolver(schema, {
    error: ({ code, message }) => fieldProblemWords({ code, message: message ?? '' }) || undefined,
  });
