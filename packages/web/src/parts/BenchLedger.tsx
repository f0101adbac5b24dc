import { benchLedger } from '@zb/core/box/benchLedger';
import { hazardWords } from '@zb/core/words/hazard';
import type { Bench } from '@zb/core/model/bench';
import { Link } from 'react-router';
import { Grade } from './Marks';
import { LedgerAside, LedgerGroup, LedgerRow } from './LedgerPane';

/** The margin of the areas that belong to no single box. */
export function BenchLedger({ bench }: { bench: Bench }) {
  const { shelf, precious, hazards } = benchLedger(bench);
  return (
    <LedgerAside>
      <LedgerGroup title="Whole bench">
        {shelf.map((l) => (
          <LedgerRow key={l.label} line={l} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Marked to keep" count={precious.length}>
        {precious.length === 0 && <p className="soft">Nothing is marked.</p>}
        {precious.map((k) => (
          <LedgerRow key={k.label} line={k} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Stop hazards" count={hazards.length}>
        {hazards.length === 0 && <p className="soft">None.</p>}
        {hazards.map((h) => (
          <div className="hz" key={h.boxId + hazardWords(h.hazard)}>
            <Grade grade="stop" />
            <span>
              <Link className="link" to={`/box/${h.boxId}/${h.hazard.stop}`}>
                {h.box}
              </Link>
              : {hazardWords(h.hazard)}
            </span>
          </div>
        ))}
      </LedgerGroup>
    </LedgerAside>
  );
}
