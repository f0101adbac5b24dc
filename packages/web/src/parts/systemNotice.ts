/** A notice of the system's own, for whoever has the page behind others or the tablet beside the machine asleep. */
export interface SystemNotice {
  title: string;
  body: string;
  /** One of the same tag takes the place of the one before. */
  tag: string;
  /** Where whoever follows it lands, an address of the application. */
  to: string;
}

/** Whether it may be asked for here at all. */
export const canAsk = (): boolean => typeof Notification !== 'undefined';

/** Tells the system, where that was allowed. */
export async function tellSystem({ title, body, tag, to }: SystemNotice): Promise<void> {
  if (!canAsk() || Notification.permission !== 'granted') return;
  // Browsers of phones and tablets know those of the service worker alone, which are also followed when the page is gone.
  const worker = await navigator.serviceWorker?.getRegistration();
  if (worker?.active) return worker.showNotification(title, { body, tag, data: { to } });
  try {
    new Notification(title, { body, tag }).onclick = () => window.focus();
  } catch {
    // Nothing is lost: the page says the same.
  }
}

/** Calls back with the address whenever somebody followed a notice; answers how to stop that. */
export function onFollowed(go: (to: string) => void): () => void {
  const heard = ({ data }: MessageEvent<unknown>): void => {
    const to = (data as { followed?: unknown } | null)?.followed;
    if (typeof to === 'string' && to.startsWith('/')) go(to);
  };
  navigator.serviceWorker?.addEventListener('message', heard);
  return () => navigator.serviceWorker?.removeEventListener('message', heard);
}
