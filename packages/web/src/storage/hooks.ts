import { createContext, useCallback, useContext, useSyncExternalStore } from 'react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { emptyBench, type Bench } from '@zb/core/model/bench';
import type { Act } from '@zb/core/model/changes';
import type { Stamp } from '@zb/core/acts/stamp';
import { BENCH_KEY, type BenchStore, type StoreNotice } from './benchStore';

export const StoreContext = createContext<BenchStore | null>(null);

export function useStore(): BenchStore {
  const store = useContext(StoreContext);
  if (!store) throw new Error('The bench store is missing above this part.');
  return store;
}

export function useNotice(): StoreNotice {
  const store = useStore();
  return useSyncExternalStore(store.subscribe, store.notice);
}

/** How the bench is asked for. */
export const benchQuery = (store: BenchStore) => ({
  queryKey: BENCH_KEY,
  queryFn: store.load,
  staleTime: Infinity,
  retry: false,
  structuralSharing: store.share,
});

/** The bench, or null where none has been begun. Suspended loading is told by `isPending`. */
export function useBenchQuery(): {
  bench: Bench | null | undefined;
  isPending: boolean;
  error: Error | null;
} {
  const store = useStore();
  const { data, isPending, error } = useQuery(benchQuery(store));
  return { bench: data, isPending, error };
}

/** The bench for screens below the shell, where it is known to be loaded. */
export function useBench(): Bench {
  return useBenchQuery().bench ?? emptyBench();
}

export const stamp = (): Stamp => ({ now: new Date().toISOString(), id: () => crypto.randomUUID() });

/** Performs acts; what they say appears in the status line. */
export function useAct(): (act: Act) => Promise<boolean> {
  const store = useStore();
  const { mutateAsync } = useMutation({ mutationFn: (act: Act) => store.perform(act) });
  return useCallback((act: Act) => mutateAsync(act), [mutateAsync]);
}
