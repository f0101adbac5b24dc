import { z } from 'zod';
import { about } from './coded';
import { imagePlaceSchema } from './imagePlace';

/*
 * How far a start comes: firmware, loader, its configuration, the kernel and the initial disk that names. Kept with the
 * image on the shelf, so these are schemas. words/chain.ts says each.
 */

export const chainRungs = ['loader', 'configuration', 'kernel', 'initial disk'] as const;
export const rungStates = ['whole', 'missing', 'unreadable'] as const;

/** A file by its path and the volume it is looked for on. */
const file = { path: z.string(), place: imagePlaceSchema };

/** Why a rung holds, is missing, or cannot be read. */
export const rungWhySchema = z.discriminatedUnion('code', [
  z.object({
    code: z.enum([
      // Whole
      'built in',
      'a program of its own',
      // Missing
      'second stage damaged',
      'second stage cut short',
      // Not to be read
      'second stage packed otherwise',
      'too deep',
    ]),
  }),
  about('there', file),
  about('not there', file),
  about('empty', file),
  about('cut short', { ...file, bytes: z.number() }),
  about('no kernel', file),
  about('no initial disk', file),
  about('no loader', file),
  about('another architecture', { ...file, machine: z.string() }),
  about('module missing', file),
  about('grammar broken', file),
  /** None of the places where it looks has one. */
  about('no configuration', { paths: z.array(z.string()), place: imagePlaceSchema }),
  /** The configuration was read, and loads nothing by itself. */
  about('names nothing', { path: z.string(), place: imagePlaceSchema.nullable() }),
  about('search finds nothing', { by: z.enum(['uuid', 'label', 'file']), what: z.string() }),
  about('device not there', { device: z.string() }),
  about('file system not opened', { filesystem: z.string().nullable(), place: imagePlaceSchema }),
  about('another drive', { device: z.string() }),
  about('command not followed', { command: z.string() }),
]);
export type RungWhy = z.infer<typeof rungWhySchema>;
/** A rung of a start behind the firmware. */
export type ChainRung = (typeof chainRungs)[number];
