import type { ImagePart, ImageReading, Loader, Outcome, Starts } from '../model/inspection';

/** One thing in which two images differ, and what each has; null where it has none. Sizes in bytes. */
export type ReadingDifference =
  | { about: 'size'; first: number; second: number }
  | { about: 'layout'; first: string; second: string }
  | { about: 'part'; index: number; first: ImagePart | null; second: ImagePart | null }
  | { about: 'loader'; first: Loader | null; second: Loader | null }
  | {
      about: 'outcome';
      firmware: Outcome['firmware'];
      attached: Outcome['attached'];
      first: Starts | null;
      second: Starts | null;
    };

/** The members of two lists by one key, in the order they first stand; equal ones are left out. */
function pairs<T>(
  a: readonly T[],
  b: readonly T[],
  key: (x: T) => string,
): { first: T | null; second: T | null }[] {
  return [...new Set([...a, ...b].map(key))].map((k) => ({
    first: a.find((x) => key(x) === k) ?? null,
    second: b.find((x) => key(x) === k) ?? null,
  }));
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
/** Of a loader, all but where its bytes lie: a moved file is the same file. */
const identity = (l: Loader | null): unknown =>
  l && { machine: l.machine, bytes: l.bytes, signed: l.signed, signers: l.signers, fault: l.fault };

/** What differs between two images as far as their readings tell: sizes, tables, parts, loaders, what they start on. */
export function compareReadings(a: ImageReading, b: ImageReading): ReadingDifference[] {
  const out: ReadingDifference[] = [];
  if (a.bytes !== b.bytes) out.push({ about: 'size', first: a.bytes, second: b.bytes });
  if (a.layout !== b.layout) out.push({ about: 'layout', first: a.layout, second: b.layout });
  for (const p of pairs(a.parts, b.parts, (x) => String(x.index)))
    if (!same(p.first, p.second)) out.push({ about: 'part', index: (p.first ?? p.second)?.index ?? 0, ...p });
  for (const l of pairs(a.loaders, b.loaders, (x) => `${x.path} ${JSON.stringify(x.place)}`))
    if (!same(identity(l.first), identity(l.second))) out.push({ about: 'loader', ...l });
  for (const { first, second } of pairs(a.outcomes, b.outcomes, (o) => `${o.firmware} ${o.attached}`)) {
    const row = first ?? second;
    if (row && first?.starts !== second?.starts)
      out.push({
        about: 'outcome',
        firmware: row.firmware,
        attached: row.attached,
        first: first?.starts ?? null,
        second: second?.starts ?? null,
      });
  }
  return out;
}
