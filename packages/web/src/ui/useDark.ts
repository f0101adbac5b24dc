import { useSyncExternalStore } from 'react';

const subscribe = (tell: () => void): (() => void) => {
  const seen = new MutationObserver(tell);
  seen.observe(document.documentElement, { attributeFilter: ['class'] });
  return () => seen.disconnect();
};

/** Is the page dark now? For what takes its colours when it is drawn. */
export const useDark = (): boolean =>
  useSyncExternalStore(subscribe, () => document.documentElement.classList.contains('dark'));
