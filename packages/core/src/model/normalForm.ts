import { theBench, type Bench } from './bench';
import type { Reading } from './reading';

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
