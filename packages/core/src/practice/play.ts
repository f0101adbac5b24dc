import type { AttemptEnd, PracticeAct } from '../model/practice';
import type { RehearsalPlan } from '../model/rehearsal';
import type { Stop } from '../model/stops';
import { randomFrom } from '../units/random';
import type { Random } from './draw';
import type { Said } from './said';
import { offersIn, type Offer, type Panel, type Scene } from './scene';
import { COSTS, HINT_COST, Tale, type Happened } from './tale';

/** An exercise: made-up machines and people with a goal, drawn anew by every seed. */
export interface Exercise {
  id: string;
  stop: Stop;
  begin: (random: Random) => Scene;
  /** The plan of its machine as the rehearsal has it, where it has one. */
  plan?: (seed: number) => RehearsalPlan;
}

/** How an exercise stands after some acts. */
export interface Played {
  panels: Panel[];
  offers: Offer[];
  happened: Happened[];
  /** Minutes of the made-up evening. */
  minute: number;
  end: Exclude<AttemptEnd, 'left'> | null;
  /** 0 to 100: less what slips, faults, losses and hints cost. */
  score: number;
  hints: Said[];
  faults: number;
  /** Time goes by at a machine whatever is done: a beat is let go by. Elsewhere it is let go by when one says so. */
  beats: boolean;
}

/** An act that was not there to be done. */
export class PracticeError extends Error {
  constructor(
    readonly act: PracticeAct,
    /** Which of the acts it is, from 0. */
    readonly at: number,
  ) {
    super(`act ${at + 1}, ${[act.do, act.on].filter(Boolean).join(' ')}, is not on offer there`);
  }
}

const sameAct = (a: PracticeAct, b: PracticeAct): boolean => a.do === b.do && a.on === b.on;

/** The act by which a hint is asked for. */
export const HINT: PracticeAct = { do: 'hint' };
/** The act by which a beat goes by. */
export const WAIT: PracticeAct = { do: 'wait' };

const scoreOf = (tale: Tale, hints: number): number =>
  Math.max(0, 100 - tale.happened.reduce((s, h) => s + COSTS[h.grade], 0) - HINT_COST * hints);

/** An exercise under way: acts are done one after the other, and the same seed with the same acts always stands the same. */
export class Playing {
  private readonly scene: Scene;
  private readonly tale = new Tale();
  private readonly hints: Said[] = [];
  private panels: Panel[];
  private count = 0;

  constructor(exercise: Pick<Exercise, 'begin'>, seed: number) {
    this.scene = exercise.begin(randomFrom(seed));
    this.panels = this.scene.panels();
  }

  /** Does an act. Throws PracticeError where it is not on offer. */
  take(act: PracticeAct): this {
    for (let n = 0; n < (act.times ?? 1); n += 1) {
      if (sameAct(act, HINT) && this.tale.end === null) this.hints.push(this.scene.hint());
      else if (this.tale.end === null && offersIn(this.panels).some((o) => sameAct(o.act, act))) {
        this.scene.take(act, this.tale);
        this.panels = this.scene.panels();
      } else throw new PracticeError(act, this.count);
    }
    this.count += 1;
    return this;
  }

  /** How it stands. */
  stands(): Played {
    const { tale, panels, hints } = this;
    const offers = tale.end === null ? offersIn(panels) : [];
    return {
      panels,
      offers,
      happened: [...tale.happened],
      minute: tale.minute,
      end: tale.end,
      score: scoreOf(tale, hints.length),
      hints: [...hints],
      faults: tale.happened.filter((h) => COSTS[h.grade] > 0).length,
      beats: panels.some((p) => p.kind === 'machine') && offers.some((o) => sameAct(o.act, WAIT)),
    };
  }
}

/** Plays an exercise with a seed to the end of some acts. Throws PracticeError at the first act that was not on offer. */
export const play = (exercise: Pick<Exercise, 'begin'>, seed: number, acts: readonly PracticeAct[]): Played =>
  acts.reduce((p, act) => p.take(act), new Playing(exercise, seed)).stands();

/** Acts with one more; beats let go by one after the other are one act. */
export function withAct(acts: readonly PracticeAct[], act: PracticeAct): PracticeAct[] {
  const last = acts.at(-1);
  if (last && sameAct(last, WAIT) && sameAct(act, WAIT))
    return [...acts.slice(0, -1), { ...last, times: (last.times ?? 1) + 1 }];
  return [...acts, act];
}
