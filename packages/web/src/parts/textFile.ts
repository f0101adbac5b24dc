import { formatIec, MIB } from '@zb/core/units/bytes';

/** What each kind of text file may hold at most, in bytes: far more than any sound one does. */
const MOST = {
  report: 16 * MIB,
  list: 64 * MIB,
  systems: 16 * MIB,
  bench: 400 * MIB,
} as const;

/**
 * The text of a file a user picked. Throws an Error with words for the user where it cannot be read, or is so large that
 * it must be something else: an image opened as a list would hold the page up.
 */
export async function readTextFile(file: File, as: keyof typeof MOST): Promise<string> {
  mayBe(file, as);
  try {
    return await file.text();
  } catch {
    throw new Error(
      `${file.name} could not be read. Nothing was changed. Was it moved, or is its drive gone?`,
    );
  }
}

/** Throws an Error with words for the user where a file is so large that it must be something else. */
export function mayBe(file: File, as: keyof typeof MOST): void {
  if (file.size > MOST[as])
    throw new Error(
      `${file.name} has ${formatIec(file.size)}, more than any ${as === 'systems' ? 'list of systems' : as} holds. It was not read, and nothing was changed.`,
    );
}
