import { useLayoutEffect, useRef } from 'react';

/** True where a key press belongs to what has focus and not to the screen. */
export function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}

/** A button, link or opened part takes Space and Enter for itself. */
const pressable = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('button, a, summary, [role="button"], [role="radio"]') !== null;

/** Single-key shortcuts of a screen; ignored while typing, in a dialog, or with a modifier held. */
export function useKeys(keys: Record<string, (() => void) | undefined>): void {
  const current = useRef(keys);
  // With the drawing, not after it: a key pressed the moment a screen appears must find that screen's keys.
  useLayoutEffect(() => {
    current.current = keys;
  });
  useLayoutEffect(() => {
    const on = (e: KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented || typing(e.target)) return;
      if (document.querySelector('[role="dialog"][data-state="open"]')) return;
      if ((e.key === ' ' || e.key === 'Enter') && pressable(e.target)) return;
      const act = current.current[e.key.length === 1 ? e.key.toLowerCase() : e.key];
      if (!act) return;
      e.preventDefault();
      act();
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  }, []);
}
