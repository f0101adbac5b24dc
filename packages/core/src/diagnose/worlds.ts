import type { RehearsalPlan } from '../model/rehearsal';
import type { Frame } from '../rehearsal/frames';
import { run } from '../rehearsal/run';
import { Stage } from '../rehearsal/stage';
import { gradeOf } from '../rehearsal/ending';
import { takenOf } from '../rehearsal/tally';
import { unknowns } from '../rehearsal/varies';
import { Asker, ORDER, type Taken } from '../rehearsal/walk';
import type { Departure } from './causes/cause';
import type { Moment, Symptom } from './codes';

/** A world in which one thing goes otherwise than is usual, and what a person sees of it. */
export interface FaultWorld {
  departure: Departure;
  moment: Moment;
  symptom: Symptom;
  frames: Frame[];
  trail: number[];
}

const FIRST_STARTS = ['menu', 'key missed', 'dead line', 'line does not start', 'stick first'];

/** What is to be seen of a run that did not end right, and when; null where nothing is. */
function seenIn(stage: Stage, frames: readonly Frame[]): { moment: Moment; symptom: Symptom } | null {
  const said = frames.map((f) => f.said);
  const end = said.at(-1);
  if (end?.code !== 'end' || end.ending === 'right system starts' || end.ending === 'written') return null;
  const boot = [...said].reverse().find((s) => s.code === 'starts' || s.code === 'nothing starts');
  const taken = said.find((s) => s.code === 'taken');
  const target = stage.drives[stage.target]?.id;
  const moment: Moment =
    boot && FIRST_STARTS.includes(boot.how) && !taken ? 'starting the stick' : 'at the restart';
  switch (end.ending) {
    case 'installer starts again':
      return { moment: 'at the restart', symptom: 'installer again' };
    case 'another system starts':
      return { moment, symptom: 'old system' };
    case 'nothing starts':
      return { moment, symptom: 'nothing starts' };
    case 'other drive erased':
    case 'kept drive erased':
      return taken?.code === 'taken' && taken.drive !== target
        ? { moment: 'installing', symptom: 'another drive is taken' }
        : null;
    case 'half written, again':
    case 'half written, for good':
      return said.some((s) => s.code === 'stick out too early')
        ? { moment: 'at the restart', symptom: 'stops in the middle' }
        : { moment: 'installing', symptom: 'stops in the middle' };
    default:
      return null;
  }
}

interface Walked {
  trail: number[];
  asked: ReturnType<Asker['questionsAsked']>;
  frames: Frame[];
  right: boolean;
}

function walk(stage: Stage, taken: Taken, trail: readonly number[]): Walked {
  const frames: Frame[] = [];
  const asker = new Asker(stage.world, trail);
  const ending = run(stage, asker, taken, frames);
  return { trail: asker.trail(), asked: asker.questionsAsked(), frames, right: gradeOf(ending) === 'right' };
}

/** Every world that differs from one in the answer to one question; what is answered behind it stays as far as it can. */
const beside = (stage: Stage, taken: Taken, of: Walked): { world: Walked; at: number }[] =>
  of.asked.flatMap(({ ways, way }, at) =>
    Array.from({ length: ways }, (_, n) => n)
      .filter((n) => n !== way)
      .map((n) => ({
        world: walk(
          stage,
          taken,
          of.trail.map((t, i) => (i === at ? n : t)),
        ),
        at,
      })),
  );

/** A world that ends right, with as few things as can be otherwise than is usual: none, one or two; null where none does. */
function rightWorld(stage: Stage, taken: Taken): Walked | null {
  const usual = walk(stage, taken, []);
  if (usual.right) return usual;
  const once = beside(stage, taken, usual).map((b) => b.world);
  return (
    once.find((w) => w.right) ??
    once.flatMap((w) => beside(stage, taken, w)).find((b) => b.world.right)?.world ??
    null
  );
}

/** Does one question alone have another answer? What is asked besides has its usual one, and is no order. */
function oneApart(right: Walked, world: Walked, at: number): boolean {
  const others = (w: Walked): Walked['asked'] => w.asked.filter((_, i) => i !== at);
  const known = others(right);
  return others(world).every(
    (q, i) =>
      (known[i]?.question === q.question && known[i].way === q.way) ||
      (q.question !== ORDER && q.way === 0 && !known.some((k) => k.question === q.question && k.way !== 0)),
  );
}

/**
 * The worlds of a plan in which one thing alone goes otherwise than in one that ends right, and a person sees it. Empty where
 * no world ends right.
 */
export function faultWorlds(plan: RehearsalPlan, precautions: readonly string[]): FaultWorld[] {
  const stage = new Stage(plan);
  const taken = takenOf(stage, precautions);
  const right = rightWorld(stage, taken);
  if (!right) return [];
  return beside(stage, taken, right).flatMap(({ world, at }): FaultWorld[] => {
    const seen = world.right || !oneApart(right, world, at) ? null : seenIn(stage, world.frames);
    const asked = world.asked[at];
    const unknown = asked && (asked.question === ORDER ? 'order of drives' : unknowns[asked.question]);
    return seen && unknown
      ? [{ departure: { unknown, way: asked.way }, ...seen, frames: world.frames, trail: world.trail }]
      : [];
  });
}
