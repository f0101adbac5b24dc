import { proxy, wrap, type Remote } from 'comlink';
import { useSyncExternalStore } from 'react';
import type { SignatureCheck } from '@zb/core/checksum/signature';
import type { ImageComparison } from '@zb/core/write/compareImages';
import type { Inspection } from '@zb/core/model/inspection';
import type { DigestAlgorithm } from '@zb/core/formats/checksumList';
import type { ImageWorker } from './imageWorker';

/** One image being read or read: what the page knows of it while it is open. */
export interface OpenImage {
  /** Tells this reading of the file from any other. */
  run: number;
  name: string;
  file: File;
  depotFile: string | null;
  state: 'reading' | 'digesting' | 'done' | 'cancelled' | 'failed';
  done: number;
  seconds: number;
  inspection: Inspection | null;
  digests: Partial<Record<DigestAlgorithm, string>>;
  problem: string;
}

let remote: Remote<ImageWorker> | undefined;
const worker = (): Remote<ImageWorker> =>
  (remote ??= wrap<ImageWorker>(
    new Worker(new URL('./imageWorker.ts', import.meta.url), { type: 'module' }),
  ));

/** Open files by the place they were opened in (a box's id, or the image room). Files cannot be kept by a browser. */
const open = new Map<string, OpenImage>();
const listeners = new Set<() => void>();
let runs = 0;
/** Runs that were called off while their tables were being read. */
const calledOff = new Set<number>();

function set(place: string, change: Partial<OpenImage>): void {
  const now = open.get(place);
  if (now) open.set(place, { ...now, ...change });
  for (const l of listeners) l();
}

/**
 * Reads and digests a file. Resolves when it is done, cancelled or failed, or to undefined where another file was opened
 * in the same place meanwhile; the state is followed with useOpenImage.
 */
export async function openImage(
  place: string,
  file: File,
  depotFile: string | null,
  algorithms: DigestAlgorithm[],
): Promise<OpenImage | undefined> {
  cancelDigest(place);
  runs += 1;
  const run = runs;
  const mine: OpenImage = {
    run,
    name: file.name,
    file,
    depotFile,
    state: 'reading',
    done: 0,
    seconds: 0,
    inspection: null,
    digests: {},
    problem: '',
  };
  open.set(place, mine);
  set(place, {});
  const stillMine = (): boolean => open.get(place)?.run === run;
  try {
    const inspection = await worker().inspect(file);
    if (stillMine()) set(place, { inspection, state: 'digesting' });
    if (!stillMine()) return undefined;
    if (calledOff.delete(run)) {
      set(place, { state: 'cancelled' });
      return open.get(place);
    }
    const way = inspection.container.kind === 'none' ? worker().digest : worker().unpack;
    const result = await way(
      run,
      file,
      algorithms,
      proxy((done: number, seconds: number) => {
        if (stillMine() && open.get(place)?.state === 'digesting') set(place, { done, seconds });
      }),
    );
    if (stillMine()) {
      if (result.digests)
        set(place, {
          state: 'done',
          digests: result.digests,
          inspection: result.inspection ?? inspection,
          done: file.size,
          seconds: result.seconds,
        });
      else set(place, { state: 'cancelled', seconds: result.seconds });
    }
  } catch (error) {
    if (stillMine()) {
      const why = error instanceof Error ? error.message : String(error);
      set(place, {
        state: 'failed',
        problem: `${file.name} could not be read to the end (${why}). Nothing was changed. Was it moved or is its drive gone? Open it again.`,
      });
    }
  }
  return stillMine() ? open.get(place) : undefined;
}

/** Stops what is running in this place, if anything is; the tables are read to their end, which is soon. */
export function cancelDigest(place: string): void {
  const now = open.get(place);
  if (now?.state === 'reading') calledOff.add(now.run);
  if (now?.state === 'digesting') void worker().cancel(now.run);
}

export function forgetImage(place: string): void {
  cancelDigest(place);
  open.delete(place);
  for (const l of listeners) l();
}

export const openImageAt = (place: string): OpenImage | undefined => open.get(place);

export function useOpenImage(place: string): OpenImage | undefined {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => open.get(place),
  );
}

export interface Comparing {
  done: number;
  total: number;
  /** Undefined while it goes on, null where it was cancelled. */
  found: ImageComparison | null | undefined;
  cancel: () => void;
}

/**
 * Compares an image with a dump or another image, telling how far it is. Progress comes on a channel of its own and may
 * arrive after the result: what comes late is not told, lest a finished comparison look unfinished for good.
 */
export async function compareFiles(image: File, dump: File, tell: (now: Comparing) => void): Promise<void> {
  runs += 1;
  const run = runs;
  let over = false;
  const state: Comparing = {
    done: 0,
    total: Math.min(image.size, dump.size),
    found: undefined,
    cancel: () => void worker().cancel(run),
  };
  tell(state);
  const onProgress = proxy((done: number) => {
    if (!over) tell({ ...state, done });
  });
  const found = await worker()
    .compare(run, image, dump, onProgress)
    .finally(() => {
      over = true;
    });
  tell({ ...state, found: found ?? null });
}

export const checkSignature = (list: Blob, signature: Blob | null, key: Blob): Promise<SignatureCheck> =>
  worker().checkSignature(list, signature, key);
