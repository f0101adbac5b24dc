import { closeSync, constants, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { z } from 'zod';
import { faultCode } from '../files/faultWords';

const { O_RDONLY, O_WRONLY, O_APPEND, O_CREAT, O_NOFOLLOW, O_NONBLOCK } = constants;

const lineSchema = z.object({ offset: z.number().int().nonnegative(), before: z.base64() });

/**
 * What stood where a probe puts its marks, written down before each mark: a probe that is cut off by a power cut or a kill
 * is taken back at the next start, so that it never costs what was on the stick.
 */
export class ProbeJournal {
  constructor(private readonly path: string) {}

  /** Throws the file system's error; the mark must not be put then. */
  note(offset: number, before: Uint8Array): void {
    const line = Buffer.from(
      JSON.stringify({ offset, before: Buffer.from(before).toString('base64') }) + '\n',
    );
    this.opened(O_WRONLY | O_APPEND | O_CREAT, (file) => {
      for (let at = 0; at < line.length;) at += writeSync(file, line, at);
    });
  }

  /** A link is not followed: it could lead to anything. */
  private opened<T>(flags: number, work: (file: number) => T): T {
    const file = openSync(this.path, flags | O_NOFOLLOW | O_NONBLOCK, 0o600);
    try {
      return work(file);
    } finally {
      closeSync(file);
    }
  }

  /**
   * The places in the order they were marked; none where nothing was noted. A last line that was cut off was never followed
   * by its mark. Throws the file system's error: what cannot be read must not be taken for nothing, and stays.
   */
  read(): { offset: number; before: Uint8Array }[] {
    let text: string;
    try {
      text = this.opened(O_RDONLY, (file) => readFileSync(file, 'utf8'));
    } catch (error) {
      if (faultCode(error) === 'ENOENT') return [];
      throw error;
    }
    return text.split('\n').flatMap((line) => {
      try {
        const { offset, before } = lineSchema.parse(JSON.parse(line));
        return [{ offset, before: Buffer.from(before, 'base64') }];
      } catch {
        return [];
      }
    });
  }

  close(): void {
    rmSync(this.path, { force: true });
  }
}
