import loadHighs from 'highs';
import { sceneOf } from '@zb/core/assign/scene';
import { solveScene } from '@zb/core/assign/solve';
import { solverFrom } from '@zb/core/assign/highs';
import type { Remedy } from '@zb/core/assign/remedy';
import { unmetWishes, type Unmet } from '@zb/core/assign/unmet';
import { benchFromText } from '@zb/core/model/file';
import { unmetWords } from '@zb/core/words/fit/unmet';

export interface AssignOutput {
  value: number;
  optimal: boolean;
  /** Ids of the bench file; the same part stands as often as it is bought. */
  assignments: { wish: string; machine: string; profile: string; parts: string[] }[];
  /** `why` and `meets` are the reason and the remedy as data; `because` and `remedy` say them. */
  unmet: {
    wish: string;
    why: Unmet['reason'];
    meets: Remedy['kind'] | null;
    because: string;
    remedy: string | null;
  }[];
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
      why: u.reason,
      meets: u.remedy?.kind ?? null,
      ...unmetWords(u, bench.settings),
    })),
  };
}
