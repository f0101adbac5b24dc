import { z } from 'zod';
import { profileSchema } from './profile';

/** A file of systems to share: nothing else of the bench is in it. */
export const profilesFileSchema = z.object({
  format: z.literal('zealous-box-profiles'),
  version: z.literal(2),
  profiles: z.array(profileSchema).min(1).max(500),
});
