import { z } from 'zod';
import { boxSchema, type Box } from './box';
import { logEntrySchema, type LogEntry } from './log';
import { profileSchema, type Profile } from './profile';
import {
  isImage,
  isMachine,
  isStore,
  shelfItemSchema,
  type ImageItem,
  type Machine,
  type ShelfItem,
  type Store,
} from './shelf';

/** The one version number of the bench file. Raise it with a step in migrate.ts. */
export const BENCH_VERSION = 1;

export const benchSchema = z.object({
  format: z.literal('zealous-box-bench'),
  version: z.literal(BENCH_VERSION),
  name: z.string().min(1).max(120),
  items: z.array(shelfItemSchema),
  profiles: z.array(profileSchema),
  boxes: z.array(boxSchema),
  log: z.array(logEntrySchema),
});
export type Bench = z.infer<typeof benchSchema>;

export const emptyBench = (name = 'My bench'): Bench => ({
  format: 'zealous-box-bench',
  version: BENCH_VERSION,
  name,
  items: [],
  profiles: [],
  boxes: [],
  log: [],
});

export const findMachine = (bench: Bench, id: string | null): Machine | undefined =>
  bench.items.filter(isMachine).find((m) => m.id === id);
export const findImage = (bench: Bench, id: string | null): ImageItem | undefined =>
  bench.items.filter(isImage).find((i) => i.id === id);
export const findProfile = (bench: Bench, id: string | null): Profile | undefined =>
  bench.profiles.find((p) => p.id === id);
export const findBox = (bench: Bench, id: string | undefined): Box | undefined =>
  bench.boxes.find((b) => b.id === id);
export const storesOf = (bench: Bench): Store[] => bench.items.filter(isStore);
export const storesIn = (bench: Bench, machineId: string): Store[] =>
  storesOf(bench).filter((s) => s.in === machineId);
/** What a machine could start from and keep: drives, and cards that sit in it; sticks in its ports are not counted. */
export const drivesIn = (bench: Bench, machineId: string): Store[] =>
  storesIn(bench, machineId).filter((s) => !s.removable || s.kind === 'card');
export const logOf = (bench: Bench, boxId: string): LogEntry[] => bench.log.filter((e) => e.boxId === boxId);
export type { Box, ImageItem, LogEntry, Machine, Profile, ShelfItem, Store };
