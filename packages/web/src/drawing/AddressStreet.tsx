import { Box, chakra, Grid } from '@chakra-ui/react';
import { scaleLog } from 'd3-scale';
import { Fragment } from 'react';
import { Data, Sub } from '../ui/Words';
import { colour, fillOf, type Pattern } from './patterns';
import { useWalk } from './walk';

/** Some addresses in a row that are alike. */
export interface Plot {
  key: string;
  /** The first of them, short, such as “.11”. */
  from: string;
  /** How many there are. */
  count: number;
  pattern: Pattern;
  title: string;
  words: string;
  /** The one this sheet is about. */
  here?: boolean;
  /** Something is wrong with it. */
  wrong?: boolean;
  /** It can be taken: somebody lives there. */
  taken?: boolean;
}

const LEAST = 26;
const MOST = 72;

/**
 * A network as a street seen from above: its addresses from the first to the last, who lives where and what is kept for whom.
 * Long stretches are drawn longer, by the logarithm of their count.
 */
export function AddressStreet({
  label,
  plots,
  onTake,
}: {
  label: string;
  plots: readonly Plot[];
  /** A plot is taken by a click or by Enter. */
  onTake?: (key: string) => void;
}) {
  const walk = useWalk(plots.length);
  const high = scaleLog()
    .domain([1, Math.max(2, ...plots.map((p) => p.count))])
    .range([LEAST, MOST])
    .clamp(true);
  return (
    <Grid
      role="group"
      aria-label={label}
      onKeyDown={walk.onKeyDown}
      columnGap="2.5"
      css={{ gridTemplateColumns: 'max-content 40px minmax(0, 1fr)' }}
    >
      {plots.map((p, i) => {
        const tall = p.count === 1 ? LEAST + (p.words === '' ? 0 : 8) : high(p.count);
        return (
          <Fragment key={p.key}>
            <Data
              textAlign="end"
              color="fg.muted"
              aria-hidden="true"
              css={{ fontSize: '12px', marginTop: '-3px' }}
            >
              {p.from}
            </Data>
            <Box position="relative" css={{ minHeight: `${tall}px` }}>
              <chakra.svg
                role={onTake && p.taken ? 'button' : 'img'}
                aria-label={`${p.from} ${p.title} ${p.words}`.trim()}
                {...walk.part(i)}
                onClick={() => p.taken && onTake?.(p.key)}
                onKeyDown={(e) => {
                  if (e.key === 'Enter' && p.taken) onTake?.(p.key);
                }}
                position="absolute"
                css={{
                  inset: 0,
                  width: '40px',
                  height: '100%',
                  ...(onTake && p.taken ? { cursor: 'pointer' } : {}),
                }}
              >
                <rect
                  x="0.5"
                  y="0"
                  width="39"
                  height="100%"
                  fill={fillOf(p.pattern)}
                  stroke={colour(p.here ? 'work' : 'fg')}
                  strokeWidth={p.here ? 4 : 1}
                />
              </chakra.svg>
            </Box>
            <Box
              css={{ fontSize: '13px', lineHeight: 1.25, paddingBottom: '4px' }}
              minWidth="0"
              overflowWrap="anywhere"
            >
              <chakra.b fontWeight={p.title === '' ? 'normal' : 'strong'} color={p.here ? 'work' : 'fg'}>
                {p.title}
              </chakra.b>
              <Sub {...(p.wrong ? { color: 'check' } : {})}>{p.words}</Sub>
            </Box>
          </Fragment>
        );
      })}
    </Grid>
  );
}
