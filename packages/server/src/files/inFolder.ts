import { dirname, join, resolve } from 'node:path';

/** A name that must not become part of a path. The message is for the user. */
export class UnsafeName extends Error {
  override name = 'UnsafeName';
  constructor() {
    super('That is not a name this server gave. Nothing was read or changed.');
  }
}

/** Letters, digits, dashes and single dots between them: nothing that any file system or shell reads as more than a name. */
const NAME = /^[a-z0-9]+(?:[-.][a-z0-9]+)*$/i;
const LONGEST = 120;

/**
 * The one way from a name to a path: `name` in `folder`, proven to lie directly inside it. Throws UnsafeName for
 * anything else: separators in any spelling, dots that climb, NUL, control and non-ASCII characters, very long names.
 */
export function inFolder(folder: string, name: string): string {
  if (typeof name !== 'string' || name.length > LONGEST || !NAME.test(name)) throw new UnsafeName();
  const path = join(folder, name);
  if (dirname(resolve(path)) !== resolve(folder)) throw new UnsafeName();
  return path;
}
