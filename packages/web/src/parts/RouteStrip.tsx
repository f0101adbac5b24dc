import { Box, chakra } from '@chakra-ui/react';
import { NavLink } from 'react-router';
import type { Bench, Box as BoxRecord } from '@zb/core/model/bench';
import { addSpans, formatSpan } from '@zb/core/units/duration';
import { route } from '@zb/core/box/summary';

const dot = { content: '""', display: 'inline-block', width: '8px', height: '8px', marginLeft: '5px' };

/** The twelve stops of a box, their state and their minutes. */
export function RouteStrip({ bench, box }: { bench: Bench; box: BoxRecord }) {
  return (
    <chakra.nav
      aria-label="Stops"
      gridArea="route"
      bg="bg.margin"
      borderTop="firm"
      borderLeft="firm"
      position="relative"
      _print={{ display: 'none' }}
      hideBelow="md"
      // Twelve alike: their look is set once, here.
      css={{
        display: 'grid',
        gridTemplateColumns: { base: 'repeat(12, 92px)', lg: 'repeat(12, minmax(0, 1fr))' },
        overflowX: 'auto',
        minHeight: '62px',
        '& a': {
          display: 'flex',
          flexDirection: 'column',
          justifyContent: 'space-between',
          minWidth: 0,
          padding: '8px 4px 7px 9px',
          borderInlineEnd: '1px dashed {colors.rule.strong}',
          fontSize: '12.5px',
          lineHeight: 1.2,
          textDecoration: 'none',
          color: 'inherit',
        },
        '& a:last-of-type': { borderInlineEnd: 0 },
        '& a:hover': { bg: 'bg' },
        '& a:focus-visible': { outlineOffset: '-2px' },
        '& a[aria-current=page]': { bg: 'bg', boxShadow: 'inset 0 3px 0 {colors.fg}' },
        '& a[aria-current=page] b': { fontWeight: 760 },
        '& b': { fontWeight: 600 },
        '& [data-minutes]': { textStyle: 'data', fontSize: '11px', color: 'fg.muted', whiteSpace: 'nowrap' },
        '& [data-is=done] b::after': { ...dot, borderRadius: '50%', bg: 'proven' },
        '& [data-is=warn] b::after': { ...dot, bg: 'stop' },
      }}
    >
      {route(bench, box).map((s) => (
        <NavLink
          key={s.stop}
          to={`/box/${box.id}/${s.stop}`}
          data-is={s.hazard ? 'warn' : s.state === 'signed' ? 'done' : 'open'}
        >
          <b>
            <Box as="span" srOnly>
              Stop {s.number},{' '}
            </Box>
            {s.title}
          </b>
          <span data-minutes="">{formatSpan(addSpans([s.hands, s.waiting]))}</span>
          <Box as="span" srOnly>
            {s.state === 'signed' && ', signed off'}
            {s.hazard && ', Stop hazard'}
          </Box>
        </NavLink>
      ))}
    </chakra.nav>
  );
}
