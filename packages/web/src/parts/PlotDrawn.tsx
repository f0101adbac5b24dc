import type { ApexOptions } from 'apexcharts';
import { useDark } from '../ui/useDark';
import { Chart, chartBase, tokenNow } from './chartBase';
import type { PlotData, PlotLine } from './plotData';

const TOKEN = { ink: 'colors-fg', work: 'colors-work', muted: 'colors-fg-muted' } as const;

/** The plot itself, in the colours of the theme it stands in. */
export default function PlotDrawn({ data, height }: { data: PlotData; height: number }) {
  const dark = useDark();
  const { lines, notes = [], shade, x, y } = data;
  const dots = (l: PlotLine): boolean => l.as === 'dots';
  const base = chartBase(dark);
  const options: ApexOptions = {
    ...base,
    chart: { ...base.chart, selection: { enabled: false } },
    colors: lines.map((l) => tokenNow(TOKEN[l.ink])),
    stroke: {
      width: lines.map((l) => (dots(l) ? 0 : l.as === 'bar' ? 3 : 2)),
      dashArray: lines.map((l) => (l.as === 'dashes' ? 5 : 0)),
      curve: 'straight',
    },
    markers: { size: lines.map((l) => (dots(l) ? 5 : 0)), strokeWidth: 0, hover: { sizeOffset: 0 } },
    legend: { show: false },
    grid: { ...base.grid, padding: { left: 6, right: 14, top: -14, bottom: -8 } },
    annotations: {
      ...(shade
        ? {
            xaxis: [
              {
                x: shade.from,
                x2: shade.to,
                fillColor: tokenNow('colors-fg-muted'),
                opacity: 0.1,
                borderColor: 'transparent',
                label: {
                  text: shade.words,
                  orientation: 'horizontal',
                  position: 'bottom',
                  textAnchor: 'start',
                  offsetX: 4,
                  offsetY: -4,
                  borderWidth: 0,
                  style: { background: 'transparent', color: tokenNow('colors-fg-muted'), fontSize: '12px' },
                },
              },
            ],
          }
        : {}),
      points: notes.map((n) => ({
        x: n.x,
        y: n.y,
        marker: {
          size: n.strong ? 7 : 0,
          fillColor: tokenNow('colors-work'),
          strokeColor: tokenNow('colors-work'),
        },
        label: {
          text: n.words,
          ...(n.end ? { textAnchor: 'end' as const } : {}),
          ...(n.below ? { textAnchor: 'start' as const, offsetX: 9 } : {}),
          borderWidth: 0,
          offsetY: n.below ? 22 : n.strong ? -4 : 0,
          style: {
            background: 'transparent',
            color: tokenNow(n.strong ? 'colors-work' : 'colors-fg-muted'),
            fontSize: '12px',
            fontWeight: n.strong ? 700 : 400,
            padding: { left: 0, right: 0, top: 0, bottom: -8 },
          },
        },
      })),
    },
    xaxis: {
      type: 'numeric',
      tickAmount: x.steps ?? 5,
      axisTicks: { show: false },
      axisBorder: { color: tokenNow('colors-rule-strong') },
      labels: { formatter: (v: string) => x.of(Number(v)), rotate: 0, hideOverlappingLabels: true },
      ...(x.min === undefined ? {} : { min: x.min }),
      ...(x.max === undefined ? {} : { max: x.max }),
    },
    yaxis: {
      tickAmount: y.steps ?? 4,
      labels: { formatter: (v: number) => y.of(v) },
      ...(y.min === undefined ? {} : { min: y.min }),
      ...(y.max === undefined ? {} : { max: y.max }),
    },
  };
  const series = lines.map((l) => ({
    name: l.name,
    type: dots(l) ? 'scatter' : 'line',
    data: l.points.map(([px, py]) => ({ x: px, y: py })),
  }));
  return (
    <Chart key={dark ? 'dark' : 'light'} options={options} series={series} height={height} type="line" />
  );
}
