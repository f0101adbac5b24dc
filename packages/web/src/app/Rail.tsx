import { Box, chakra, Heading, HStack } from '@chakra-ui/react';
import { Keyboard, Monitor, Moon, Search, Sun, Undo2 } from 'lucide-react';
import { memo, useDeferredValue } from 'react';
import { Link, NavLink, useParams } from 'react-router';
import type { Bench } from '@zb/core/model/bench';
import { boxLine, currentStop, route } from '@zb/core/box/summary';
import { useSeenRows } from '../parts/useSeenRows';
import { IconButton } from '../ui/IconButton';
import { To } from '../ui/To';
import { Data } from '../ui/Words';
import { AREAS } from './areas';
import type { ThemeChoice } from './colour';

const Ticks = ({ bench, box }: { bench: Bench; box: Bench['boxes'][number] }) => {
  const stops = route(bench, box);
  const signed = stops.filter((s) => s.state === 'signed').length;
  return (
    <span
      data-ticks=""
      role="img"
      aria-label={`${signed} of 12 stops signed off${stops.some((s) => s.hazard) ? ', with a Stop hazard' : ''}`}
    >
      {stops.map((s) => (
        <i key={s.stop} data-is={s.hazard ? 'hazard' : s.state} />
      ))}
    </span>
  );
};

/** The boxes of the rail; of very many only those that are seen are drawn. */
const RailBoxes = memo(function RailBoxes({ bench, boxId }: { bench: Bench; boxId: string | undefined }) {
  const { holder, measure, seen, before, after } = useSeenRows(bench.boxes.length, 57);
  return (
    <Box ref={holder} display="contents">
      <Box flexShrink="0" css={{ height: `${before}px` }} hidden={before === 0} />
      {seen.map((at) => {
        const box = bench.boxes[at];
        return (
          box && (
            <Link
              key={box.id}
              ref={measure}
              data-index={at}
              to={`/box/${box.id}/${currentStop(box)}`}
              aria-current={box.id === boxId ? 'page' : undefined}
              title={box.name}
            >
              <b>{box.name}</b>
              <span data-on="">{boxLine(bench, box)}</span>
              <Ticks bench={bench} box={box} />
            </Link>
          )
        );
      })}
      <Box flexShrink="0" css={{ height: `${after}px` }} hidden={after === 0} />
    </Box>
  );
});

const cut = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;
const AREA_LOOK = {
  '& a': {
    minHeight: { base: '44px', lg: '27px' },
    display: 'flex',
    justifyContent: 'space-between',
    alignItems: 'center',
    padding: '2px 8px 2px 10px',
    marginInlineStart: '-10px',
    borderInlineStart: '3px solid transparent',
  },
  '& a[aria-current=page]': { borderColor: 'fg', fontWeight: 'strong', bg: 'bg.margin' },
  '& a:hover': { bg: 'bg.margin' },
};
const BOX_LOOK = {
  '& a': {
    display: 'block',
    padding: '5px 8px 6px 10px',
    marginInlineStart: '-10px',
    borderInlineStart: '3px solid transparent',
  },
  '& a:hover': { bg: 'bg.margin' },
  '& a[aria-current=page]': { bg: 'bg', borderColor: 'fg' },
  '& a b': { display: 'block', lineHeight: 1.2, ...cut },
  '& [data-on]': { display: 'block', fontSize: '12px', color: 'fg.muted', ...cut },
  '& [data-ticks]': { display: 'grid', gridTemplateColumns: 'repeat(12, 1fr)', gap: '2px', marginTop: '4px' },
  '& i': { height: '6px', border: '1px solid {colors.rule.strong}', forcedColorAdjust: 'none' },
  '& i[data-is=signed]': { bg: 'fg', borderColor: 'fg' },
  '& i[data-is=current]': { border: '2px solid {colors.fg}' },
  '& i[data-is=hazard]': { bg: 'stop', borderColor: 'stop' },
};

const THEME = {
  system: { word: 'Theme as the device has it; change to light', icon: <Monitor /> },
  light: { word: 'Light theme; change to dark', icon: <Sun /> },
  dark: { word: 'Dark theme; change to the device’s', icon: <Moon /> },
};

/** Areas of the bench, its boxes with their twelve ticks, and what is always at hand. */
export function Rail({
  bench,
  onHelp,
  onFind,
  onUndo,
  onTheme,
  theme,
}: {
  bench: Bench;
  onHelp: () => void;
  onFind: () => void;
  onUndo: () => void;
  onTheme: () => void;
  theme: ThemeChoice;
}) {
  const { boxId } = useParams();
  // What was done is on the screen first; the boxes of the rail are judged again after it.
  const later = useDeferredValue(bench);
  return (
    <chakra.nav
      aria-label="Bench"
      display="flex"
      flexDirection="column"
      gap="3"
      minHeight="0"
      height="full"
      overflow="hidden"
      _print={{ display: 'none' }}
      css={{ padding: { base: '0 0 0 10px', lg: '14px 12px 10px 16px' } }}
    >
      <Box>
        <HStack asChild gap="2" minHeight="target" css={{ fontWeight: 760, fontSize: '17px' }}>
          <Link to="/">
            <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
              <path d="M2 6.5 11 2l9 4.5v9L11 20l-9-4.5z" fill="none" stroke="currentColor" strokeWidth="2" />
              <path d="M6.5 9.2h8.2l-7.4 5h8.4" fill="none" stroke="currentColor" strokeWidth="2" />
            </svg>
            Zealous Box
          </Link>
        </HStack>
        <To
          to="/bench"
          variant="plain"
          title={`${bench.name}: name, save and open the bench`}
          display="block"
          truncate
          color="fg.muted"
          css={{ lineHeight: '24px', fontSize: '12.5px', paddingInlineStart: '30px' }}
        >
          {bench.name}
        </To>
      </Box>
      <chakra.ul listStyle="none" css={AREA_LOOK}>
        {AREAS.map((a) => (
          <li key={a.path}>
            <NavLink to={a.path} end={a.path === '/'}>
              {a.title}
              <Data aria-hidden="true" hideBelow="lg" color="fg.muted">
                {a.key.toUpperCase()}
              </Data>
            </NavLink>
          </li>
        ))}
      </chakra.ul>
      <HStack justify="space-between" align="baseline">
        <Heading as="h2" textStyle="label">
          Boxes
        </Heading>
        <To to="/box/new" css={{ fontSize: '12px', lineHeight: '24px' }}>
          New box
        </To>
      </HStack>
      <Box
        display="flex"
        flexDirection="column"
        gap="0.5"
        minHeight="0"
        flex="1"
        overflowY="auto"
        css={{ ...BOX_LOOK, marginInlineStart: '-10px', paddingInlineStart: '10px' }}
      >
        {bench.boxes.length === 0 && (
          <Box as="span" color="fg.muted">
            None yet.
          </Box>
        )}
        <RailBoxes bench={later} boxId={boxId} />
      </Box>
      <HStack gap="1.5" borderTop="firm" paddingTop="2" flexShrink="0">
        <IconButton word="Undo the last act" keys="Ctrl Z" icon={<Undo2 />} onClick={onUndo} />
        <IconButton word="Find anything" keys="/" icon={<Search />} onClick={onFind} />
        <IconButton word="Keys on this screen" keys="?" icon={<Keyboard />} onClick={onHelp} />
        <IconButton word={THEME[theme].word} icon={THEME[theme].icon} onClick={onTheme} />
      </HStack>
    </chakra.nav>
  );
}
