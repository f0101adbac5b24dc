import { learn, type Foreteller, type Learned } from '../learning/foretell';
import { credible, type NotCredible } from '../learning/credible';
import type { Held } from '../learning/calibration';
import type { TimedRun, Work } from '../learning/timed';
import type { Bench } from '../model/bench';
import type { Stop } from '../model/stops';
import { actOf } from '../runsheet/act';
import type { StepWhat } from '../runsheet/what';
import type { Span } from '../units/duration';
import type { Scene } from './scene';

/** What a step is timed as: the kind of work, on what kind of machine, for which system. */
export const workOf = ({ machine, profile }: Pick<Scene, 'machine' | 'profile'>, what: StepWhat): Work => ({
  act: actOf(what),
  kind: machine?.form ?? null,
  system: profile?.name ?? null,
});

/** A step that was timed, with what was foretold of it. Seconds. */
export interface TimedStep extends TimedRun, Held {
  at: string;
  box: string;
  boxId: string;
  said: string;
  range: Held['range'];
  median: number;
  /** Why nothing is learned from it; null where something is. */
  leftOut: NotCredible | null;
}

/** Every step of a bench that was timed, oldest first. */
export function timedSteps({ boxes }: Pick<Bench, 'boxes'>): TimedStep[] {
  const all = boxes
    .flatMap((b) =>
      Object.values(b.run?.steps ?? {}).flatMap(
        ({ at, seconds, said, timed }): Omit<TimedStep, 'leftOut'>[] =>
          timed === null || seconds === null
            ? []
            : [
                {
                  at,
                  box: b.name,
                  boxId: b.id,
                  said,
                  act: timed.act,
                  kind: timed.kind,
                  system: timed.system,
                  table: timed.table,
                  range: { low: timed.foretold.low, high: timed.foretold.high },
                  median: timed.foretold.median,
                  seconds,
                },
              ],
      ),
    )
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const why = credible(all);
  return all.map((s, i) => ({ ...s, leftOut: why[i] ?? null }));
}

/** Those of them from which something is learned. */
export const credibleSteps = (bench: Pick<Bench, 'boxes'>): TimedStep[] =>
  timedSteps(bench).filter((s) => s.leftOut === null);

/** Whether as much was timed, and the same: one’s pace is that of all boxes. A bench never changes in place. */
export const sameTimed = (a: Bench['boxes'], b: Bench['boxes']): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x.run?.steps === b[i]?.run?.steps));

/** What was learned of a bench. */
interface LearnedOfBench extends Learned {
  boxes: Bench['boxes'];
  /** How many steps were timed. */
  timed: number;
}
/** Kept from one state of the bench to the next: most acts time nothing. */
let latest: LearnedOfBench | undefined;

function learnedOf(bench: Bench): LearnedOfBench {
  if (latest && sameTimed(latest.boxes, bench.boxes)) return latest;
  const runs = credibleSteps(bench);
  return (latest = { boxes: bench.boxes, ...learn(runs), timed: runs.length });
}

/** Foretells steps by all that was timed on a bench. */
export const foretells = (bench: Bench): Foreteller => learnedOf(bench).foretell;

/** How far the times of such works go together in one evening, by all that was timed on a bench. */
export const correlationsOf = (bench: Bench, works: readonly Work[]): number[][] =>
  learnedOf(bench).correlations(works);

/** How many steps of a bench were timed. */
export const timedCount = (bench: Bench): number => learnedOf(bench).timed;

/**
 * A person’s own time at a whole stop, seconds: the usual, moved by the pace at which they were found to work. Steps of the stop
 * tell more, but a run sheet is asked for by few pages and this by all. The usual itself where nothing was timed.
 */
export function ownHands({ bench, machine, profile }: Scene, stop: Stop, usual: Span): Span {
  if (usual.high === 0) return usual;
  const work: Work = { act: `stop ${stop}`, kind: machine?.form ?? null, system: profile?.name ?? null };
  const { ground, range } = foretells(bench)(work, usual);
  return ground === 'usual' ? usual : range;
}
