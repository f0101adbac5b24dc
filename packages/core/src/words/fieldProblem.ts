import type { z } from 'zod';

const SAYS: Record<string, string> = {
  too_small: 'This is empty or too small.',
  too_big: 'This is too long or too large.',
  invalid_type: 'This is missing, or no number.',
  invalid_format: 'This is not written as it should be.',
  invalid_value: 'This is none of the choices.',
};

/** What is wrong with a field of a form, by the code of the check that refused it; a check’s own words come first. */
export const fieldProblemWords = ({ code, message }: Pick<z.core.$ZodIssue, 'code' | 'message'>): string =>
  code === 'custom' ? message : (SAYS[code] ?? message);
