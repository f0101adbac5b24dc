/** One section of a survey report: its name and its text. */
export interface Section {
  name: string;
  text: string;
  /** Line number in the report on which the section's text begins, from 1. */
  line: number;
}

/** Splits a report at its labels. Carriage returns, indents and stray text before the first label do no harm. */
export function splitSections(report: string): Map<string, Section> {
  const out = new Map<string, Section>();
  let name: string | undefined;
  let start = 0;
  const lines = report.replace(/\r\n?/g, '\n').split('\n');
  const close = (end: number): void => {
    if (name !== undefined && !out.has(name)) {
      out.set(name, { name, text: lines.slice(start, end).join('\n').trim(), line: start + 1 });
    }
  };
  lines.forEach((line, i) => {
    const label = /^\s*====\s*([a-z][a-z0-9-]*)\s*====\s*$/.exec(line);
    if (!label) return;
    close(i);
    name = label[1];
    start = i + 1;
  });
  close(lines.length);
  return out;
}

/** The values of a line of name=value words, by name. */
export const pairsOf = (line: string): Map<string, string> =>
  // A word is looked at once from its front, so that a long one without a sign costs no more than its length.
  new Map([...line.matchAll(/(?<!\w)(\w+)=(\S*)/g)].map((m) => [m[1] ?? '', m[2] ?? '']));

/** JSON out of a section that may be cut or have stray text round it; undefined where it cannot be read. */
export function sectionJson(section: Section | undefined): unknown {
  if (!section || section.text === '') return undefined;
  const from = section.text.search(/[[{]/);
  if (from < 0) return undefined;
  const to = Math.max(section.text.lastIndexOf(']'), section.text.lastIndexOf('}'));
  try {
    return JSON.parse(section.text.slice(from, to + 1));
  } catch {
    return undefined;
  }
}
