import { Box, chakra } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { Sub } from '../ui/Words';
import { Grip, type Handle } from './DriveColumn';
import { colour, fillOf, type Pattern } from './patterns';

const HEIGHT = 250;
const WIDTH = 64;
const WHOLE = 216;
/** Names that stand closer than this run into each other. */
const LINE = 14;

/** One layer of a pot, from the bottom up. */
export interface Layer {
  key: string;
  amount: number;
  pattern: Pattern;
  name: string;
  says: string;
  /** Its upper border can be moved. */
  handle?: Omit<Handle, 'key' | 'at' | 'perHeight'>;
}

/** Heights of names, pushed apart where they would run into each other, within the drawing. */
function apart(wanted: readonly number[]): number[] {
  const out = [...wanted];
  for (let i = 1; i < out.length; i += 1) out[i] = Math.min(out[i] ?? 0, (out[i - 1] ?? 0) - LINE);
  const over = 10 - Math.min(10, ...out);
  if (over > 0)
    for (let i = out.length - 1; i >= 0; i -= 1) {
      const least = 10 + (out.length - 1 - i) * LINE;
      out[i] = Math.max(out[i] ?? 0, least);
    }
  return out;
}

/** What is shared, as one column: the host’s own part, then its guests; above the line lies what is not there. */
export function PotColumn({
  title,
  has,
  hasSays,
  layers,
  under,
  shared = false,
}: {
  title: string;
  has: number;
  hasSays: string;
  layers: readonly Layer[];
  under: string;
  /** More may be given away than there is: each has its turn. */
  shared?: boolean;
}) {
  const sum = layers.reduce((s, l) => s + l.amount, 0);
  const top = Math.max(sum, has, 1) * (sum > has ? 1.02 : 1);
  const y = scaleLinear().domain([0, top]).range([HEIGHT, 0]);
  const ends = layers.map((_, i) => layers.slice(0, i + 1).reduce((s, l) => s + l.amount, 0));
  const middles = apart(layers.map((l, i) => y((ends[i] ?? 0) - l.amount / 2) + 4));
  const line = y(has);
  return (
    <chakra.figure flexShrink="0" css={{ width: `${WHOLE}px`, fontSize: '12px' }} margin="0">
      <chakra.svg
        role="group"
        aria-label={`${title}: ${layers.map((l) => `${l.name} ${l.says}`).join(', ')}`}
        viewBox={`-1 -1 ${WHOLE} ${HEIGHT + 2}`}
        css={{ width: '100%', display: 'block', '& text': { font: 'inherit', fill: 'currentColor' } }}
      >
        <rect
          x="0"
          y={line}
          width={WIDTH}
          height={HEIGHT - line}
          fill="none"
          stroke={colour('rule-strong')}
        />
        {layers.map((l, i) => {
          const from = y(ends[i] ?? 0);
          const to = y((ends[i] ?? 0) - l.amount);
          const above = shared ? 0 : Math.max(0, line - from);
          return (
            <g key={l.key}>
              <rect
                x="0"
                y={from}
                width={WIDTH}
                height={to - from}
                fill={fillOf(l.pattern)}
                stroke={colour('fg')}
              />
              {above > 0 && (
                <rect
                  x="0"
                  y={from}
                  width={WIDTH}
                  height={Math.min(above, to - from)}
                  fill={fillOf('beyond')}
                  stroke={colour('stop')}
                />
              )}
              <path
                d={`M${WIDTH} ${(from + to) / 2} L${WIDTH + 8} ${(middles[i] ?? 0) - 4}`}
                stroke={colour('rule-strong')}
                fill="none"
              />
              <text x={WIDTH + 11} y={middles[i] ?? 0} fontSize="12">
                {l.name.length > 13 ? `${l.name.slice(0, 12)}…` : l.name}
              </text>
              <text x={WHOLE - 2} y={middles[i] ?? 0} fontSize="12" textAnchor="end">
                {l.says}
              </text>
            </g>
          );
        })}
        {sum > has && (
          <path d={`M-1 ${line}H${WIDTH + 6}`} stroke={colour(shared ? 'fg' : 'stop')} strokeWidth="2" />
        )}
        {layers.map(
          (l, i) =>
            l.handle && (
              <Grip
                key={l.key}
                handle={{ ...l.handle, key: l.key, at: (ends[i] ?? 0) / top, perHeight: -top }}
                y={y(ends[i] ?? 0)}
                height={HEIGHT}
                whole={HEIGHT}
                width={WIDTH}
              />
            ),
        )}
      </chakra.svg>
      <figcaption>
        <b>{title}</b>, {hasSays}
        <Sub>{under}</Sub>
      </figcaption>
    </chakra.figure>
  );
}

/** Columns side by side; where there is no room they are gone through sideways. */
export const PotRow = ({ children }: { children: React.ReactNode }) => (
  <Box
    display="flex"
    gap="5"
    overflowX="auto"
    tabIndex={0}
    role="group"
    aria-label="What is shared"
    alignItems="flex-start"
  >
    {children}
  </Box>
);
