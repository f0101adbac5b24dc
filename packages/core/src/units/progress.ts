/** How far a running piece of work is: share from 0 to 1, bytes per second, seconds left (undefined before the first byte). */
export interface Progress {
  share: number;
  rate: number;
  left: number | undefined;
}

/** From bytes done, bytes in all and seconds gone. Nothing to do counts as done. */
export function progress(done: number, total: number, seconds: number): Progress {
  const rate = seconds > 0 ? done / seconds : 0;
  return { share: total > 0 ? done / total : 1, rate, left: rate > 0 ? (total - done) / rate : undefined };
}
