import loadHighs from 'highs';
import { sceneOf } from '@zb/core/assign/scene';
import { solveScene } from '@zb/core/assign/solve';
import { solverFrom } from '@zb/core/assign/highs';
import { unmetWishes } from '@zb/core/assign/unmet';
import { benchFromText } from '@zb/core/model/file';

export interface AssignOutput {
  value: number;
  optimal: boolean;
  /** Ids of the bench file; the same part stands as often as it is bought. */
  assignments: { wish: string; machine: string; profile: string; parts: string[] }[];
  unmet: { wish: string; because: string; remedy: string | null }[];
}

/** Who becomes what on the bench of a file; the same model and solver as the application's. */
export async function assignBench(text: string): Promise<AssignOutput> {
  const bench = benchFromText(text);
  const scene = sceneOf(bench);
  const solveLp = solverFrom(await loadHighs());
  const solution = solveScene(scene, solveLp, 60);
  if (!solution) throw new Error('the solver found no answer in a minute');
  return {
    value: Math.round(solution.value * 1000) / 1000,
    optimal: solution.optimal,
    assignments: solution.assignments.map((a) => ({
      wish: a.wishId,
      machine: a.machineId,
      profile: a.profileId,
      parts: a.parts.flatMap((p) => Array.from({ length: p.count }, () => p.partId)),
    })),
    unmet: unmetWishes(scene, solution, solveLp).map((u) => ({
      wish: u.wishId,
      because: u.because,
      remedy: u.remedy?.text ?? null,
    })),
  };
}
