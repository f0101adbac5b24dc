import { z } from 'zod';
import { contentSchema, fates } from './content';

/** How a medium is attached: soldered flash, a drive inside, something outside on a port, or a card in its slot. */
export const attachments = ['soldered', 'internal', 'external', 'card slot'] as const;
/** How a medium is attached. */
export type Attachment = (typeof attachments)[number];

/**
 * Where it is known from whether a medium may be erased: a person decided it, the survey found it empty, an image was
 * written to it, a box installed its system on it.
 */
export const retentionOrigins = ['person', 'empty', 'written', 'installed'] as const;
/** Where it is known from. */
export type RetentionOrigin = (typeof retentionOrigins)[number];

const line = z.string().max(300);

/** An image that lies byte for byte over the whole of a medium. */
export const wholeImageSchema = z.object({
  /** Null: the bench does not have it; by name alone. */
  imageId: z.string().nullable(),
  imageName: line,
  /** For which box it was written; null where for none. */
  boxId: z.string().nullable(),
  at: z.string(),
  /** What shows it: the read-back of the writer, or a person's word. */
  by: z.enum(['read-back', 'word']),
});
export type WholeImage = z.infer<typeof wholeImageSchema>;

/** A system that a box has installed on a medium, or written to it as the final drive. */
export const installedSystemSchema = z.object({
  boxId: z.string(),
  boxName: line,
  system: line,
  at: z.string(),
  /** What shows it: a proven write, or a person's word. */
  by: z.enum(['read-back', 'word']),
});
export type InstalledSystem = z.infer<typeof installedSystemSchema>;

/** A pool that a box has made of a medium, with others. */
export const pooledSchema = z.object({ boxId: z.string(), boxName: line, at: z.string() });
export type Pooled = z.infer<typeof pooledSchema>;

/** What acts have made of a medium; every one of them has a default, for records of earlier versions. */
export const mediumFields = {
  /** How it is attached; null where the survey did not tell and nobody said. */
  attachment: z.enum(attachments).nullable().default(null),
  /** Where its retention is known from; null: of an earlier version, or not decided. */
  retentionOrigin: z.enum(retentionOrigins).nullable().default(null),
  /** One more at every change of what lies on it. */
  revision: z.number().int().nonnegative().default(0),
  /** The image that lies over the whole of it; null where none does. A later change of its content ends it. */
  wholeImage: wholeImageSchema.nullable().default(null),
  /** The system a box has installed on it; null where none has. */
  installed: installedSystemSchema.nullable().default(null),
  /** The pool it is part of; null where no box has made one of it. */
  pooled: pooledSchema.nullable().default(null),
};

/** A medium as it was before an act, and its revision after it: by these the act is taken back. */
export const mediumBeforeSchema = z.object({
  id: z.string(),
  revision: z.number().int().nonnegative(),
  content: contentSchema.nullable(),
  holds: z.string(),
  fate: z.enum(fates),
  retentionOrigin: z.enum(retentionOrigins).nullable(),
  wholeImage: wholeImageSchema.nullable(),
  installed: installedSystemSchema.nullable(),
  pooled: pooledSchema.nullable().default(null),
});
export type MediumBefore = z.infer<typeof mediumBeforeSchema>;

/** What a medium has of them before anything was done to it. */
export const untouchedMedium = {
  attachment: null,
  retentionOrigin: null,
  revision: 0,
  wholeImage: null,
  installed: null,
  pooled: null,
};
