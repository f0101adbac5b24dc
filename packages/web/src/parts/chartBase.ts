import type { ApexOptions } from 'apexcharts';
import imported from 'react-apexcharts';

// The package is CommonJS: some bundlers hand over the module, some its default.
export const Chart = (imported as unknown as { default?: typeof imported }).default ?? imported;

/** A value of the theme as it stands now, by its name. */
export const tokenNow = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--zb-${name}`).trim();

/** What every chart has: the house’s face and inks, and nothing that moves or pops up. */
export const chartBase = (dark: boolean): ApexOptions => ({
  chart: {
    toolbar: { show: false },
    zoom: { enabled: false },
    animations: { enabled: false },
    fontFamily: tokenNow('fonts-body'),
    foreColor: tokenNow('colors-fg-muted'),
    background: 'transparent',
  },
  theme: { mode: dark ? 'dark' : 'light' },
  grid: { borderColor: tokenNow('colors-rule') },
  tooltip: { enabled: false },
});
