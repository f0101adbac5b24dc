import { LogReadError } from './log';

/** One JSON value of several in a file, with what stood before it. */
export interface Document {
  value: unknown;
  before: string;
}

/**
 * JSON values that stand in a file one after another, as a tool prints them when it is asked again and again. A cut last one is
 * left out and told. Throws LogReadError where not one is whole.
 */
export function documentsIn(text: string): { documents: Document[]; cut: boolean } {
  const documents: Document[] = [];
  let from = 0;
  let cut = false;
  for (;;) {
    const begin = text.indexOf('{', from);
    if (begin < 0) break;
    const end = endOf(text, begin);
    if (end < 0) {
      cut = true;
      break;
    }
    const part = text.slice(begin, end);
    try {
      documents.push({ value: JSON.parse(part), before: text.slice(from, begin) });
    } catch {
      // Some tools put a comma after the last member when a reading fails.
      try {
        documents.push({
          value: JSON.parse(part.replace(/,(\s*[}\]])/g, '$1')),
          before: text.slice(from, begin),
        });
      } catch {
        throw new LogReadError('no log', 'it looks like JSON and is none');
      }
    }
    from = end;
  }
  if (documents.length === 0) throw new LogReadError(cut ? 'cut' : 'no log', 'no JSON value is whole');
  return { documents, cut };
}

function endOf(text: string, begin: number): number {
  let depth = 0;
  let quoted = false;
  for (let i = begin; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i += 1;
      else if (c === 34) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 123 || c === 91) depth += 1;
    else if (c === 125 || c === 93) {
      depth -= 1;
      if (depth === 0) return i + 1;
    }
  }
  return -1;
}
