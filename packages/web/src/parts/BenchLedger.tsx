import { benchLedger } from '@zb/core/box/benchLedger';
import { hazardWords } from '@zb/core/words/hazard';
import type { Bench } from '@zb/core/model/bench';
import { memo, useMemo } from 'react';
import { Link } from 'react-router';
import { Grade } from './Marks';
import { LedgerAside, LedgerGroup, LedgerRow } from './LedgerPane';
import { useSummed } from './useSummed';

/** So many are named in the margin; the rest is counted. */
const MOST = 20;
const More = ({ than }: { than: number }) =>
  than > MOST ? <p className="soft">and {than - MOST} more</p> : null;

/** The margin of the areas that belong to no single box. */
export function BenchLedger({ bench }: { bench: Bench }) {
  const summed = useSummed(bench);
  return summed ? (
    <Summed bench={summed} />
  ) : (
    <LedgerAside>
      <p className="soft">Adding up {bench.boxes.length} boxes…</p>
    </LedgerAside>
  );
}

const Summed = memo(function Summed({ bench }: { bench: Bench }) {
  const { shelf, precious, hazards } = useMemo(() => benchLedger(bench), [bench]);
  return (
    <LedgerAside>
      <LedgerGroup title="Whole bench">
        {shelf.map((l) => (
          <LedgerRow key={l.label} line={l} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Marked to keep" count={precious.length}>
        {precious.length === 0 && <p className="soft">Nothing is marked.</p>}
        {precious.slice(0, MOST).map((k) => (
          <LedgerRow key={k.label} line={k} />
        ))}
        <More than={precious.length} />
      </LedgerGroup>
      <LedgerGroup title="Stop hazards" count={hazards.length}>
        {hazards.length === 0 && <p className="soft">None.</p>}
        {hazards.slice(0, MOST).map((h) => (
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
        <More than={hazards.length} />
      </LedgerGroup>
    </LedgerAside>
  );
});
