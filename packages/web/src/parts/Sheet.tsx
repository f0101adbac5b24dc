import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { useLocation } from 'react-router';

export interface SheetProps {
  /** Left of the tab line: whose sheet this is. */
  title: string;
  mid?: ReactNode;
  right?: ReactNode;
  /** The one question or finding. */
  headline: string;
  children: ReactNode;
  foot?: ReactNode;
  hint?: string;
  /** The last child takes the height that is left and scrolls by itself. */
  fill?: boolean;
}

/** The ruled sheet in the middle: tab line, headline, the working picture, and the acts at its foot. */
export function Sheet({ title, mid, right, headline, children, foot, hint, fill }: SheetProps) {
  const main = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = `${title} · Zealous Box`;
  }, [title]);
  // A new screen takes the focus, so that its keys work and a screen reader hears it.
  useLayoutEffect(() => {
    if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
  }, [pathname]);
  return (
    <main className="sheet" id="sheet" tabIndex={-1} ref={main} aria-labelledby="headline">
      <div className={fill ? 'sheet-scroll fill' : 'sheet-scroll'}>
        <div className="tab">
          <b title={title}>{title}</b>
          <span className="mid">{mid}</span>
          <span className="r">{right}</span>
        </div>
        <h1 id="headline">{headline}</h1>
        {children}
      </div>
      {foot !== undefined && (
        <div className="foot">
          {foot}
          {hint !== undefined && <span className="sp">{hint}</span>}
        </div>
      )}
    </main>
  );
}
