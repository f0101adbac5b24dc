import { z } from 'zod';
import { about } from './coded';
import { hostLabelSchema, shareNameSchema, workgroupSchema } from './named';
import { prefixSchema } from './network';

/** How a folder is reached: SMB, NFS, or read alone by a plain web server. */
export const shareProtocols = ['smb', 'nfs', 'web'] as const;
/** How a folder is reached. */
export type ShareProtocol = (typeof shareProtocols)[number];

const id = z.string().min(1).max(80);
/** An absolute path without empty, “.” and “..” parts; a colon, a quote or a line end would break the files it is written to. */
export const sharePathSchema = z
  .string()
  .max(1000)
  .regex(/^(\/(?!\.{1,2}(\/|$))[^/\p{Cc}"\\]+)+$/u, 'is a whole path such as /srv/pool/archive');

/** Somebody with an account on the box. */
export const shareUserSchema = z.object({
  id,
  /** As the system takes it (useradd(8)). */
  name: z.string().regex(/^[a-z_][a-z0-9_-]{0,31}$/, 'takes small letters, digits, - and _, a letter first'),
  /** Who that is. */
  full: z.string().max(200).default(''),
});
export type ShareUser = z.infer<typeof shareUserSchema>;

/** A folder that others reach; who is in neither list does not. */
export const sharedFolderSchema = z.object({
  id,
  name: shareNameSchema,
  path: sharePathSchema,
  protocols: z.array(z.enum(shareProtocols)).max(3).default(['smb']),
  /** Users by their ids. Who may write may read. */
  read: z.array(id).max(200).default([]),
  write: z.array(id).max(200).default([]),
  /** Whoever comes without an account. */
  guests: z.enum(['none', 'read', 'write']).default('none'),
  /** Names that differ by case alone are one name, as other systems have it. */
  oneCase: z.boolean().default(true),
  /** Days that what is deleted over SMB is kept in a bin; null: none. */
  binDays: z.number().int().min(1).max(365).nullable().default(null),
});
export type SharedFolder = z.infer<typeof sharedFolderSchema>;

/** One copy seen in another place: a symbolic link, or the folder mounted there as well. */
export const folderLinkSchema = z.object({
  id,
  at: sharePathSchema,
  to: sharePathSchema,
  by: z.enum(['link', 'mount']).default('link'),
});
export type FolderLink = z.infer<typeof folderLinkSchema>;

/** Folders of a box, who may read and write them, and how it is found. */
export const sharingSchema = z.object({
  /** The name it is found by; null takes the label of its host. */
  name: hostLabelSchema.nullable().default(null),
  workgroup: workgroupSchema.default('WORKGROUP'),
  users: z.array(shareUserSchema).max(200).default([]),
  folders: z.array(sharedFolderSchema).max(100).default([]),
  /** Networks from which it is reached; nothing comes in from elsewhere. */
  from: z
    .array(z.union([prefixSchema(4), prefixSchema(6)]))
    .max(20)
    .default([]),
  links: z.array(folderLinkSchema).max(500).default([]),
});
export type Sharing = z.infer<typeof sharingSchema>;

/** What `zb shares` takes beside a bench: the sharing of one box by itself. */
export const noSharing = (): Sharing => sharingSchema.parse({});

/** What is wrong with folders, users and links. */
export const shareFaultSchema = z.discriminatedUnion('code', [
  about('share name odd', { share: z.string(), odd: z.string() }),
  /** The path has letters that a server it is written for gives a meaning. */
  about('path odd', { share: z.string(), path: z.string(), odd: z.string() }),
  about('share name set aside', { share: z.string() }),
  about('share twice', { shares: z.array(z.string()) }),
  about('path twice', { path: z.string(), shares: z.array(z.string()) }),
  about('one inside another', { inner: z.string(), outer: z.string(), opens: z.array(z.string()) }),
  about('path of the system', { share: z.string(), path: z.string() }),
  about('path not on the pool', { share: z.string(), path: z.string(), pool: z.string() }),
  about('nobody reaches it', { share: z.string() }),
  about('guests write', { share: z.string() }),
  about('no protocol', { share: z.string() }),
  about('nfs believes numbers', { share: z.string() }),
  about('web writes nothing', { share: z.string() }),
  about('password in clear', { share: z.string() }),
  about('no networks', {}),
  about('user twice', { name: z.string() }),
  about('user set aside', { name: z.string() }),
  about('user without folder', { name: z.string() }),
  about('user not there', { share: z.string() }),
  about('name too long', { name: z.string(), most: z.number() }),
  about('name odd', { name: z.string() }),
  about('link in a circle', { at: z.string(), to: z.string(), through: z.array(z.string()) }),
  about('link into itself', { at: z.string(), to: z.string() }),
  about('link dangles', { at: z.string(), to: z.string() }),
  about('link over a folder', { at: z.string() }),
  about('link twice', { at: z.string() }),
  about('link within a link', { at: z.string(), under: z.string() }),
  about('link leaves its share', { at: z.string(), to: z.string(), share: z.string() }),
  about('link opens', { at: z.string(), share: z.string(), opens: z.array(z.string()) }),
]);
export type ShareFault = z.infer<typeof shareFaultSchema>;
