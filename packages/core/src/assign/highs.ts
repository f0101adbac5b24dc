import type { SolveLp } from './lp';

/** The part of the HiGHS solver that is used: one model text, solved with options. Whoever calls loads it. */
export interface Highs {
  solve(
    text: string,
    options: { time_limit: number; mip_rel_gap: number; mip_abs_gap: number; mip_detect_symmetry: boolean },
  ): { Status: string; ObjectiveValue: number; Columns: Record<string, object> };
}

/** Whole values and sizes in MiB make objective steps far larger than this. */
const ABSOLUTE_GAP = 1e-7;

/** A loaded HiGHS as the solver core asks for: gaps closed, so that "optimal" is proven and not merely near. */
export const solverFrom =
  (highs: Highs): SolveLp =>
  (text, seconds) => {
    const result = highs.solve(text, {
      time_limit: seconds,
      mip_rel_gap: 0,
      mip_abs_gap: ABSOLUTE_GAP,
      // Looking for symmetries costs these models more than it saves: equal parts are one class already.
      mip_detect_symmetry: false,
    });
    const values = new Map<string, number>();
    for (const [name, column] of Object.entries(result.Columns))
      if ('Primal' in column && typeof column.Primal === 'number' && Number.isFinite(column.Primal))
        values.set(name, column.Primal);
    const status =
      result.Status === 'Optimal' ? 'optimal' : result.Status === 'Infeasible' ? 'infeasible' : 'stopped';
    return { status, objective: result.ObjectiveValue, values };
  };
