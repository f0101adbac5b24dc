import { useDeferredValue } from 'react';
import { Link, NavLink, useParams } from 'react-router';
import type { Bench } from '@zb/core/model/bench';
import { boxLine, currentStop, route } from '@zb/core/box/summary';
import { useSeenRows } from '../parts/useSeenRows';
import { AREAS } from './areas';

const Ticks = ({ bench, box }: { bench: Bench; box: Bench['boxes'][number] }) => {
  const stops = route(bench, box);
  const signed = stops.filter((s) => s.state === 'signed').length;
  return (
    <span
      className="ticks"
      role="img"
      aria-label={`${signed} of 12 stops signed off${stops.some((s) => s.hazard) ? ', with a Stop hazard' : ''}`}
    >
      {stops.map((s) => (
        <i key={s.stop} className={s.hazard ? 'hazard' : s.state} />
      ))}
    </span>
  );
};

/** The boxes of the rail; of very many only those that are seen are drawn. */
function RailBoxes({ bench, boxId }: { bench: Bench; boxId: string | undefined }) {
  const { holder, measure, seen, before, after } = useSeenRows(bench.boxes.length, 57);
  return (
    <div ref={holder} style={{ display: 'contents' }}>
      <div style={{ height: before, flexShrink: 0 }} hidden={before === 0} />
      {seen.map((at) => {
        const box = bench.boxes[at];
        return (
          box && (
            <Link
              key={box.id}
              ref={measure}
              data-index={at}
              to={`/box/${box.id}/${currentStop(box)}`}
              aria-current={box.id === boxId ? 'page' : undefined}
              title={box.name}
            >
              <b>{box.name}</b>
              <span className="on">{boxLine(bench, box)}</span>
              <Ticks bench={bench} box={box} />
            </Link>
          )
        );
      })}
      <div style={{ height: after, flexShrink: 0 }} hidden={after === 0} />
    </div>
  );
}

export function Rail({
  bench,
  status,
  saving,
  onHelp,
  onFind,
  onUndo,
  onTheme,
  theme,
}: {
  bench: Bench;
  status: string;
  saving: boolean;
  onHelp: () => void;
  onFind: () => void;
  onUndo: () => void;
  onTheme: () => void;
  theme: string;
}) {
  const { boxId } = useParams();
  // What was done is on the screen first; the boxes of the rail are judged again after it.
  const later = useDeferredValue(bench);
  return (
    <nav className="rail" aria-label="Bench">
      <Link className="brand" to="/">
        <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
          <path d="M2 6.5 11 2l9 4.5v9L11 20l-9-4.5z" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M6.5 9.2h8.2l-7.4 5h8.4" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
        Zealous Box
      </Link>
      <Link className="benchname" to="/bench" title={`${bench.name}: name, save and open the bench`}>
        {bench.name}
      </Link>
      <ul className="areas">
        {AREAS.map((a) => (
          <li key={a.path}>
            <NavLink to={a.path} end={a.path === '/'}>
              {a.title}
              <kbd aria-hidden="true">{a.key.toUpperCase()}</kbd>
            </NavLink>
          </li>
        ))}
      </ul>
      <div className="row" style={{ padding: 0 }}>
        <h2 className="h6">Boxes</h2>
        <Link className="link" to="/box/new" style={{ fontSize: 12 }}>
          New box
        </Link>
      </div>
      <div className="boxes">
        {bench.boxes.length === 0 && <span className="soft">None yet.</span>}
        <RailBoxes bench={later} boxId={boxId} />
      </div>
      <div className="rail-foot">
        <div className="status" role="status" aria-live="polite" data-saving={saving}>
          {status}
        </div>
        <div className="tools">
          <button type="button" className="link" onClick={onUndo} title="Ctrl or ⌘ and Z">
            Undo
          </button>
          <button type="button" className="link" onClick={onFind} title="/">
            Find
          </button>
          <button type="button" className="link" onClick={onHelp} title="?">
            Keys
          </button>
          <button type="button" className="link" onClick={onTheme}>
            <span className="hidden-text">Theme: </span>
            {theme === 'system' ? 'Auto' : theme === 'dark' ? 'Dark' : 'Light'}
          </button>
        </div>
      </div>
    </nav>
  );
}
