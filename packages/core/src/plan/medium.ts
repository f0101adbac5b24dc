import type { Box, Store } from '../model/bench';
import { emptyContent, type Content } from '../model/content';
import type { InstalledSystem, WholeImage } from '../model/medium';

/** Does a medium hold the system of this box? The box may install on it again; for all others it is kept. */
export const holdsSystemOf = (store: Pick<Store, 'installed'>, box: Pick<Box, 'id'>): boolean =>
  store.installed?.boxId === box.id;

/** Is a medium part of the pool that this box has made? */
export const isPooledBy = (store: Pick<Store, 'pooled'>, box: Pick<Box, 'id'>): boolean =>
  store.pooled?.boxId === box.id;

/** May a box erase a medium, by what the shelf says of it: its own system it may. */
export const mayErase = (store: Pick<Store, 'fate' | 'installed'>, box: Pick<Box, 'id'>): boolean =>
  store.fate === 'may be lost' || holdsSystemOf(store, box);

/** A medium after its content has changed: what was known to lie on it no longer counts. */
const changed = (store: Store, to: Partial<Store>): Store => ({
  ...store,
  wholeImage: null,
  installed: null,
  pooled: null,
  ...to,
  revision: store.revision + 1,
});

/**
 * A medium after an image was written over the whole of it. A stick or card for an installer may be erased again; the final
 * drive of a system holds that system, and is kept. `image` null: the write failed, and what lies there is unknown.
 */
export function withWholeImage(
  store: Store,
  content: Content,
  image: WholeImage | null,
  system: Omit<InstalledSystem, 'at' | 'by'> | null,
): Store {
  const installed = image && system ? { ...system, at: image.at, by: image.by } : null;
  return changed(store, {
    content,
    wholeImage: image,
    installed,
    fate: installed ? 'keep' : 'may be lost',
    retentionOrigin: installed ? 'installed' : 'written',
  });
}

/** A medium after a system was installed on it: it holds that system, and is kept. */
export const withSystem = (store: Store, content: Content, installed: InstalledSystem): Store =>
  changed(store, {
    content,
    installed,
    holds: '',
    fate: 'keep',
    retentionOrigin: 'installed',
  });

/** A medium after all of it was erased: nothing is on it, and anybody may use it. */
export const withNothing = (store: Store, at: string): Store =>
  changed(store, {
    content: emptyContent('hand', at),
    holds: '',
    fate: 'may be lost',
    retentionOrigin: 'empty',
  });

/** A medium that has become part of a pool: whatever comes on it must stay. */
export const withPool = (store: Store, { id, name }: Pick<Box, 'id' | 'name'>, at: string): Store =>
  changed(store, {
    content: { ...emptyContent('install', at), table: 'unknown' },
    pooled: { boxId: id, boxName: name.slice(0, 300), at },
    holds: '',
    fate: 'keep',
    retentionOrigin: 'installed',
  });

/** A stick that has become a chain loader: it stays in its machine. */
export const withChainLoader = (store: Store, { name }: Pick<Box, 'name'>, at: string): Store =>
  changed(store, {
    content: unseenContent('a chain loader', at),
    holds: `the chain loader of ${name}`.slice(0, 300),
    fate: 'keep',
    retentionOrigin: 'installed',
  });

/** A medium of which nobody knows what lies on it: it was written to, and the record of that was taken back. */
export const withUnknown = (store: Store): Store =>
  changed(store, { content: null, holds: '', fate: 'not decided', retentionOrigin: null });

/** What a drive holds after an install whose layout nobody worked out: something, of which its system alone is known. */
export const unseenContent = (system: string, at: string): Content => ({
  ...emptyContent('install', at),
  table: 'unknown',
  starts: [{ by: 'told', firmware: null, path: '', title: system.slice(0, 300) }],
});
