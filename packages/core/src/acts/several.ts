import type { Bench, Machine, ShelfItem } from '../model/bench';
import { applyChanges, edited, type Act, type Change } from '../model/changes';
import type { Fate } from '../model/content';
import { isStore } from '../model/shelf';
import { decideFate, removeItem } from './shelf';

const things = (items: readonly ShelfItem[]): string =>
  items.length === 1 ? `“${items[0]?.name}”` : `${items.length} things`;

/** What can sit in a machine: drives, sticks, cards and memory. */
export type Movable = Extract<ShelfItem, { in: string | null }>;
/** Whether an item can sit in a machine. */
export const isMovable = (item: ShelfItem): item is Movable => 'in' in item;

/** Decides of several drives, sticks and cards at once whether what is on them may be lost; others stay as they are. */
export function decideFates(items: readonly ShelfItem[], fate: Fate): Act {
  const stores = items.filter(isStore).filter((s) => s.fate !== fate);
  const words: Record<Fate, string> = {
    keep: 'marked to keep',
    'may be lost': 'may be lost',
    'not decided': 'not decided',
  };
  return {
    label: `${things(stores)}: ${words[fate]}`,
    changes: stores.flatMap((s) => decideFate(s, fate).changes),
  };
}

/** Puts several things into a machine, or loose on the shelf; what sits there already, or cannot sit in one, stays. */
export function putInto(items: readonly ShelfItem[], machine: Machine | undefined): Act {
  const to = machine?.id ?? null;
  const moved = items.filter(isMovable).filter((i) => i.in !== to);
  return {
    label: `${things(moved)} ${machine ? `put into ${machine.name}` : 'put loose on the shelf'}`,
    changes: moved.map((i) => edited('items', i, { ...i, in: to })),
  };
}

/** Takes several things off the shelf at once; whatever named one of them names none, and one undo brings all back. */
export function removeItems(bench: Bench, items: readonly ShelfItem[]): Act {
  const changes: Change[] = [];
  let left = bench;
  for (const item of items) {
    const gone = removeItem(left, item).changes;
    changes.push(...gone);
    left = applyChanges(left, gone);
  }
  return { label: `${things(items)} taken off the shelf`, changes };
}
