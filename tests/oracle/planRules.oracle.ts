/**
 * Plans against a second engine (plan.py), which is written from docs/plan.md and docs/rehearsal.md alone and reads what
 * `zb plan --export` prints: the same last state, the same beginning of the rehearsal, the same endings. The fixtures, the
 * demo's builds and 60 benches by dice in every run; 600 in `npm run proof plan`.
 */
import fc from 'fast-check';
import { planOf } from '@zb/core/box/plan';
import { planExport } from '@zb/core/box/planExport';
import { runSheetOf } from '@zb/core/box/runSheet';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine, storesOf, type Bench, type Box } from '@zb/core/model/bench';
import { boxPlan, type BoxPlan, type NoRehearsal } from '@zb/core/rehearsal/forBox';
import { Stage } from '@zb/core/rehearsal/stage';
import { takenOf, tallyOf } from '@zb/core/rehearsal/tally';
import { anyAsk, made } from '../../packages/core/test/anyBox';
import { planFixtures } from '../../packages/core/test/planFixtures';
import { seedOfRun } from './damage';
import { run } from './files';

jest.setTimeout(1_800_000);
const COUNT = process.env.ZB_PLAN === 'all' ? 600 : 60;

interface Second {
  end: unknown;
  begins: object;
  endings: Record<string, number> | null;
}
const hall = saltmarshHall();
const asked: { bench: Bench; box: Box }[] = [
  ...planFixtures,
  ...hall.boxes.map((box) => ({ bench: hall, box })),
  ...fc.sample(anyAsk, { numRuns: COUNT, seed: seedOfRun() }).map(made),
];
let second: Second[] = [];
beforeAll(() => {
  const path = new URL('plan.py', `file://${__filename}`).pathname;
  const exported = asked.map(({ bench, box }) => planExport(bench, box, runSheetOf(bench, box)));
  second = JSON.parse(run('python3', [path], JSON.stringify(exported))) as Second[];
});

/** What names do not decide left out; the writing machine's own drive is of no bench. */
function plain(begin: BoxPlan | NoRehearsal): object {
  if ('code' in begin) return { code: begin.code };
  const { machine, drives, ...plan } = begin.plan;
  const { name: _, ...of } = machine;
  return {
    ...plan,
    machine: of,
    drives: drives.map(({ name: _, ...d }) => ({
      ...d,
      id: d.role === 'other' && d.bytes === 0 ? 'own' : d.id,
    })),
  };
}
const about = (i: number): string => asked[i]?.box.name ?? '';

test('both come to the same last state', () => {
  let changed = 0;
  asked.forEach(({ bench, box }, i) => {
    const { end } = planOf(bench, box);
    const machine = findMachine(end.bench, box.machineId);
    const media = storesOf(end.bench).map((s) => ({
      id: s.id,
      in: s.in,
      retention: s.fate,
      revision: s.revision,
      image: s.wholeImage?.imageId ?? null,
      system: s.installed?.boxId ?? null,
      pool: s.pooled?.boxId ?? null,
    }));
    expect({ about: about(i), end: second[i]?.end }).toEqual({
      about: about(i),
      end: {
        media,
        bootFirst: machine?.bootFirst ?? null,
        portsOff: machine?.portsOff ?? null,
        keysEnrolled: machine ? [...machine.keysEnrolled].sort() : null,
      },
    });
    if (media.some((m, n) => m.revision !== storesOf(bench)[n]?.revision)) changed += 1;
  });
  expect(changed).toBeGreaterThan(asked.length / 10);
});

test('both begin the rehearsal alike, or find the same reason why there is none', () => {
  let begun = 0;
  asked.forEach(({ bench, box }, i) => {
    const begin = boxPlan(bench, box);
    if (!('code' in begin)) begun += 1;
    expect({ about: about(i), begins: second[i]?.begins }).toEqual({ about: about(i), begins: plain(begin) });
  });
  expect(begun).toBeGreaterThan(asked.length / 10);
});

test('both end every world of it alike', () => {
  let worlds = 0;
  asked.forEach(({ bench, box }, i) => {
    const endings = second[i]?.endings;
    const begin = boxPlan(bench, box);
    if (!endings || 'code' in begin) return;
    const stage = new Stage(begin.plan);
    const tally = tallyOf(stage, takenOf(stage, []));
    worlds += tally.worlds;
    expect({ about: about(i), endings }).toEqual({
      about: about(i),
      endings: Object.fromEntries(tally.endings.map((e) => [e.ending, e.worlds])),
    });
  });
  expect(worlds).toBeGreaterThan(1000);
});
