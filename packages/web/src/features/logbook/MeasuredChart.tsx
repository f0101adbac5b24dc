import { Box } from '@chakra-ui/react';
import type { ApexOptions } from 'apexcharts';
import imported from 'react-apexcharts';
import { timeAxis } from '@zb/core/box/axis';
import type { MeasuredRun } from '@zb/core/box/measured';
import { formatDuration, formatSpan } from '@zb/core/units/duration';

// The package is CommonJS: some bundlers hand over the module, some its default.
const Chart = (imported as unknown as { default?: typeof imported }).default ?? imported;

/** Foretold range as a bar, the measured time as a dot, one column for each write. */
export default function MeasuredChart({ runs }: { runs: MeasuredRun[] }) {
  const style = getComputedStyle(document.documentElement);
  const token = (name: string): string => style.getPropertyValue(`--zb-${name}`).trim();
  const axis = timeAxis(Math.max(...runs.flatMap((r) => [r.predicted.high, r.seconds])));
  const options: ApexOptions = {
    chart: {
      toolbar: { show: false },
      zoom: { enabled: false },
      animations: { enabled: false },
      fontFamily: token('fonts-body'),
      foreColor: token('colors-fg-muted'),
      background: 'transparent',
    },
    theme: { mode: document.documentElement.classList.contains('dark') ? 'dark' : 'light' },
    plotOptions: { bar: { columnWidth: '22%', horizontal: false } },
    fill: {
      type: ['pattern', 'solid'],
      pattern: { style: 'horizontalLines', width: 4, height: 4, strokeWidth: 1.4 },
    },
    colors: [token('colors-work'), token('colors-fg')],
    markers: { size: [0, 6], strokeWidth: 0 },
    stroke: { width: [1, 0] },
    grid: { borderColor: token('colors-rule') },
    legend: {
      show: true,
      position: 'top',
      horizontalAlign: 'left',
      markers: { strokeWidth: 0, offsetX: -4 },
    },
    tooltip: { enabled: false },
    xaxis: { type: 'category', axisTicks: { show: false } },
    yaxis: {
      min: 0,
      max: axis.max,
      tickAmount: axis.steps,
      labels: { formatter: (s: number) => (s === 0 ? '0' : formatDuration(s)) },
    },
  };
  const series = [
    {
      name: 'foretold',
      type: 'rangeBar',
      data: runs.map((r) => ({ x: r.label, y: [r.predicted.low, r.predicted.high] })),
    },
    { name: 'measured', type: 'scatter', data: runs.map((r) => ({ x: r.label, y: r.seconds })) },
  ];
  return (
    <figure>
      <Box as="figcaption" srOnly>
        {runs
          .map((r) => `${r.label}: foretold ${formatSpan(r.predicted)}, took ${formatDuration(r.seconds)}`)
          .join('; ')}
      </Box>
      <div aria-hidden="true">
        <Chart options={options} series={series} height={190} type="rangeBar" />
      </div>
    </figure>
  );
}
