import type { ContentEntry } from '@zb/core/model/contentRules';
import { folderOf, nameOf } from '@zb/core/units/paths';

/** A folder of the user’s, as far as it can be reached: to read and to write, or a list of its files to read alone. */
export type Folder = { handle: FileSystemDirectoryHandle } | { files: File[] };

/** A file of a folder, ready to be read. */
export type Reach = Map<string, FileSystemFileHandle | File>;

/** Tells how many files were seen; false ends the walk. */
type Tell = (files: number) => void;

/** Every file of a folder, as deep as it goes; what cannot be read is told. */
export async function walkFolder(
  folder: Folder,
  tell: Tell,
): Promise<{ entries: ContentEntry[]; reach: Reach }> {
  const entries: ContentEntry[] = [];
  const reach: Reach = new Map();
  const add = (path: string, file: File): void => {
    entries.push({
      path,
      bytes: file.size,
      modified: Math.floor(file.lastModified / 1000),
      odd: null,
      sha256: null,
    });
    if (entries.length % 256 === 0) tell(entries.length);
  };
  if ('files' in folder) {
    for (const file of folder.files) {
      // The first part is the name of the folder that was chosen.
      const path = file.webkitRelativePath.split('/').slice(1).join('/') || file.name;
      add(path, file);
      reach.set(path, file);
    }
    return { entries, reach };
  }
  const waiting: { at: FileSystemDirectoryHandle; path: string }[] = [{ at: folder.handle, path: '' }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { at, path } = next;
    try {
      for await (const [name, handle] of at.entries()) {
        const here = path === '' ? name : `${path}/${name}`;
        if (handle.kind === 'directory') waiting.push({ at: handle, path: here });
        else
          try {
            const file = await handle.getFile();
            add(here, file);
            reach.set(here, handle);
          } catch {
            entries.push({ path: here, bytes: 0, modified: null, odd: 'unreadable', sha256: null });
          }
      }
    } catch {
      entries.push({ path: path || '.', bytes: 0, modified: null, odd: 'unreadable', sha256: null });
    }
  }
  return { entries, reach };
}

/** The file itself. */
export const fileOf = async (at: FileSystemFileHandle | File): Promise<File> =>
  at instanceof File ? at : at.getFile();

/** A folder below another one by its path; made where it is not there. */
async function folderAt(
  root: FileSystemDirectoryHandle,
  path: string,
  create: boolean,
): Promise<FileSystemDirectoryHandle> {
  let at = root;
  for (const part of path.split('/').filter(Boolean)) at = await at.getDirectoryHandle(part, { create });
  return at;
}

const split = (path: string): { folder: string; name: string } => ({
  folder: folderOf(path),
  name: nameOf(path),
});

/** Is anything at this path? */
async function isThere(root: FileSystemDirectoryHandle, path: string): Promise<boolean> {
  const { folder, name } = split(path);
  try {
    const at = await folderAt(root, folder, false);
    await at.getFileHandle(name);
    return true;
  } catch (error) {
    return (error as DOMException).name !== 'NotFoundError';
  }
}

/** Moves one file within a folder; runs over nothing. Throws where something is in the way or the browser refuses. */
export async function moveFile(root: FileSystemDirectoryHandle, from: string, to: string): Promise<void> {
  const [a, b] = [split(from), split(to)];
  if (await isThere(root, to)) throw new Error(`something is at ${to} already`);
  const source = await folderAt(root, a.folder, false);
  const file = await source.getFileHandle(a.name);
  const target = await folderAt(root, b.folder, true);
  const bytes = await file.getFile();
  const made = await target.getFileHandle(b.name, { create: true });
  const out = await made.createWritable();
  try {
    await bytes.stream().pipeTo(out);
  } catch (error) {
    // Half a file is none: what stands at its old place is whole.
    await target.removeEntry(b.name).catch(() => undefined);
    throw error;
  }
  if ((await made.getFile()).size !== bytes.size) {
    await target.removeEntry(b.name);
    throw new Error(`${to} did not become whole`);
  }
  await source.removeEntry(a.name);
}

/** Writes a text as a file of a folder. */
export async function putFile(root: FileSystemDirectoryHandle, path: string, text: string): Promise<void> {
  const { folder, name } = split(path);
  const at = await folderAt(root, folder, true);
  const out = await (await at.getFileHandle(name, { create: true })).createWritable();
  await out.write(text);
  await out.close();
}
