import { Box, chakra } from '@chakra-ui/react';
import { useRef, type KeyboardEvent } from 'react';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { timeAxis } from '@zb/core/box/axis';
import { formatDuration } from '@zb/core/units/duration';
import { SlideArea, useSlide } from '../ui/Drag';
import { Sub } from '../ui/Words';
import { fillOf } from './patterns';
import { useWalk } from './walk';

export interface Stint {
  what: string;
  /** Tells it from others of its name. */
  key?: string;
  /** Seconds from the beginning, and for how long. */
  from: number;
  seconds: number;
  /** Whose hands are wanted is drawn full; what waits by itself is drawn open. */
  hands: boolean;
  /** It was told when to begin. */
  pinned?: boolean;
}
export interface Row {
  title: string;
  stints: readonly Stint[];
}

/** What tells a stretch from others. */
const keyOf = ({ key, what }: Stint): string => key ?? what;

const ROW = 30;
/** A key moves a stretch by so much, and a pointer to whole ones of it, seconds. */
const STEP = 300;
/** A moment to whole steps, none before the beginning, seconds. */
const whole = (seconds: number): number => Math.max(0, Math.round(seconds / STEP) * STEP);

/** What so many pixels of a drawing so wide are in time, seconds. */
const secondsOf = (x: ScaleLinear<number, number>, pixels: number, wide: number): number =>
  x.invert((pixels / wide) * 100);

/** One stretch of the drawing; moved by hands where it can be. */
function Stretch({
  stint: s,
  name,
  x,
  wide,
  part,
  onPin,
}: {
  stint: Stint;
  name: string;
  x: ScaleLinear<number, number>;
  /** How wide the drawing is, pixels. */
  wide: () => number;
  part: ReturnType<ReturnType<typeof useWalk>['part']>;
  onPin?: (key: string, to: number | null) => void;
}) {
  const movable = onPin !== undefined && s.hands;
  const { ref, listeners, by } = useSlide(keyOf(s), !movable);
  /** Enter pins it where it is, or lets it go; Shift with an arrow moves it. */
  const onKeyDown = (e: KeyboardEvent): void => {
    const step = e.shiftKey ? { ArrowLeft: -STEP, ArrowRight: STEP }[e.key] : undefined;
    if (step !== undefined) onPin?.(keyOf(s), whole(s.from + step));
    else if (e.key === 'Enter' || e.key === ' ') onPin?.(keyOf(s), s.pinned ? null : s.from);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const from = by === 0 ? s.from : Math.max(0, s.from + secondsOf(x, by, wide()));
  return (
    <rect
      {...(movable
        ? {
            role: 'button',
            'aria-pressed': s.pinned === true,
            onKeyDown,
            ...listeners,
            style: { cursor: 'ew-resize', touchAction: 'pan-y' },
          }
        : { role: 'img' })}
      aria-label={name}
      {...part}
      ref={(node) => {
        part.ref(node);
        ref(node);
      }}
      x={`${x(from)}%`}
      width={`${x(s.seconds) - x(0)}%`}
      y="4"
      height={ROW - 8}
      fill={s.hands ? 'var(--zb-colors-fg)' : fillOf('new')}
      stroke="var(--zb-colors-fg)"
    />
  );
}

/** Several boxes and one pair of hands over time: a row for each box, a stretch for each piece of its work. */
export function ScheduleFrame({
  label,
  rows,
  tick = (s) => (s === 0 ? '0' : formatDuration(s)),
  end = null,
  onPin,
}: {
  label: string;
  rows: readonly Row[];
  /** What a moment is called, in seconds from the beginning. */
  tick?: (seconds: number) => string;
  /** The moment by which to be done. */
  end?: { at: number; word: string } | null;
  /** Stretches of hands can be moved, and so pinned, to a moment; null lets one go. */
  onPin?: (key: string, to: number | null) => void;
}) {
  const last = Math.max(1, end?.at ?? 0, ...rows.flatMap((r) => r.stints.map((s) => s.from + s.seconds)));
  // Ticks are whole steps of a clock.
  const { max, steps } = timeAxis(last);
  const x = scaleLinear().domain([0, max]).range([0, 100]);
  const ticks = Array.from({ length: steps + 1 }, (_, i) => (i * max) / steps);
  const all = rows.flatMap((r) => r.stints.map((s) => ({ r, s })));
  const walk = useWalk(all.length);
  const drawing = useRef<SVGSVGElement>(null);
  const wide = (): number => drawing.current?.getBoundingClientRect().width ?? 1;
  const slid = (key: string, pixels: number): void => {
    const stint = all.find((a) => keyOf(a.s) === key)?.s;
    if (stint) onPin?.(key, whole(stint.from + secondsOf(x, pixels, wide())));
  };
  return (
    <Box role="group" aria-label={label} onKeyDown={walk.onKeyDown}>
      <SlideArea onSlide={slid}>
        {rows.map((r, n) => (
          <Box
            key={r.title}
            display="grid"
            css={{ gridTemplateColumns: '110px minmax(0, 1fr)' }}
            alignItems="center"
          >
            <Sub truncate>{r.title}</Sub>
            <chakra.svg
              ref={n === 0 ? drawing : undefined}
              css={{ width: '100%', height: `${ROW}px`, overflow: 'visible' }}
            >
              {ticks.map((t) => (
                <line
                  key={t}
                  x1={`${x(t)}%`}
                  x2={`${x(t)}%`}
                  y1="0"
                  y2={ROW}
                  stroke="var(--zb-colors-rule)"
                />
              ))}
              {end && (
                <line
                  x1={`${x(end.at)}%`}
                  x2={`${x(end.at)}%`}
                  y1="0"
                  y2={ROW}
                  stroke="var(--zb-colors-stop)"
                  strokeWidth="2"
                />
              )}
              {r.stints.map((s) => (
                <Stretch
                  key={keyOf(s)}
                  stint={s}
                  name={`${r.title}, ${s.what}: from ${tick(s.from)}, ${formatDuration(s.seconds)}, ${s.hands ? 'your hands' : 'waits by itself'}${s.pinned ? ', pinned' : ''}`}
                  x={x}
                  wide={wide}
                  part={walk.part(all.findIndex((a) => a.s === s))}
                  onPin={onPin}
                />
              ))}
              {r.stints
                .filter((s) => s.pinned)
                .map((s) => (
                  <line
                    key={keyOf(s)}
                    x1={`${x(s.from)}%`}
                    x2={`${x(s.from)}%`}
                    y1="0"
                    y2={ROW}
                    stroke="var(--zb-colors-work)"
                    strokeWidth="4"
                  />
                ))}
            </chakra.svg>
          </Box>
        ))}
      </SlideArea>
      <Box display="grid" css={{ gridTemplateColumns: '110px minmax(0, 1fr)' }} aria-hidden="true">
        <span />
        <Box position="relative" css={{ height: '18px' }}>
          {ticks.map((t) => (
            <Sub
              key={t}
              position="absolute"
              whiteSpace="nowrap"
              css={{ insetInlineStart: `${x(t)}%`, translate: `-${x(t)}% 0` }}
            >
              {tick(t)}
            </Sub>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
