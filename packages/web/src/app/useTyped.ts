import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * Keeps what is typed between the key that opens a line to type into and the moment that line can take it: nothing is lost,
 * however fast somebody types, and no letter is a shortcut meanwhile. Answers what was typed so far, and forgets it.
 */
export function useTyped(waiting: boolean): () => string {
  const typed = useRef('');
  useLayoutEffect(() => {
    if (!waiting) return undefined;
    typed.current = '';
    const on = (e: KeyboardEvent): void => {
      const target = e.target as HTMLElement | null;
      // The line itself takes it now.
      if (target?.tagName === 'INPUT' || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === 'Backspace') typed.current = typed.current.slice(0, -1);
      else if (e.key.length === 1) typed.current += e.key;
      else return;
      e.preventDefault();
      e.stopImmediatePropagation();
    };
    window.addEventListener('keydown', on, { capture: true });
    return () => window.removeEventListener('keydown', on, { capture: true });
  }, [waiting]);
  return useCallback(() => {
    const text = typed.current;
    typed.current = '';
    return text;
  }, []);
}
