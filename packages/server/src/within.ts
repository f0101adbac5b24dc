/**
 * What the promise gives, or 'late' after `ms` milliseconds, or 'stopped' as soon as the signal says so. The promise itself
 * goes on; a fault it meets after that is nobody's any more and is let go.
 */
export function within<T>(promise: Promise<T>, ms: number): Promise<T | 'late'>;
export function within<T>(
  promise: Promise<T>,
  ms: number,
  signal: AbortSignal,
): Promise<T | 'late' | 'stopped'>;
export function within<T>(
  promise: Promise<T>,
  ms: number,
  signal?: AbortSignal,
): Promise<T | 'late' | 'stopped'> {
  return new Promise((resolve, reject) => {
    const stop = (): void => settle('stopped');
    const timer = ms === Infinity ? undefined : setTimeout(() => settle('late'), Math.max(0, ms));
    const clear = (): void => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', stop);
    };
    const settle = (value: T | 'late' | 'stopped'): void => {
      clear();
      resolve(value);
    };
    promise.then(settle, (error: unknown) => {
      clear();
      reject(error instanceof Error ? error : new Error(String(error)));
    });
    if (signal?.aborted) stop();
    else signal?.addEventListener('abort', stop);
  });
}
