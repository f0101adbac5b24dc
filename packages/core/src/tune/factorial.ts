import { intervalOf, pOf, type Estimate } from './numbers/interval';
import { holm } from './numbers/holm';
import { leastSquares } from './numbers/leastSquares';

/** What one of two settings does by itself, or both do beyond that. */
export interface Effect {
  of: 'first' | 'second' | 'both together';
  change: number;
  low: number;
  high: number;
  corrected: number;
}

/** A run of a planned factorial: which of the two settings is changed in it (0 or 1), and what it gave. */
export interface FactorialRun {
  first: 0 | 1;
  second: 0 | 1;
  at: number;
  value: number;
}

/**
 * Effects of two settings changed together as planned (2 × 2 factorial; Fisher, The Design of Experiments, 1935): each setting’s
 * effect is its mean over both states of the other; “both together” is half of what the second does more where the first is changed.
 * A straight drift over the evening is taken out. Undefined where a state has no run, or too few are left to tell a spread.
 */
export function factorialEffects(runs: readonly FactorialRun[]): Effect[] | undefined {
  const middle = runs.reduce((s, r) => s + r.at, 0) / runs.length;
  const code = (on: 0 | 1): number => (on === 1 ? 0.5 : -0.5);
  const fitted = leastSquares(
    runs.map((r) => [1, code(r.first), code(r.second), 2 * code(r.first) * code(r.second), r.at - middle]),
    runs.map((r) => r.value),
  );
  if (!fitted || fitted.dof < 2) return undefined;
  const spread = fitted.squares / fitted.dof;
  const estimates = [1, 2, 3].map((i): Estimate => ({
    change: fitted.coefficients[i] ?? 0,
    error: Math.sqrt(spread * (fitted.unscaled[i]?.[i] ?? 0)),
    dof: fitted.dof,
  }));
  const corrected = holm(estimates.map(pOf));
  const names = ['first', 'second', 'both together'] as const;
  return names.map((of, i) => {
    const e = estimates[i] ?? { change: 0, error: 0, dof: 1 };
    return { of, change: e.change, ...intervalOf(e), corrected: corrected[i] ?? 1 };
  });
}
