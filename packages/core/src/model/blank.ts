import type { Machine, Store } from './shelf';

/** What a thing of the shelf has where nobody said otherwise; the schema's own defaults, for records made in code. */
export const owning = { owned: true, price: null };
export const plainStore = {
  content: null,
  fate: 'not decided',
  ...owning,
  shape: null,
  m2: null,
  wear: null,
} satisfies Partial<Store>;
export const plainMachine = {
  ...owning,
  overruled: [],
  details: null,
} satisfies Partial<Machine>;
export const plainAdapter = { ...owning, goesIn: 'outside' as const, wiredPorts: 0, sataPorts: 0 };
