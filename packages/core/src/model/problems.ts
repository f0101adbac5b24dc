import type { z } from 'zod';

/** Where a file is wrong: the path to the field and why, in words. */
export interface FileProblem {
  path: string;
  why: string;
}

/** More than anybody mends by hand; the rest is only counted. */
const MOST_TOLD = 200;

/** A file that is not taken: why, and where it is wrong. Nothing of it was used. */
export class BenchFileError extends Error {
  /** `problems` holds the first of them; `count` says how many there are. */
  constructor(
    message: string,
    readonly problems: readonly FileProblem[] = [],
    readonly count: number = problems.length,
  ) {
    super(message);
    this.name = 'BenchFileError';
  }
}

const pathWords = (path: readonly PropertyKey[]): string =>
  path
    .map((p) => (typeof p === 'number' ? `[${p}]` : String(p)))
    .join('.')
    .replace(/\.\[/g, '[');

/** A problem of the schema as a place in the file and its reason. */
export const fileProblem = (issue: z.core.$ZodIssue, at: readonly PropertyKey[] = []): FileProblem => ({
  path: pathWords([...at, ...issue.path]),
  why: issue.message,
});

/** What is wrong in a file, all of it counted and the first of it told. */
export class Problems {
  readonly told: FileProblem[] = [];
  count = 0;

  add(problem: FileProblem): void {
    this.count += 1;
    if (this.told.length < MOST_TOLD) this.told.push(problem);
  }

  /** The value as the schema gives it; undefined, and its problems noted, where it is not sound. `at` leads to it. */
  check<T>(schema: z.ZodType<T>, value: unknown, at: readonly PropertyKey[] = []): T | undefined {
    let parsed: z.ZodSafeParseResult<T>;
    try {
      parsed = schema.safeParse(value);
    } catch (error) {
      // The library hands problems up as arguments of a call; a record with a hundred thousand of them has too many.
      if (!(error instanceof RangeError)) throw error;
      this.add({ path: pathWords(at), why: 'holds more that is wrong than can be told' });
      return undefined;
    }
    if (parsed.success) return parsed.data;
    for (const issue of parsed.error.issues) this.add(fileProblem(issue, at));
    return undefined;
  }

  /** Each element of a list by itself, so that one that is wrong costs no more than itself. */
  checkAll<T>(schema: z.ZodType<T>, list: unknown, at: readonly PropertyKey[] = []): T[] {
    if (!Array.isArray(list)) {
      this.add({ path: pathWords(at), why: 'must be a list' });
      return [];
    }
    return list.flatMap((value, i) => this.check(schema, value, [...at, i]) ?? []);
  }

  /** Throws BenchFileError where there is any; `words` makes its sentence from their number. */
  throwIfAny(words: (count: number) => string): void {
    if (this.count > 0) throw new BenchFileError(words(this.count), this.told, this.count);
  }
}
