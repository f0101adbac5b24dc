/** An entry of a boot menu by the Boot Loader Specification, type 1 (UAPI.1, “Type #1 Boot Loader Specification Entries”). */
export interface LoaderEntry {
  title: string | undefined;
  linux: string | undefined;
  efi: string | undefined;
  initrd: readonly string[];
  /** As the entry spells it: x64, ia32, aa64 …; undefined where any will do. */
  architecture: string | undefined;
  /** Groups and orders entries; the newest version comes first. */
  sortKey: string | undefined;
  version: string | undefined;
}

/** Lines and key words looked at; more than any entry has. */
const MAX_LINES = 500;

/** Reads keys and values of an entry or of loader.conf: one of each line, split at blanks, # begins a comment. */
export function keysOf(text: string): { key: string; value: string }[] {
  const out: { key: string; value: string }[] = [];
  for (const raw of text.split(/\r?\n/).slice(0, MAX_LINES)) {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) continue;
    const [, key = '', value = ''] = /^(\S+)\s*(.*)$/.exec(line) ?? [];
    out.push({ key: key.toLowerCase(), value });
  }
  return out;
}

/** Reads an entry. Keys that are not told apart here are passed over, as the specification asks. */
export function readLoaderEntry(text: string): LoaderEntry {
  const keys = keysOf(text);
  const of = (key: string): string | undefined => keys.findLast((k) => k.key === key)?.value;
  return {
    title: of('title'),
    linux: of('linux'),
    efi: of('efi'),
    initrd: keys.filter((k) => k.key === 'initrd').flatMap((k) => k.value.split(/\s+/)),
    architecture: of('architecture'),
    sortKey: of('sort-key'),
    version: of('version'),
  };
}
