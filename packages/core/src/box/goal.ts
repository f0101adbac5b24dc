import type { Bench, Box } from '../model/bench';
import type { Stop } from '../model/stops';
import type { Rung } from '../starting/rung';

/** What a plan must reach, checked on the bench as it will be once every step is done. Names as the bench has them. */
export type Goal =
  | { code: 'has a machine and a system'; box: string }
  /** At every later start the machine boots this system. */
  | { code: 'boots its system'; machine: string; system: string }
  | { code: 'kept drive untouched'; drive: string }
  | { code: 'back in its place'; item: string; machine: string }
  | { code: 'boots after a power cut'; machine: string }
  | { code: 'has an address'; box: string }
  | { code: 'shipped password replaced'; system: string }
  | { code: 'answers at its address'; host: string; address: string }
  | { code: 'folder is shared'; folder: string }
  | { code: 'rules are in force'; box: string }
  | { code: 'guest starts by itself'; guest: string };

/** Why a goal is not reached, or cannot be told. */
export type Lack =
  | { code: 'no machine' }
  | { code: 'no system' }
  | { code: 'system drive not decided' }
  | { code: 'system not installed'; drive: string }
  | { code: 'system drive outside'; drive: string; machine: string }
  | { code: 'boot not told'; rung: Rung }
  | { code: 'another boots'; rung: Rung }
  | { code: 'nothing boots'; rungs: readonly Rung[] }
  | { code: 'a step erases it' }
  | { code: 'no step puts it back' }
  | { code: 'stays off after a power cut'; now: string | null }
  | { code: 'no address' }
  | { code: 'address may change' }
  | { code: 'no step sets a password' }
  | { code: 'its step is not done' };

/** Where what is lacking is added, as the smallest change: a precaution, a decision or a step. */
export interface WayOut {
  stage: Stop;
  /** `take`: a precaution by its id; `decide`: something on that stage; `do`: a step that is skipped or not recorded. */
  act: { code: 'take'; precaution: string } | { code: 'decide' } | { code: 'do'; step: string };
}

/** A goal with whether it is reached; null where it cannot be told. */
export interface GoalResult {
  goal: Goal;
  holds: boolean | null;
  lack: Lack | null;
  wayOut: WayOut | null;
}

/** Bench and box at the beginning of what is left of a plan, and at its end. */
export interface Ends {
  now: { bench: Bench; box: Box };
  end: { bench: Bench; box: Box };
  /** Keys of steps that will not be done: skipped, or not recorded. */
  notDone: readonly string[];
}
