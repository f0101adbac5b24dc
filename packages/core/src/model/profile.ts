import { z } from 'zod';
import { contentRulesSchema } from './contentRules';
import { firstMannerSchema } from './firstStart';
import { installerMannerSchema, installers } from './installer';
import { architectures, cpuLevels } from './architectures';
import { urlPathSchema } from './named';
import { originsSchema } from './origin';

export const purposes = [
  'games',
  'film',
  'music',
  'firewall',
  'file store',
  'virtual machines',
  'desktop',
] as const;
export const purposeSchema = z.enum(purposes);
export type Purpose = z.infer<typeof purposeSchema>;

export const channels = ['long support', 'newest', 'development'] as const;
export const channelSchema = z.enum(channels);
export type Channel = z.infer<typeof channelSchema>;

const id = z.string().min(1).max(80);
const line = z.string().max(200);
const bytes = z.number().int().positive();
const year = z.number().int().min(1980).max(2100);
/** A calendar day, ISO 8601. */
const day = z.iso.date();

export const secureBootWays = ['signed', 'own key at first restart', 'must be off'] as const;
export const loginPolicies = ['set at install', 'shipped default', 'no login'] as const;
export const swapHabits = ['1 GB', 'equal to memory', 'swap file', 'none'] as const;
export const layoutHabits = ['one partition', 'separate /var and /home', 'its own'] as const;
export const writeModes = ['whole image', 'file copy', 'either'] as const;

/** One release: what it is built for, the hardware it knows, and how long it is looked after. */
export const releaseSchema = z.object({
  id,
  version: z.string().min(1).max(40),
  channel: channelSchema,
  released: day.nullable().default(null),
  supportEnd: day.nullable().default(null),
  archs: z.array(z.enum(architectures)).min(1),
  /** Lowest x86-64 psABI level it is built for; null where it is not x86-64. */
  cpuLevel: z.enum(cpuLevels).nullable(),
  /** Years of the oldest and the newest hardware it is known to run on; null where no limit is known. */
  oldestYear: year.nullable().default(null),
  newestYear: year.nullable().default(null),
});
export type Release = z.infer<typeof releaseSchema>;

/** A build of every release that differs in the graphics drivers it carries. */
export const variantSchema = z.object({
  id,
  name: z.string().min(1).max(80),
  drivers: z.array(z.enum(['in-kernel', 'out-of-tree'])).min(1),
});
export type Variant = z.infer<typeof variantSchema>;

export const needsSchema = z.object({
  cores: z.number().int().positive(),
  memoryBytes: bytes,
  bootBytes: bytes,
  /** Data drives besides the boot drive, each with a port of its own. */
  dataDrives: z.number().int().nonnegative().max(64),
  graphics: z.boolean(),
  firmware: z.array(z.enum(['bios', 'uefi', 'board'])).min(1),
  wiredPorts: z.number().int().nonnegative().max(64),
  virtualisation: z.boolean(),
});

/** What it runs better with; none of it decides, all of it counts in the score. */
export const prefersSchema = z.object({
  cores: z.number().int().positive().nullable().default(null),
  memoryBytes: bytes.nullable().default(null),
  wiredMbps: z.number().int().positive().nullable().default(null),
  remoteLine: z.boolean().default(false),
  aes: z.boolean().default(false),
});

/** An appliance OS as data. Nothing about a particular system is written anywhere else. Sizes in bytes, times in minutes. */
export const profileSchema = z.object({
  id,
  name: z.string().min(1).max(120),
  purpose: purposeSchema,
  about: z.string().max(2000),
  releases: z.array(releaseSchema).min(1).max(40),
  variants: z.array(variantSchema).min(1).max(20),
  needs: needsSchema,
  prefers: prefersSchema,
  secureBoot: z.enum(secureBootWays),
  installer: z.enum(installers),
  /** What its installer does beyond that choice. */
  manner: installerMannerSchema.prefault({}),
  growsAtFirstStart: z.boolean(),
  /** What it does when it is first started. */
  first: firstMannerSchema.prefault({}),
  /** Where what goes on it belongs; null takes what is usual for its purpose. */
  content: contentRulesSchema.nullable().default(null),
  installMinutes: z.tuple([z.number().nonnegative(), z.number().nonnegative()]),
  /** The stick its installer or system fits on. */
  stickBytes: bytes,
  networkAtInstall: z.boolean(),
  /** Its administration page; null where it has none. */
  admin: z
    .object({
      scheme: z.enum(['http', 'https']),
      port: z.number().int().min(1).max(65535),
      path: urlPathSchema,
    })
    .nullable(),
  login: z.enum(loginPolicies),
  swap: z.enum(swapHabits),
  layout: z.enum(layoutHabits),
  writeMode: z.enum(writeModes),
  /** Drivers to fetch beforehand, by name; in which order they go in follows from their kinds. */
  drivers: z.array(line).max(30),
  /** What its images call themselves in their own bytes: an image that says otherwise is asked about. */
  calls: z.array(line).max(20).default([]),
  /** Where values come from that nobody typed, by their path; of what is not here somebody has said it. */
  origins: originsSchema.default({}),
});
export type Profile = z.infer<typeof profileSchema>;
