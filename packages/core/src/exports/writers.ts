import type { Box } from '../model/bench';
import type { ExportedFile, ExportInput, FileFormat, Writer } from './file';
import { benchWriters, boxWriters, folderWriters } from './list';

/** A file with what it is written in, by which writer, and for which box. */
export interface NamedFile extends ExportedFile {
  writer: string;
  format: FileFormat;
  box: string | null;
}

/** Ids of all writers there are. */
export const writerIds: readonly string[] = [...benchWriters, ...boxWriters, ...folderWriters].map(
  (w) => w.id,
);

/**
 * Every file that a bench can be written to, by every writer there is. A writer that is not in this list does not exist to
 * the tests of injection: `exports.test.ts` finds it.
 */
export function exportedFiles(input: ExportInput, only?: { writer?: string; box?: string }): NamedFile[] {
  const made = <In>(writers: readonly Writer<In>[], from: In, box: Box | null): NamedFile[] =>
    writers
      .filter((w) => only?.writer === undefined || w.id === only.writer)
      .flatMap((w) =>
        w.files(from).map((f) => ({ ...f, writer: w.id, format: w.format, box: box?.id ?? null })),
      );
  const boxes = input.bench.boxes.filter((b) => only?.box === undefined || b.id === only.box);
  return [
    ...(only?.box === undefined ? made(benchWriters, input, null) : []),
    ...(only?.box === undefined ? made(folderWriters, input, null) : []),
    ...boxes.flatMap((box) => made(boxWriters, { ...input, box }, box)),
  ];
}
