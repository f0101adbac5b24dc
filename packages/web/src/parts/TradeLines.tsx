import { useMemo } from 'react';
import { takeWriteWay } from '@zb/core/acts/box';
import type { TradeLine } from '@zb/core/box/trade/line';
import { tradeLines } from '@zb/core/box/summary';
import type { Bench, Box } from '@zb/core/model/bench';
import type { Stop } from '@zb/core/model/stops';
import { schoolWayWords, tradeWords, wayWords } from '@zb/core/words/trade';
import { stamp, useAct } from '../storage/hooks';

/** The ways of a school with the one that is taken. */
function School({ box, line }: { box: Box; line: Extract<TradeLine, { ways: unknown }> }) {
  const act = useAct();
  return (
    <ul>
      {line.ways.map((w) => (
        <li key={w.way}>
          {line.taken === w.way ? (
            <b>Taken: {wayWords(w.way).title}</b>
          ) : (
            <button type="button" className="link" onClick={() => void act(takeWriteWay(box, w, stamp()))}>
              Take {wayWords(w.way).title}
            </button>
          )}
          <span className="sub">{schoolWayWords(w)}</span>
        </li>
      ))}
    </ul>
  );
}

/** What people who do this often look at here: a head each, why, and what to do. */
export function TradeLines({ bench, box, stop }: { bench: Bench; box: Box; stop: Stop }) {
  // Some of them judge the machine: once for a state of the bench, not whenever the stop is drawn again.
  const lines = useMemo(() => tradeLines(bench, box, stop), [bench, box, stop]);
  if (lines.length === 0) return null;
  return (
    <section className="trade no-print" aria-label="From practice">
      <h2 className="h6">From practice</h2>
      <ul>
        {lines.map((l) => {
          const { title, because, steps } = tradeWords(l);
          return (
            <li key={`${l.code} ${title}`}>
              <b>{title}</b>
              <span className="sub">{because}</span>
              {l.code === 'school: stick or adapter' && <School box={box} line={l} />}
              {steps.length > 0 && (
                <details className="why">
                  <summary>Checks, and what each mistake looks like</summary>
                  <ul>
                    {steps.map((s) => (
                      <li key={s}>{s}</li>
                    ))}
                  </ul>
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
