import { z } from 'zod';
import { prefixSchema } from './network';
import {
  folderLinkSchema,
  sharedFolderSchema,
  sharePathSchema,
  shareProtocols,
  shareUserSchema,
  type FolderLink,
  type SharedFolder,
  type ShareUser,
} from './sharing';

/** What a form says of a folder beside its rights. */
export interface FolderDraft {
  name: string;
  path: string;
  protocols: (typeof shareProtocols)[number][];
  oneCase: boolean;
  binDays: string;
}
/** A folder for its form. */
export const folderDraftOf = (f: SharedFolder): FolderDraft => ({
  name: f.name,
  path: f.path,
  protocols: f.protocols,
  oneCase: f.oneCase,
  binDays: f.binDays === null ? '' : String(f.binDays),
});
/** Reads the form back into the folder; its rights stay. */
export const folderOfDraft = (folder: SharedFolder): z.ZodType<SharedFolder, FolderDraft> =>
  z
    .object({
      name: sharedFolderSchema.shape.name,
      path: z.string().trim().pipe(sharePathSchema),
      protocols: z.array(z.enum(shareProtocols)),
      oneCase: z.boolean(),
      binDays: z
        .string()
        .transform((t) => (t.trim() === '' ? null : Number(t)))
        .pipe(z.number().int().min(1).max(365).nullable()),
    })
    .transform((d) => ({ ...folder, ...d }));

/** What a form says of somebody. */
export interface UserDraft {
  name: string;
  full: string;
}
/** Reads a user from the form. */
export const userOfDraft = (id: string): z.ZodType<ShareUser, UserDraft> =>
  z
    .object({ name: z.string().trim().pipe(shareUserSchema.shape.name), full: z.string().trim().max(200) })
    .transform((d) => ({ id, ...d }));

/** What a form says of a link. */
export interface LinkDraft {
  at: string;
  to: string;
  by: FolderLink['by'];
}
/** Reads a link from the form. */
export const linkOfDraft = (id: string): z.ZodType<FolderLink, LinkDraft> =>
  z
    .object({
      at: z.string().trim().pipe(sharePathSchema),
      to: z.string().trim().pipe(sharePathSchema),
      by: folderLinkSchema.shape.by.unwrap(),
    })
    .transform((d) => ({ id, ...d }));

/** How a box is found and from where. */
export interface FoundDraft {
  name: string;
  workgroup: string;
  from: string;
}
/** Reads that from the form: networks with spaces or commas between them. */
export const foundSchema: z.ZodType<{ name: string | null; workgroup: string; from: string[] }, FoundDraft> =
  z.object({
    name: z
      .string()
      .trim()
      .max(63)
      .transform((t) => (t === '' ? null : t)),
    workgroup: z.string().trim().min(1).max(15),
    from: z.string().transform((t, ctx) => {
      const read = z
        .array(z.union([prefixSchema(4), prefixSchema(6)]))
        .max(20)
        .safeParse(t.split(/[\s,]+/).filter(Boolean));
      if (read.success) return read.data;
      ctx.addIssue({ code: 'custom', message: 'is a list of networks such as 192.0.2.0/24 2001:db8::/64' });
      return z.NEVER;
    }),
  });
