/** What is wrong with a name, or worth saying of it. */
export type NameFault =
  | { code: 'empty' }
  | { code: 'label too long'; label: string }
  | { code: 'name too long'; octets: number }
  | { code: 'odd letters'; label: string }
  | { code: 'hyphen at an end'; label: string }
  | { code: 'all digits'; label: string }
  /** Answered by multicast alone (RFC 6762 §3). */
  | { code: 'multicast domain' }
  /** Set aside for tests, examples and the machine itself (RFC 6761, RFC 7686). */
  | { code: 'set aside'; domain: string }
  /** A top level that nobody gave out: tomorrow somebody may. */
  | { code: 'invented top level'; top: string }
  /** A top level that is given out, of which the domain may be somebody else's. */
  | { code: 'real top level'; top: string };

const LABEL = /^[\da-z-]+$/;
/** RFC 1035 §2.3.4: 63 octets in a label, 255 in a name as it is sent, which leaves 253 characters. */
const LABEL_MOST = 63;
/** Characters of a whole name. */
export const NAME_MOST = 253;
/** What is wrong with one label of a host (RFC 1123 §2.1: letters, digits and hyphens, none of these at an end). */
export function labelFault(label: string): NameFault | undefined {
  const low = label.toLowerCase();
  if (low === '') return { code: 'empty' };
  if (low.length > LABEL_MOST) return { code: 'label too long', label };
  if (!LABEL.test(low)) return { code: 'odd letters', label };
  if (low.startsWith('-') || low.endsWith('-')) return { code: 'hyphen at an end', label };
  // RFC 1123 allows digits alone, but a name of digits reads as an address to many programs. Common practice, no source.
  return /^\d+$/.test(low) ? { code: 'all digits', label } : undefined;
}

/** Whether a name lies in a domain, or is it. */
export const liesIn = (name: string, domain: string): boolean =>
  name === domain || name.endsWith(`.${domain}`);

/** The whole name of a host; the label alone where its network has no domain. */
export const fullName = (label: string, domain: string | null): string =>
  domain === null || domain === '' ? label : `${label}.${domain.replace(/\.$/, '')}`;

/** A label made of any words: “Film night” becomes “film-night”; empty where nothing of them can be used. */
export const labelOf = (words: string): string =>
  words
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\da-z]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, LABEL_MOST)
    .replace(/-+$/, '');

/** A label of these words that nobody in `taken` has: a number is put behind where one has it. */
export function freeLabel(words: string, taken: ReadonlySet<string>): string {
  const plain = labelOf(words) || 'box';
  const label = /^\d+$/.test(plain) ? `box-${plain}`.slice(0, LABEL_MOST) : plain;
  for (let n = 1; ; n += 1) {
    const tail = n === 1 ? '' : `-${n}`;
    const tried = `${label.slice(0, LABEL_MOST - tail.length)}${tail}`;
    if (!taken.has(tried)) return tried;
  }
}
