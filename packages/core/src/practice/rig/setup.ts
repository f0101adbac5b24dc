import type { RehearsalDrive, RehearsalPlan } from '../../model/rehearsal';

/** What is to come of it: something started once and all as before; a system installed; a machine that starts its installer over and over put right. */
export type RigTask = 'start once' | 'install' | 'put right';

/** Keys of a made-up machine, and the beats after power-on within which they count. */
export interface RigKeys {
  setup: string;
  menu: string;
  /** Keys that do nothing here. */
  others: string[];
  from: number;
  to: number;
  /** Beats from power-on until something starts. */
  of: number;
}

/** A machine that practises: a plan as the rehearsal has it, and what a plan does not say. */
export interface RigSetup {
  plan: RehearsalPlan;
  /** What is on each drive, by its id. */
  holds: Readonly<Record<string, string>>;
  keys: RigKeys;
  task: RigTask;
  /** Boot order by ids. */
  order: string[];
  /** The stick is in from the beginning. */
  stickIn: boolean;
  /** The target holds the new system already. */
  done: boolean;
  /** Minutes its installer takes. */
  minutes: number;
}

const ofRole = (plan: RehearsalPlan, role: RehearsalDrive['role']): RehearsalDrive => {
  const found = plan.drives.find((d) => d.role === role);
  if (!found) throw new RangeError(`no drive is the ${role}`);
  return found;
};
/** The drive that is meant. */
export const targetOf = (plan: RehearsalPlan): RehearsalDrive => ofRole(plan, 'target');
/** The stick that starts. */
export const stickOf = (plan: RehearsalPlan): RehearsalDrive => ofRole(plan, 'installer');
/** Drives that stand in the machine. */
export const innerOf = (plan: RehearsalPlan): RehearsalDrive[] =>
  plan.drives.filter((d) => d.role !== 'installer');
