import { z } from 'zod';
import { canonicalHardware, isNoCard } from '../units/hardware';

/** A text that is brought into its one form, or refused. */
export const brought = (form: (text: string) => string | undefined, what: string) =>
  z
    .string()
    .max(200)
    .transform((text, context) => {
      const found = form(text);
      if (found !== undefined) return found;
      context.addIssue({ code: 'custom', message: `“${text}” is no ${what}` });
      return z.NEVER;
    });

/** A hardware address of one card. */
export const hardwareSchema = brought((t) => {
  const found = canonicalHardware(t);
  return found === undefined || isNoCard(found) ? undefined : found;
}, 'hardware address of a card');
