import { defineTokens } from '@chakra-ui/react';

/** What does not change between light and dark. Sizes in px where nothing else is said. */
export const tokens = defineTokens({
  fonts: {
    body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
    heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
    mono: { value: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace" },
  },
  fontSizes: {
    label: { value: '11.5px' },
    small: { value: '12px' },
    body: { value: '14px' },
    title: { value: '18px' },
    headline: { value: '22px' },
    distance: { value: '34px' },
  },
  fontWeights: {
    normal: { value: 400 },
    medium: { value: 500 },
    strong: { value: 650 },
    heavy: { value: 720 },
  },
  lineHeights: { tight: { value: '1.15' }, small: { value: '1.28' }, body: { value: '1.38' } },
  spacing: {
    0: { value: '0' },
    0.5: { value: '2px' },
    1: { value: '4px' },
    1.5: { value: '6px' },
    2: { value: '8px' },
    2.5: { value: '10px' },
    3: { value: '12px' },
    4: { value: '16px' },
    5: { value: '20px' },
    6: { value: '24px' },
    8: { value: '32px' },
    10: { value: '40px' },
    12: { value: '48px' },
    16: { value: '64px' },
  },
  sizes: {
    0: { value: '0' },
    full: { value: '100%' },
    /** The smallest thing a finger is asked to hit (WCAG 2.2, 2.5.8). */
    target: { value: '24px' },
    control: { value: '33px' },
    touch: { value: '44px' },
    bar: { value: '48px' },
    rail: { value: '204px' },
    ledger: { value: '285px' },
    /** As high as a long table grows before it scrolls. */
    table: { value: '520px' },
    none: { value: 'none' },
  },
  radii: { none: { value: '0' }, corner: { value: '2px' }, round: { value: '50%' } },
  zIndex: {
    base: { value: 0 },
    docked: { value: 10 },
    overlay: { value: 1300 },
    modal: { value: 1400 },
    popover: { value: 1500 },
    skipLink: { value: 1600 },
    toast: { value: 1700 },
    tooltip: { value: 1800 },
  },
  durations: { quick: { value: '90ms' }, calm: { value: '180ms' } },
  easings: { out: { value: 'cubic-bezier(0, 0, .2, 1)' } },
});
