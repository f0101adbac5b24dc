/** An element of an XML document; text or elements within. */
export interface Xml {
  name: string;
  of?: Readonly<Record<string, string | number | undefined>>;
  in?: readonly (Xml | undefined)[] | string;
}

const safe = (text: string): string =>
  // XML 1.0 §2.2 has no place for control characters at all.
  text
    .replace(/[\p{Cc}￾￿]/gu, ' ')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&apos;');

/** An element with all that is in it, two spaces deeper for each step. */
export function xmlText(x: Xml, depth = 0): string {
  const pad = '  '.repeat(depth);
  const attributes = Object.entries(x.of ?? {})
    .filter(([, v]) => v !== undefined)
    .map(([k, v]) => ` ${k}="${safe(String(v))}"`)
    .join('');
  if (typeof x.in === 'string') return `${pad}<${x.name}${attributes}>${safe(x.in)}</${x.name}>\n`;
  const inner = (x.in ?? []).filter((c) => c !== undefined);
  if (inner.length === 0) return `${pad}<${x.name}${attributes}/>\n`;
  return `${pad}<${x.name}${attributes}>\n${inner.map((c) => xmlText(c, depth + 1)).join('')}${pad}</${x.name}>\n`;
}
