import { addSeconds, parse, isValid, formatISO } from 'date-fns';
import { boxesOfEvening, eveningKey, eveningOf, stretchesOf } from '@zb/core/box/evening';
import { planned } from '@zb/core/schedule/plan';
import { eveningCalendar } from '@zb/core/words/evening';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** What is asked of `zb schedule`. */
export interface ScheduleAsked {
  until?: string;
  from?: string;
  box?: string[];
  pin?: string[];
  as: string;
  seed: string;
}

/** Forms in which an evening is written. */
export const scheduleForms = ['json', 'ics'] as const;

/** A time of the day of `now`, or a whole moment. */
function timeOf(text: string, now: Date): Date {
  const of = /^\d{1,2}:\d{2}$/.test(text) ? parse(text, 'H:mm', now) : new Date(text);
  if (!isValid(of)) throw new InputError(`a time is such as 21:30 or 2026-03-05T21:30, not ${text}`);
  return of;
}

/** What `zb schedule` prints: the plan with its proof and chance (seconds from its beginning), or a calendar. */
export function scheduleOutput(text: string, asked: ScheduleAsked, now: Date): object | string {
  const bench = readBench(text);
  if (!/^\d{1,9}$/.test(asked.seed)) throw new InputError(`--seed takes a number, not ${asked.seed}`);
  const boxes = asked.box ? asked.box.map((id) => boxOf(bench, id)) : boxesOfEvening(bench);
  const from = asked.from === undefined ? now : timeOf(asked.from, now);
  const end = asked.until === undefined ? null : timeOf(asked.until, from);
  if (end !== null && end <= from) throw new InputError('the end lies before the beginning');
  const pins = new Map(
    (asked.pin ?? []).map((text): [string, number] => {
      const [, box, step, at] = /^(\S+) (.+)=(\S+)$/.exec(text) ?? [];
      if (box === undefined || step === undefined || at === undefined)
        throw new InputError(`--pin takes “BOX STEP=20:15”, not ${text}`);
      return [eveningKey(box, step), Math.max(0, (timeOf(at, from).getTime() - from.getTime()) / 1000)];
    }),
  );
  const until = end === null ? null : (end.getTime() - from.getTime()) / 1000;
  const evening = eveningOf(bench, boxes, until, pins);
  for (const key of pins.keys())
    if (!evening.problem.tasks.some((t) => t.key === key))
      throw new InputError(`no open step of these boxes is called ${key}`);
  const { plan, chance } = planned(evening.problem, Number(asked.seed));
  const at = (seconds: number): string => formatISO(addSeconds(from, seconds));
  if (asked.as === 'ics') return eveningCalendar(evening, plan, from.toISOString(), now.toISOString());
  if (asked.as !== 'json') throw new InputError(`--as is one of: ${scheduleForms.join(', ')}`);
  const rows = stretchesOf(evening, plan);
  return {
    from: at(0),
    until: evening.problem.until,
    end: plan.end,
    endsAt: at(plan.end),
    least: plan.least,
    proven: plan.proven,
    missed: plan.missed,
    late: plan.late,
    leastMissed: plan.leastMissed,
    oneByOne: plan.oneByOne,
    chance,
    boxes: evening.problem.boxes.map((b, i) => ({
      ...b,
      done: plan.done[i] ?? 0,
      stretches: (rows[i] ?? []).map(({ step, from: begins, free, end: over }) => ({
        key: step.key,
        title: runStepWords(step.what).title,
        from: begins,
        free,
        end: over,
      })),
    })),
  };
}
