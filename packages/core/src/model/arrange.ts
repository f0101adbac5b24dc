import type { Bench, ShelfItem } from './bench';

const KINDS: ShelfItem['kind'][] = ['machine', 'drive', 'stick', 'card', 'memory', 'adapter', 'image'];

/** The one order in which a bench is shown, whatever order storage or a file gave: boxes by age, things by kind and name. */
export function arranged(bench: Bench): Bench {
  const text = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
  return {
    ...bench,
    boxes: [...bench.boxes].sort((a, b) => text(a.createdAt, b.createdAt) || text(a.id, b.id)),
    items: [...bench.items].sort(
      (a, b) =>
        KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || a.name.localeCompare(b.name) || text(a.id, b.id),
    ),
    profiles: [...bench.profiles].sort((a, b) => text(a.purpose, b.purpose) || a.name.localeCompare(b.name)),
    wishes: [...bench.wishes].sort(
      (a, b) => b.importance - a.importance || a.name.localeCompare(b.name) || text(a.id, b.id),
    ),
    log: [...bench.log].sort((a, b) => text(a.at, b.at) || text(a.id, b.id)),
  };
}
