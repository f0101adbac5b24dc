import { xmlText, type Xml } from '../formats/writer/xml';
import type { ExperimentState, Trade } from './results';

const WIDTH = 560;
const HEIGHT = 340;
const LEFT = 56;
const RIGHT = 20;
const TOP = 44;
const BOTTOM = 48;

/** Round figures between two ends, about five of them. */
function ticks(low: number, high: number): number[] {
  const raw = (high - low) / 5 || 1;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= raw) ?? raw;
  const out: number[] = [];
  for (let v = Math.ceil(low / step) * step; v <= high + step * 1e-9; v += step)
    out.push(Number(v.toPrecision(12)));
  return out;
}

/**
 * What a change costs and gives as a picture for the build sheet: an SVG by itself (SVG 1.1), on paper, with its words. `name` says
 * what a state is called; `axes` what is paid and what is got.
 */
export function tradePicture(
  title: string,
  state: ExperimentState,
  trade: Trade,
  axes: { cost: string; gain: string },
  name: (arm: string) => string,
): string {
  const all = trade.points.flatMap((p) => [{ cost: p.cost, gain: p.gain }, ...p.runPoints]);
  const range = (values: readonly number[]): [number, number] => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const room = (high - low || Math.abs(high) || 1) * 0.12;
    return [low - room, high + room];
  };
  const [x0, x1] = range(all.map((p) => p.cost));
  const [y0, y1] = range(all.map((p) => p.gain));
  const x = (v: number): string => (LEFT + ((v - x0) / (x1 - x0)) * (WIDTH - LEFT - RIGHT)).toFixed(1);
  const y = (v: number): string =>
    (HEIGHT - BOTTOM - ((v - y0) / (y1 - y0)) * (HEIGHT - TOP - BOTTOM)).toFixed(1);
  const knee = state.arms.length > 2 ? trade.knee.knee : undefined;
  const kept = trade.points.filter((p) => !trade.beaten.has(p.key)).sort((a, b) => a.cost - b.cost);
  const text = (at: Xml['of'], words: string): Xml => ({ name: 'text', of: at, in: words });
  const dot = (p: { cost: number; gain: number }, r: number, fill: string): Xml => ({
    name: 'circle',
    of: { cx: x(p.cost), cy: y(p.gain), r, fill },
  });
  return xmlText({
    name: 'svg',
    of: {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${WIDTH} ${HEIGHT}`,
      width: WIDTH,
      height: HEIGHT,
      role: 'img',
      'font-family': 'sans-serif',
      'font-size': 12,
      fill: '#1c2023',
    },
    in: [
      { name: 'title', in: title },
      { name: 'rect', of: { width: WIDTH, height: HEIGHT, fill: '#fcfbf7' } },
      text({ x: LEFT, y: 22, 'font-size': 15, 'font-weight': 'bold' }, title),
      ...ticks(y0, y1).flatMap((v) => [
        { name: 'line', of: { x1: LEFT, x2: WIDTH - RIGHT, y1: y(v), y2: y(v), stroke: '#d3cdbf' } },
        text({ x: LEFT - 6, y: y(v), 'text-anchor': 'end', 'dominant-baseline': 'middle' }, String(v)),
      ]),
      ...ticks(x0, x1).map((v) =>
        text({ x: x(v), y: HEIGHT - BOTTOM + 16, 'text-anchor': 'middle' }, String(v)),
      ),
      text({ x: WIDTH - RIGHT, y: HEIGHT - 10, 'text-anchor': 'end' }, axes.cost),
      text({ x: LEFT, y: TOP - 6 }, axes.gain),
      {
        name: 'polyline',
        of: {
          fill: 'none',
          stroke: '#555b5e',
          'stroke-dasharray': '4 4',
          points: kept.map((p) => `${x(p.cost)},${y(p.gain)}`).join(' '),
        },
      },
      ...trade.points.flatMap((p) => [
        ...p.runPoints.map((r) => dot(r, 3, trade.beaten.has(p.key) ? '#a9a291' : '#1c2023')),
        p.key === knee ? dot(p, 7, '#1d4b86') : undefined,
        text(
          { x: x(p.cost), y: (Number(y(p.gain)) - 11).toFixed(1), 'text-anchor': 'middle' },
          p.key === knee ? `the knee: ${name(p.key)}` : name(p.key),
        ),
      ]),
    ],
  });
}
