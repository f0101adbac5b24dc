import { z } from 'zod';
import { about } from './coded';
import { identitySourceSchema } from './imageIdentity';

/** Where a value of a system comes from, other than from somebody who typed it; words/origin.ts says it. */
export const originSchema = z.discriminatedUnion('code', [
  /** Nothing told it: a guess stands there until somebody says. */
  about('not said', {}),
  about('image says', { source: identitySourceSchema }),
  /** The year in which the kernel of the image came out: hardware that came later it cannot know. */
  about('age of its kernel', { version: z.string(), source: identitySourceSchema }),
  about('how it starts', {}),
  about('its layout', { layout: z.string() }),
  /** Bytes that its tables reach to. */
  about('its size', { bytes: z.number() }),
  about('file name', {}),
]);
export type Origin = z.infer<typeof originSchema>;

/** Origins by the path of the value, parts joined by dots. */
export const originsSchema = z.record(z.string().max(80), originSchema);
export type Origins = z.infer<typeof originsSchema>;
