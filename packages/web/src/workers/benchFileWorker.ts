import { expose } from 'comlink';
import { arranged, theBench, type Bench } from '@zb/core/model/bench';
import { BenchFileError, benchFromText, type FileProblem } from '@zb/core/model/file';

/** What reading a bench file came to: the bench without its records, which are fetched piece by piece. */
export type ReadBenchFile =
  | { frame: Pick<Bench, 'format' | 'version' | 'name' | 'settings'>; counts: Record<string, number> }
  | { words: string; problems: readonly FileProblem[]; count: number };

let read: Bench | undefined;

const api = {
  async read(file: Blob): Promise<ReadBenchFile> {
    let text: string;
    try {
      text = await file.text();
    } catch {
      const words = 'This file could not be read. Was it moved, or is its drive gone?';
      return { words, problems: [], count: 0 };
    }
    try {
      read = arranged(benchFromText(text));
    } catch (error) {
      read = undefined;
      const { problems, count } = error instanceof BenchFileError ? error : { problems: [], count: 0 };
      return { words: error instanceof Error ? error.message : String(error), problems, count };
    }
    const { format, version, name, settings } = read;
    const bench = read;
    const counts = Object.fromEntries(theBench.names.map((n) => [n, theBench.records(bench, n).length]));
    return { frame: { format, version, name, settings }, counts };
  },
  /** Records of a collection in the order in which they are shown. */
  piece(collection: string, from: number, count: number): readonly unknown[] {
    return read ? theBench.records(read, collection).slice(from, from + count) : [];
  },
};

export type BenchFileWorker = typeof api;
expose(api);
