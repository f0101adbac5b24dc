import { undoneStep } from '@zb/core/acts/run';
import { planOf, walkPlan } from '@zb/core/box/plan';
import { eveningOf } from '@zb/core/box/evening';
import { isOpen, runSheetOf } from '@zb/core/box/runSheet';
import { hazards } from '@zb/core/box/summary';
import { gatherList } from '@zb/core/gather/list';
import { choresOf } from '@zb/core/keeping/chores';
import { findMachine, storesOf, type Bench, type Store } from '@zb/core/model/bench';
import { openingOf } from '@zb/core/opening/forBox';
import { claimAgainst, claimsOf } from '@zb/core/plan/claims';
import { holdsSystemOf } from '@zb/core/plan/medium';
import { ownSetup } from '@zb/core/practice/own';
import { boxPlan } from '@zb/core/rehearsal/forBox';
import { bootLadder } from '@zb/core/starting/ladder';
import { buildSheet } from '@zb/core/words/buildSheet';
import { refusedByShelf } from '@zb/core/write/guard';
import { boxIn, doAll, done } from './doAll';
import { planFixtures, type MediumEnd } from './planFixtures';

const endOf = (s: Store): MediumEnd => ({
  in: s.in === 'desk' ? 'machine' : null,
  holds:
    s.installed !== null
      ? 'the system'
      : s.pooled !== null
        ? 'the pool'
        : s.wholeImage !== null
          ? 'the image'
          : 'as it was',
  fate: s.fate,
});
const media = (bench: Bench): Record<string, MediumEnd> =>
  Object.fromEntries(storesOf(bench).map((s) => [s.id, endOf(s)]));

it('are twelve at least, of different shapes', () => {
  expect(new Set(planFixtures.map((f) => f.name)).size).toBeGreaterThanOrEqual(12);
});

describe.each(planFixtures.map((f) => [f.name, f] as const))('%s', (_, fixture) => {
  const { bench, box, end, bootFirst, lacks } = fixture;
  const plan = planOf(bench, box);
  const all = doAll(bench, 'build');

  it('leads to the last state that is expected, as foretold and as done', () => {
    expect(media(plan.end.bench)).toEqual(end);
    expect(media(all.bench)).toEqual(end);
    expect(findMachine(all.bench, 'desk')?.bootFirst).toBe(bootFirst);
    expect(plan.unmet.map((u) => u.must.code)).toEqual([]);
    expect(plan.goals.flatMap((g) => (g.holds === false ? [g.lack?.code] : []))).toEqual(lacks);
  });

  it('is undone to where it began', () => {
    let now = all.bench;
    for (const key of [...all.keys].reverse()) {
      const step = runSheetOf(now, boxIn(now, 'build')).steps.find((s) => s.key === key);
      if (step) now = done(now, undoneStep(now, boxIn(now, 'build'), step));
    }
    expect(media(now)).toEqual(media(bench));
    expect(findMachine(now, 'desk')?.bootFirst).toBeNull();
  });

  describe('every view says the same:', () => {
    const { sheet } = plan;
    const { lines } = gatherList(bench, box);
    const opening = openingOf(bench, box);
    const key = (k: string): boolean => sheet.steps.some((s) => s.key === k);

    it('Gather and run sheet: what a step needs is gathered, once', () => {
      const things = lines.map((l) => l.thing.code);
      expect(things.includes('stick')).toBe(key('start:stick'));
      expect(things.includes('drive adapter')).toBe(
        sheet.steps.some((s) => s.must.some((m) => m.code === 'adapter is at hand')),
      );
      expect(things.includes('chain stick')).toBe(key('back:chain'));
      expect(things.includes('tools')).toBe(!('code' in opening));
      const docks = sheet.steps.some((s) => s.what.code === 'stick in' && s.what.dock);
      expect(things.includes('dock')).toBe(docks);
      expect(new Set(lines.map((l) => l.key)).size).toBe(lines.length);
    });

    it('Opening and run sheet: the same things go in and out; else the machine stays closed', () => {
      const moves = sheet.steps.filter((s) => s.key.startsWith('open:in:') || s.key.startsWith('open:out:'));
      if ('code' in opening) expect(moves).toEqual([]);
      else
        expect(moves.map((s) => s.key).sort()).toEqual(
          [
            ...opening.goesOut.map((s) => `open:out:${s.id}`),
            ...opening.goesIn.map((s) => `open:in:${s.id}`),
          ].sort(),
        );
    });

    it('Opening and boot ladder: what is out decides no boot', () => {
      const machine = findMachine(bench, 'desk');
      for (const at of walkPlan(bench, box, sheet)) {
        const out = new Set(
          storesOf(at.bench)
            .filter((s) => s.in === null)
            .map((s) => s.name),
        );
        const { decides } = machine ? bootLadder(at.bench, at.box, machine) : { decides: null };
        if (decides?.entry.kind === 'drive') expect(out.has(decides.entry.name)).toBe(false);
      }
    });

    it('boot ladder and build sheet: the finished box boots what its sheet names', () => {
      const built = boxIn(all.bench, 'build');
      const machine = findMachine(all.bench, 'desk');
      if (!machine) throw new Error('no machine');
      const { result } = bootLadder(all.bench, built, machine);
      expect(result === 'the new system starts').toBe(lacks.length === 0);
      const next = buildSheet(all.bench, built).split('## Next start')[1]?.split('##')[0] ?? '';
      expect(next.includes('Small System')).toBe(true);
    });

    it('hazards and run sheet: a Stop is marked on the step that cannot be taken back', () => {
      const stops = hazards(bench, box).filter((h) => h.grade === 'stop');
      for (const s of sheet.steps)
        if (s.hurts.includes('what is on the drive is lost'))
          expect(s.against).toEqual(stops.filter((h) => h.stop === s.stop));
    });

    it('ledger and schedule: the same hands and waits', () => {
      const { problem } = eveningOf(bench, [box], null);
      const open = sheet.steps.filter(isOpen);
      expect(problem.tasks.map((t) => [t.hands, t.alone])).toEqual(open.map((s) => [s.hands, s.alone]));
    });

    it('guard and run sheet: a write that is offered is not refused; afterwards every other build is', () => {
      const refused = (of: Bench, s: Store, boxId: string): string[] => {
        const claim = claimAgainst(of, { id: boxId }, s.id);
        const fate = boxId === box.id && holdsSystemOf(s, box) ? ('may be lost' as const) : s.fate;
        return refusedByShelf({ name: s.name, fate, holds: '', claim: claim ?? null }).map((r) => r.rule);
      };
      const target = storesOf(bench).find((s) => s.serial === box.targetSerial);
      if (target) expect(refused(bench, target, box.id)).toEqual([]);
      for (const s of storesOf(all.bench)) {
        expect(claimsOf(all.bench).get(s.id)?.length ?? 0).toBeLessThanOrEqual(1);
        if (s.installed || s.pooled) expect(refused(all.bench, s, 'another')).not.toEqual([]);
      }
    });

    it('practice and rehearsal: the same plan', () => {
      const rehearsed = boxPlan(bench, box);
      const own = ownSetup(bench, box);
      if (!('code' in own)) expect('code' in rehearsed ? rehearsed : rehearsed.plan).toEqual(own.plan);
    });

    it('maintenance and shelf: chores name only media that are in the machine', () => {
      const built = boxIn(all.bench, 'build');
      const inside = new Set(
        storesOf(all.bench)
          .filter((s) => s.in === 'desk')
          .map((s) => s.name),
      );
      const outside = storesOf(all.bench)
        .filter((s) => s.in !== 'desk')
        .map((s) => s.name);
      const said = JSON.stringify(choresOf(all.bench, built, '2026-07-01'));
      for (const name of outside)
        if (!inside.has(name)) expect([name, said.includes(`"${name}"`)]).toEqual([name, false]);
    });
  });
});
