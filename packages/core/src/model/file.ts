import { BENCH_VERSION, theBench, type Bench } from './bench';
import { differences, type Change } from './changes';
import { migrations, type Migration } from './migrations';
import { BenchFileError } from './problems';

export { migrations, type Migration };
export { BenchFileError, fileProblem, type FileProblem } from './problems';

/** Brings plain JSON up to the wanted version, step by step. Throws BenchFileError where no path leads there. */
export function migrate(
  raw: unknown,
  steps: ReadonlyMap<number, Migration> = migrations,
  target: number = BENCH_VERSION,
): Record<string, unknown> {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new BenchFileError('This is not a bench file: it holds no bench at its top level.');
  }
  let at = raw as Record<string, unknown>;
  if (at.format !== 'zealous-box-bench') {
    throw new BenchFileError('This is not a bench file: its “format” is not “zealous-box-bench”.', [
      { path: 'format', why: 'must be "zealous-box-bench"' },
    ]);
  }
  if (!Number.isInteger(at.version) || Number(at.version) < 1) {
    throw new BenchFileError('This bench file does not say its version.', [
      { path: 'version', why: 'must be a whole number from 1' },
    ]);
  }
  if (Number(at.version) > target) {
    throw new BenchFileError(
      `This bench file is of version ${String(at.version)}; this application reads up to ${target}. Use a newer one.`,
      [{ path: 'version', why: `newer than ${target}` }],
    );
  }
  while (Number(at.version) < target) {
    const from = Number(at.version);
    const step = steps.get(from);
    if (!step) throw new BenchFileError(`No way is known from version ${from} to ${from + 1}.`);
    at = { ...step(at), version: from + 1 };
  }
  return at;
}

/** A bench with a collection more reads and writes in the same way; tests make such ones. */
type Reading = Pick<typeof theBench, 'normal' | 'checked' | 'crossCheck' | 'version'>;

/** Sorted keys at every depth and records sorted by id: the one normal form, so that files can be compared. */
export function sortKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortKeys);
  if (typeof value !== 'object' || value === null) return value;
  const source = value as Record<string, unknown>;
  const keys = Object.keys(source)
    .filter((k) => source[k] !== undefined)
    .sort();
  return Object.fromEntries(keys.map((k) => [k, sortKeys(source[k])]));
}

/** The bench as readable JSON in its normal form, with a final line feed. */
export const benchToText = (bench: Bench, model: Reading = theBench): string =>
  JSON.stringify(sortKeys(model.normal(bench)), null, 2) + '\n';

/** Reads a bench file's text: parses, migrates, validates all of it. Throws BenchFileError; never half a bench. */
export function benchFromText(text: string, model: Reading = theBench): Bench {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new BenchFileError(
      `This file is not readable JSON: ${error instanceof Error ? error.message : 'unknown fault'}`,
    );
  }
  const bench = model.checked(migrate(raw));
  model
    .crossCheck(bench)
    .throwIfAny((n) =>
      n === 1 ? 'One reference in it leads nowhere.' : `${n} references in it lead nowhere.`,
    );
  return bench;
}

/**
 * A bench out of storage, brought up to the wanted version and validated field by field. References are not held against
 * it: two tabs may have crossed, and a bench with a loose end must still open. Throws BenchFileError.
 */
export const benchFromKept = (
  kept: unknown,
  steps: ReadonlyMap<number, Migration> = migrations,
  target: number = BENCH_VERSION,
  model: Reading = theBench,
): Bench => model.checked({ ...migrate(kept, steps, target), version: model.version });

/** What an import would do to one collection, counted. */
export interface ImportPreview {
  collection: string;
  added: number;
  replaced: number;
  removed: number;
  same: number;
}

/** What putting this bench in place of the present one would do, by collection; `changes` are what leads there. */
export function previewImport(
  present: Bench,
  incoming: Bench,
  changes: readonly Change[] = differences(present, incoming),
): ImportPreview[] {
  return theBench.names.map((collection) => {
    const here = new Set(theBench.records(present, collection).map((x) => x.id));
    const mine = changes.filter((c) => c.in === collection);
    const removed = mine.filter((c) => 'to' in c && c.to === null).length;
    const added = mine.filter((c) => !here.has(c.id)).length;
    const replaced = mine.length - added - removed;
    const same = theBench.records(incoming, collection).length - added - replaced;
    return { collection, added, replaced, removed, same };
  });
}
