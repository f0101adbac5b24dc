import { useRef, useState, type KeyboardEvent } from 'react';

export interface Walk {
  at: number;
  setAt: (at: number) => void;
  /** Goes on what holds the parts. */
  onKeyDown: (e: KeyboardEvent) => void;
  /** Goes on each part. */
  part: (i: number) => {
    ref: (el: HTMLElement | SVGElement | null) => void;
    tabIndex: 0 | -1;
    onFocus: () => void;
  };
}

/** Arrow keys, Home and End go from part to part of a drawing; one of them is reached by Tab. */
export function useWalk(count: number): Walk {
  const [at, setAt] = useState(0);
  const parts = useRef<(HTMLElement | SVGElement | null)[]>([]);
  const last = count - 1;
  return {
    at,
    setAt,
    onKeyDown: (e) => {
      const next = Math.min(last, at + 1);
      const before = Math.max(0, at - 1);
      const to = {
        ArrowDown: next,
        ArrowRight: next,
        ArrowUp: before,
        ArrowLeft: before,
        Home: 0,
        End: last,
      }[e.key];
      if (to === undefined) return;
      e.preventDefault();
      e.stopPropagation();
      setAt(to);
      parts.current[to]?.focus();
    },
    part: (i) => ({
      ref: (el) => void (parts.current[i] = el),
      tabIndex: i === at ? 0 : -1,
      onFocus: () => setAt(i),
    }),
  };
}
