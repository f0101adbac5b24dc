import { told } from '../storage/told';

/** What a browser sends where the application can be put on the device (W3C, App installability; not every browser has it). */
interface InstallOffer extends Event {
  prompt: () => Promise<unknown>;
}

const offer = told<InstallOffer | null>(null);
if (typeof window !== 'undefined') {
  window.addEventListener('beforeinstallprompt', (e) => {
    // Offered where somebody looks for it, not over the work.
    e.preventDefault();
    offer.set(e as InstallOffer);
  });
  window.addEventListener('appinstalled', () => offer.set(null));
}

/** Puts the application on this device; undefined where the browser does not offer it, or it is there already. */
export function useInstall(): (() => void) | undefined {
  const now = offer.use();
  return now === null ? undefined : () => void now.prompt().then(() => offer.set(null));
}
