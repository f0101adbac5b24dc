import type { Bench, Box } from '../model/bench';
import { causeCodes, type CauseCode } from '../diagnose/causes';
import type { Moment } from '../diagnose/codes';
import { noRun, type RunRecord } from '../model/run';
import type { FirstFault } from '../firststart/line';
import { lasting } from '../runsheet/lasting';
import { orderSteps } from '../runsheet/order';
import { evidenceOf, type Evidence } from '../runsheet/evidence';
import { partsOf, step, wholeOf, type Must, type StepDraft } from '../runsheet/step';
import type { Foretold, Work } from '../learning/timed';
import { addSpans, middleOf, type Span } from '../units/duration';
import { conditionHolds } from './conditions';
import type { Hazard } from './hazard';
import { Scene } from './scene';
import { stepsOf } from './steps';
import { foretells, workOf } from './timed';
import { summaryOf } from './summary';

/** A step of the sheet with where it stands. */
export interface RunStep extends StepDraft {
  /** Whether each condition holds now; null where nobody knows. */
  must: readonly (Must & { readonly holds: boolean | null })[];
  /** Its place, from 1. */
  number: number;
  /**
   * Open: `ready` where everything before it is settled, `waits` where something is not. `not recorded`: its stage was marked
   * as done, and nothing says that this step was.
   */
  state: 'done' | 'left out' | 'not recorded' | 'ready' | 'waits';
  /**
   * What shows that it is done. `ticked`: by hand, so that it can be taken back. Seconds by the clock that ran meanwhile; null
   * where none ran, or nobody ticked it.
   */
  done: { by: Evidence; ticked: boolean; at: string | null; seconds: number | null; noted: string } | null;
  /** It was done as something else: how it was read then. */
  changed: string | null;
  /** Why it is left out. */
  because: string | null;
  /** Stop hazards that stand against a step that cannot be taken back. */
  against: readonly Hazard[];
  /** What it is timed as. */
  work: Work;
  /** What is usual of it before anything was measured, hands and alone together, eight of ten. Seconds. */
  table: Span;
  /** How long it should take, by one’s own record; null where it takes no time to speak of. */
  foretold: Foretold | null;
}

/** All steps of a box in their order, with what was done of them. Seconds. */
export interface RunSheet {
  box: string;
  steps: RunStep[];
  /** What is wrong with the order itself. */
  faults: FirstFault[];
  /** What was done and is on the sheet no more: a decision changed since. */
  gone: { key: string; said: string; at: string }[];
  /** The first step that is ready; null where none is. */
  next: RunStep | null;
  /** What is left: a person’s own time, and what goes on by itself. */
  hands: Span;
  alone: Span;
  /** Clock of the step that is being done. */
  clock: { key: string; since: string } | null;
}

/** Is it still to be done? */
export const isOpen = ({ state }: Pick<RunStep, 'state'>): boolean => state === 'ready' || state === 'waits';

/** What is done to a drive cannot be taken back. */
const isFinal = (s: StepDraft): boolean => s.hurts.includes('what is on the drive is lost');

/** Cures come before the step at which something looked different, and after what that step needs. */
function withCures(drafts: readonly StepDraft[], { cures }: RunRecord): StepDraft[] {
  const mine = (key: string): RunRecord['cures'] => cures.filter((c) => c.step === key && isCause(c.cause));
  return drafts.flatMap((d) => {
    const here = mine(d.key);
    if (here.length === 0) return [d];
    const made = here.map((c) =>
      step(d.stop, `cure:${c.id}`, { code: 'cure', cause: c.cause as CauseCode }, { after: d.after }),
    );
    return [...made, { ...d, after: [...d.after, ...made.map((m) => m.key)] }];
  });
}
const isCause = (c: string): boolean => (causeCodes as readonly string[]).includes(c);

/** When something that looks different at a step is seen. */
export function momentOf({ key, stop }: Pick<StepDraft, 'key' | 'stop'>): Moment {
  const [part = ''] = key.split(':');
  if (part === 'inst') return 'installing';
  if (part === 'back') return 'at the restart';
  if (stop === 'first-start') return 'first start';
  return ['network', 'load', 'tune', 'keep'].includes(stop) ? 'in use' : 'starting the stick';
}

/** The run sheet of a box, made anew from its decisions; what was done stays done. */
export function runSheetOf(bench: Bench, box: Box): RunSheet {
  const scene = new Scene(bench, box);
  const record = box.run ?? noRun();
  const { steps: placed, faults } = orderSteps(withCures(stepsOf(scene), record));
  const stops = summaryOf(bench, box).hazards.filter((h) => h.grade === 'stop');
  const settled = new Set<string>();
  const foretell = foretells(bench);
  const steps = placed.map((drafted, i): RunStep => {
    const table = wholeOf(drafted);
    const work = workOf(scene, drafted.what);
    const foretold = table.high > 0 ? foretell(work, table) : null;
    // What nobody measured keeps the table’s own split of hands and waiting.
    const s =
      foretold && foretold.ground !== 'usual' ? { ...drafted, ...partsOf(drafted, foretold.range) } : drafted;
    const ticked = record.steps[s.key];
    const left = record.left[s.key];
    const done = ticked !== undefined || s.seen;
    const passed = scene.signed(s.stop);
    const ready = s.after.every((k) => settled.has(k));
    if (done || left || passed) settled.add(s.key);
    return {
      ...s,
      number: i + 1,
      // Asked where a step is looked at: a sheet is made for many that never do.
      must: s.must.map((m) => ({
        ...m,
        get holds() {
          return conditionHolds(bench, box, m);
        },
      })),
      state: done ? 'done' : left ? 'left out' : passed ? 'not recorded' : ready ? 'ready' : 'waits',
      done: done
        ? {
            by: evidenceOf(s.what, s.seen, (record.photos[s.key]?.length ?? 0) > 0),
            ticked: ticked !== undefined,
            at: ticked?.at ?? null,
            seconds: ticked?.seconds ?? null,
            noted: ticked?.noted ?? '',
          }
        : null,
      changed: ticked && ticked.as !== lasting(s.what) ? ticked.said : null,
      because: left?.because ?? null,
      work,
      table,
      foretold,
      against: isFinal(s) ? stops.filter((h) => h.stop === s.stop) : [],
    };
  });
  const open = steps.filter(isOpen);
  const here = new Set(steps.map((s) => s.key));
  return {
    box: box.name,
    steps,
    faults,
    gone: Object.entries(record.steps)
      .filter(([key]) => !here.has(key))
      .map(([key, { said, at }]) => ({ key, said, at })),
    next: steps.find((s) => s.state === 'ready') ?? null,
    hands: addSpans(open.map((s) => s.hands)),
    alone: addSpans(open.map((s) => s.alone)),
    clock: record.clock && here.has(record.clock.key) ? record.clock : null,
  };
}

/** Seconds until the next step that goes on by itself is reached, all before it done at their middle; null where none is. */
export function untilAlone(sheet: RunSheet): number | null {
  let sum = 0;
  for (const s of sheet.steps) {
    if (!isOpen(s)) continue;
    sum += middleOf(s.hands);
    if (s.alone.high >= LONG_ALONE) return sum;
  }
  return null;
}
/** A wait so long is worth going to another machine for, seconds. Common practice, no source. */
const LONG_ALONE = 120;
