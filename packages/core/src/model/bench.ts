import { z } from 'zod';
import { boxSchema, type Box } from './box';
import { logEntrySchema, type LogEntry } from './log';
import { profileSchema, type Profile } from './profile';
import { settingsSchema, usualSettings } from './settings';
import { wishSchema, type Wish } from './wish';
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

/** The one version number of the bench file. Raise it with a step in migrations.ts. */
export const BENCH_VERSION = 3;

export const benchSchema = z.object({
  format: z.literal('zealous-box-bench'),
  version: z.literal(BENCH_VERSION),
  name: z.string().min(1).max(120),
  items: z.array(shelfItemSchema),
  profiles: z.array(profileSchema),
  wishes: z.array(wishSchema),
  boxes: z.array(boxSchema),
  log: z.array(logEntrySchema),
  settings: settingsSchema,
});
export type Bench = z.infer<typeof benchSchema>;

export const emptyBench = (name = 'My bench'): Bench => ({
  format: 'zealous-box-bench',
  version: BENCH_VERSION,
  name,
  items: [],
  profiles: [],
  wishes: [],
  boxes: [],
  log: [],
  settings: usualSettings(),
});

export const findMachine = (bench: Bench, id: string | null): Machine | undefined =>
  bench.items.filter(isMachine).find((m) => m.id === id);
export const findImage = (bench: Bench, id: string | null): ImageItem | undefined =>
  bench.items.filter(isImage).find((i) => i.id === id);
export const findProfile = (bench: Bench, id: string | null): Profile | undefined =>
  bench.profiles.find((p) => p.id === id);
export const findBox = (bench: Bench, id: string | undefined): Box | undefined =>
  bench.boxes.find((b) => b.id === id);
/** Machines that are here. */
export const machinesOf = (bench: Bench): Machine[] => bench.items.filter(isMachine).filter((m) => m.owned);
/** Drives, sticks and cards that are here. */
export const storesOf = (bench: Bench): Store[] => bench.items.filter(isStore).filter((s) => s.owned);
export const storesIn = (bench: Bench, machineId: string): Store[] =>
  storesOf(bench).filter((s) => s.in === machineId);
/** What a machine could start from and keep: drives, and cards that sit in it; sticks in its ports are not counted. */
export const drivesIn = (bench: Bench, machineId: string): Store[] =>
  storesIn(bench, machineId).filter((s) => !s.removable || s.kind === 'card');
export const logOf = (bench: Bench, boxId: string): LogEntry[] => bench.log.filter((e) => e.boxId === boxId);
export { isMachine };
export type { Box, ImageItem, LogEntry, Machine, Profile, ShelfItem, Store, Wish };
