import { Box, chakra } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { Data, Sub } from '../ui/Words';
import { fillOf, type Pattern } from './patterns';
import { useWalk } from './walk';

export interface Stretch {
  title: string;
  /** First and last of its addresses, as numbers of the network: 1 is the first that can be given away. */
  from: number;
  to: number;
  pattern: Pattern;
  /** Who lives there, or what is kept for whom. */
  words: string;
}

/** A network as a street: its addresses in a row, with who lives where and what is kept for whom. */
export function AddressStreet({
  network,
  size,
  stretches,
}: {
  /** Such as 192.0.2.0/24. */
  network: string;
  /** How many addresses it has. */
  size: number;
  stretches: readonly Stretch[];
}) {
  const x = scaleLinear().domain([0, size]).range([0, 100]);
  const walk = useWalk(stretches.length);
  const numbers = ({ from, to }: Stretch): string => (from === to ? `.${from}` : `.${from} to .${to}`);
  return (
    <Box role="group" aria-label={`Addresses of ${network}`} onKeyDown={walk.onKeyDown}>
      <Data>{network}</Data>
      <chakra.svg css={{ width: '100%', height: '34px', overflow: 'visible' }}>
        <line x1="0" x2="100%" y1="33" y2="33" stroke="var(--zb-colors-fg)" strokeWidth="2" />
        {stretches.map((s, i) => (
          <rect
            key={s.title}
            role="img"
            aria-label={`${s.title}, ${numbers(s)}: ${s.words}`}
            {...walk.part(i)}
            x={`${x(s.from)}%`}
            width={`max(4px, ${x(s.to + 1) - x(s.from)}%)`}
            y="6"
            height="27"
            fill={fillOf(s.pattern)}
            stroke="var(--zb-colors-fg)"
          />
        ))}
      </chakra.svg>
      <Box display="flex" flexWrap="wrap" columnGap="4">
        {stretches.map((s) => (
          <Sub key={s.title}>
            <b>{s.title}</b> <Data>{numbers(s)}</Data> {s.words}
          </Sub>
        ))}
      </Box>
    </Box>
  );
}
