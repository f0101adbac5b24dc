import { z } from 'zod';
import {
  conflictsIn,
  editsBack,
  editsBetween,
  sameValue,
  valueAt,
  withEdits,
  type Conflict,
  type Edit,
} from './change';
import type { FindEntry, Keyed, RecordOf, Reference, Table } from './collection';
import { Problems } from './problems';
import { settingsSchema, usualSettings, type Settings } from './settings';

/** What a bench has besides its collections. */
export interface Frame {
  format: 'zealous-box-bench';
  version: number;
  name: string;
  settings: Settings;
}
/** A bench with the collections of a table. */
export type BenchOf<T extends Table> = Frame & { [K in keyof T]: RecordOf<T[K]>[] };

/** One record set or (null) removed; values of a record changed; the bench's name or settings changed. */
export type ChangeOf<T extends Table> =
  | { [K in keyof T & string]: { in: K; id: string; to: RecordOf<T[K]> | null } }[keyof T & string]
  | { in: keyof T & string; id: string; edits: readonly Edit[] }
  | NameChange
  | { in: 'settings'; id: 'settings'; edits: readonly Edit[] };

/** A change of one record of a collection. */
export type RecordChange<T extends Table> = Exclude<ChangeOf<T>, { in: 'name' | 'settings' }>;
interface NameChange {
  in: 'name';
  id: 'name';
  to: string;
  saw?: string;
}
const isNameChange = (c: { in: string }): c is NameChange => c.in === 'name';

type Records = Record<string, readonly Keyed[]>;
type Loose = Record<string, unknown>;

/** Values that a record has in a field, whether one or a list. */
const idsAt = (record: Keyed, field: string): string[] => {
  const value = valueAt(record, field.split('.'));
  const all: unknown[] = Array.isArray(value) ? value : [value];
  return all.filter((v): v is string => typeof v === 'string');
};

const text = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
/** More changes of one list than this are made in one go through it. */
const MANY = 40;

/** Settings whose keys are changed each by itself. */
const SETTINGS_BY_KEY = ['weights'];

/**
 * Everything that follows from a table of collections. The application has one (collections.ts); tests make others, with
 * a collection more.
 */
export function benchModel<T extends Table>(table: T, version: number) {
  type B = BenchOf<T>;
  type C = ChangeOf<T>;
  const names = Object.keys(table) as (keyof T & string)[];
  const of = (bench: B, name: string): readonly Keyed[] => (bench as unknown as Records)[name] ?? [];
  const frame = z.object({
    format: z.literal('zealous-box-bench'),
    version: z.literal(version),
    name: z.string().min(1).max(120),
    settings: settingsSchema,
  });
  const schema = frame.extend(
    Object.fromEntries(names.map((n) => [n, z.array(table[n]?.schema ?? z.never())])),
  ) as unknown as z.ZodType<B>;

  const empty = (name = 'My bench'): B =>
    ({
      format: 'zealous-box-bench',
      version,
      name,
      settings: usualSettings(),
      ...Object.fromEntries(names.map((n) => [n, []])),
    }) as unknown as B;

  const isRecordChange = (c: C): c is Extract<C, RecordChange<T>> => c.in !== 'name' && c.in !== 'settings';

  /** A record after one change of it; undefined where it is gone. */
  const after = (before: Keyed | undefined, c: RecordChange<T>): Keyed | undefined =>
    'edits' in c ? before && withEdits(before, c.edits) : (c.to ?? undefined);

  /** The order in which a collection is shown, whatever order storage or a file gave. */
  const compare = (name: string, a: Keyed, b: Keyed): number =>
    (table[name]?.order(a, b) ?? 0) || text(a.id, b.id);
  const ordered = (name: string, records: readonly Keyed[]): Keyed[] =>
    [...records].sort((a, b) => compare(name, a, b));

  /** Records by id, for each list that was asked; a list is never changed in place. */
  const indexes = new WeakMap<readonly Keyed[], Map<string, Keyed>>();
  function indexOf(records: readonly Keyed[]): Map<string, Keyed> {
    let index = indexes.get(records);
    if (!index) indexes.set(records, (index = new Map(records.map((x) => [x.id, x]))));
    return index;
  }
  const find = (bench: B, name: string, id: string): Keyed | undefined => indexOf(of(bench, name)).get(id);

  /** Where a record belongs in a list that is in order. */
  function placeIn(name: string, records: readonly Keyed[], record: Keyed): number {
    let [from, to] = [0, records.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      const there = records[middle];
      if (there && compare(name, there, record) < 0) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  /** A list after some changes of it; in its order where it was, else what is new comes last. */
  function applyFew(
    name: string,
    records: readonly Keyed[],
    changes: readonly RecordChange<T>[],
    inOrder: boolean,
  ): Keyed[] {
    const next = [...records];
    // The index goes over to the new list: making it again for every act would cost more than the act.
    const index = indexOf(records);
    indexes.delete(records);
    indexes.set(next, index);
    for (const c of changes) {
      const before = index.get(c.id);
      const record = after(before, c);
      const at = before ? next.indexOf(before) : next.length;
      if (record && !(inOrder && before && compare(name, before, record) !== 0)) {
        const place = before || !inOrder ? at : placeIn(name, next, record);
        next.splice(place, before ? 1 : 0, record);
      } else {
        if (before) next.splice(at, 1);
        if (record) next.splice(placeIn(name, next, record), 0, record);
      }
      if (record) index.set(c.id, record);
      else index.delete(c.id);
    }
    return next;
  }
  function applyMany(records: readonly Keyed[], changes: readonly RecordChange<T>[]): Keyed[] {
    // A map keeps the place of what is replaced and puts what is new at the end.
    const next = new Map(records.map((x) => [x.id, x]));
    for (const c of changes) {
      const record = after(next.get(c.id), c);
      if (record === undefined) next.delete(c.id);
      else next.set(c.id, record);
    }
    return [...next.values()];
  }

  function applyTo(bench: B, changes: readonly C[], inOrder: boolean): B {
    const next = { ...bench } as unknown as Loose;
    const touched = new Map<string, RecordChange<T>[]>();
    for (const c of changes) {
      if (isNameChange(c)) next.name = c.to;
      else if (c.in === 'settings' && 'edits' in c)
        next.settings = withEdits(next.settings as object, c.edits);
      else if (isRecordChange(c)) {
        const mine = touched.get(c.in);
        if (mine) mine.push(c);
        else touched.set(c.in, [c]);
      }
    }
    for (const [name, mine] of touched) {
      const records = of(bench, name);
      if (mine.length <= MANY) next[name] = applyFew(name, records, mine, inOrder);
      else next[name] = inOrder ? ordered(name, applyMany(records, mine)) : applyMany(records, mine);
    }
    return next as unknown as B;
  }
  /** The bench after the changes, in order, whatever they saw; the bench given is not touched. */
  const apply = (bench: B, changes: readonly C[]): B => applyTo(bench, changes, false);
  /** The same of a bench that is arranged: it stays so. */
  const applyArranged = (bench: B, changes: readonly C[]): B => applyTo(bench, changes, true);

  /** A bench of just the records that changes name: what becomes of these can be seen without the others. */
  function named(bench: B, changes: readonly C[]): B {
    const only: Record<string, Map<string, Keyed>> = Object.fromEntries(names.map((n) => [n, new Map()]));
    for (const c of changes.filter(isRecordChange)) {
      const record = find(bench, c.in, c.id);
      if (record) only[c.in]?.set(c.id, record);
    }
    return { ...bench, ...Object.fromEntries(names.map((n) => [n, [...(only[n]?.values() ?? [])]])) };
  }

  /** Where changes of values meet something else than what they saw. Records set whole ask nothing. */
  function conflicts(bench: B, changes: readonly C[]): Conflict[] {
    const out: Conflict[] = [];
    // Later changes of an act see what its earlier ones did.
    const done = new Map<string, Keyed | undefined>();
    let { name } = bench;
    let settings: Keyed = { id: 'settings', ...bench.settings };
    for (const c of changes) {
      if (isNameChange(c)) {
        if (c.saw !== undefined && name !== c.saw && name !== c.to)
          out.push({ in: 'name', id: 'name', record: undefined, path: [], found: name, wanted: c.to });
        name = c.to;
      } else if (c.in === 'settings' && 'edits' in c) {
        out.push(...conflictsIn({ in: 'settings', id: 'settings' }, settings, c.edits));
        settings = withEdits(settings, c.edits);
      } else if (isRecordChange(c)) {
        const key = `${c.in} ${c.id}`;
        const record = done.has(key) ? done.get(key) : find(bench, c.in, c.id);
        if ('edits' in c) out.push(...conflictsIn({ in: c.in, id: c.id }, record, c.edits));
        done.set(key, after(record, c));
      }
    }
    return out;
  }

  /**
   * The changes that take these back, for a bench that holds at least the records they name. Records whose values alone
   * were changed get back these values and no others.
   */
  function inverse(bench: B, changes: readonly C[]): C[] {
    const out: unknown[] = [];
    const byKey = new Map<string, RecordChange<T>[]>();
    for (const c of changes) {
      if (isNameChange(c)) out.push({ in: 'name', id: 'name', to: bench.name });
      else if (c.in === 'settings' && 'edits' in c)
        out.push({ in: 'settings', id: 'settings', edits: editsBack(c.edits) });
      else if (isRecordChange(c)) {
        const key = `${c.in} ${c.id}`;
        const mine = byKey.get(key);
        if (mine) mine.push(c);
        else byKey.set(key, [c]);
      }
    }
    for (const mine of byKey.values()) {
      const [{ in: name, id }] = mine as [RecordChange<T>];
      const edits = mine.flatMap((c) => ('edits' in c ? c.edits : []));
      if (mine.every((c) => 'edits' in c)) out.push({ in: name, id, edits: editsBack(edits) });
      else out.push({ in: name, id, to: find(bench, name, id) ?? null });
    }
    return out.reverse() as C[];
  }

  /**
   * The changes that lead from one bench to another, record by record; undefined for a record that is the same, so that
   * whoever asks can rest in between.
   */
  function* differing(from: B, to: B): Generator<C | undefined> {
    for (const name of names) {
      const now = new Map(of(to, name).map((x) => [x.id, x]));
      const before = new Map(of(from, name).map((x) => [x.id, x]));
      for (const id of before.keys())
        yield now.has(id) ? undefined : ({ in: name, id, to: null } as unknown as C);
      for (const [id, x] of now)
        yield sameValue(before.get(id), x) ? undefined : ({ in: name, id, to: x } as unknown as C);
    }
    if (from.name !== to.name) yield { in: 'name', id: 'name', to: to.name };
    const edits = settingsEdits(from.settings, to.settings);
    if (edits.length > 0) yield { in: 'settings', id: 'settings', edits };
  }
  /** All of them at once; used to replace a whole bench as one act. */
  const differences = (from: B, to: B): C[] => [...differing(from, to)].filter((c) => c !== undefined);

  /** The bench in the one order in which it is shown. */
  const arranged = (bench: B): B => ({
    ...bench,
    ...Object.fromEntries(names.map((n) => [n, ordered(n, of(bench, n))])),
  });

  /** The ids that references may lead to, by collection and kind. */
  function targets(bench: B): (to: string, kind: string | undefined) => ReadonlySet<string> {
    const made = new Map<string, ReadonlySet<string>>();
    return (to, kind) => {
      const key = `${to} ${kind ?? ''}`;
      let ids = made.get(key);
      if (!ids) {
        const records = of(bench, to) as readonly (Keyed & { kind?: string })[];
        ids = new Set(records.filter((x) => kind === undefined || x.kind === kind).map((x) => x.id));
        made.set(key, ids);
      }
      return ids;
    };
  }

  /** The edits that take references away which are `gone`: one becomes none, in a list it is left out. */
  const loosening = (
    name: string,
    record: Keyed,
    gone: (reference: Reference, id: string) => boolean,
  ): Edit[] =>
    (table[name]?.references ?? [])
      .filter((r) => idsAt(record, r.field).some((id) => gone(r, id)))
      .map((r) => {
        const path = r.field.split('.');
        const saw = valueAt(record, path);
        const to = Array.isArray(saw) ? saw.filter((id) => typeof id === 'string' && !gone(r, id)) : null;
        return { path, to, saw };
      });

  /** References that lead nowhere become none, so that a file that was saved can always be opened. */
  function tied(bench: B): B {
    const known = targets(bench);
    const tie = (name: string): readonly Keyed[] =>
      of(bench, name).map((record) => {
        const edits = loosening(name, record, (r, id) => !known(r.to, r.kind).has(id));
        return edits.length === 0 ? record : withEdits(record, edits);
      });
    return { ...bench, ...Object.fromEntries(names.map((n) => [n, tie(n)])) };
  }

  /** What every record that names one that goes has to forget. */
  const forgetting = (bench: B, where: string, id: string): C[] =>
    names.flatMap((name) =>
      of(bench, name).flatMap((record) => {
        const edits = loosening(name, record, (r, named) => r.to === where && named === id);
        return edits.length === 0 ? [] : [{ in: name, id: record.id, edits }];
      }),
    );

  /** References that must lead somewhere, and ids that must be single. */
  function crossCheck(bench: B): Problems {
    const out = new Problems();
    const known = targets(bench);
    for (const name of names) {
      const seen = new Set<string>();
      of(bench, name).forEach((record, i) => {
        if (seen.has(record.id)) out.add({ path: `${name}[${i}].id`, why: `“${record.id}” is used twice` });
        seen.add(record.id);
        for (const r of table[name]?.references ?? []) {
          const list = Array.isArray(valueAt(record, r.field.split('.')));
          idsAt(record, r.field).forEach((id, n) => {
            if (!known(r.to, r.kind).has(id))
              out.add({
                path: `${name}[${i}].${r.field}${list ? `[${n}]` : ''}`,
                why: `names ${r.what} “${id}”, which is not in the file`,
              });
          });
        }
      });
    }
    return out;
  }

  /** Validates every field of plain JSON of the present version, record by record. Throws BenchFileError. */
  function checked(raw: Loose): B {
    const problems = new Problems();
    const head = problems.check(frame, raw);
    const records = Object.fromEntries(
      names.map((n) => [n, problems.checkAll(table[n]?.schema ?? z.never(), raw[n], [n])]),
    );
    problems.throwIfAny((n) => (n === 1 ? 'One field in it is wrong.' : `${n} fields in it are wrong.`));
    return { ...(head ?? empty()), ...records } as unknown as B;
  }

  /** Some records of a collection, validated; undefined where one of them is wrong: `checked` then says what. */
  function sound(name: string, records: readonly unknown[]): Keyed[] | undefined {
    const problems = new Problems();
    const out = problems.checkAll(table[name]?.schema ?? z.never(), records);
    return problems.count === 0 ? out : undefined;
  }

  /** A bench of records that `sound` gave back, its head validated as well. Throws BenchFileError. */
  function assembled(head: Loose, records: Readonly<Record<string, readonly Keyed[]>>): B {
    const problems = new Problems();
    const whole = problems.check(frame, { ...head, version });
    problems.throwIfAny(() => 'The head of it is wrong.');
    return { ...(whole ?? empty()), ...records } as unknown as B;
  }

  /** The bench in its normal form: references tied, records by id. */
  const normal = (bench: B): B => {
    const whole = tied(bench);
    const byId = (records: readonly Keyed[]): Keyed[] => [...records].sort((a, b) => text(a.id, b.id));
    return { ...whole, ...Object.fromEntries(names.map((n) => [n, byId(of(whole, n))])) };
  };

  /** Everything on the bench that can be found by words, collections in the table's order; made as it is asked for. */
  function* findEntries(bench: B): Generator<FindEntry> {
    for (const n of names) for (const record of of(bench, n)) yield* table[n]?.find(record) ?? [];
  }

  return {
    table: table as Table,
    names: names as readonly string[],
    version,
    schema,
    empty,
    apply,
    applyArranged,
    arranged,
    named,
    conflicts,
    differing,
    differences,
    inverse,
    forgetting,
    normal,
    crossCheck,
    checked,
    sound,
    assembled,
    findEntries,
    records: of,
    isRecordChange,
  };
}

/** The edits that lead from some settings to others. */
export const settingsEdits = (from: Settings, to: Settings): Edit[] =>
  editsBetween(from, to, SETTINGS_BY_KEY);
