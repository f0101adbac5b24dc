import { useEffect, useState } from 'react';

/** Keeps the screen on while this is open (Screen Wake Lock, W3C); false where the browser does not. */
export function useAwake(): boolean {
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    let held: WakeLockSentinel | null = null;
    let over = false;
    const ask = async (): Promise<void> => {
      if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return;
      try {
        const lock = await navigator.wakeLock.request('screen');
        if (over) void lock.release();
        else {
          held = lock;
          lock.addEventListener('release', () => setAwake(false));
          setAwake(true);
        }
      } catch {
        // A battery that is low, or a setting: the screen goes dark as it always does.
        setAwake(false);
      }
    };
    // It is let go whenever the page is out of sight.
    const again = (): void => void ask();
    void ask();
    document.addEventListener('visibilitychange', again);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', again);
      void held?.release();
    };
  }, []);
  return awake;
}
