// How fast a rehearsal goes, in the page's own thread for it: worlds a second against a second engine that walks every one
// of them (tests/oracle/rehearse.py), and how long a switched precaution takes to be answered.
import { execFileSync } from 'node:child_process';
import { engine } from './bench-engine.mjs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

const stick = {
  id: 'stick',
  role: 'installer',
  bus: 'usb',
  bytes: 8e9,
  starts: { uefi: 'it', bios: 'it' },
  signed: true,
};
const drive = (d) => ({ name: d.id, model: 'm', matters: false, ...d });
const other = (id, more = {}) => ({
  id,
  role: 'other',
  bus: 'sata',
  bytes: 240e9,
  matters: true,
  startPart: true,
  starts: { uefi: 'old', bios: null },
  unplug: { minutes: 4, screws: 1 },
  copyMinutes: 30,
  ...more,
});
/** Everything open that can be: nothing but the drives is known. */
const open = (others) => ({
  kind: 'install',
  machine: { name: 'm', mode: null, secureBoot: null, order: null, power: 'mains' },
  drives: [stick, { id: 'new', role: 'target', bus: 'sata', bytes: 240e9, serial: 'S' }, ...others].map(
    drive,
  ),
  installer: { choice: 'asks for the drive', lists: ['size', 'serial'], loader: null },
});

const MODULES = `export { rehearsalPlanSchema } from './packages/core/src/model/rehearsal';
  export { Stage } from './packages/core/src/rehearsal/stage';
  export { takenOf, tallyOf } from './packages/core/src/rehearsal/tally';
  export { rehearse, setsFor } from './packages/core/src/rehearsal/rehearse';`;

const clock = (work) => {
  const since = performance.now();
  const found = work();
  return { found, seconds: (performance.now() - since) / 1000 };
};
const big = (n) => n.toLocaleString('en', { maximumFractionDigits: 0 });

export async function benchRehearsal() {
  const { rehearsalPlanSchema, Stage, takenOf, tallyOf, rehearse, setsFor } = await engine(MODULES);
  const one = (n) => rehearsalPlanSchema.parse(open(Array.from({ length: n }, (_, i) => other(`o${i}`))));
  // The runtime has seen the code before it is timed, as the page's thread has after its first answer.
  for (let i = 0; i < 20; i += 1) rehearse(one(1), []);
  for (const n of [1, 2, 3, 4]) {
    const plan = one(n);
    const stage = new Stage(plan);
    const { found, seconds } = clock(() => tallyOf(stage, takenOf(stage, [])));
    console.log(
      `rehearsal, ${n + 2} drives, everything open: ${big(found.worlds)} worlds by ${big(found.walked)} runs in ${(seconds * 1000).toFixed(0)} ms: ${big(found.worlds / seconds)} worlds a second, ${big(found.walked / seconds)} runs a second (aim: 1,000,000 worlds a second)`,
    );
  }
  // One world at a time by the second engine, for the pace of which ours is a multiple.
  const small = one(0);
  small.refused = new Stage(small).precautions.map((p) => p.id);
  const plan = rehearsalPlanSchema.parse(small);
  const stage = new Stage(plan);
  const python = clock(() =>
    JSON.parse(
      execFileSync('python3', [`${root}tests/oracle/rehearse.py`], { input: JSON.stringify([plan]) }),
    ),
  );
  const rounds = 200;
  const ours = clock(() => {
    for (let i = 0; i < rounds; i += 1) tallyOf(stage, takenOf(stage, []));
  });
  console.log(
    `rehearsal against one world after another: ${big(python.found[0].worlds)} worlds in ${python.seconds.toFixed(2)} s there, in ${((ours.seconds / rounds) * 1000).toFixed(2)} ms here: ${big((python.seconds / ours.seconds) * rounds)} times as fast`,
  );
  for (const n of [1, 2]) {
    const p = one(n);
    const live = clock(() => rehearse(p, ['read']));
    const sets = clock(() => [setsFor(p, 'nothing lost'), setsFor(p, 'right at once')]);
    console.log(
      `a precaution switched, ${n + 2} drives, ${big(live.found.tally.worlds)} worlds, ${live.found.precautions.length} precautions: answered in ${(live.seconds * 1000).toFixed(0)} ms (aim: 100 up to 100,000 worlds); all smallest sets in ${(sets.seconds * 1000).toFixed(0)} ms (${sets.found.map((s) => `${s.sets.length} of ${s.tried} tried`).join(', ')})`,
    );
  }
}
