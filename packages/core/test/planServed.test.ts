/** What a plan is to serve, and the key that its system is signed with. */
import { leaveStep, undoneStep } from '@zb/core/acts/run';
import { planOf } from '@zb/core/box/plan';
import { runSheetOf, type RunStep } from '@zb/core/box/runSheet';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine, type Bench, type Box } from '@zb/core/model/bench';
import { boxPlan } from '@zb/core/rehearsal/forBox';
import { bootLadder } from '@zb/core/starting/ladder';
import { boxIn, doAll, done, stamp } from './doAll';
import { planFixtures } from './planFixtures';

const hall = saltmarshHall();
const stepOf = (bench: Bench, id: string, key: string): RunStep => {
  const found = runSheetOf(bench, boxIn(bench, id)).steps.find((s) => s.key === key);
  if (!found) throw new Error(`no step ${key}`);
  return found;
};

describe('what a build serves', () => {
  const keys = hall.boxes.flatMap((box) =>
    runSheetOf(hall, box)
      .steps.filter((s) => ['ready', 'waits'].includes(s.state))
      .filter((s) => /^(net:set|load:share|load:rules|load:guest start):?/.test(s.key))
      .filter((s) => !/tried/.test(s.key))
      .map((s) => [box.id, s.key] as const),
  );

  it('is there in the demo: addresses, folders, rules and guests', () => {
    const kinds = new Set(
      keys.map(([, key]) =>
        key
          .split(':')
          .slice(0, 2)
          .join(':')
          .replace(/ kept$| brought$/, ''),
      ),
    );
    expect([...kinds].sort()).toEqual(
      expect.arrayContaining(['load:guest start', 'load:rules', 'load:share', 'net:set']),
    );
  });

  it.each(keys)('%s: %s skipped is lacking, and is named as the way out', (id, key) => {
    const before = planOf(hall, boxIn(hall, id)).goals.filter((g) => g.lack?.code === 'its step is not done');
    const left = done(hall, leaveStep(boxIn(hall, id), stepOf(hall, id, key), 'no', stamp()));
    const { goals, reaches } = planOf(left, boxIn(left, id));
    const lacking = goals.filter((g) => g.lack?.code === 'its step is not done');
    expect(lacking.map((g) => g.wayOut?.act)).toContainEqual({ code: 'do', step: key });
    expect(lacking.length).toBe(before.length + 1);
    expect(reaches).toBe(false);
  });
});

describe('the key of a system', () => {
  const [wipe] = planFixtures;
  if (!wipe) throw new Error('no fixture');
  const secure = { surveyed: { value: 'on', source: 'report', at: '' } };
  const bench: Bench = {
    ...wipe.bench,
    items: wipe.bench.items.map((i) =>
      i.kind === 'machine' ? { ...i, facts: { ...i.facts, 'firmware.secureBoot': secure } } : i,
    ),
    profiles: wipe.bench.profiles.map((p) => ({ ...p, secureBoot: 'own key at first restart' as const })),
  };
  const desk = (of: Bench) => {
    const found = findMachine(of, 'desk');
    if (!found) throw new Error('no machine');
    return found;
  };
  const assumes = (of: Bench, box: Box): boolean =>
    bootLadder(of, box, desk(of)).assumed.some((a) => a.code === 'key enrolled in time');

  it('is trusted by the machine once it was enrolled, foretold and done, and no more once that is taken back', () => {
    const { end } = planOf(bench, boxIn(bench, 'build'));
    expect(desk(end.bench).keysEnrolled).toEqual(['sys']);
    expect(assumes(end.bench, end.box)).toBe(false);
    const { bench: now } = doAll(bench, 'build', (at, key) => {
      if (key === 'back:enrol') expect(assumes(at, boxIn(at, 'build'))).toBe(true);
    });
    expect(desk(now).keysEnrolled).toEqual(['sys']);
    // The step is still in the sheet: what the plan has done stays in it.
    const enrol = stepOf(now, 'build', 'back:enrol');
    expect(enrol.state).toBe('done');
    const back = done(now, undoneStep(now, boxIn(now, 'build'), enrol));
    expect(desk(back).keysEnrolled).toEqual([]);
  });

  it('is asked for no more by the next build of the same system on that machine', () => {
    const trusts = {
      ...bench,
      items: bench.items.map((i) => (i.kind === 'machine' ? { ...i, keysEnrolled: ['sys'] } : i)),
    };
    const enrols = (of: Bench): boolean => {
      const plan = boxPlan(of, boxIn(of, 'build'));
      if ('code' in plan) throw new Error(plan.code);
      return plan.plan.installer.enrols;
    };
    expect([enrols(bench), enrols(trusts)]).toEqual([true, false]);
    const steps = runSheetOf(trusts, boxIn(trusts, 'build')).steps.map((s) => s.key);
    expect(steps).not.toContain('back:enrol');
  });
});
