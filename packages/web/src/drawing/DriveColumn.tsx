import { Box, chakra, HStack } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { useState, type PointerEvent } from 'react';
import { formatIec } from '@zb/core/units/bytes';
import { Sub } from '../ui/Words';
import { colour, fillOf, type Pattern } from './patterns';

export interface Stratum {
  /** Of the whole column, 0 to 1, from the bottom up. */
  share: number;
  pattern: Pattern;
  word: string;
}

/** A border in a column that can be moved: by pointer and touch, and by keys as a slider. */
export interface Handle {
  key: string;
  /** Where it lies, 0 to 1 from the bottom of the column. */
  at: number;
  label: string;
  /** Its value in words. */
  says: string;
  now: number;
  least: number;
  most: number;
  step: number;
  /** What one unit of the drawing is worth. */
  perHeight: number;
  onMove: (to: number) => void;
  /** It is let go, or a key moved it. */
  onSet: (to: number) => void;
}

const HEIGHT = 150;
const WIDTH = 72;
const NARROW = 56;

/** Keys of a slider (WAI-ARIA Authoring Practices, “Slider”), in steps. */
const STEPS: Record<string, number> = {
  ArrowDown: 1,
  ArrowRight: 1,
  ArrowUp: -1,
  ArrowLeft: -1,
  PageDown: 10,
  PageUp: -10,
};

/** The border itself: a line wide enough for a finger. `whole`: the height of the drawing it lies in. */
export function Grip({
  handle: h,
  y,
  height,
  width = WIDTH,
  whole = HEIGHT,
}: {
  handle: Handle;
  y: number;
  height: number;
  width?: number;
  whole?: number;
}) {
  const [from, setFrom] = useState<{ y: number; value: number } | null>(null);
  const within = (value: number): number => Math.min(h.most, Math.max(h.least, value));
  const at = (e: PointerEvent<SVGGElement>): number => {
    const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect();
    const scale = box ? box.height / (whole + 2) : 1;
    return from ? within(from.value + ((e.clientY - from.y) / scale / height) * h.perHeight) : h.now;
  };
  return (
    <chakra.g
      role="slider"
      tabIndex={0}
      aria-label={h.label}
      aria-orientation="vertical"
      aria-valuenow={h.now}
      aria-valuemin={h.least}
      aria-valuemax={h.most}
      aria-valuetext={h.says}
      css={{
        cursor: 'ns-resize',
        touchAction: 'none',
        _focusVisible: { outline: '2px solid {colors.work}' },
      }}
      onKeyDown={(e) => {
        const steps = STEPS[e.key];
        const to =
          e.key === 'Home' ? h.least : e.key === 'End' ? h.most : steps && within(h.now + steps * h.step);
        if (to === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        h.onSet(to);
      }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setFrom({ y: e.clientY, value: h.now });
      }}
      onPointerMove={(e) => from && h.onMove(at(e))}
      onPointerUp={(e) => {
        if (!from) return;
        h.onSet(at(e));
        setFrom(null);
      }}
      onPointerCancel={() => {
        if (from) h.onSet(from.value);
        setFrom(null);
      }}
    >
      <rect x="0" y={y - 7} width={width} height="14" fill="transparent" />
      <rect x={width / 2 - 11} y={y - 3} width="22" height="6" fill={colour('bg')} stroke={colour('work')} />
      <path d={`M0 ${y}H${width}`} stroke={colour('work')} strokeWidth="1.5" />
    </chakra.g>
  );
}

/** A drive, a stick or a card as a vertical column of strata; what becomes of each is told by its pattern and its word. */
export function DriveColumn({
  title,
  strata,
  tall = 1,
  outside = false,
  handles = [],
  says,
  narrow = false,
}: {
  title: string;
  strata: readonly Stratum[];
  /** Of the scale beside it, 0 to 1. */
  tall?: number;
  /** It lies beside the machine. */
  outside?: boolean;
  handles?: readonly Handle[];
  /** What stands under it, where a legend names its strata for all columns together. */
  says?: string;
  /** Many stand side by side. */
  narrow?: boolean;
}) {
  const y = scaleLinear()
    .domain([0, 1])
    .range([HEIGHT, HEIGHT * (1 - tall)]);
  const tops = strata.map((_, i) => strata.slice(0, i + 1).reduce((sum, s) => sum + s.share, 0));
  return (
    <chakra.figure
      flexShrink="0"
      css={{ width: `${narrow ? NARROW : WIDTH}px`, fontSize: '12px' }}
      textAlign="center"
    >
      <chakra.svg
        {...(handles.length > 0 ? { role: 'group' } : { role: 'img' })}
        aria-label={`${title}: ${strata.map((s) => s.word).join(', ')}`}
        viewBox={`-1 -1 ${(narrow ? NARROW : WIDTH) + 2} ${HEIGHT + 2}`}
        css={{ width: '100%', display: 'block' }}
      >
        {strata.map((s, i) => {
          const top = y(tops[i] ?? 1);
          return (
            <rect
              key={s.word}
              x="0"
              width={narrow ? NARROW : WIDTH}
              y={top}
              height={y((tops[i] ?? 1) - s.share) - top}
              fill={fillOf(s.pattern)}
              stroke="var(--zb-colors-fg)"
              strokeDasharray={outside ? '3 2' : undefined}
            />
          );
        })}
        {handles.map((h) => (
          <Grip key={h.key} handle={h} y={y(h.at)} height={HEIGHT * tall} />
        ))}
      </chakra.svg>
      <figcaption>
        <b>{title}</b>
        <Sub>{says ?? strata.map((s) => s.word).join(', ')}</Sub>
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
