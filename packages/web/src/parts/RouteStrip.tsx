import { NavLink } from 'react-router';
import type { Bench, Box } from '@zb/core/model/bench';
import { addSpans, formatSpan } from '@zb/core/units/duration';
import { route } from '@zb/core/box/summary';

/** The twelve stops of a box, their state and their minutes. */
export function RouteStrip({ bench, box }: { bench: Bench; box: Box }) {
  return (
    <nav className="route" aria-label="Stops">
      {route(bench, box).map((s) => (
        <NavLink
          key={s.stop}
          to={`/box/${box.id}/${s.stop}`}
          className={s.hazard ? 'warn' : s.state === 'signed' ? 'done' : ''}
        >
          <b>
            <span className="hidden-text">Stop {s.number}, </span>
            {s.title}
          </b>
          <span className="m">{formatSpan(addSpans([s.hands, s.waiting]))}</span>
          <span className="hidden-text">
            {s.state === 'signed' && ', signed off'}
            {s.hazard && ', Stop hazard'}
          </span>
        </NavLink>
      ))}
    </nav>
  );
}
