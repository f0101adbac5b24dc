import { z } from 'zod';

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

/** An appliance OS as data. Nothing about a particular system is written anywhere else. Sizes in bytes. */
export const profileSchema = z.object({
  id: z.string().min(1).max(80),
  name: z.string().min(1).max(120),
  release: z.string(),
  channel: z.enum(['long support', 'newest', 'development']),
  purpose: purposeSchema,
  about: z.string(),
  needs: z.object({
    archs: z.array(z.enum(['x86_64', 'i686', 'aarch64', 'armv7l'])).min(1),
    /** Lowest x86-64 psABI level the release is built for; null where it is not x86-64. */
    cpuLevel: z.enum(['v1', 'v2', 'v3', 'v4']).nullable(),
    cores: z.number().int().positive(),
    memoryBytes: z.number().int().positive(),
    bootBytes: z.number().int().positive(),
    /** Data drives besides the boot drive, each with a port of its own. */
    dataDrives: z.number().int().nonnegative(),
    graphics: z.enum(['not needed', 'in-kernel', 'any driver']),
    firmware: z.array(z.enum(['bios', 'uefi', 'board'])).min(1),
    wiredPorts: z.number().int().nonnegative(),
    virtualisation: z.boolean(),
  }),
  /** Does its loader carry a signature that usual firmware accepts? */
  signedLoader: z.boolean(),
  installer: z.enum([
    'asks for the drive',
    'preselects the first drive',
    'takes the first drive unasked',
    'written straight to the final drive',
  ]),
  installMinutes: z.tuple([z.number(), z.number()]),
  adminPort: z.number().int().nullable(),
  networkAtInstall: z.boolean(),
});
export type Profile = z.infer<typeof profileSchema>;
