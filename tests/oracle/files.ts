import { execFileSync } from 'node:child_process';
import {
  closeSync,
  fstatSync,
  mkdtempSync,
  openSync,
  readSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inspectImage, type InspectOptions } from '@zb/core/starting/inspect';
import type { Inspection } from '@zb/core/model/inspection';

/** Runs a reference tool and answers its standard output; a failing tool fails the test. */
export const run = (command: string, args: string[], input?: string): string =>
  execFileSync(command, args, {
    input,
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
    stdio: ['pipe', 'pipe', 'pipe'],
    env: { ...process.env, MTOOLS_SKIP_CHECK: '1', PATH: `${process.env.PATH ?? ''}:/usr/sbin:/sbin` },
  });

/** What blkid says of a file, by its own names. */
export const blkid = (path: string): Record<string, string> =>
  Object.fromEntries(
    run('blkid', ['-p', '-o', 'export', path])
      .split('\n')
      .filter((l) => l.includes('='))
      .map((l) => [l.slice(0, l.indexOf('=')), l.slice(l.indexOf('=') + 1)]),
  );

export interface Scratch {
  dir: string;
  path: (name: string) => string;
  clear: () => void;
}

export function scratch(within = tmpdir()): Scratch {
  const dir = mkdtempSync(join(within, 'zb-oracle-'));
  return { dir, path: (name) => join(dir, name), clear: () => rmSync(dir, { recursive: true, force: true }) };
}

export function blank(path: string, bytes: number): string {
  writeFileSync(path, '');
  truncateSync(path, bytes);
  return path;
}

/** Writes one file's bytes into another at an offset, without shortening it. */
export function put(into: string, from: string, at: number): void {
  run('dd', [`if=${from}`, `of=${into}`, 'bs=512', `seek=${at / 512}`, 'conv=notrunc', 'status=none']);
}

export async function inspectFile(path: string, options: InspectOptions = {}): Promise<Inspection> {
  const fd = openSync(path, 'r');
  try {
    const size = fstatSync(fd).size;
    const source = {
      size,
      read: (offset: number, length: number) => {
        const buffer = new Uint8Array(Math.max(0, Math.min(length, size - offset)));
        if (buffer.length > 0) readSync(fd, buffer, 0, buffer.length, offset);
        return Promise.resolve(buffer);
      },
    };
    return await inspectImage(source, options);
  } finally {
    closeSync(fd);
  }
}
