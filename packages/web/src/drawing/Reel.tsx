import { Box, chakra, List } from '@chakra-ui/react';
import { Sub } from '../ui/Words';
import { colour, fillOf, type Pattern } from './patterns';
import { useWalk } from './walk';

/** How a drive looks in a frame: what lies on it by its pattern, what happens to it by its outline. */
export interface ReelDrive {
  name: string;
  /** Of the largest, 0 to 1. */
  tall: number;
  pattern: Pattern;
  outline: 'plain' | 'away' | 'taken' | 'starts' | 'lost';
  /** What it looks like, in a word. */
  word: string;
}

/** A state of the reel. */
export interface ReelFrame {
  title: string;
  /** What happened from the frame before to this one. */
  because: string;
  drives: readonly ReelDrive[];
  grade?: 'lost' | 'again' | 'right';
}

const HEIGHT = 104;
const WIDTH = 36;
const GAP = 10;
const OUTLINE: Record<ReelDrive['outline'], { stroke: string; width: number; dash?: string }> = {
  plain: { stroke: colour('fg'), width: 1 },
  away: { stroke: colour('fg-muted'), width: 1, dash: '2 3' },
  taken: { stroke: colour('check'), width: 3 },
  starts: { stroke: colour('work'), width: 3 },
  lost: { stroke: colour('stop'), width: 2 },
};

/** So many letters go under a column. */
const LETTERS = 6;
/** A name in two short lines. */
function twoLines(name: string): string[] {
  const [first = '', ...rest] = name.split(' ');
  // The end of a name is what tells two alike apart.
  const short = (t: string): string => (t.length > LETTERS ? `${t.slice(0, LETTERS - 2)}…${t.slice(-1)}` : t);
  return [short(first), short(rest.join(' '))];
}

function Drives({ drives }: { drives: readonly ReelDrive[] }) {
  const wide = drives.length * (WIDTH + GAP);
  return (
    <chakra.svg
      role="img"
      aria-label={drives.map((d) => `${d.name}: ${d.word}`).join(', ')}
      viewBox={`-2 -2 ${wide + 4} ${HEIGHT + 28}`}
      css={{ height: `${HEIGHT + 32}px`, maxWidth: '100%', display: 'block' }}
    >
      {drives.map((d, i) => {
        const tall = Math.max(0.25, d.tall) * HEIGHT;
        const { stroke, width, dash } = OUTLINE[d.outline];
        return (
          <g key={d.name} transform={`translate(${i * (WIDTH + GAP)} 0)`}>
            <rect
              x="0"
              y={HEIGHT - tall}
              width={WIDTH}
              height={tall}
              fill={d.outline === 'away' ? 'none' : fillOf(d.pattern)}
              stroke={stroke}
              strokeWidth={width}
              {...(dash === undefined ? {} : { strokeDasharray: dash })}
            />
            <chakra.text
              textAnchor="middle"
              css={{
                fontSize: '10px',
                fontFamily: '{fonts.mono}',
                fill: d.outline === 'away' ? '{colors.fg.muted}' : '{colors.fg}',
              }}
            >
              {twoLines(d.name).map((line, n) => (
                <tspan key={n} x={WIDTH / 2} y={HEIGHT + 12 + 11 * n}>
                  {line}
                </tspan>
              ))}
            </chakra.text>
          </g>
        );
      })}
    </chakra.svg>
  );
}

/** A strip of states, one after another, with what led from each to the next. Arrow keys wind it. */
export function Reel({ label, frames }: { label: string; frames: readonly ReelFrame[] }) {
  const walk = useWalk(frames.length);
  return (
    <List.Root
      as="ol"
      aria-label={label}
      onKeyDown={walk.onKeyDown}
      border="firm"
      css={{
        display: 'flex',
        overflowX: 'auto',
        '& > li': {
          flex: '1 0 118px',
          display: 'flex',
          flexDirection: 'column',
          justifyContent: 'space-between',
          gap: '6px',
          padding: '8px 10px',
          borderInlineEnd: '1px solid {colors.rule.strong}',
        },
        '& > li:last-of-type': { borderInlineEnd: 'none' },
        '& > li[data-grade=lost]': { background: '{colors.stop.wash}' },
        '& > li:focus-visible': { outline: '2px solid {colors.work}', outlineOffset: '-2px' },
      }}
    >
      {frames.map((f, i) => (
        <List.Item key={`${i} ${f.title}`} data-grade={f.grade ?? ''} {...walk.part(i)}>
          <Box>
            <chakra.b color={f.grade === 'lost' ? 'stop' : 'fg'}>
              {i + 1} {f.title}
            </chakra.b>
            <Sub>{f.because}</Sub>
          </Box>
          <Drives drives={f.drives} />
        </List.Item>
      ))}
    </List.Root>
  );
}
