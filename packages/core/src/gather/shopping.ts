import type { Bench } from '../model/bench';
import { gatherList } from './list';

export interface ShoppingLine {
  what: string;
  /** Names of the boxes it is for. */
  boxes: string[];
  count: number;
  /** Price of one; null where nobody noted one. */
  price: number | null;
}

export interface ShoppingList {
  lines: ShoppingLine[];
  /** What boxes take from the shelf, so that nothing of it is given away meanwhile. */
  shelf: { itemId: string; what: string; boxes: string[] }[];
  /** What all priced lines cost together. */
  total: number;
  unpriced: number;
}

/**
 * One list over all boxes that are not past their install: what none of them finds on the shelf. Boxes are served in
 * order of age, so that one part is not counted on twice.
 */
export function shoppingList(bench: Bench): ShoppingList {
  const claimed = new Set<string>();
  const lines = new Map<string, ShoppingLine>();
  const shelf = new Map<string, ShoppingList['shelf'][number]>();
  const nameOf = (id: string, otherwise: string): string =>
    bench.items.find((i) => i.id === id)?.name ?? otherwise;
  for (const box of bench.boxes) {
    if (box.signoffs.some((s) => s.stop === 'install')) continue;
    for (const l of gatherList(bench, box, claimed).lines) {
      if (l.itemId && l.where === 'on the shelf') {
        const taken = shelf.get(l.itemId) ?? { itemId: l.itemId, what: nameOf(l.itemId, l.what), boxes: [] };
        taken.boxes.push(box.name);
        shelf.set(l.itemId, taken);
      }
      if (l.where !== 'to buy' || box.gathered.includes(l.key)) continue;
      const key = l.itemId ?? l.what;
      const name = l.itemId ? nameOf(l.itemId, l.what) : l.what;
      const line = lines.get(key) ?? { what: name, boxes: [], count: 0, price: l.price ?? null };
      line.count += l.count;
      if (!line.boxes.includes(box.name)) line.boxes.push(box.name);
      lines.set(key, line);
    }
  }
  const all = [...lines.values()];
  return {
    lines: all,
    shelf: [...shelf.values()],
    total: all.reduce((n, l) => n + (l.price ?? 0) * l.count, 0),
    unpriced: all.filter((l) => l.price === null).length,
  };
}

/** The list as rows for a spreadsheet: a head, one row each, amounts with two decimals. */
export const shoppingRows = (list: ShoppingList): string[][] => [
  ['What', 'Count', 'Price', 'Together', 'For'],
  ...list.lines.map((l) => [
    l.what,
    String(l.count),
    l.price === null ? '' : l.price.toFixed(2),
    l.price === null ? '' : (l.price * l.count).toFixed(2),
    l.boxes.join('; '),
  ]),
];
