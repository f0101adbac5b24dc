import { BENCH_VERSION, theBench, type Bench } from './bench';
import { BenchFileError } from './problems';

/** A step from one version of the bench file to the next; works on plain JSON, before validation. */
export type Migration = (old: Record<string, unknown>) => Record<string, unknown>;

/** A bench with a collection more reads and writes in the same way; tests make such ones. */
export type Reading = Pick<typeof theBench, 'normal' | 'checked' | 'crossCheck' | 'version'>;

/** Brings plain JSON up to the wanted version, step by step. Throws BenchFileError where no path leads there. */
export function migrate(
  raw: unknown,
  steps: ReadonlyMap<number, Migration>,
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

/**
 * A bench out of storage, brought up to the wanted version and validated field by field. References are not held against
 * it: two tabs may have crossed, and a bench with a loose end must still open. Throws BenchFileError.
 */
export const benchFromKept = (
  kept: unknown,
  steps: ReadonlyMap<number, Migration>,
  target: number = BENCH_VERSION,
  model: Reading = theBench,
): Bench => model.checked({ ...migrate(kept, steps, target), version: model.version });
