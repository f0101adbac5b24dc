import { z } from 'zod';

/** Screws that came out of one kind of hole. */
const screwsSchema = z.object({
  hole: z.string().min(1).max(60),
  out: z.number().int().min(0).max(99),
  back: z.number().int().min(0).max(99).default(0),
});
/** Screws of one kind of hole. */
export type Screws = z.infer<typeof screwsSchema>;

/** What a box keeps of opening its machine: steps done, and the tray of screws. */
export const openingRecordSchema = z.object({
  done: z.array(z.string().max(200)).max(200).default([]),
  tray: z.array(screwsSchema).max(40).default([]),
  /** Where what was put in or taken out had been before: a machine by its id, or null for the shelf. */
  moved: z.record(z.string().max(80), z.string().nullable()).default({}),
});
/** What a box keeps of opening its machine. */
export type OpeningRecord = z.infer<typeof openingRecordSchema>;

/** Nothing was opened yet. */
export const noOpening = (): OpeningRecord => ({ done: [], tray: [], moved: {} });

/** Screws of all holes: how many are out of them, and how many of those are back. */
export const onTray = (tray: readonly Screws[]): { out: number; back: number } => ({
  out: tray.reduce((n, s) => n + s.out, 0),
  back: tray.reduce((n, s) => n + s.back, 0),
});

/** Where an item was before this box's work moved it: the plan is made from there, so that what is done stays in it. */
export const placeBefore = (
  box: { opening: OpeningRecord | null },
  item: { id: string; in: string | null },
): string | null => {
  const moved = box.opening?.moved ?? {};
  return Object.hasOwn(moved, item.id) ? (moved[item.id] ?? null) : item.in;
};
