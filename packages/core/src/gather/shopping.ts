import type { Bench } from '../model/bench';
import { sumMoney } from '../units/money';
import type { GatherThing } from './line';
import { gatherList } from './list';

/** One thing to buy for one or more boxes. */
export interface ShoppingLine {
  thing: GatherThing;
  /** Its name on the shelf or the price list; null where neither has it. */
  name: string | null;
  /** Names of the boxes it is for. */
  boxes: string[];
  count: number;
  /** Price of one; null where nobody noted one. */
  price: number | null;
}

/** What all boxes together have to buy, and what they take from the shelf. */
export interface ShoppingList {
  lines: ShoppingLine[];
  /** What boxes take from the shelf, so that nothing of it is given away meanwhile. */
  shelf: { itemId: string; name: string; boxes: string[] }[];
  /** What all priced lines cost together. */
  total: number;
  unpriced: number;
}

/** Things without a name are the same where what is bought is; for whom does not matter. */
const sameThing = (t: GatherThing): string =>
  t.code === 'purchase'
    ? JSON.stringify(t.purchase)
    : t.code === 'stick'
      ? `stick ${t.bytes}`
      : JSON.stringify(t);

/**
 * One list over all boxes that are not past their install: what none of them finds on the shelf. Boxes are served in
 * order of age, so that one part is not counted on twice.
 */
export function shoppingList(bench: Bench): ShoppingList {
  const claimed = new Set<string>();
  const lines = new Map<string, ShoppingLine>();
  const shelf = new Map<string, ShoppingList['shelf'][number]>();
  const nameOf = (id: string): string | undefined => bench.items.find((i) => i.id === id)?.name;
  for (const box of bench.boxes) {
    if (box.signoffs.some((s) => s.stop === 'install')) continue;
    for (const l of gatherList(bench, box, claimed).lines) {
      if (l.itemId && l.where === 'on the shelf') {
        const taken = shelf.get(l.itemId) ?? {
          itemId: l.itemId,
          name: nameOf(l.itemId) ?? l.itemId,
          boxes: [],
        };
        taken.boxes.push(box.name);
        shelf.set(l.itemId, taken);
      }
      if (l.where !== 'to buy' || box.gathered.includes(l.key)) continue;
      const key = l.itemId ?? sameThing(l.thing);
      const name = (l.itemId && nameOf(l.itemId)) ?? null;
      const line = lines.get(key) ?? { thing: l.thing, name, boxes: [], count: 0, price: l.price ?? null };
      line.count += l.count;
      if (!line.boxes.includes(box.name)) line.boxes.push(box.name);
      lines.set(key, line);
    }
  }
  const all = [...lines.values()];
  return {
    lines: all,
    shelf: [...shelf.values()],
    total: sumMoney(all.map((l) => (l.price ?? 0) * l.count)),
    unpriced: all.filter((l) => l.price === null).length,
  };
}
