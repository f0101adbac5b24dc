/** What a line of text about a medium says of the system on it. */
export interface DiscInfo {
  name: string | undefined;
  version: string | undefined;
  /** As it spells it; undefined where it names none. */
  arch: string | undefined;
}

/** Letters of a line that are looked at; no medium says more of itself. */
const MOST_LETTERS = 400;
const ARCHS = /\b(x86_64|x86-64|amd64|x64|i[3-6]86|aarch64|arm64|armv7l|armhf)\b/i;

/**
 * A name and a version out of a line such as an installer's disc carries: words up to the first with a digit, which is the
 * version; what follows a dash or a quotation mark is about the build. Common practice, no source.
 */
export function readDiscLine(line: string): DiscInfo {
  const plain = line.slice(0, MOST_LETTERS).replaceAll('_', ' ').trim();
  const arch = ARCHS.exec(plain)?.[1]?.toLowerCase();
  const words = (plain.split(/\s+[-–]\s+|["“]/)[0] ?? '').split(/\s+/).filter((w) => !ARCHS.test(w));
  const at = words.findIndex((w) => /^v?\d/i.test(w));
  const name = (at < 0 ? words : words.slice(0, at)).join(' ');
  const version = at < 0 ? undefined : words[at]?.replace(/^v/i, '');
  return { name: name || undefined, version, arch };
}

/** The [general] section of a .treeinfo file: name, version, arch by their keys. Common practice, no source. */
export function readTreeInfo(text: string): DiscInfo {
  const general = /\[general\]([^[]*)/i.exec(text)?.[1] ?? '';
  const of = (key: string): string | undefined =>
    new RegExp(`^[ \\t]*${key}[ \\t]*=(.*)$`, 'im').exec(general)?.[1]?.trim() || undefined;
  const family = of('family') ?? of('name');
  return { name: family, version: of('version'), arch: of('arch')?.toLowerCase() };
}
