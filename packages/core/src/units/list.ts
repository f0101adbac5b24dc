/** A list with this in it: in its place where it is there by its id, else at the end. */
export const withItem = <T extends { id: string }>(list: readonly T[], item: T): T[] =>
  list.some((i) => i.id === item.id) ? list.map((i) => (i.id === item.id ? item : i)) : [...list, item];

/** A list without what has this id. */
export const withoutItem = <T extends { id: string }>(list: readonly T[], id: string): T[] =>
  list.filter((i) => i.id !== id);
