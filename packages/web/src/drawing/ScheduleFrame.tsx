import { Box, chakra } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { formatDuration } from '@zb/core/units/duration';
import { Sub } from '../ui/Words';
import { fillOf, type Pattern } from './patterns';
import { useWalk } from './walk';

export interface Stint {
  what: string;
  /** Seconds from the beginning, and for how long. */
  from: number;
  seconds: number;
  /** Whose hands are wanted is drawn full; what waits by itself is drawn open. */
  hands: boolean;
}
export interface Row {
  title: string;
  stints: readonly Stint[];
}

const ROW = 30;
const patternOf = (s: Stint): Pattern => (s.hands ? 'code' : 'gap');

/** Several boxes and one pair of hands over time: a row for each box, a stretch for each piece of its work. */
export function ScheduleFrame({ label, rows }: { label: string; rows: readonly Row[] }) {
  const end = Math.max(1, ...rows.flatMap((r) => r.stints.map((s) => s.from + s.seconds)));
  const x = scaleLinear().domain([0, end]).nice().range([0, 100]);
  const all = rows.flatMap((r) => r.stints.map((s) => ({ r, s })));
  const walk = useWalk(all.length);
  return (
    <Box role="group" aria-label={label} onKeyDown={walk.onKeyDown}>
      {rows.map((r) => (
        <Box
          key={r.title}
          display="grid"
          css={{ gridTemplateColumns: '110px minmax(0, 1fr)' }}
          alignItems="center"
        >
          <Sub truncate>{r.title}</Sub>
          <chakra.svg css={{ width: '100%', height: `${ROW}px`, overflow: 'visible' }}>
            {x.ticks(6).map((t) => (
              <line key={t} x1={`${x(t)}%`} x2={`${x(t)}%`} y1="0" y2={ROW} stroke="var(--zb-colors-rule)" />
            ))}
            {r.stints.map((s) => (
              <rect
                key={s.what}
                role="img"
                aria-label={`${r.title}, ${s.what}: from ${formatDuration(s.from)}, ${formatDuration(s.seconds)}, ${s.hands ? 'your hands' : 'waits by itself'}`}
                {...walk.part(all.findIndex((a) => a.s === s))}
                x={`${x(s.from)}%`}
                width={`${x(s.seconds) - x(0)}%`}
                y="4"
                height={ROW - 8}
                fill={fillOf(patternOf(s))}
                stroke="var(--zb-colors-fg)"
              />
            ))}
          </chakra.svg>
        </Box>
      ))}
      <Box display="grid" css={{ gridTemplateColumns: '110px minmax(0, 1fr)' }} aria-hidden="true">
        <span />
        <Box position="relative" css={{ height: '18px' }}>
          {x.ticks(6).map((t) => (
            <Sub
              key={t}
              position="absolute"
              whiteSpace="nowrap"
              css={{ insetInlineStart: `${x(t)}%`, translate: `-${x(t)}% 0` }}
            >
              {t === 0 ? '0' : formatDuration(t)}
            </Sub>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
