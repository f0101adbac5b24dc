// How long the plan of a build and what is made of it take after the build was changed: on the demo and on a large bench, in
// milliseconds and as a multiple of copying that build's records plainly in the same run.
import { engine } from './bench-engine.mjs';
import { largeBench } from './bench-scale.mjs';

const MODULES = `export { saltmarshHall } from './packages/core/src/demo/saltmarsh';
  export { planOf } from './packages/core/src/box/plan';
  export { runSheetOf } from './packages/core/src/box/runSheet';
  export { hazards } from './packages/core/src/box/summary';
  export { doneStep } from './packages/core/src/acts/run';
  export { gatherList } from './packages/core/src/gather/list';
  export { openingOf } from './packages/core/src/opening/forBox';
  export { boxPlan } from './packages/core/src/rehearsal/forBox';
  export { bootLadder } from './packages/core/src/starting/ladder';
  export { findMachine } from './packages/core/src/model/bench';`;
/** So many changes of a build are timed, and of a large bench so many builds. */
const TIMES = 12;
const MOST_BUILDS = 12;

const timed = (work) => {
  const since = performance.now();
  work();
  return performance.now() - since;
};
const middle = (list) => [...list].sort((a, b) => a - b)[list.length >> 1];
const ms = (n) => n.toFixed(1);

export async function benchPlan() {
  const core = await engine(MODULES);
  const demo = core.saltmarshHall();
  for (const [name, bench] of [
    ['the demo', demo],
    ['a large bench', largeBench(demo)],
  ]) {
    const plans = [];
    const acts = [];
    const copies = [];
    for (const box of bench.boxes.filter((b) => b.machineId !== null).slice(0, MOST_BUILDS)) {
      // Seen once, as the page has before anything is changed.
      core.planOf(bench, box);
      const own = [];
      for (let i = 0; i < TIMES; i += 1) {
        const changed = { ...box };
        const now = { ...bench, boxes: bench.boxes.map((b) => (b.id === box.id ? changed : b)) };
        // What the tally counted is kept by what it read.
        core.hazards(now, changed);
        own.push(
          timed(() => {
            const plan = core.planOf(now, changed);
            core.gatherList(now, changed);
            core.openingOf(now, changed);
            core.boxPlan(now, changed);
            const machine = core.findMachine(now, changed.machineId);
            if (machine) core.bootLadder(plan.end.bench, plan.end.box, machine);
          }),
        );
      }
      plans.push(middle(own));
      const { next } = core.runSheetOf(bench, box);
      const stamp = { now: '2026-06-01T09:00:00.000Z', id: () => 'made' };
      if (next) acts.push(timed(() => core.doneStep(bench, box, next, 'x', stamp)));
      copies.push(timed(() => globalThis.structuredClone(box)));
    }
    console.log(
      `plan and views of one build, changed, on ${name}: ${ms(middle(plans))} ms in the middle, ${ms(Math.max(...plans))} at most (aim 20); the act that does a step: ${ms(middle(acts))}, ${ms(Math.max(...acts))} at most (aim 100); plainly copying a build: ${ms(middle(copies))}`,
    );
  }
}
