import { z } from 'zod';
import { about } from './coded';

/** What carries content or takes it: what each refuses and how it rounds is its own. */
export const contentTargets = ['fat', 'exfat', 'ntfs', 'ext4', 'smb'] as const;
/** What takes content. */
export type ContentTarget = (typeof contentTargets)[number];

const ending = z.string().regex(/^[a-z0-9]{1,12}$/, 'is letters and digits without a dot');

/** A kind of thing: what its files end in, and where they belong. */
export const contentKindSchema = z.object({
  id: z.string().min(1).max(40),
  title: z.string().min(1).max(80),
  endings: z.array(ending).min(1).max(60),
  /** The folder it belongs in, from the root; empty: anywhere. */
  folder: z.string().max(200).default(''),
  /** What stands together: a sheet with its tracks and discs, tracks of an album, a film with its subtitles. */
  together: z.enum(['none', 'disc', 'album', 'film']).default('none'),
});
export type ContentKind = z.infer<typeof contentKindSchema>;

/** Where things belong for a purpose, and what stops a look-up of titles and pictures. */
export const contentRulesSchema = z.object({
  kinds: z.array(contentKindSchema).max(60),
  /** Words in brackets that look-ups stumble over are taken off names. */
  brackets: z.boolean().default(false),
  /** Apostrophes that are not the plain one. */
  apostrophes: z.boolean().default(true),
});
export type ContentRules = z.infer<typeof contentRulesSchema>;

/** A file of a folder that was looked through. Bytes; seconds since 1970. */
export const contentEntrySchema = z.object({
  /** From the folder that was chosen, with slashes. */
  path: z.string().min(1).max(40_000),
  bytes: z.number().int().nonnegative(),
  modified: z.number().nullable().default(null),
  /** What it is where it is no plain file. */
  odd: z.enum(['link', 'unreadable', 'special']).nullable().default(null),
  sha256: z
    .string()
    .regex(/^[\da-f]{64}$/)
    .nullable()
    .default(null),
});
export type ContentEntry = z.infer<typeof contentEntrySchema>;

/** What was looked through for a box, and what was decided of it; the files themselves stay where they are. */
export const carriedSchema = z.object({
  folder: z.string().max(300),
  at: z.string(),
  files: z.number().int().nonnegative(),
  bytes: z.number().int().nonnegative(),
  target: z.enum(contentTargets),
  /** Findings whose remedies are taken, by their codes. */
  taken: z.array(z.string().max(40)).max(40),
  /** Findings that would stop the copy and were not taken. */
  open: z.number().int().nonnegative(),
});
export type Carried = z.infer<typeof carriedSchema>;

const paths = { files: z.array(z.string()) };

/** What was found in a folder. `files` are paths; a remedy names what becomes of each. */
export const contentFaultSchema = z.discriminatedUnion('code', [
  about('wrong folder', { ...paths, kind: z.string(), belongs: z.string() }),
  about('same bytes', { ...paths }),
  about('differ by case', { ...paths }),
  about('differ by form', { ...paths }),
  about('name refused', {
    ...paths,
    by: z.string(),
    why: z.enum(['letter', 'set aside', 'end', 'not text']),
  }),
  about('name too long', { ...paths, by: z.string(), most: z.number() }),
  about('path too long', { ...paths, by: z.string(), most: z.number() }),
  about('too large', { ...paths, by: z.string(), most: z.number() }),
  about('empty', { ...paths }),
  about('not whole', { ...paths }),
  about('packed', { ...paths }),
  about('part missing', { ...paths, missing: z.array(z.string()) }),
  about('newer and older', { ...paths }),
  about('stops look-ups', { ...paths }),
  about('subtitle alone', { ...paths }),
  about('track missing', { ...paths, missing: z.array(z.string()) }),
  about('tags missing', { ...paths }),
  about('tags otherwise', { ...paths }),
  about('tags not read', { ...paths }),
  about('left behind', { ...paths }),
  about('not wanted', { ...paths }),
  about('not read', { ...paths }),
]);
export type ContentFault = z.infer<typeof contentFaultSchema>;
/** What can be found. */
export type ContentCode = ContentFault['code'];

/** What can be done with a file before or while it is copied. */
export const remedyActs = ['rename', 'move', 'leave', 'unpack', 'link', 'wire'] as const;
/** What can be done with a file. */
export type RemedyAct = (typeof remedyActs)[number];

/** One thing that is done with one file: where it goes, or what it is the same as. */
export interface Remedy {
  act: RemedyAct;
  path: string;
  /** Its new path, or of a link the file it leads to; null where it is left, unpacked, or goes over the wire. */
  to: string | null;
}

/** Something that was found, how many bytes it is about, and what would mend it. */
export interface ContentFinding {
  fault: ContentFault;
  grade: 'stop' | 'check' | 'note';
  bytes: number;
  remedies: Remedy[];
}
