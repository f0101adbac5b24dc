import { useSyncExternalStore } from 'react';

/** A value that outlives screens, and whoever shows it is told when it changes. */
export function told<T>(first: T) {
  let value = first;
  const listeners = new Set<() => void>();
  const subscribe = (listener: () => void): (() => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  const now = (): T => value;
  return {
    now,
    set: (to: T): void => {
      value = to;
      for (const listener of listeners) listener();
    },
    use: (): T => useSyncExternalStore(subscribe, now),
  };
}
