import fc from 'fast-check';
import { takePrecautions } from '@zb/core/acts/install';
import { doneStep, takeTicks, tickOpening, undoneStep } from '@zb/core/acts/run';
import { runSheetOf } from '@zb/core/box/runSheet';
import { hazards } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { gatherList } from '@zb/core/gather/list';
import {
  findBox,
  findItem,
  findMachine,
  storesIn,
  storesOf,
  type Bench,
  type Box,
} from '@zb/core/model/bench';
import { applyChanges, type Act } from '@zb/core/model/changes';
import { noBoxLayout } from '@zb/core/model/layout';
import { openingOf } from '@zb/core/opening/forBox';
import { movesOf } from '@zb/core/opening/moves';
import { boxPlan } from '@zb/core/rehearsal/forBox';
import { lasting } from '@zb/core/runsheet/lasting';
import { runs } from './runs';

const hall = saltmarshHall();
const film = 'film-night';
let ids = 0;
const stamp = () => ({ now: '2026-06-01T09:00:00.000Z', id: () => `made-${(ids += 1)}` });
const done = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const box = (bench: Bench, id = film): Box => {
  const found = findBox(bench, id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};
const placeOf = (bench: Bench, id: string): string | null | undefined => {
  const item = findItem(bench, id);
  return item && 'in' in item ? item.in : undefined;
};
/** The hall with so many SATA ports in Tern. */
const withPorts = (bench: Bench, ports: number): Bench => {
  const tern = findMachine(bench, 'tern');
  if (!tern) throw new Error('no tern');
  const entered = { entered: { value: ports, at: '' } };
  const facts = { ...tern.facts, 'ports.sata': entered, 'ports.drives': entered };
  return applyChanges(bench, [{ in: 'items', id: 'tern', to: { ...tern, facts } }]);
};
const unplugged = done(hall, takePrecautions(box(hall), ['unplug:tern-ssd'], ''));
const opened = (bench: Bench) => {
  const opening = openingOf(bench, box(bench));
  if ('code' in opening) throw new Error(opening.code);
  return opening;
};
const named = (list: readonly { name: string }[]): string[] => list.map((s) => s.name).sort();

describe('what goes in and out of a machine', () => {
  it('is opened for a drive that goes in, and the fit of the machine knows it', () => {
    expect(named(opened(hall).goesIn)).toEqual(['Loose SSD']);
    expect(opened(hall).goesOut).toEqual([]);
    expect(hazards(hall, box(hall)).map((h) => h.code)).not.toContain('wants a change');
  });

  it('takes out what stands in the way where there is one port, for good', () => {
    const one = withPorts(hall, 1);
    const moves = movesOf(one, box(one));
    expect([named(moves.goesIn), named(moves.makesRoom)]).toEqual([['Loose SSD'], ['Scans drive']]);
    const out = opened(one).steps.find((s) => s.what.code === 'take out');
    expect(out?.what).toMatchObject({ drive: 'Scans drive', why: 'makes room' });
    // What is out cannot be lost, and has its bag.
    const plan = boxPlan(one, box(one));
    if ('code' in plan) throw new Error(plan.code);
    expect(plan.plan.drives.map((d) => d.id)).not.toContain('tern-ssd');
    expect(plan.assumed.map((a) => a.code)).not.toContain('beside the machine');
    expect(gatherList(one, box(one)).lines.map((l) => l.key)).toEqual(
      expect.arrayContaining(['part-loose-480', 'bag-tern-ssd']),
    );
  });

  it('moves on the shelf when it is done, stays in the plan, and comes back', () => {
    let bench = unplugged;
    const keys = (b: Bench): string[] => runSheetOf(b, box(b)).steps.map((s) => s.key);
    const drives = (b: Bench): string[] => {
      const plan = boxPlan(b, box(b));
      return 'code' in plan ? [plan.code] : plan.plan.drives.map((d) => `${d.id} ${d.role} ${d.bus}`).sort();
    };
    const [before, rehearsed] = [keys(bench), drives(bench)];
    const does = (key: string): void => {
      const step = runSheetOf(bench, box(bench)).steps.find((s) => s.key === key);
      if (!step) throw new Error(`no step ${key}`);
      bench = done(bench, doneStep(bench, box(bench), step, '', stamp()));
      expect(keys(bench)).toEqual(before);
      expect(drives(bench)).toEqual(rehearsed);
    };
    does('open:out:tern-ssd');
    expect(placeOf(bench, 'tern-ssd')).toBeNull();
    does('open:in:loose-480');
    expect(named(storesIn(bench, 'tern'))).toEqual(['Loose SSD']);
    does('back:in');
    expect(named(storesIn(bench, 'tern'))).toEqual(['Loose SSD', 'Scans drive']);
    for (const key of ['back:in', 'open:in:loose-480', 'open:out:tern-ssd']) {
      const step = runSheetOf(bench, box(bench)).steps.find((s) => s.key === key);
      if (!step) throw new Error(`no step ${key}`);
      bench = done(bench, undoneStep(bench, box(bench), step));
    }
    expect(storesOf(bench).map((s) => [s.id, s.in])).toEqual(storesOf(unplugged).map((s) => [s.id, s.in]));
    expect(box(bench).opening?.moved).toEqual({});
  });

  it('moves by ticks of a sheet that travelled alike, and installs by them', () => {
    const steps = runSheetOf(unplugged, box(unplugged)).steps;
    const ticks = Object.fromEntries(
      ['open:out:tern-ssd', 'open:in:loose-480', 'inst:run', 'back:in'].map((key, i) => {
        const step = steps.find((s) => s.key === key);
        if (!step) throw new Error(`no step ${key}`);
        const at = `2026-06-01T09:0${i}:00.000Z`;
        return [
          key,
          { at, seconds: null, as: lasting(step.what), said: '', noted: '', timed: null, fact: null },
        ];
      }),
    );
    const { act, fresh } = takeTicks(unplugged, box(unplugged), ticks);
    expect(fresh).toBe(4);
    const there = done(unplugged, act);
    expect(named(storesIn(there, 'tern'))).toEqual(['Loose SSD', 'Scans drive']);
    expect(storesOf(there).find((s) => s.id === 'loose-480')).toMatchObject({
      fate: 'keep',
      installed: { boxId: film, at: '2026-06-01T09:02:00.000Z' },
    });
    const run = runSheetOf(there, box(there)).steps.find((s) => s.key === 'inst:run');
    if (!run) throw new Error('no step installs');
    const back = done(there, undoneStep(there, box(there), run));
    expect(storesOf(back).find((s) => s.id === 'loose-480')).toMatchObject({
      fate: 'may be lost',
      installed: null,
    });
  });

  it('moves by a tick at Opening alike', () => {
    const act = tickOpening(unplugged, box(unplugged), 'out:tern-ssd', true, stamp());
    const out = done(unplugged, act);
    expect(placeOf(out, 'tern-ssd')).toBeNull();
    const back = done(out, tickOpening(out, box(out), 'out:tern-ssd', false, stamp()));
    expect(placeOf(back, 'tern-ssd')).toBe('tern');
  });
});

describe('of decisions by dice', () => {
  const loose = storesOf(hall).filter((s) => s.kind === 'drive' && s.in === null);
  const decisions = fc.record({
    ports: fc.integer({ min: 1, max: 4 }),
    target: fc.option(fc.constantFrom(...loose.map((s) => s.id)), { nil: null }),
    aside: fc.subarray(loose.map((s) => s.id)),
    unplug: fc.boolean(),
  });
  /** The hall without the archive's claims, so that every loose drive can be chosen. */
  const decide = ({
    ports,
    target,
    aside,
    unplug,
  }: typeof decisions extends fc.Arbitrary<infer T> ? T : never): Bench => {
    const bench = withPorts({ ...hall, boxes: hall.boxes.filter((b) => b.id !== 'archive') }, ports);
    return {
      ...bench,
      boxes: bench.boxes.map((b) =>
        b.id === film
          ? {
              ...b,
              layout: { ...noBoxLayout(), driveId: target },
              parts: aside,
              precautions: unplug ? ['unplug:tern-ssd'] : [],
            }
          : b,
      ),
    };
  };

  it('Opening, Gather, rehearsal and run sheet say the same of what goes in and out', () => {
    fc.assert(
      fc.property(decisions, (d) => {
        const bench = decide(d);
        const { goesIn, comesOut, makesRoom } = movesOf(bench, box(bench));
        const out = [...comesOut, ...makesRoom];
        const opening = openingOf(bench, box(bench));
        if ('code' in opening) expect([...goesIn, ...out]).toEqual([]);
        else {
          expect(named(opening.goesIn)).toEqual(named(goesIn));
          expect(named(opening.goesOut)).toEqual(named(out));
        }
        const { lines } = gatherList(bench, box(bench));
        expect(lines.flatMap((l) => (l.key.startsWith('bag-') ? [l.key.slice(4)] : [])).sort()).toEqual(
          out.map((s) => s.id).sort(),
        );
        for (const s of goesIn) expect(lines.filter((l) => l.itemId === s.id)).toHaveLength(1);
        if (goesIn.length + out.length > 0) expect(lines.map((l) => l.key)).toContain('tools');
        const plan = boxPlan(bench, box(bench));
        if (!('code' in plan))
          for (const s of makesRoom) expect(plan.plan.drives.map((p) => p.id)).not.toContain(s.id);
        const steps = runSheetOf(bench, box(bench)).steps.map((s) => s.key);
        for (const s of out) expect(steps).toContain(`open:out:${s.id}`);
        // What a precaution takes out goes back; what makes room does not.
        const back = runSheetOf(bench, box(bench)).steps.find((s) => s.what.code === 'put back');
        const names = back?.what.code === 'put back' ? back.what.drives : [];
        if (!('code' in plan)) expect(names).toEqual(expect.arrayContaining(named(comesOut)));
        for (const s of makesRoom) expect(names).not.toContain(s.name);
      }),
      { numRuns: runs(60) },
    );
  });

  it('every step that moves something leads to what was foretold, and taken back to where it was', () => {
    fc.assert(
      fc.property(decisions, (d) => {
        const first = decide(d);
        const { goesIn, comesOut, makesRoom } = movesOf(first, box(first));
        let bench = first;
        const moving = runSheetOf(first, box(first)).steps.filter(
          (s) => /^open:(in|out|memory):/.test(s.key) || s.what.code === 'put back',
        );
        for (const { key } of moving) {
          const step = runSheetOf(bench, box(bench)).steps.find((s) => s.key === key);
          if (!step) throw new Error(`no step ${key}`);
          bench = done(bench, doneStep(bench, box(bench), step, '', stamp()));
        }
        const back = moving.some((s) => s.what.code === 'put back');
        for (const s of goesIn)
          if (moving.some((m) => m.key === `open:in:${s.id}`)) expect(placeOf(bench, s.id)).toBe('tern');
        for (const s of makesRoom) expect(placeOf(bench, s.id)).toBeNull();
        for (const s of comesOut) expect(placeOf(bench, s.id)).toBe(back ? 'tern' : null);
        for (const { key } of [...moving].reverse()) {
          const step = runSheetOf(bench, box(bench)).steps.find((s) => s.key === key);
          if (!step) throw new Error(`no step ${key} to take back`);
          bench = done(bench, undoneStep(bench, box(bench), step));
        }
        expect(storesOf(bench).map((s) => [s.id, s.in])).toEqual(storesOf(first).map((s) => [s.id, s.in]));
      }),
      { numRuns: runs(40) },
    );
  });
});
