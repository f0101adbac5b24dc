import { useCallback, useSyncExternalStore } from 'react';

/** Does this media query hold now? */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (tell: () => void) => {
      const media = matchMedia(query);
      media.addEventListener('change', tell);
      return () => media.removeEventListener('change', tell);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => matchMedia(query).matches);
}

/** Too narrow for a rail: a phone, or a tablet held upright. The breakpoint “lg” of the theme. */
export const useNarrow = (): boolean => useMedia('(max-width: 1023.98px)');
/** Too narrow for a ledger beside the sheet: a phone. The breakpoint “md” of the theme. */
export const usePhone = (): boolean => useMedia('(max-width: 767.98px)');
