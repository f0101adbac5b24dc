import { useCallback, useEffect, useRef, useState } from 'react';
import { registerSW } from 'virtual:pwa-register';

const LATER_MS = 2500;

/**
 * Makes the built application work without its server, and tells when a newer version of it has arrived. Nothing is taken
 * until somebody says so, or the page is opened anew: an open form is never dropped.
 */
export function useNewer(): (() => void) | undefined {
  const [here, setHere] = useState(false);
  const take = useRef<(reload?: boolean) => Promise<void>>(undefined);
  useEffect(() => {
    // Once the first screen stands: all of the application is fetched then, and must not hold it up.
    const timer = setTimeout(() => {
      take.current = registerSW({ immediate: true, onNeedRefresh: () => setHere(true) });
    }, LATER_MS);
    return () => clearTimeout(timer);
  }, []);
  const now = useCallback(() => {
    // Whether this page was brought by an older version or by the server: it is opened anew by the newer one.
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    void take.current?.(false);
  }, []);
  return here ? now : undefined;
}
