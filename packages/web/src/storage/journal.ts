import type { Change } from '@zb/core/model/changes';
import { inSlices, type Tx } from './database';
import { UNDO_DEPTH } from './keeper';

/** What takes a change back: a change, or a large record that lies aside. */
export type Back = Change | { in: string; id: string; aside: true };

interface KeptAct {
  seq: number;
  label: string;
}

/** So many changes lie in one record of the journal, so that reading and writing it are no long tasks. */
const PER_RECORD = 500;

/** Every record that belongs to one act. */
const ofAct = (seq: number): IDBKeyRange => IDBKeyRange.bound([seq], [seq, []]);

/** Notes an act with what takes it back, and forgets those that are too many. Answers its number. */
export async function note(tx: Tx, label: string): Promise<number> {
  const acts = tx.objectStore('acts');
  const seq = Number(await acts.add({ label }));
  const keys = await acts.getAllKeys();
  for (const old of keys.slice(0, Math.max(0, keys.length - UNDO_DEPTH))) {
    await acts.delete(old);
    for (const store of ['backs', 'aside']) await tx.objectStore(store).delete(ofAct(Number(old)));
  }
  return seq;
}

/** Keeps what takes an act back, from its `first` record on; answers the number of the next one. */
export async function noteBack(tx: Tx, seq: number, back: readonly Back[], first: number): Promise<number> {
  const count = Math.ceil(back.length / PER_RECORD);
  const slices = Array.from({ length: count }, (_, n) => ({
    seq,
    n: first + n,
    back: back.slice(n * PER_RECORD, (n + 1) * PER_RECORD),
  }));
  await inSlices(slices, (record) => tx.objectStore('backs').add(record));
  return first + count;
}

/** The last act, undefined where there is none. */
export async function lastAct(tx: Tx<IDBTransactionMode>): Promise<KeptAct | undefined> {
  const cursor = await tx.objectStore('acts').openCursor(null, 'prev');
  return cursor?.value as KeptAct | undefined;
}

/** Takes an act off the journal; answers the changes that take it back, with what lay aside in them. */
export async function takeOff(tx: Tx, { seq }: KeptAct): Promise<Change[]> {
  const parts = (await tx.objectStore('backs').getAll(ofAct(seq))) as { back: Back[] }[];
  const aside = (await tx.objectStore('aside').getAll(ofAct(seq))) as {
    in: string;
    id: string;
    record: unknown;
  }[];
  const found = new Map(aside.map((a) => [`${a.in} ${a.id}`, a.record]));
  await tx.objectStore('acts').delete(seq);
  for (const store of ['backs', 'aside']) await tx.objectStore(store).delete(ofAct(seq));
  return parts
    .flatMap((p) => p.back)
    .map((b) =>
      'aside' in b
        ? ({ in: b.in, id: b.id, to: found.get(`${b.in} ${b.id}`) ?? null } as unknown as Change)
        : b,
    );
}
