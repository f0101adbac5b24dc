import { z } from 'zod';
import { about } from './coded';
import { imagePlaceSchema } from './imagePlace';
import { architectures, cpuLevels } from './architectures';

/** A file by its path and the volume it is on. */
const file = { path: z.string(), place: imagePlaceSchema };

/** Where in an image it says something of itself; words/identity.ts says it. */
export const identitySourceSchema = z.discriminatedUnion('code', [
  about('os-release', file),
  about('disc information', file),
  about('tree information', file),
  about('kernel header', file),
  about('program', file),
  about('loader', file),
  /** A section of an EFI program that holds kernel and initial disk together. */
  about('section of a unified kernel', { ...file, section: z.string() }),
  about('volume label', { place: imagePlaceSchema }),
]);
export type IdentitySource = z.infer<typeof identitySourceSchema>;

const said = <S extends z.ZodType>(value: S) => z.object({ value, from: identitySourceSchema });
const text = said(z.string());

/** What an image says of itself, each with the place where it says it. */
export const imageIdentitySchema = z.object({
  name: text.nullable(),
  version: text.nullable(),
  variant: text.nullable(),
  archs: z.array(said(z.enum(architectures))),
  /** Kernels that its loaders come to, by the version in their header. */
  kernels: z.array(text),
  /** The level of x86-64 that a program of it says it needs. */
  cpuLevel: said(z.enum(cpuLevels)).nullable(),
  /** Its configuration for being started out of its own file, by whatever loader opens that; null where it has none. */
  fromItsFile: z.string().nullable().default(null),
  /** Bytes up to the end of the last thing its tables name: no smaller drive takes it. */
  reaches: z.number(),
});
export type ImageIdentity = z.infer<typeof imageIdentitySchema>;
