import { useCallback, useEffect, useRef, useState } from 'react';
import { registerSW } from 'virtual:pwa-register';

/**
 * Makes the built application work without its server, and tells when a newer version of it has arrived. Nothing is taken
 * until somebody says so, or the page is opened anew: an open form is never dropped.
 */
export function useNewer(): (() => void) | undefined {
  const [here, setHere] = useState(false);
  const take = useRef<(reload?: boolean) => Promise<void>>(undefined);
  useEffect(() => {
    take.current = registerSW({ onNeedRefresh: () => setHere(true) });
  }, []);
  const now = useCallback(() => void take.current?.(true), []);
  return here ? now : undefined;
}
