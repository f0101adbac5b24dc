import { chakra } from '@chakra-ui/react';
import { scaleLog } from 'd3-scale';
import { formatDuration, type Span } from '@zb/core/units/duration';
import { colour, fillOf } from './patterns';

/** Moments a person counts in, seconds. */
const TICKS = [10, 60, 600, 3600, 36_000];
const HEIGHT = 20;

const scaleIn = ({ low, high }: Span) =>
  scaleLog()
    .domain([Math.max(1, low * 0.8), high * 1.25])
    .range([0, 100]);
const ticksIn = ({ low, high }: Span): number[] => TICKS.filter((t) => t > low && t < high);

/** The moments that stand as lines in the bars under it. */
export const TimeTicks = ({ within }: { within: Span }) => (
  <chakra.svg
    aria-hidden="true"
    css={{ width: '100%', height: '16px', display: 'block', overflow: 'visible' }}
  >
    {ticksIn(within).map((t) => (
      <text
        key={t}
        x={`${scaleIn(within)(t)}%`}
        y="12"
        textAnchor="middle"
        fontSize="12"
        fill={colour('fg-muted')}
      >
        {formatDuration(t)}
      </text>
    ))}
  </chakra.svg>
);

/** A time beside what was foretold of it: the range ruled, the middle of it a line, what it took a dot. Seconds, by their logarithm. */
export function TimeBar({
  range,
  median,
  took,
  within,
  words,
}: {
  range: Span;
  median: number;
  took: number;
  /** The shortest and longest that is drawn beside it. */
  within: Span;
  /** What is seen, for those who hear the page. */
  words: string;
}) {
  const x = scaleIn(within);
  const at = (s: number): string => `${x(Math.max(1, s))}%`;
  const inside = took >= range.low && took <= range.high;
  return (
    <chakra.svg
      role="img"
      aria-label={words}
      css={{ width: '100%', height: `${HEIGHT}px`, display: 'block' }}
    >
      {ticksIn(within).map((t) => (
        <line key={t} x1={at(t)} x2={at(t)} y1="0" y2={HEIGHT} stroke={colour('rule')} />
      ))}
      <rect
        x={at(range.low)}
        width={`${x(range.high) - x(range.low)}%`}
        y="4"
        height={HEIGHT - 8}
        fill={fillOf('new')}
        stroke={colour('work')}
      />
      <line x1={at(median)} x2={at(median)} y1="4" y2={HEIGHT - 4} stroke={colour('work')} strokeWidth="2" />
      <circle
        cx={at(took)}
        cy={HEIGHT / 2}
        r="4.5"
        fill={inside ? colour('fg') : colour('bg')}
        stroke={inside ? colour('fg') : colour('check')}
        strokeWidth="2"
      />
    </chakra.svg>
  );
}
