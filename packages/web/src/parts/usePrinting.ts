import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Is the page being printed? What only paper shows need not be made for the screen; it is there before the page is set. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(() => matchMedia('print').matches);
  useEffect(() => {
    const media = matchMedia('print');
    const turn = (to: boolean) => (): void => flushSync(() => setPrinting(to));
    const [begin, end] = [turn(true), turn(false)];
    const change = (): void => (media.matches ? begin() : end());
    media.addEventListener('change', change);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      media.removeEventListener('change', change);
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return printing;
}
