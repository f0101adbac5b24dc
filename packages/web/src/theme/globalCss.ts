import type { SystemConfig } from '@chakra-ui/react';

/** The ground everything lies on, and what holds for every element. */
const rules: Record<string, Record<string, unknown>> = {
  html: {
    colorScheme: 'light',
    accentColor: '{colors.work}',
    bg: 'bg.ground',
    color: 'fg',
    _print: { bg: '#fff' },
  },
  'html.dark': { colorScheme: 'dark' },
  'html, body, #root': { height: '100%' },
  body: { textStyle: 'body', fontFamily: 'body', _print: { height: 'auto', bg: '#fff' } },
  // The page's own blocks and whatever a library draws without a recipe of ours.
  ':focus-visible': { outline: '2px solid {colors.work}', outlineOffset: '2px' },
  '#sheet:focus, #headline:focus': { outline: 'none' },
  'b, strong': { fontWeight: 'strong' },
  '@media (prefers-reduced-motion: reduce)': {
    '*': { transition: 'none !important', animation: 'none !important' },
  },
};

export const globalCss = rules as NonNullable<SystemConfig['globalCss']>;
