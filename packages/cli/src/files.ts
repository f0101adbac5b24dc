import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { judgeOn } from '@zb/core/box/today';
import { exportedFiles, writerIds } from '@zb/core/exports/writers';
import { boxOf, readBench } from './benchOutput';
import { dayOf } from './handOver';
import { InputError } from './inputFile';

/** What is asked of `zb files`. */
export interface FilesAsked {
  box?: string;
  writer?: string;
  out?: string;
  today?: string;
}

/** A name for a file on any system: what a bench calls it stays in the list. */
const fileName = (n: number): string => String(n).padStart(4, '0');

/** What `zb files` prints: every file that a bench is written to, by which writer, in which format; bytes in Base64. Throws InputError. */
export async function filesOutput(text: string, asked: FilesAsked, now: Date): Promise<object> {
  const bench = readBench(text);
  if (asked.box !== undefined) boxOf(bench, asked.box);
  if (asked.writer !== undefined && !writerIds.includes(asked.writer))
    throw new InputError(`--writer is one of: ${writerIds.join(', ')}`);
  const day = dayOf(asked.today, now);
  judgeOn(day);
  const only = {
    ...(asked.box === undefined ? {} : { box: asked.box }),
    ...(asked.writer === undefined ? {} : { writer: asked.writer }),
  };
  const files = exportedFiles({ bench, at: `${day}T12:00:00.000Z`, folder: [] }, only);
  if (asked.out === undefined)
    return {
      writers: writerIds,
      files: files.map(({ content, ...f }) => ({
        ...f,
        ...(typeof content === 'string'
          ? { text: content }
          : { base64: Buffer.from(content).toString('base64') }),
      })),
    };
  const { out } = asked;
  return {
    writers: writerIds,
    files: await Promise.all(
      files.map(async ({ content, ...f }, n) => {
        const folder = join(out, f.writer.replaceAll(' ', '-'));
        const path = join(folder, fileName(n));
        await mkdir(folder, { recursive: true });
        await writeFile(path, content);
        return { ...f, path };
      }),
    ),
  };
}
