import { BENCH_VERSION, benchSchema, emptyBench, type Bench } from './bench';
import { isImage, isMachine } from './shelf';
import { collections, differences, type Collection } from './changes';
import { migrations, type Migration } from './migrations';
import { BenchFileError, Problems } from './problems';

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

/** The ids that references may lead to. */
function idsOf(
  bench: Bench,
): Record<'items' | 'machines' | 'images' | 'profiles' | 'wishes' | 'boxes', Set<string>> {
  const of = (records: readonly { id: string }[]): Set<string> => new Set(records.map((r) => r.id));
  return {
    items: of(bench.items),
    wishes: of(bench.wishes),
    machines: of(bench.items.filter(isMachine)),
    images: of(bench.items.filter(isImage)),
    profiles: of(bench.profiles),
    boxes: of(bench.boxes),
  };
}

/** References that lead nowhere become none, so that a file that was saved can always be opened. */
function withoutLooseEnds(bench: Bench): Bench {
  const { items, machines, images, profiles, wishes, boxes } = idsOf(bench);
  const known = (id: string | null, among: Set<string>): string | null =>
    id !== null && among.has(id) ? id : null;
  return {
    ...bench,
    items: bench.items.map((x) => ('in' in x ? { ...x, in: known(x.in, machines) } : x)),
    boxes: bench.boxes.map((b) => ({
      ...b,
      machineId: known(b.machineId, machines),
      imageId: known(b.imageId, images),
      profileId: known(b.profileId, profiles),
      wishId: known(b.wishId, wishes),
      parts: b.parts.filter((id) => items.has(id)),
    })),
    wishes: bench.wishes.map((w) => ({
      ...w,
      profileId: known(w.profileId, profiles),
      keep: known(w.keep, machines),
      forbid: w.forbid.filter((id) => machines.has(id)),
    })),
    log: bench.log.map((e) => ({ ...e, boxId: known(e.boxId, boxes) })),
  };
}

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
export function benchToText(bench: Bench): string {
  const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
  const tied = withoutLooseEnds(bench);
  const normal = { ...tied };
  for (const c of collections) Object.assign(normal, { [c]: [...tied[c]].sort(byId) });
  return JSON.stringify(sortKeys(normal), null, 2) + '\n';
}

/** References that must lead somewhere, and ids that must be single. */
function crossCheck(bench: Bench): Problems {
  const out = new Problems();
  for (const c of collections) {
    const seen = new Set<string>();
    bench[c].forEach((x, i) => {
      if (seen.has(x.id)) out.add({ path: `${c}[${i}].id`, why: `“${x.id}” is used twice` });
      seen.add(x.id);
    });
  }
  const { items, machines, images, profiles, wishes, boxes } = idsOf(bench);
  const need = (path: string, id: string | null, known: Set<string>, what: string): void => {
    if (id !== null && !known.has(id))
      out.add({ path, why: `names ${what} “${id}”, which is not in the file` });
  };
  bench.items.forEach((x, i) => {
    if ('in' in x) need(`items[${i}].in`, x.in, machines, 'machine');
  });
  bench.boxes.forEach((b, i) => {
    need(`boxes[${i}].machineId`, b.machineId, machines, 'machine');
    need(`boxes[${i}].profileId`, b.profileId, profiles, 'profile');
    need(`boxes[${i}].imageId`, b.imageId, images, 'image');
    need(`boxes[${i}].wishId`, b.wishId, wishes, 'wish');
    b.parts.forEach((part, n) => need(`boxes[${i}].parts[${n}]`, part, items, 'part'));
  });
  bench.wishes.forEach((w, i) => {
    need(`wishes[${i}].profileId`, w.profileId, profiles, 'profile');
    need(`wishes[${i}].keep`, w.keep, machines, 'machine');
    w.forbid.forEach((m, n) => need(`wishes[${i}].forbid[${n}]`, m, machines, 'machine'));
  });
  bench.log.forEach((e, i) => need(`log[${i}].boxId`, e.boxId, boxes, 'box'));
  return out;
}

/** Validates every field of plain JSON of the present version, record by record. Throws BenchFileError. */
function checked(raw: Record<string, unknown>): Bench {
  const problems = new Problems();
  const none = Object.fromEntries(collections.map((c) => [c, []]));
  const frame = problems.check(benchSchema, { ...raw, ...none });
  const { shape } = benchSchema;
  const records = {
    items: problems.checkAll(shape.items.element, raw.items, ['items']),
    profiles: problems.checkAll(shape.profiles.element, raw.profiles, ['profiles']),
    wishes: problems.checkAll(shape.wishes.element, raw.wishes, ['wishes']),
    boxes: problems.checkAll(shape.boxes.element, raw.boxes, ['boxes']),
    log: problems.checkAll(shape.log.element, raw.log, ['log']),
  };
  problems.throwIfAny((n) => (n === 1 ? 'One field in it is wrong.' : `${n} fields in it are wrong.`));
  return { ...(frame ?? emptyBench()), ...records };
}

/** Reads a bench file's text: parses, migrates, validates all of it. Throws BenchFileError; never half a bench. */
export function benchFromText(text: string): Bench {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new BenchFileError(
      `This file is not readable JSON: ${error instanceof Error ? error.message : 'unknown fault'}`,
    );
  }
  const bench = checked(migrate(raw));
  crossCheck(bench).throwIfAny((n) =>
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
): Bench => checked({ ...migrate(kept, steps, target), version: BENCH_VERSION });

export interface ImportPreview {
  collection: Collection;
  added: number;
  replaced: number;
  removed: number;
  same: number;
}

/** What putting this bench in place of the present one would do, by collection. */
export function previewImport(present: Bench, incoming: Bench): ImportPreview[] {
  const changes = differences(present, incoming);
  return collections.map((collection) => {
    const here = new Set(present[collection].map((x) => x.id));
    const mine = changes.filter((c) => c.in === collection);
    const added = mine.filter((c) => c.to !== null && !here.has(c.id)).length;
    const removed = mine.filter((c) => c.to === null).length;
    const replaced = mine.length - added - removed;
    return { collection, added, replaced, removed, same: incoming[collection].length - added - replaced };
  });
}
