import { readLoaderEntry, type LoaderEntry } from '../../formats/loaderEntry';
import { readText } from './files';
import type { ChainVolume } from './volumes';

/** Entries of a menu that are read; more than any image has. */
const MAX_ENTRIES = 100;

/** An entry with the file it is in. */
export interface FiledEntry {
  id: string;
  title: string;
  path: string;
  entry: LoaderEntry;
}

const newestFirst = (a: FiledEntry, b: FiledEntry): number =>
  (a.entry.sortKey ?? '').localeCompare(b.entry.sortKey ?? '', 'en') ||
  (b.entry.version ?? '').localeCompare(a.entry.version ?? '', 'en', { numeric: true }) ||
  b.id.localeCompare(a.id, 'en', { numeric: true });

/** The entries in /loader/entries of a volume, in the order in which they are offered (UAPI.1, “Sorting”). */
export async function specificationEntries(volume: ChainVolume): Promise<FiledEntry[]> {
  const opened = await volume.open();
  const out: FiledEntry[] = [];
  for (const name of ((await opened?.names('/loader/entries')) ?? []).slice(0, MAX_ENTRIES)) {
    if (!/\.conf$/i.test(name)) continue;
    const path = `/loader/entries/${name}`;
    const file = await readText({ volume, path });
    if ('why' in file) continue;
    const id = name.replace(/\.conf$/i, '');
    const entry = readLoaderEntry(file.text);
    out.push({ id, title: entry.title ?? id, path, entry });
  }
  return out.sort(newestFirst);
}
