import { z } from 'zod';

/** How an installer comes to the drive it takes. */
export const installers = [
  'asks for the drive',
  'preselects the first drive',
  'takes the first drive unasked',
  'takes the largest drive unasked',
  'written straight to the final drive',
] as const;

/** What an installer's list shows of a drive besides its place. */
export const listColumns = ['size', 'model', 'serial', 'label'] as const;

/** Where an installer puts what the firmware starts. */
export const loaderPlaces = ['the chosen drive', 'the first start part found', 'the first drive'] as const;

/** How an installer ends. */
export const installerEnds = ['asks for a restart', 'restarts by itself', 'powers off'] as const;
/** How an installer ends. */
export type InstallerEnds = (typeof installerEnds)[number];

/** What an installer takes for a size and what it shows; a word of one that means the other is told as what it means. */
export const sizeManners = [
  'MB that are MiB',
  'MB',
  'GB that are GiB',
  'GB',
  'MiB',
  'GiB',
  'per cent',
  'sectors',
] as const;
/** A manner of telling a size. */
export type SizeManner = (typeof sizeManners)[number];

/** What an installer asks a person. Common practice, no source. */
export const installerQuestions = [
  'language',
  'keyboard',
  'zone',
  'edition',
  'disk',
  'host name',
  'user',
  'password',
  'address',
] as const;
/** One of them. */
export type InstallerQuestion = (typeof installerQuestions)[number];

/** What an installer does beyond its choice of a drive; the defaults are what most do (common practice, no source). */
export const installerMannerSchema = z.object({
  /** What its list of drives shows besides the place in it; empty: nothing. */
  lists: z.array(z.enum(listColumns)).max(listColumns.length).default(['size', 'model']),
  /** The stick it runs from stands in its list too. */
  listsItself: z.boolean().default(false),
  /** Where its loader goes; null where nobody has seen it. */
  loader: z.enum(loaderPlaces).nullable().default('the chosen drive'),
  /** Under UEFI: does it make a boot entry, or only leave a loader at the path that firmware falls back to? */
  entry: z.enum(['made', 'fallback path only']).default('made'),
  ends: z.enum(installerEnds).default('asks for a restart'),
  /** How many times it asks before it erases. */
  confirms: z.number().int().min(0).max(9).default(1),
  /** How sizes are typed into it, and how it shows them back. */
  typed: z.enum(sizeManners).default('MB that are MiB'),
  shown: z.enum(sizeManners).default('GB that are GiB'),
  /** Its menu has an entry with the plainest graphics, for screens that stay black. */
  basicGraphics: z.boolean().default(false),
  /** It asks for the processor of the target once more: the wrong answer makes a drive that does not start. */
  asksArchitecture: z.boolean().default(false),
  /** Its screens are text (works over a remote console and a serial line) or pictures. */
  screen: z.enum(['text', 'graphical']).default('graphical'),
  /**
   * What it asks, in its own order; “disk” stands where it asks for the drive. What it asks is not asked again at the first start.
   * Empty: nobody has said, and what the first start lists is asked there.
   */
  asks: z.array(z.enum(installerQuestions)).max(installerQuestions.length).default([]),
  /** It can set a system beside another that keeps its room on the drive. */
  beside: z.boolean().default(false),
});
export type InstallerManner = z.infer<typeof installerMannerSchema>;

/** What an installer does of which nobody has said anything. */
export const usualManner = (): InstallerManner => installerMannerSchema.parse({});
