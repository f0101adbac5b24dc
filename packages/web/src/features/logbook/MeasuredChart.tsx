import { Box } from '@chakra-ui/react';
import type { ApexOptions } from 'apexcharts';
import { timeAxis } from '@zb/core/box/axis';
import type { MeasuredRun } from '@zb/core/box/measured';
import { Chart, chartBase, tokenNow } from '../../parts/chartBase';
import { useDark } from '../../ui/useDark';
import { formatDuration, formatSpan } from '@zb/core/units/duration';

/** Foretold range as a bar, the measured time as a dot, one column for each write. */
export default function MeasuredChart({ runs }: { runs: MeasuredRun[] }) {
  const dark = useDark();
  const axis = timeAxis(Math.max(...runs.flatMap((r) => [r.predicted.high, r.seconds])));
  const options: ApexOptions = {
    ...chartBase(dark),
    plotOptions: { bar: { columnWidth: '22%', horizontal: false } },
    fill: {
      type: ['pattern', 'solid'],
      pattern: { style: 'horizontalLines', width: 4, height: 4, strokeWidth: 1.4 },
    },
    colors: [tokenNow('colors-work'), tokenNow('colors-fg')],
    markers: { size: [0, 6], strokeWidth: 0 },
    stroke: { width: [1, 0] },
    legend: {
      show: true,
      position: 'top',
      horizontalAlign: 'left',
      markers: { strokeWidth: 0, offsetX: -4 },
    },
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
