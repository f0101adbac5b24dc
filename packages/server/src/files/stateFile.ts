import {
  closeSync,
  constants,
  fsyncSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { dirname } from 'node:path';
import { faultCode, faultWords } from './faultWords';
import { makeFolderNow } from './makeFolder';

const { O_WRONLY, O_RDONLY, O_CREAT, O_TRUNC, O_NOFOLLOW, O_NONBLOCK } = constants;

/** Runs work that may meet a fault of the file system; answers the words for it, or null where there was none. */
function troubleOf(work: () => void): string | null {
  try {
    work();
    return null;
  } catch (error) {
    return faultWords(error);
  }
}

/**
 * A small text kept in one file. Reading and saving never throw, and a save leaves the old text or the new one, never
 * half of either: it is written beside, forced to the disk and put in place by a rename (POSIX rename is atomic).
 */
export class StateFile {
  constructor(private readonly path: string) {}

  /** The text as it was last saved; null where there is none, with the words for it where it is there and cannot be read. */
  read(): { text: string | null; trouble: string | null } {
    try {
      const file = openSync(this.path, O_RDONLY | O_NOFOLLOW | O_NONBLOCK);
      try {
        return { text: readFileSync(file, 'utf8'), trouble: null };
      } finally {
        closeSync(file);
      }
    } catch (error) {
      return { text: null, trouble: faultCode(error) === 'ENOENT' ? null : faultWords(error) };
    }
  }

  /** Answers null where the text is in place for good, else why it is not. */
  save(text: string): string | null {
    const fresh = `${this.path}.new`;
    const trouble = troubleOf(() => {
      makeFolderNow(dirname(this.path));
      const file = openSync(fresh, O_WRONLY | O_CREAT | O_TRUNC | O_NOFOLLOW | O_NONBLOCK, 0o600);
      try {
        const bytes = Buffer.from(text);
        for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
        fsyncSync(file);
      } finally {
        closeSync(file);
      }
      renameSync(fresh, this.path);
    });
    // What could not be put in place must not take the room that the next try needs.
    if (trouble !== null) troubleOf(() => rmSync(fresh, { force: true }));
    return trouble;
  }

  /** Puts what cannot be read out of the way, kept under another name; answers that name, or null where it stays. */
  setAside(): string | null {
    const aside = `${this.path}.unreadable`;
    return troubleOf(() => renameSync(this.path, aside)) === null ? aside : null;
  }
}
