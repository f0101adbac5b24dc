/** The name of a file: what stands behind the last slash. */
export const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
/** The folder it lies in; empty at the root. */
export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));
/** Every folder above a path, the nearest first; the root is none. */
export function* above(path: string): Generator<string> {
  for (let at = folderOf(path); at !== ''; at = folderOf(at)) yield at;
}
/** A path made of a folder and a name. */
export const joined = (folder: string, name: string): string => (folder === '' ? name : `${folder}/${name}`);
/** What a name ends in, in small letters, without its dot; empty where it has none. */
export function endingOf(path: string): string {
  const name = nameOf(path);
  const dot = name.lastIndexOf('.');
  return dot <= 0 ? '' : name.slice(dot + 1).toLowerCase();
}
/** A name without its ending. */
export function stemOf(path: string): string {
  const name = nameOf(path);
  const dot = name.lastIndexOf('.');
  return dot <= 0 ? name : name.slice(0, dot);
}

/** A path that nothing has yet: with a number behind its stem where it must be. */
export function free(path: string, taken: (path: string) => boolean): string {
  if (!taken(path)) return path;
  const ending = endingOf(path);
  const name = nameOf(path);
  const dotted = ending === '' ? '' : name.slice(-ending.length - 1);
  const stem = ending === '' ? name : name.slice(0, -dotted.length);
  for (let n = 2; ; n += 1) {
    const other = joined(folderOf(path), `${stem} (${n})${dotted}`);
    if (!taken(other)) return other;
  }
}
