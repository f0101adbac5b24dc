/**
 * Rehearsals against a second engine (rehearse.py), which is written from docs/rehearsal.md alone and walks every world of
 * every set of precautions: same worlds, same endings, same smallest sets. 60 plans by dice in every run, 500 in
 * `npm run proof rehearse`.
 */
import { rehearsalPlanSchema, type RehearsalDrive, type RehearsalPlan } from '@zb/core/model/rehearsal';
import { installerEnds, installers, listColumns, loaderPlaces } from '@zb/core/model/installer';
import { aims } from '@zb/core/rehearsal/ending';
import { setsFor } from '@zb/core/rehearsal/rehearse';
import { Stage } from '@zb/core/rehearsal/stage';
import { shortestOfEach, takenOf, tallyOf, tell } from '@zb/core/rehearsal/tally';
import { random, seedOfRun } from './damage';
import { run } from './files';

jest.setTimeout(1_800_000);
const PLANS = process.env.ZB_REHEARSE === 'all' ? 500 : 60;
/** Runs that the second engine makes of one plan at most. */
const MOST_RUNS = 40_000;

interface Second {
  worlds: number;
  precautions: Record<string, number>;
  counts: [string[], Record<string, number>][];
  sets: Record<string, string[][]>;
}

const BUSES = ['sata', 'sata', 'nvme', 'usb', 'ide', 'mmc'] as const;

/** A small plan by dice, with everything in it that the rules speak of. */
function planBy(dice: (below: number) => number): RehearsalPlan {
  const one = <T>(list: readonly T[]): T => list[dice(list.length)] as T;
  const yes = (in100: number): boolean => dice(100) < in100;
  const kind = yes(80) ? 'install' : 'write';
  const others = dice(kind === 'install' ? 3 : 4);
  const roles: RehearsalDrive['role'][] = [
    ...(kind === 'install' ? (['installer'] as const) : []),
    'target',
    ...Array.from({ length: others }, () => 'other' as const),
  ];
  const shuffled = roles.map((role) => ({ role, at: dice(1000) })).sort((a, b) => a.at - b.at);
  const drives = shuffled.map(({ role }, i) => {
    const bus = role === 'installer' ? 'usb' : one(BUSES);
    return {
      id: `d${i}`,
      name: `drive ${i}`,
      bytes: one([15, 15.4, 16, 32, 240]) * 1e9,
      model: one(['A', 'A', 'B']),
      serial: one([null, 'S1', `S${i}`]),
      label: one([null, null, 'DATA']),
      bus,
      role,
      matters: role === 'installer' ? false : yes(role === 'target' ? 25 : 60),
      starts: {
        uefi: yes(role === 'installer' ? 85 : 45) ? 'a system' : null,
        bios: yes(role === 'installer' ? 70 : 35) ? 'a system' : null,
      },
      signed: yes(60),
      startPart: yes(50),
      unplug: yes(70) ? { minutes: 1 + dice(9), screws: dice(3) } : null,
      portOff: yes(30),
      copyMinutes: yes(50) ? 5 + dice(60) : null,
      chainsTo: yes(12) ? `d${dice(roles.length)}` : null,
    };
  });
  const ids = drives.map((d) => d.id);
  const order = ids.filter(() => yes(80)).sort(() => dice(3) - 1);
  const groups = order.map((id) => [id]);
  if (groups.length > 1 && yes(50)) groups.splice(0, 2, [...(groups[0] ?? []), ...(groups[1] ?? [])]);
  const plan = {
    kind,
    machine: {
      name: 'machine',
      mode: one(['uefi', 'uefi', 'bios', 'both', null]),
      secureBoot: one(['on', 'off', 'off', null]),
      order: yes(75) ? groups : null,
      biosTries: one(['each', 'first', null]),
      cannotStart: yes(15) ? [one(BUSES)] : [],
      showsParts: yes(15),
      power: yes(40) ? 'mains' : 'secured',
    },
    drives,
    startBy: one(['menu', 'menu', 'order']),
    installer: {
      choice: one(kind === 'write' ? installers : installers.slice(0, 4)),
      lists: listColumns.filter(() => yes(50)),
      listsItself: yes(20),
      loader: one([...loaderPlaces, null]),
      entry: one(['made', 'fallback path only'] as const),
      ends: one(installerEnds),
      beside: yes(40),
      enrols: yes(30),
    },
    refused: [],
  };
  const offered = new Stage(rehearsalPlanSchema.parse(plan)).precautions.map((p) => p.id);
  const refused = offered.filter(() => yes(offered.length > 6 ? 55 : 20));
  return rehearsalPlanSchema.parse({ ...plan, refused });
}

const dice = random(seedOfRun());
const plans: RehearsalPlan[] = [];
while (plans.length < PLANS) {
  const plan = planBy(dice);
  const stage = new Stage(plan);
  if (stage.world.count * 2 ** stage.precautions.length <= MOST_RUNS) plans.push(plan);
}
let second: Second[] = [];
beforeAll(() => {
  const path = new URL('rehearse.py', `file://${__filename}`).pathname;
  second = JSON.parse(run('python3', [path], JSON.stringify(plans))) as Second[];
});

const said = (i: number): string => JSON.stringify(plans[i]);

test('both engines find the same worlds, precautions and minutes', () => {
  plans.forEach((plan, i) => {
    const stage = new Stage(plan);
    const minutes = Object.fromEntries(stage.precautions.map((p) => [p.id, p.minutes]));
    expect({ plan: said(i), worlds: stage.world.count, minutes }).toEqual({
      plan: said(i),
      worlds: second[i]?.worlds,
      minutes: second[i]?.precautions,
    });
  });
});

test('both end every world alike, under every set of precautions', () => {
  let runs = 0;
  plans.forEach((plan, i) => {
    const stage = new Stage(plan);
    for (const [ids, counts] of second[i]?.counts ?? []) {
      const { endings, worlds } = tallyOf(stage, takenOf(stage, ids));
      runs += worlds;
      expect({
        plan: said(i),
        ids,
        counts: Object.fromEntries(endings.map((e) => [e.ending, e.worlds])),
      }).toEqual({
        plan: said(i),
        ids,
        counts,
      });
    }
  });
  expect(runs).toBeGreaterThan(PLANS * 1000);
});

test('both find the same smallest sets, for both aims', () => {
  let found = 0;
  let none = 0;
  plans.forEach((plan, i) => {
    for (const aim of aims) {
      const { sets, remains } = setsFor(plan, aim);
      const ours = sets.map((s) => [...s.ids].sort().join()).sort();
      expect({ plan: said(i), aim, sets: ours }).toEqual({
        plan: said(i),
        aim,
        sets: (second[i]?.sets[aim] ?? []).map((s) => [...s].sort().join()).sort(),
      });
      if (sets.length > 0) found += 1;
      else {
        none += 1;
        expect(remains).not.toBeNull();
      }
    }
  });
  expect(found).toBeGreaterThan(PLANS / 4);
  expect(none).toBeGreaterThan(PLANS / 20);
});

test('what is told of a world is that world: told again it ends the same way', () => {
  for (const plan of plans) {
    const stage = new Stage(plan);
    const taken = takenOf(stage, []);
    const told = shortestOfEach(stage, taken);
    expect(told.map((t) => t.ending)).toEqual(tallyOf(stage, taken).endings.map((e) => e.ending));
    for (const world of told) {
      const again = tell(stage, taken, world.trail);
      expect(again).toEqual(world);
      expect(again.frames.at(-1)?.said).toEqual({ code: 'end', ending: world.ending });
    }
  }
});
