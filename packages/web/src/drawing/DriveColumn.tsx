import { Box, chakra, HStack } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { formatIec } from '@zb/core/units/bytes';
import { Sub } from '../ui/Words';
import { fillOf, type Pattern } from './patterns';

export interface Stratum {
  /** Of the whole column, 0 to 1, from the bottom up. */
  share: number;
  pattern: Pattern;
  word: string;
}

const HEIGHT = 150;
const WIDTH = 72;

/** A drive, a stick or a card as a vertical column of strata; what becomes of each is told by its pattern and its word. */
export function DriveColumn({
  title,
  strata,
  tall = 1,
  outside = false,
}: {
  title: string;
  strata: readonly Stratum[];
  /** Of the scale beside it, 0 to 1. */
  tall?: number;
  /** It lies beside the machine. */
  outside?: boolean;
}) {
  const y = scaleLinear()
    .domain([0, 1])
    .range([HEIGHT, HEIGHT * (1 - tall)]);
  const tops = strata.map((_, i) => strata.slice(0, i + 1).reduce((sum, s) => sum + s.share, 0));
  return (
    <chakra.figure flexShrink="0" css={{ width: `${WIDTH}px`, fontSize: '12px' }} textAlign="center">
      <chakra.svg
        role="img"
        aria-label={`${title}: ${strata.map((s) => s.word).join(', ')}`}
        viewBox={`-1 -1 ${WIDTH + 2} ${HEIGHT + 2}`}
        css={{ width: '100%', display: 'block' }}
      >
        {strata.map((s, i) => {
          const top = y(tops[i] ?? 1);
          return (
            <rect
              key={s.word}
              x="0"
              width={WIDTH}
              y={top}
              height={y((tops[i] ?? 1) - s.share) - top}
              fill={fillOf(s.pattern)}
              stroke="var(--zb-colors-fg)"
              strokeDasharray={outside ? '3 2' : undefined}
            />
          );
        })}
      </chakra.svg>
      <figcaption>
        <b>{title}</b>
        <Sub>{strata.map((s) => s.word).join(', ')}</Sub>
      </figcaption>
    </chakra.figure>
  );
}

/** Columns on one scale, with its ends written beside them. */
export const Columns = ({ bytes, children }: { bytes: number; children: React.ReactNode }) => (
  <HStack align="flex-start" gap="3">
    <Box
      css={{ height: `${HEIGHT}px`, fontSize: '11px' }}
      display="flex"
      flexDirection="column"
      justifyContent="space-between"
      textStyle="data"
      color="fg.muted"
      textAlign="end"
      whiteSpace="nowrap"
      aria-hidden="true"
    >
      <span>{formatIec(bytes)}</span>
      <span>0</span>
    </Box>
    {children}
  </HStack>
);
