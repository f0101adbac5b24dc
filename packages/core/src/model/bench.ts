import { benchModel, type BenchOf } from './benchModel';
import type { Box } from './box';
import { collections } from './collections';
import type { Host, Network } from './network';
import type { LogEntry } from './log';
import { lookupOf } from './lookups';
import type { Photo } from './photo';
import type { Profile } from './profile';
import { isImage, isMachine, type ImageItem, type Machine, type ShelfItem, type Store } from './shelf';
import { grouped } from '../units/group';
import type { TuneRun } from './tune';
import type { Wish } from './wish';

/** The one version number of the bench file. Raise it with a step in migrations.ts. */
export const BENCH_VERSION = 10;

/** The bench as this application knows it. */
export const theBench = benchModel(collections, BENCH_VERSION);
export const benchSchema = theBench.schema;
/** The whole bench, as the one file holds it. */
export type Bench = BenchOf<typeof collections>;
/** A collection of the bench, by its name in the file. */
export type CollectionName = keyof typeof collections;

export const emptyBench = theBench.empty;
/** The one order in which a bench is shown, whatever order storage or a file gave. */
export const { arranged, findEntries } = theBench;

/** A thing of the shelf by its id. */
export const findItem = (bench: Bench, id: string | null): ShelfItem | undefined =>
  id === null ? undefined : lookupOf(bench.items).byId.get(id);
/** The machine of this id; undefined where the bench has none. */
export const findMachine = (bench: Bench, id: string | null): Machine | undefined => {
  const item = findItem(bench, id);
  return item && isMachine(item) ? item : undefined;
};
/** The image of this id; undefined where the bench has none. */
export const findImage = (bench: Bench, id: string | null): ImageItem | undefined => {
  const item = findItem(bench, id);
  return item && isImage(item) ? item : undefined;
};
/** The system of this id; undefined where the bench has none. */
export const findProfile = (bench: Bench, id: string | null): Profile | undefined =>
  bench.profiles.find((p) => p.id === id);
/** The box of this id; undefined where the bench has none. */
export const findBox = (bench: Bench, id: string | undefined): Box | undefined =>
  bench.boxes.find((b) => b.id === id);
/** Machines that are here. */
export const machinesOf = (bench: Bench): Machine[] => bench.items.filter(isMachine).filter((m) => m.owned);
/** Drives, sticks and cards that are here. */
export const storesOf = (bench: Bench): readonly Store[] => lookupOf(bench.items).stores;
/** Drives, cards and sticks in a machine, in the order of the shelf. */
export const storesIn = (bench: Bench, machineId: string): Store[] =>
  lookupOf(bench.items).inMachine.get(machineId) ?? [];
/** What a machine could start from and keep: drives, and cards that sit in it; sticks in its ports are not counted. */
export const drivesIn = (bench: Bench, machineId: string): Store[] =>
  storesIn(bench, machineId).filter((s) => !s.removable || s.kind === 'card');
/** The network of this id; undefined where the bench has none. */
export const findNetwork = (bench: Pick<Bench, 'networks'>, id: string | null): Network | undefined =>
  bench.networks.find((n) => n.id === id);
/** Where a box answers, one host for each of its cards, in the order of their addresses. */
export function hostsOfBox({ hosts }: Pick<Bench, 'hosts'>, boxId: string): readonly Host[] {
  let known = hostsByBox.get(hosts);
  if (!known) hostsByBox.set(hosts, (known = grouped(hosts, (h) => h.boxId ?? undefined)));
  return known.get(boxId) ?? [];
}
/** Hosts by box, for each list that was asked; a list is never changed in place. */
const hostsByBox = new WeakMap<readonly Host[], Map<string, Host[]>>();
const runsByBox = new WeakMap<readonly TuneRun[], Map<string, TuneRun[]>>();
/** Runs that were measured on a box, in the order of the bench. */
export function runsOfBox({ runs }: Pick<Bench, 'runs'>, boxId: string): readonly TuneRun[] {
  let known = runsByBox.get(runs);
  if (!known) runsByBox.set(runs, (known = grouped(runs, (r) => r.boxId ?? undefined)));
  return known.get(boxId) ?? [];
}
/** Lines by box, for each log that was asked; a log is never changed in place. */
const linesByBox = new WeakMap<readonly LogEntry[], Map<string, readonly LogEntry[]>>();
/** The lines of the log that are about a box, in the order of the log. */
export function logOf({ log }: Pick<Bench, 'log'>, boxId: string): readonly LogEntry[] {
  let known = linesByBox.get(log);
  if (!known) linesByBox.set(log, (known = new Map<string, readonly LogEntry[]>()));
  let mine = known.get(boxId);
  if (!mine) known.set(boxId, (mine = log.filter((e) => e.boxId === boxId)));
  return mine;
}
/** Photographs of a machine, oldest first. */
export const photosOf = (bench: Bench, machineId: string): Photo[] =>
  bench.photos.filter((p) => p.machineId === machineId);
/** The photograph of this id; undefined where the bench has none. */
export const findPhoto = (bench: Bench, id: string | null): Photo | undefined =>
  bench.photos.find((p) => p.id === id);
export { isMachine };
export type {
  Box,
  Host,
  ImageItem,
  Network,
  LogEntry,
  Machine,
  Photo,
  Profile,
  ShelfItem,
  Store,
  TuneRun,
  Wish,
};
