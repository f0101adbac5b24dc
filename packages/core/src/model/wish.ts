import { z } from 'zod';
import { purposeSchema } from './profile';

const id = z.string().min(1).max(80);

/** What somebody wants a machine for, and where it is to stand. */
export const wishSchema = z.object({
  id,
  name: z.string().min(1).max(120),
  purpose: purposeSchema,
  /** A particular system; null where any of the purpose will do. */
  profileId: z.string().nullable(),
  /** 1 would be nice, 5 comes first. */
  importance: z.number().int().min(1).max(5),
  /** The loudest it may be where it stands. */
  noise: z.enum(['silent', 'quiet', 'audible', 'loud']),
  /** Is there a network wire where it stands? */
  wire: z.boolean(),
  /** The most it may draw when idle, watts; null where nobody minds. */
  wattsMax: z.number().int().positive().nullable(),
  hoursPerDay: z.number().min(0).max(24),
  features: z.array(z.enum(['remote-control line', 'ciphers in hardware', 'upright panel', 'battery'])),
  /** The machine it is pinned to, and those it must not have. */
  pinned: z.string().nullable(),
  forbid: z.array(z.string()),
  notes: z.string().max(2000),
});
export type Wish = z.infer<typeof wishSchema>;
/** Something a wish may ask of a machine besides its purpose. */
export type WishFeature = Wish['features'][number];
export const wishFeatures = wishSchema.shape.features.element.options;
export const noiseLevels = wishSchema.shape.noise.options;
