import { createReadStream, lstatSync, opendirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { createDigest } from '@zb/core/checksum/digest';
import type { ContentEntry } from '@zb/core/model/contentRules';
import { toRead } from '@zb/core/content/discs';
import { InputError } from './inputFile';

/** A folder that was walked: its files, and the bytes of paths that are no text. */
export interface Walked {
  entries: ContentEntry[];
  /** Of a path, what the system calls it, where that is no text. */
  raw: ReadonlyMap<string, Buffer>;
}

// A mark at the beginning belongs to the name.
const text = new TextDecoder('utf-8', { ignoreBOM: true });
const SLASH = Buffer.from('/');

/** Every file below a folder, as deep as it goes; links are told and not followed, what cannot be read is told. Throws InputError. */
export function walk(dir: string, tell: (files: number) => void): Walked {
  if (!statSync(dir, { throwIfNoEntry: false })?.isDirectory()) throw new InputError(`${dir} is no folder`);
  const entries: ContentEntry[] = [];
  const raw = new Map<string, Buffer>();
  const waiting: { at: Buffer; path: string }[] = [{ at: Buffer.from(dir), path: '' }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { at, path } = next;
    const odd = (name: string, what: ContentEntry['odd']): void => {
      entries.push({ path: name, bytes: 0, modified: null, odd: what, sha256: null });
    };
    let names: Buffer[];
    try {
      names = namesIn(at);
    } catch {
      odd(path === '' ? '.' : path, 'unreadable');
      continue;
    }
    for (const name of names) {
      const whole = Buffer.concat([at, SLASH, name]);
      const shown = text.decode(name);
      const here = path === '' ? shown : `${path}/${shown}`;
      if (!Buffer.from(shown).equals(name) || raw.has(path)) raw.set(here, whole);
      const found = lstatSync(whole, { throwIfNoEntry: false });
      if (!found) odd(here, 'unreadable');
      else if (found.isDirectory()) waiting.push({ at: whole, path: here });
      else if (found.isFile())
        entries.push({
          path: here,
          bytes: found.size,
          modified: Math.floor(found.mtimeMs / 1000),
          odd: null,
          sha256: null,
        });
      else odd(here, found.isSymbolicLink() ? 'link' : 'special');
      if (entries.length % 1024 === 0) tell(entries.length);
    }
  }
  return { entries, raw };
}

function namesIn(at: Buffer): Buffer[] {
  const dir = opendirSync(at, { encoding: 'buffer' as BufferEncoding });
  const out: Buffer[] = [];
  try {
    for (let e = dir.readSync(); e; e = dir.readSync()) out.push(e.name as unknown as Buffer);
  } finally {
    dir.closeSync();
  }
  return out;
}

/** Where a path of a walk lies on this machine. */
export const placeOf = (dir: string, path: string, raw: Walked['raw']): Buffer | string =>
  raw.get(path) ?? join(dir, path);

/** SHA-256 of a file, in hexadecimal. */
export async function sha256Of(
  at: Buffer | string,
  tell: (bytes: number) => void = () => undefined,
): Promise<string> {
  const digest = await createDigest(['sha256']);
  for await (const chunk of createReadStream(at, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) {
    digest.update(chunk);
    tell(chunk.length);
  }
  return digest.finish().sha256 ?? '';
}

/** The texts of sheets and play lists, by their paths. */
export const textsOf = (dir: string, { entries, raw }: Walked): Map<string, string> =>
  new Map(toRead(entries).map((e) => [e.path, text.decode(readFileSync(placeOf(dir, e.path, raw)))]));
