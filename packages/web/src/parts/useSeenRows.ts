import type { Virtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useMemo, useReducer, useRef, useState } from 'react';

/** Fewer rows than this are drawn all: they cost less than finding out which of them are seen. */
const FEW = 60;

const scrollerOf = (from: HTMLElement | null): HTMLElement | null => {
  for (let at = from?.parentElement ?? null; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return document.scrollingElement as HTMLElement | null;
};

type Rows = Virtualizer<HTMLElement, Element>;
type Options = Pick<
  Rows['options'],
  'count' | 'getScrollElement' | 'estimateSize' | 'scrollMargin' | 'overscan' | 'enabled'
>;

/** The library that finds the rows that are seen, fetched once a list is long: most benches are short. Null until then. */
function useLazyVirtualizer(wanted: boolean, options: Options): Rows | null {
  const [, drawAgain] = useReducer((n: number) => n + 1, 0);
  const [make, setMake] = useState<((given: Options, onChange: () => void) => Rows) | null>(null);
  useEffect(() => {
    if (!wanted || make) return;
    let gone = false;
    void import('@tanstack/react-virtual').then(
      ({ elementScroll, observeElementOffset, observeElementRect, Virtualizer: Made }) => {
        if (!gone)
          setMake(
            () => (given: Options, onChange: () => void) =>
              new Made<HTMLElement, Element>({
                ...given,
                observeElementRect,
                observeElementOffset,
                scrollToFn: elementScroll,
                onChange,
              }),
          );
      },
    );
    return () => {
      gone = true;
    };
  }, [wanted, make]);
  // One for the life of the list; its options are those of each drawing.
  const rows = useMemo(() => make?.(options, drawAgain) ?? null, [make]); // eslint-disable-line react-hooks/exhaustive-deps -- options follow below
  rows?.setOptions({ ...rows.options, ...options });
  useLayoutEffect(() => rows?._didMount(), [rows]);
  useLayoutEffect(() => rows?._willUpdate());
  return wanted ? rows : null;
}

export interface SeenRows {
  /** Goes on the element that holds the rows. */
  holder: (el: HTMLElement | null) => void;
  /** Goes on every row, with its place in `data-index`, so that rows of any height find theirs. */
  measure: (el: Element | null) => void;
  /** Places of the rows to draw, and the room of those before and after them in pixels. */
  seen: readonly number[];
  before: number;
  after: number;
}

/** The rows of a long list that are seen, in whatever scrolls it; `estimate` is the usual height of one in pixels. */
export function useSeenRows(count: number, estimate: number): SeenRows {
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const [margin, setMargin] = useState(0);
  const at = useRef<HTMLElement | null>(null);
  const many = count > FEW;
  const holder = useCallback(
    (el: HTMLElement | null) => {
      at.current = el;
      // Finding it has the browser work out its styles: not for a few rows.
      if (el && many) setScroller(scrollerOf(el));
    },
    [many],
  );
  // Where the list begins within what scrolls: charts and forms above it come and go.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- looked at after every drawing; set only where it has moved
  useLayoutEffect(() => {
    if (!many || !at.current || !scroller) return;
    const top = at.current.getBoundingClientRect().top - scroller.getBoundingClientRect().top;
    const from = Math.round(top + scroller.scrollTop);
    if (Math.abs(from - margin) > 1) setMargin(from);
  });
  const rows = useLazyVirtualizer(many, {
    count,
    getScrollElement: () => scroller,
    estimateSize: () => estimate,
    scrollMargin: margin,
    overscan: 8,
    enabled: many,
  });
  // All of a few; of many, until the library is there, the first, with room for the others.
  if (!rows) {
    const drawn = Math.min(count, FEW);
    return {
      holder,
      measure: () => undefined,
      seen: Array.from({ length: drawn }, (_, i) => i),
      before: 0,
      after: (count - drawn) * estimate,
    };
  }
  const items = rows.getVirtualItems();
  const [first, last] = [items[0], items.at(-1)];
  return {
    holder,
    measure: rows.measureElement,
    seen: items.map((v) => v.index),
    before: first ? first.start - margin : 0,
    after: last ? rows.getTotalSize() - (last.end - margin) : rows.getTotalSize(),
  };
}
