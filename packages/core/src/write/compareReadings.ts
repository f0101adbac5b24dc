import { firmwareTitle, type ImageReading } from '../model/inspection';
import { formatExact } from '../units/bytes';

/** One thing in which two images differ: what it is, and what each has. */
export interface ReadingDifference {
  about: 'size' | 'layout' | 'part' | 'loader' | 'outcome';
  what: string;
  first: string;
  second: string;
}

const NONE = 'not there';

/** Rows for what differs under one key; a key that only one image has stands against "not there". */
function keyed<T>(
  about: ReadingDifference['about'],
  a: readonly T[],
  b: readonly T[],
  key: (x: T) => string,
  words: (x: T) => string,
): ReadingDifference[] {
  return [...new Set([...a, ...b].map(key))].flatMap((k) => {
    const first = a.find((x) => key(x) === k);
    const second = b.find((x) => key(x) === k);
    const [f, s] = [first ? words(first) : NONE, second ? words(second) : NONE];
    return f === s ? [] : [{ about, what: k, first: f, second: s }];
  });
}

/** What differs between two images as far as their readings tell: sizes, tables, parts, loaders, what they start on. */
export function compareReadings(a: ImageReading, b: ImageReading): ReadingDifference[] {
  const out: ReadingDifference[] = [];
  if (a.bytes !== b.bytes)
    out.push({ about: 'size', what: 'size', first: formatExact(a.bytes), second: formatExact(b.bytes) });
  if (a.layout !== b.layout) out.push({ about: 'layout', what: 'layout', first: a.layout, second: b.layout });
  out.push(
    ...keyed(
      'part',
      a.parts,
      b.parts,
      (p) => `part ${p.index}`,
      (p) =>
        [
          `byte ${p.start}`,
          formatExact(p.bytes),
          p.filesystem ?? 'not recognised',
          p.label ?? '',
          p.uuid ?? '',
          p.active ? 'active' : '',
        ]
          .filter((s) => s !== '')
          .join(', '),
    ),
    ...keyed(
      'loader',
      a.loaders,
      b.loaders,
      (l) => `${l.path} on ${l.place}`,
      (l) =>
        `${l.machine ?? 'not a loader'}, ${formatExact(l.bytes)}, ${l.signed ? `signed by ${l.signers.join(' and ') || 'an unread key'}` : 'not signed'}${l.fault === '' ? '' : `, ${l.fault}`}`,
    ),
    ...keyed(
      'outcome',
      a.outcomes,
      b.outcomes,
      (o) =>
        `${firmwareTitle[o.firmware]}, as ${o.attached === 'disk' ? 'a stick or drive' : 'optical media'}`,
      (o) => (o.starts === 'unknown' ? 'cannot tell' : o.starts === 'yes' ? 'starts' : 'does not start'),
    ),
  );
  return out;
}
