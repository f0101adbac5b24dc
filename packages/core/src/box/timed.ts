import { foreteller, type Foreteller } from '../learning/foretell';
import type { Held } from '../learning/calibration';
import type { TimedRun, Work } from '../learning/timed';
import type { Bench, Box } from '../model/bench';
import { actOf } from '../runsheet/act';
import type { StepWhat } from '../runsheet/what';
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
}

/** Every step of a bench that was timed, oldest first. */
export const timedSteps = ({ boxes }: Pick<Bench, 'boxes'>): TimedStep[] =>
  boxes
    .flatMap((b) =>
      Object.values(b.run?.steps ?? {}).flatMap(({ at, seconds, said, timed }): TimedStep[] =>
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

/** A bench never changes in place: what was learned of its boxes holds as long as they are the same. */
const learned = new WeakMap<readonly Box[], Foreteller>();

/** Foretells steps by all that was timed on a bench. */
export function foretells(bench: Bench): Foreteller {
  const known = learned.get(bench.boxes);
  if (known) return known;
  const made = foreteller(timedSteps(bench));
  learned.set(bench.boxes, made);
  return made;
}
