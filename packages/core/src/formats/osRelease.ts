/** Lines looked at; more than any such file has. */
const MAX_LINES = 200;

/** A value as a shell would take it: quotes and backslashes away (os-release(5), “shell-compatible variable assignments”). */
function plain(raw: string): string {
  const value = raw.trim();
  const quote = value[0];
  if (quote === "'" && value.endsWith("'") && value.length > 1) return value.slice(1, -1);
  const inner = quote === '"' && value.endsWith('"') && value.length > 1 ? value.slice(1, -1) : value;
  return inner.replace(/\\(["'$`\\])/g, '$1');
}

/** Reads an os-release file: names and values, of a name given twice the last. Source: os-release(5). */
export function readOsRelease(text: string): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  for (const line of text.split(/\r?\n/).slice(0, MAX_LINES)) {
    const [, key, raw] = /^\s*([A-Z][A-Z0-9_]*)=(.*)$/.exec(line) ?? [];
    if (key !== undefined && raw !== undefined) out.set(key, plain(raw));
  }
  return out;
}
