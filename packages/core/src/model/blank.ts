import type { Inspection } from './inspection';
import { untouchedMedium } from './medium';
import type { ImageItem, Machine, Store } from './shelf';

/** What a thing of the shelf has where nobody said otherwise; the schema's own defaults, for records made in code. */
export const owning = { owned: true, price: null };
export const plainStore = {
  content: null,
  fate: 'not decided',
  ...untouchedMedium,
  ...owning,
  shape: null,
  m2: null,
  wear: null,
  shingled: null,
  sectorBytes: null,
  errorExponent: null,
} satisfies Partial<Store>;
export const plainMachine = {
  ...owning,
  overruled: [],
  details: null,
  bootFirst: null,
  portsOff: [] as string[],
  keysEnrolled: [] as string[],
} satisfies Partial<Machine>;
export const plainAdapter = { ...owning, goesIn: 'outside' as const, wiredPorts: 0, sataPorts: 0 };
/** An image that was read, and of which nothing else is known. */
export const readImageItem = (name: string, inspection: Inspection, id = name): ImageItem => ({
  kind: 'image',
  id,
  name,
  bytes: inspection.bytes,
  digests: {},
  inspection,
  comparison: null,
  depotFile: null,
  trials: [],
  notes: '',
});
