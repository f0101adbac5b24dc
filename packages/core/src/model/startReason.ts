import { z } from 'zod';
import { rungWhySchema, chainRungs } from './chain';
import { about } from './coded';
import { imagePlaceSchema } from './imagePlace';

/*
 * Why an image starts, does not, or cannot be told: codes with what they are about. Kept with the image on the shelf, so
 * these are schemas. words/start.ts says each.
 */

/** What of an EFI program keeps it from running. `bytes` is what it should have. */
export const loaderFaultSchema = z.discriminatedUnion('code', [
  z.object({ code: z.enum(['header damaged', 'entry in no section', 'entry wiped']) }),
  about('cut short', { bytes: z.number() }),
  about('section beyond the file', { section: z.string() }),
  about('earlier rules', { words: z.string() }),
]);
export type LoaderFault = z.infer<typeof loaderFaultSchema>;

/** Boot code that was followed instruction by instruction: where it stands. */
export const bootCodePlaceSchema = z.discriminatedUnion('of', [
  z.object({ of: z.literal('sector 0') }),
  z.object({ of: z.literal('boot record'), place: imagePlaceSchema }),
  z.object({ of: z.literal('boot image') }),
]);
export type BootCodePlace = z.infer<typeof bootCodePlaceSchema>;

const place = { place: imagePlaceSchema };
const who = { who: bootCodePlaceSchema };
const signers = { signers: z.array(z.string()) };
/** The loader's file name, such as BOOTX64.EFI. */
const name = { name: z.string() };

/** Reasons that are about nothing more than what they say. */
export const plainStartCodes = [
  'no end mark',
  'boot code empty',
  'boot code only complains',
  'second stage empty',
  'second stage not known',
  'second stage cut short',
  'boot code and second stage',
  'boot code in front of an optical volume',
  'optical loader empty',
  'no part active',
  'several parts active',
  'no GPT part marked',
  'several GPT parts marked',
  'not optical',
  'no boot catalogue',
  'boot catalogue damaged',
  'boot catalogue sum wrong',
  'BIOS entry not the default',
  'no BIOS entry',
  'boot image empty',
  'boot image without emulation',
  'no UEFI entry',
  'made for sectors of 4096 bytes',
  'no copy of the table sound',
  'no protective record',
  'optical volume only',
  'no FAT part',
  'no table and no FAT volume',
  'not signed',
  'boards read no optical media',
  'no FAT part first',
  'nothing for boards',
] as const;
/** A reason that is about nothing more than what it says. */
export type PlainStartCode = (typeof plainStartCodes)[number];

export const startReasonSchema = z.discriminatedUnion('code', [
  z.object({ code: z.enum(plainStartCodes) }),
  about('earlier rules', { words: z.string() }),
  about('packed', { kind: z.string() }),
  // BIOS, from a disk
  // Of readings by earlier rules
  about('sector 0 of a file system', { filesystems: z.array(z.string()) }),
  about('numbered part missing', { number: z.number().int() }),
  about('no boot record', place),
  about('boot record empty', place),
  about('boot record only complains', place),
  about('stage file missing', place),
  about('stage file damaged', place),
  about('stage file elsewhere', place),
  about('boot record and stage file', place),
  // Boot code followed to its end
  about('enters a kernel', who),
  about('starts its own program', { ...who, bytes: z.number().int().positive() }),
  about('goes on to nothing', { ...who, offset: z.number() }),
  about('reads in a circle', who),
  about('cannot be followed', who),
  about('looks beyond the image', who),
  about('goes on, untold', who),
  about('only prints', { ...who, printed: z.string() }),
  about('stops', who),
  // Optical volumes
  about('no loader behind the UEFI entry', name),
  // UEFI, from a disk
  about('loader found', { ...name, ...place }),
  about('not a loader', { ...name, ...place, fault: loaderFaultSchema.nullable() }),
  about('loader for another architecture', { ...name, ...place, machine: z.string(), wanted: z.string() }),
  about('loader cannot run', { ...name, ...place, fault: loaderFaultSchema }),
  about('loader by another name', { ...name, other: z.string() }),
  about('no loader', { ...name, parts: z.number().int() }),
  // Secure Boot
  about('signed, then changed', signers),
  about('signed and trusted', signers),
  about('signed and not trusted', signers),
  about('signed, trust not known', signers),
  // What the loader goes on to
  about('nothing to load', { rung: z.enum(chainRungs), why: rungWhySchema }),
  about('chain not told', { rung: z.enum(chainRungs), why: rungWhySchema }),
  // Boards
  about('made for boards', {
    trees: z.number().int(),
    firstTree: z.string().nullable(),
    treeFolder: z.boolean(),
    script: z.string().nullable(),
  }),
]);
export type StartReason = z.infer<typeof startReasonSchema>;

/** By what way the firmware came to it, where it is not the plain one. */
export const startWays = ['floppy emulation', 'hard-disk emulation', 'catalogue on a stick'] as const;
