import type { Random } from './random';

/** What one part of the stress test has to work with and to tell. */
export interface Bench {
  random: Random;
  /** A folder of its own. */
  dir: string;
  /** Is there time for another round? */
  goOn: () => boolean;
  count: (what: string, by?: number) => void;
  /** Something that must not happen did. */
  wrong: (words: string) => void;
}
export type Part = (bench: Bench) => Promise<void>;

export const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

/** What `work` gives, or a fault that names it where it takes longer than `ms`. */
export async function bounded<T>(what: string, ms: number, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error(`${what} hung for ${ms} ms`)), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}
