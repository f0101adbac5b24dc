import type { Keyed } from './collection';

/**
 * One value of a record set anew: where it lies, what it becomes, and what was seen there by whoever changed it.
 * Undefined stands for “not there”.
 */
export interface Edit {
  path: readonly string[];
  to: unknown;
  saw: unknown;
}

/** Are two values of the bench the same? Keys may come in any order; what is undefined counts as not there. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b)) {
    if (!Array.isArray(a) || !Array.isArray(b) || a.length !== b.length) return false;
    return a.every((x, i) => sameValue(x, b[i]));
  }
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = new Set([...Object.keys(x), ...Object.keys(y)]);
  for (const k of keys) if (!sameValue(x[k], y[k])) return false;
  return true;
}

const isMap = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/** The edits that lead from one record to another; fields in `byKey` are compared key by key. */
export function editsBetween(before: object, after: object, byKey: readonly string[] = []): Edit[] {
  const [old, now] = [before as Record<string, unknown>, after as Record<string, unknown>];
  const out: Edit[] = [];
  for (const field of new Set([...Object.keys(old), ...Object.keys(now)])) {
    const [saw, to] = [old[field], now[field]];
    if (sameValue(saw, to)) continue;
    if (byKey.includes(field) && isMap(saw) && isMap(to)) {
      for (const key of new Set([...Object.keys(saw), ...Object.keys(to)]))
        if (!sameValue(saw[key], to[key])) out.push({ path: [field, key], to: to[key], saw: saw[key] });
    } else out.push({ path: [field], to, saw });
  }
  return out;
}

/** What lies at a path of a record. */
export const valueAt = (record: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((at, key) => (isMap(at) ? at[key] : undefined), record);

/** A record with its edits; the one given is not touched. */
export function withEdits<T extends object>(record: T, edits: readonly Edit[]): T {
  const set = (
    of: Record<string, unknown>,
    path: readonly string[],
    to: unknown,
  ): Record<string, unknown> => {
    const [key = '', ...rest] = path;
    const next = { ...of };
    const value = rest.length === 0 ? to : set(isMap(of[key]) ? of[key] : {}, rest, to);
    if (value === undefined) delete next[key];
    else next[key] = value;
    return next;
  };
  return edits.reduce<Record<string, unknown>>(
    (at, e) => set(at, e.path, e.to),
    record as Record<string, unknown>,
  ) as T;
}

/** The edits that take these back. */
export const editsBack = (edits: readonly Edit[]): Edit[] =>
  edits.map(({ path, to, saw }) => ({ path, to: saw, saw: to })).reverse();

/** An edit that found another value than the one that was seen; `record` is undefined where the record is gone. */
export interface Conflict {
  in: string;
  id: string;
  record: Keyed | undefined;
  path: readonly string[];
  found: unknown;
  wanted: unknown;
}

/** Where edits meet a record that is not as it was seen; empty where all of them may be made. */
export function conflictsIn(
  where: { in: string; id: string },
  record: Keyed | undefined,
  edits: readonly Edit[],
): Conflict[] {
  return edits.flatMap(({ path, to, saw }) => {
    const found = valueAt(record, path);
    // What is there already as it was wanted needs nobody's word.
    if (record && (sameValue(found, saw) || sameValue(found, to))) return [];
    return [{ ...where, record, path, found, wanted: to }];
  });
}
