import { Box, chakra } from '@chakra-ui/react';
import { scaleLinear } from 'd3-scale';
import { loaderFaultWords } from '@zb/core/words/start';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { ImageReading, ImageRegion } from '@zb/core/model/inspection';
import { readableHeights } from '@zb/core/image/heights';
import { hexLines, loadersIn, type LoaderMark } from '@zb/core/image/section';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { Ruled, Line, LineHead, Cell } from '../ui/Ruled';
import { Data, Soft, Sub } from '../ui/Words';
import { fillOf } from './patterns';
import { useWalk } from './walk';

/** Pixels that headline, foot and route take beside the section. */
const ROOM_BESIDE = 430;
const onResize = (tell: () => void): (() => void) => {
  window.addEventListener('resize', tell);
  return () => window.removeEventListener('resize', tell);
};
const place = (bytes: number): string => (bytes === 0 ? '0' : bytes < 1024 ? `${bytes} B` : formatIec(bytes));

function LoaderLine({ mark }: { mark: LoaderMark }) {
  const { loader, secure } = mark;
  return (
    <Sub>
      <Data>{loader.path}</Data> {loader.machine ?? 'not a loader'},{' '}
      {loader.fault ? loaderFaultWords(loader.fault) : loader.signed ? 'signed' : 'not signed'}
      {secure && ` · Secure Boot ${secure}`}
    </Sub>
  );
}

/** What a stretch holds, field by field, and its first bytes. */
function Stretch({ region }: { region: ImageRegion }) {
  const box = useRef<HTMLDivElement>(null);
  // It opens below a tall picture, so it is brought into view.
  useEffect(() => box.current?.scrollIntoView({ block: 'nearest' }), []);
  return (
    <Box
      ref={box}
      role="region"
      aria-label={`Fields and bytes of ${region.title}`}
      gridColumn="1 / -1"
      css={{ borderInlineStart: '2px solid {colors.work}', fontSize: '11.5px' }}
      paddingLeft="2"
      marginTop="2.5"
    >
      <p>
        <b>{region.title}</b>, {formatExact(region.start)} to {formatExact(region.start + region.bytes)}
      </p>
      {region.fields.length > 0 && (
        <Ruled dense label={`Fields of ${region.title}`}>
          {region.fields.map((f) => (
            <Line key={`${f.offset} ${f.name}`}>
              <LineHead fontWeight="normal" color="fg.muted">
                {f.name}
              </LineHead>
              <Cell title={`byte ${f.offset}`} overflowWrap="anywhere">
                {f.value}
              </Cell>
            </Line>
          ))}
        </Ruled>
      )}
      {region.hex !== '' && (
        <chakra.pre
          aria-label={`First bytes of ${region.title}`}
          textStyle="data"
          overflow="auto"
          css={{ fontSize: '10px', lineHeight: 1.35 }}
          marginTop="1"
        >
          {hexLines(region.hex, region.start)
            .map((l) => `${l.offset.toString(16).padStart(8, '0')}  ${l.hex.padEnd(23)}  ${l.text}`)
            .join('\n')}
        </chakra.pre>
      )}
    </Box>
  );
}

const ink = 'var(--zb-colors-fg)';
const blue = 'var(--zb-colors-work)';

/** The slim strip at the side: every part where it stands, true to its bytes. */
function Strip({ regions, at }: { regions: readonly ImageRegion[]; at: number }) {
  const end = Math.max(1, ...regions.map((r) => r.start + r.bytes));
  const y = scaleLinear().domain([0, end]).range([0, 100]);
  return (
    <chakra.svg aria-hidden="true" css={{ width: '12px', height: '100%', overflow: 'visible' }}>
      <title>True to scale</title>
      {regions.map((r, i) => (
        <g key={r.start}>
          <rect
            x="0.5"
            width="11"
            y={`${y(r.start)}%`}
            height={`${Math.max(0.15, y(r.bytes))}%`}
            fill={fillOf(r.kind)}
            stroke={i === at ? blue : ink}
            strokeWidth={i === at ? 2 : 1}
          />
          {r.starts && <rect width="3" y={`${y(r.start)}%`} height={`${y(r.bytes)}%`} fill={blue} />}
        </g>
      ))}
    </chakra.svg>
  );
}

/** One part of the section, with the loaders that live in it as lines where they stand. */
const Part = ({ region, marks, here }: { region: ImageRegion; marks: LoaderMark[]; here: boolean }) => (
  <chakra.svg
    aria-hidden="true"
    position="absolute"
    inset="0"
    css={{ width: '100%', height: '100%', overflow: 'visible' }}
  >
    <rect
      width="100%"
      height="100%"
      fill={fillOf(region.kind)}
      stroke={here ? blue : ink}
      strokeWidth={here ? 2 : 1}
    />
    {region.starts && <rect width="5" height="100%" fill={blue} />}
    {marks.map((m) => (
      <line
        key={m.loader.path}
        x1="-7"
        x2="77"
        y1={`${m.at * 100}%`}
        y2={`${m.at * 100}%`}
        stroke={blue}
        strokeWidth="2"
      >
        <title>{m.loader.path}</title>
      </line>
    ))}
  </chakra.svg>
);

/**
 * The image as a tall section with its parts by offset: a slim strip on the true scale, and beside it the same on a
 * scale that can be read. Arrow keys walk from part to part; Enter opens a part's fields and bytes.
 */
export function Anatomy({ reading }: { reading: ImageReading }) {
  const { regions } = reading;
  // A tall screen gets a tall section: the picture is the point of the sheet.
  const height = useSyncExternalStore(onResize, () => Math.max(384, window.innerHeight - ROOM_BESIDE));
  const [open, setOpen] = useState<number | null>(null);
  const walk = useWalk(regions.length);
  const heights = readableHeights(regions, height);
  const end = regions[regions.length - 1];
  const shown = open === null ? undefined : regions[open];
  return (
    <Box display="grid" css={{ gridTemplateColumns: '12px minmax(0, 1fr)', columnGap: '2px' }}>
      <Strip regions={regions} at={walk.at} />
      <Box
        role="list"
        aria-label="Parts of the image by offset"
        onKeyDown={walk.onKeyDown}
        css={{
          display: 'grid',
          gridTemplateColumns: '68px 70px minmax(0, 1fr)',
          fontSize: '12.5px',
          '& [data-offset]': {
            textStyle: 'data',
            fontSize: '11.5px',
            color: 'fg.muted',
            textAlign: 'end',
            paddingInlineEnd: '8px',
            transform: 'translateY(-8px)',
            whiteSpace: 'nowrap',
          },
          '& [data-label]': { padding: '2px 0 3px 10px', lineHeight: 1.22, overflowWrap: 'anywhere' },
          '& button': {
            display: 'block',
            width: '100%',
            minHeight: '24px',
            textAlign: 'start',
            cursor: 'pointer',
            font: 'inherit',
            color: 'inherit',
          },
        }}
      >
        {regions.map((r, i) => {
          const marks = loadersIn(reading, r);
          return (
            <Box key={r.start} role="listitem" display="contents">
              <div data-offset="">{place(r.start)}</div>
              <Box position="relative" css={{ minHeight: `${heights[i]}px` }}>
                <Part region={r} marks={marks} here={i === walk.at} />
              </Box>
              <div data-label="">
                <chakra.button
                  type="button"
                  {...walk.part(i)}
                  aria-expanded={open === i}
                  onClick={() => setOpen(open === i ? null : i)}
                >
                  <b>{r.title}</b> <Soft textStyle="data">{formatIec(r.bytes)}</Soft>
                  <Sub>{r.detail}</Sub>
                </chakra.button>
                {marks.slice(0, 3).map((m) => (
                  <LoaderLine key={m.loader.path} mark={m} />
                ))}
                {marks.length > 3 && <Sub>and {marks.length - 3} more loaders</Sub>}
              </div>
            </Box>
          );
        })}
        <div data-offset="">{end ? formatIec(end.start + end.bytes) : ''}</div>
      </Box>
      {shown && <Stretch key={shown.start} region={shown} />}
      <Sub gridColumn="1 / -1" marginTop="2">
        Slim strip: true to scale. Beside it the same, so that it can be read. ↑ ↓ walk, Enter opens.
      </Sub>
    </Box>
  );
}
