import { useSyncExternalStore } from 'react';

/** What a browser sends where the application can be put on the device (W3C, App installability; not every browser has it). */
interface InstallOffer extends Event {
  prompt: () => Promise<unknown>;
}

let offer: InstallOffer | null = null;
const listeners = new Set<() => void>();
const tell = (now: InstallOffer | null): void => {
  offer = now;
  for (const l of listeners) l();
};
if (typeof window !== 'undefined') {
  window.addEventListener('beforeinstallprompt', (e) => {
    // Offered where somebody looks for it, not over the work.
    e.preventDefault();
    tell(e as InstallOffer);
  });
  window.addEventListener('appinstalled', () => tell(null));
}

/** Puts the application on this device; undefined where the browser does not offer it, or it is there already. */
export function useInstall(): (() => void) | undefined {
  const now = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => offer,
  );
  return now === null ? undefined : () => void now.prompt().then(() => tell(null));
}
