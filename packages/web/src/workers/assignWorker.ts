import { expose } from 'comlink';
import loadHighs from 'highs';
import wasm from 'highs/runtime?url';
import { solverFrom } from '@zb/core/assign/highs';
import { sceneOf } from '@zb/core/assign/scene';
import { alternatives, solveScene, type Solution } from '@zb/core/assign/solve';
import { unmetWishes, type Unmet } from '@zb/core/assign/unmet';
import type { Bench } from '@zb/core/model/bench';

export interface Stage {
  solution?: Solution;
  unmet?: Unmet[];
  others?: Solution[];
  /** Seconds the first solution took, model and all. */
  seconds?: number;
}

const solver = loadHighs({ locateFile: () => wasm });

const api = {
  /** Solves the shelf, tells the solution at once, then why wishes are left out, then the runners-up. */
  async solve(bench: Bench, onStage: (stage: Stage) => void, limit: number): Promise<void> {
    const solveLp = solverFrom(await solver);
    const scene = sceneOf(bench);
    const begun = performance.now();
    const solution = solveScene(scene, solveLp, limit);
    if (!solution) throw new Error('The solver found no answer in its time.');
    onStage({ solution, seconds: (performance.now() - begun) / 1000 });
    // Callbacks go out only when this thread is free, so each stage yields before the next.
    await new Promise((r) => setTimeout(r, 0));
    onStage({ unmet: unmetWishes(scene, solution, solveLp) });
    await new Promise((r) => setTimeout(r, 0));
    onStage({ others: alternatives(scene, solution, solveLp) });
  },
};

export type AssignWorker = typeof api;
expose(api);
