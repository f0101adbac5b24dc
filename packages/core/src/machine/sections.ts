/** One section of a survey report: its name and its text. */
export interface Section {
  name: string;
  text: string;
  /** Line number in the report on which the section's text begins, from 1. */
  line: number;
  /** Another label follows: nothing was cut off its end. What is not in it is not there. */
  whole: boolean;
}

/** Splits a report at its labels. Carriage returns, an indent of the whole and stray text before the first label do no harm. */
export function splitSections(report: string): Map<string, Section> {
  const out = new Map<string, Section>();
  let name: string | undefined;
  let start = 0;
  let indent = 0;
  const lines = report.replace(/\r\n?/g, '\n').split('\n');
  // What was pasted with its label moved to the right was moved as far.
  const moved = (line: string): string => line.slice(Math.min(indent, /^[ \t]*/.exec(line)?.[0].length ?? 0));
  const close = (end: number, whole: boolean): void => {
    if (name !== undefined && !out.has(name)) {
      const text = lines.slice(start, end).map(moved).join('\n').trim();
      out.set(name, { name, text, line: start + 1, whole });
    }
  };
  lines.forEach((line, i) => {
    const label = /^([ \t]*)====\s*([a-z][a-z0-9-]*)\s*====\s*$/.exec(line);
    if (!label) return;
    close(i, true);
    name = label[2];
    indent = label[1]?.length ?? 0;
    start = i + 1;
  });
  // The last label of a report has nothing below it.
  close(lines.length, name === 'end');
  return out;
}

/** The values of a line of name=value words, by name. */
export const pairsOf = (line: string): Map<string, string> =>
  // A word is looked at once from its front, so that a long one without a sign costs no more than its length.
  new Map([...line.matchAll(/(?<!\w)(\w+)=(\S*)/g)].map((m) => [m[1] ?? '', m[2] ?? '']));

/** The length that several lines of a report share and none exceeds: lines were wrapped or cut there; undefined where none is. */
export function wrappedAt(texts: Iterable<string>): number | undefined {
  const counts = new Map<number, number>();
  let most = 0;
  for (const text of texts)
    for (const line of text.split('\n')) {
      counts.set(line.length, (counts.get(line.length) ?? 0) + 1);
      most = Math.max(most, line.length);
    }
  return most >= 40 && (counts.get(most) ?? 0) > 1 ? most : undefined;
}

/** Lines put together again: a full one was cut in the middle of a word, a shorter one at a blank. */
export function unwrapped(text: string): string {
  const lines = text.split('\n');
  const full = lines.reduce((most, l) => Math.max(most, l.length), 0);
  return lines.map((l, i) => (i === lines.length - 1 || l.length === full ? l : `${l} `)).join('');
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** From its first bracket to its last. */
function jsonText({ text }: Section): string {
  const from = text.search(/[[{]/);
  const to = Math.max(text.lastIndexOf(']'), text.lastIndexOf('}'));
  return from < 0 ? '' : text.slice(from, to + 1);
}

/** Whether a section is JSON without being put together again. */
export const isJsonAsItStands = (section: Section | undefined): boolean =>
  section !== undefined && parsed(jsonText(section)) !== undefined;

/** JSON out of a section that may be cut, wrapped or have stray text round it; undefined where it cannot be read. */
export function sectionJson(section: Section | undefined): unknown {
  const text = section ? jsonText(section) : '';
  if (text === '') return undefined;
  // A string is never of several lines (RFC 8259 §7): where one is, somebody wrapped it.
  return parsed(text) ?? parsed(unwrapped(text));
}
