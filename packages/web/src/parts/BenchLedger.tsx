import { Text } from '@chakra-ui/react';
import { benchLedger } from '@zb/core/box/benchLedger';
import { hazardWords } from '@zb/core/words/hazard';
import type { Bench } from '@zb/core/model/bench';
import { stopTitle } from '@zb/core/model/stops';
import { memo, useMemo } from 'react';
import { To } from '../ui/To';
import { Soft } from '../ui/Words';
import { HazardLine, LedgerAside, LedgerGroup, LedgerRow } from './LedgerPane';
import { useSummed } from './useSummed';

/** So many are named in the margin; the rest is counted. */
const MOST = 20;
const More = ({ than }: { than: number }) =>
  than > MOST ? <Text color="fg.muted">and {than - MOST} more</Text> : null;

interface Props {
  bench: Bench;
  /** The sheet beside it says what the hazards are: the margin says where. */
  said?: boolean;
}

/** The margin of the areas that belong to no single box. */
export function BenchLedger({ bench, said = false }: Props) {
  const summed = useSummed(bench);
  return summed ? (
    <Summed bench={summed} said={said} />
  ) : (
    <LedgerAside>
      <Soft>Adding up {bench.boxes.length} boxes…</Soft>
    </LedgerAside>
  );
}

const Summed = memo(function Summed({ bench, said }: Props) {
  const { shelf, precious, hazards } = useMemo(() => benchLedger(bench), [bench]);
  return (
    <LedgerAside stops={hazards.length}>
      <LedgerGroup title="Whole bench">
        {shelf.map((l) => (
          <LedgerRow key={l.label} line={l} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Marked to keep" count={precious.length}>
        {precious.length === 0 && <Soft>Nothing is marked.</Soft>}
        {precious.slice(0, MOST).map((k) => (
          <LedgerRow key={k.label} line={k} />
        ))}
        <More than={precious.length} />
      </LedgerGroup>
      <LedgerGroup title="Stop hazards" count={hazards.length}>
        {hazards.length === 0 && <Soft>None.</Soft>}
        {hazards.slice(0, MOST).map((h) => (
          <HazardLine key={h.boxId + hazardWords(h.hazard)} grade="stop">
            <To to={`/box/${h.boxId}/${h.hazard.stop}`}>{h.box}</To>
            {said ? `, at ${stopTitle[h.hazard.stop]}` : `: ${hazardWords(h.hazard)}`}
          </HazardLine>
        ))}
        <More than={hazards.length} />
      </LedgerGroup>
    </LedgerAside>
  );
});
