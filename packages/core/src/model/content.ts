import { z } from 'zod';
import { firmwareKind } from './inspection';
import { attributesSchema, partitionIdSchema, partitionTypeSchema, tableIdSchema } from './named';

const text = z.string().max(300);
const bytes = z.number().nonnegative();

/** A part of a drive, as its table and its file system tell. Bytes; null where nobody told. */
export const contentPartSchema = z.object({
  start: bytes.nullable(),
  bytes: bytes.nullable(),
  /** Type as the table has it: a GUID, or two hexadecimal digits; empty where there is none. */
  type: partitionTypeSchema,
  name: text,
  filesystem: text.nullable(),
  label: text.nullable(),
  /** Of its file system. */
  uuid: text.nullable(),
  /** What its table knows it by; null where nobody told. */
  partitionId: partitionIdSchema.nullable().default(null),
  /** Attributes of its entry; null where nobody told. */
  attributes: attributesSchema.nullable().default(null),
  /** Where it was mounted when it was looked at. */
  mount: text.nullable(),
});
export type ContentPart = z.infer<typeof contentPartSchema>;

/** Something on a drive that a machine can start. */
export const startableSchema = z.object({
  by: z.enum(['loader', 'boot code', 'boot entry', 'told']),
  /** The firmware that starts it; null where that is not known. */
  firmware: firmwareKind.nullable(),
  /** Path of a loader on its volume; empty where there is none. */
  path: text,
  title: text,
});
export type Startable = z.infer<typeof startableSchema>;

/** What lies on a drive, from where that is known, and since when. */
export const contentSchema = z.object({
  table: z.enum(['gpt', 'mbr', 'none', 'unknown']),
  /** What its table is known by; null where nobody told. */
  tableId: tableIdSchema.nullable().default(null),
  /** Bytes of a sector as the drive answers them; null where nobody told. */
  sectorSize: z
    .union([z.literal(512), z.literal(4096)])
    .nullable()
    .default(null),
  parts: z.array(contentPartSchema).max(200),
  /** What on it starts; empty: nothing does; null: not known. */
  starts: z.array(startableSchema).max(50).nullable(),
  learnt: z.object({
    from: z.enum(['survey', 'write', 'install', 'dump', 'hand', 'earlier version']),
    at: z.string(),
    /** The image that was written, where one was. */
    imageId: z.string().nullable().default(null),
  }),
});
export type Content = z.infer<typeof contentSchema>;
/** Where what lies on a drive is known from. */
export type LearntFrom = Content['learnt']['from'];

/** Whether what is on a drive matters. What is not decided stops whatever could erase it. */
export const fates = ['keep', 'may be lost', 'not decided'] as const;
/** Whether what lies on a drive matters. */
export type Fate = (typeof fates)[number];

/** Nothing is on it: no table, no file system, nothing that starts. */
export const emptyContent = (from: LearntFrom, at: string): Content => ({
  table: 'none',
  tableId: null,
  sectorSize: null,
  parts: [],
  starts: [],
  learnt: { from, at, imageId: null },
});

/** Is it known that nothing is on it? */
export const isBlank = (content: Content | null): boolean =>
  content !== null && content.parts.length === 0 && content.table === 'none' && content.starts?.length === 0;

const partTitle = (p: ContentPart): string => {
  const name = p.label ?? (p.name || null);
  if (p.filesystem === null) return name ?? (p.type || 'a part');
  return name === null ? p.filesystem : `${name} (${p.filesystem})`;
};
/** So many parts are named before the rest is only counted. */
const NAMED = 6;

/** What is on a drive, short: the words of a person first, else its parts; empty where nothing is on it. */
export function contentTitle(store: {
  holds: string;
  content: Content | null;
  installed?: { system: string; boxName: string } | null;
}): string {
  if (store.holds !== '') return store.holds;
  if (store.installed) return `${store.installed.system}, the system of ${store.installed.boxName}`;
  const { content } = store;
  if (content === null) return 'not known';
  if (content.parts.length === 0)
    return isBlank(content) ? '' : (content.starts?.[0]?.title ?? 'a table without parts');
  const more = content.parts.length - NAMED;
  return content.parts.slice(0, NAMED).map(partTitle).join(', ') + (more > 0 ? ` and ${more} more` : '');
}
