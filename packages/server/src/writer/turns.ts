import { within } from '../within';

/** Whoever shares a way goes one after the other: a shared way is not faster for being asked by two. */
export class Turns {
  /** The end of the last one that was let onto each way. */
  private readonly last = new Map<string, Promise<unknown>>();

  /** Resolves when the way is free to a function that gives it back, or to undefined where the signal came first. */
  async take(way: string, signal: AbortSignal): Promise<(() => void) | undefined> {
    const before = this.last.get(way) ?? Promise.resolve();
    let done: () => void = () => undefined;
    const mine = new Promise<void>((resolve) => (done = resolve));
    this.last.set(
      way,
      before.then(() => mine),
    );
    if ((await within(before, Infinity, signal)) !== 'stopped') return done;
    done();
    return undefined;
  }
}
