import { useEffect, useRef } from 'react';

/** Held so long it means the other thing, milliseconds. Common practice, no source. */
const HELD_MS = 800;
/** Space, and what a clicker in the hand sends. */
const KEYS = [' ', 'PageDown', 'Enter'];
/** The button that means the same. */
export const DONE_PART = 'run-done';

/** Is the key meant for what has the focus: a field, a button of its own, a sheet laid over this one? */
const taken = (target: EventTarget | null): boolean =>
  target instanceof Element &&
  target.closest(`[data-part="${DONE_PART}"]`) === null &&
  target.closest('input, textarea, select, button, a, [role="dialog"], [contenteditable]') !== null;

/** One button does all: pressed it means done, held it means that it looks different. */
export function useOneButton(onPress: () => void, onHold: () => void): void {
  const acts = useRef({ onPress, onHold });
  useEffect(() => {
    acts.current = { onPress, onHold };
  });
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const end = (): void => {
      if (timer !== null) clearTimeout(timer);
      timer = null;
    };
    const down = (e: KeyboardEvent): void => {
      if (!KEYS.includes(e.key) || e.ctrlKey || e.metaKey || e.altKey || taken(e.target)) return;
      e.preventDefault();
      if (e.repeat || timer !== null) return;
      timer = setTimeout(() => {
        timer = null;
        acts.current.onHold();
      }, HELD_MS);
    };
    const up = (e: KeyboardEvent): void => {
      if (!KEYS.includes(e.key) || timer === null) return;
      // A button that has the focus would be pressed once more.
      e.preventDefault();
      end();
      acts.current.onPress();
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      end();
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, []);
}
