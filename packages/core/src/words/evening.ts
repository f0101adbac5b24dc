import { addSeconds, parseISO } from 'date-fns';
import { stretchesOf, type Evening, type Stretch } from '../box/evening';
import { writeCalendar, type CalendarEvent } from '../formats/icalendar';
import type { Chance } from '../schedule/chance';
import type { Solved } from '../schedule/solve';
import { formatDuration } from '../units/duration';
import { formatPercent } from '../units/number';
import { runStepWords } from './runsheet/step';

/** A wait so long is put into a calendar, seconds. Common practice, no source. */
const WORTH = 240;

/** Work of one box without a break, and waits by themselves that are worth a line. */
function events(
  name: string,
  id: string,
  row: readonly Stretch[],
  at: (seconds: number) => string,
): CalendarEvent[] {
  const out: CalendarEvent[] = [];
  let work: Stretch[] = [];
  const close = (): void => {
    const [first] = work;
    const last = work.at(-1);
    if (first && last)
      out.push({
        id: `${id} ${first.step.key}@zealous-box`,
        title: name,
        words: work.map((s) => runStepWords(s.step.what).title).join('\n'),
        from: at(first.from),
        to: at(last.free),
        busy: true,
      });
    work = [];
  };
  for (const s of row) {
    if (s.free > s.from) {
      if (work.length > 0 && s.from > (work.at(-1)?.free ?? 0) + 1) close();
      work.push(s);
    }
    if (s.end - s.free >= WORTH) {
      close();
      out.push({
        id: `${id} ${s.step.key} alone@zealous-box`,
        title: `${name} goes on alone`,
        words: runStepWords(s.step.what).title,
        from: at(s.free),
        to: at(s.end),
        busy: false,
      });
    }
  }
  close();
  return out;
}

/** A plan as a calendar file. `begins` and `made` are moments (ISO 8601, UTC). */
export function eveningCalendar(evening: Evening, plan: Solved, begins: string, made: string): string {
  const rows = stretchesOf(evening, plan);
  const at = (seconds: number): string => addSeconds(parseISO(begins), Math.round(seconds)).toISOString();
  return writeCalendar(
    evening.problem.boxes.flatMap((b, i) => events(b.name, b.id, rows[i] ?? [], at)),
    made,
  );
}

/** What heads the plan of an evening. `clock` says a moment of it, seconds from its beginning. */
export function eveningHeadline(
  { problem }: Evening,
  plan: Solved,
  clock: (seconds: number) => string,
): string {
  const { until, boxes } = problem;
  const inTime = boxes.filter((_, i) => (plan.done[i] ?? 0) <= (until ?? Infinity)).length;
  if (plan.placed.length === 0) return 'No step is left to be planned';
  if (until === null || inTime === boxes.length) return `All of it is done by ${clock(plan.end)}`;
  return inTime === 0
    ? `No box is done by ${clock(until)}; all of it by ${clock(plan.end)}`
    : `${inTime} of ${boxes.length} boxes are done by ${clock(until)}; all of it by ${clock(plan.end)}`;
}

/** How good a plan is known to be. */
export const provenWords = ({ proven, end, least, oneByOne, missed, leastMissed }: Solved): string =>
  [
    proven
      ? 'Proven: no order of your hands is better'
      : missed > leastMissed
        ? 'The best that was found; whether more can be done in time is not proven'
        : `Within ${(100 * (end / Math.max(1, least) - 1)).toFixed(1)} % of what no plan can beat`,
    `one box after the other would take ${formatDuration(oneByOne.end)}`,
  ].join('; ');

/** The chance to be done. */
export const chanceWords = ({ done, span }: Chance, clock: (seconds: number) => string): string =>
  done === null
    ? `Eight evenings of ten end between ${clock(span.low)} and ${clock(span.high)}`
    : `${formatPercent(done)} chance to be done with all of it in time; eight evenings of ten end between ${clock(span.low)} and ${clock(span.high)}`;

/** That pins gave way; empty where none did. */
export const lateWords = ({ late }: Pick<Solved, 'late'>): string =>
  late <= 1
    ? ''
    : `What is pinned cannot all begin when it was told to: ${formatDuration(late)} later, together.`;
