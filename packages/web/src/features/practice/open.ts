import { z } from 'zod';
import { practiceActsSchema, practiceSeedSchema } from '@zb/core/model/practice';
import { recall, remember } from '../../storage/remembered';

const PLACE = 'zb-practice';
const openSchema = z.object({
  exercise: z.string(),
  seed: practiceSeedSchema,
  acts: practiceActsSchema,
  begun: z.iso.datetime(),
});

/** An exercise that is under way in this tab. */
export type OpenExercise = z.infer<typeof openSchema>;

/** What was under way here of this exercise; null where nothing was. */
export function openOf(exercise: string): OpenExercise | null {
  try {
    const { data } = openSchema.safeParse(JSON.parse(recall(PLACE, 'session') ?? 'null'));
    return data?.exercise === exercise ? data : null;
  } catch {
    return null;
  }
}

/** Remembers it for this tab; null forgets it. */
export const keepOpen = (open: OpenExercise | null): void =>
  remember(PLACE, open && JSON.stringify(open), 'session');
