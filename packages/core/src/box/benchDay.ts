import type { Hazard } from './hazard';
import { hazards, route, type RouteStop } from './summary';
import type { Bench, Box } from '../model/bench';
import { addSpans, type Span } from '../units/duration';

/** One box on the sheet of the day: what is next, and its minutes in seconds. */
export interface BenchDayRow {
  box: Box;
  next: RouteStop;
  /** Seconds of hands and waiting over all stops left. */
  left: Span;
  inTheWay: Hazard | undefined;
}

/** Every unfinished box with its next stop and what stands in its way. */
export function benchDay(bench: Bench): BenchDayRow[] {
  return bench.boxes.flatMap((box) => {
    const stops = route(bench, box).filter((s) => s.state !== 'signed');
    const [next] = stops;
    if (!next) return [];
    const left = addSpans(stops.flatMap((s) => [s.hands, s.waiting]));
    return [{ box, next, left, inTheWay: hazards(bench, box).find((h) => h.grade === 'stop') }];
  });
}
