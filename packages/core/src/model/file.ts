import { theBench, type Bench } from './bench';
import { differences, type Change } from './changes';
import { migrations } from './migrations';
import { BenchFileError } from './problems';
import { migrate, type Reading } from './reading';

export { migrations } from './migrations';
export { benchToText, sortKeys } from './normalForm';
export { benchFromKept, migrate, type Migration } from './reading';
export { BenchFileError, fileProblem, type FileProblem } from './problems';

/** Reads a bench file's text: parses, migrates, validates all of it. Throws BenchFileError; never half a bench. */
export function benchFromText(text: string, model: Reading = theBench): Bench {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new BenchFileError(
      `This file is not readable JSON: ${error instanceof Error ? error.message : 'unknown fault'}`,
    );
  }
  const bench = model.checked(migrate(raw, migrations));
  model
    .crossCheck(bench)
    .throwIfAny((n) =>
      n === 1 ? 'One reference in it leads nowhere.' : `${n} references in it lead nowhere.`,
    );
  return bench;
}

/** What an import would do to one collection, counted. */
export interface ImportPreview {
  collection: string;
  added: number;
  replaced: number;
  removed: number;
  same: number;
}

/** What putting this bench in place of the present one would do, by collection; `changes` are what leads there. */
export function previewImport(
  present: Bench,
  incoming: Bench,
  changes: readonly Change[] = differences(present, incoming),
): ImportPreview[] {
  return theBench.names.map((collection) => {
    const here = new Set(theBench.records(present, collection).map((x) => x.id));
    const mine = changes.filter((c) => c.in === collection);
    const removed = mine.filter((c) => 'to' in c && c.to === null).length;
    const added = mine.filter((c) => !here.has(c.id)).length;
    const replaced = mine.length - added - removed;
    const same = theBench.records(incoming, collection).length - added - replaced;
    return { collection, added, replaced, removed, same };
  });
}
