import fc from 'fast-check';
import { decideLayout, takePrecautions } from '@zb/core/acts/install';
import { updateBox } from '@zb/core/acts/box';
import { leaveStep, undoneStep } from '@zb/core/acts/run';
import { planOf, type Plan } from '@zb/core/box/plan';
import { runSheetOf, type RunStep } from '@zb/core/box/runSheet';
import { hazards } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine, storesOf, type Bench, type Box, type Machine, type Store } from '@zb/core/model/bench';
import type { FactKey } from '@zb/core/model/facts';
import { knownFact } from '@zb/core/model/known';
import { isStore } from '@zb/core/model/shelf';
import { movesOf } from '@zb/core/opening/moves';
import { emptyContent, isBlank } from '@zb/core/model/content';
import { bootLadder } from '@zb/core/starting/ladder';
import { anyAsk, made } from './anyBox';
import { boxIn, doAll, done, stamp } from './doAll';
import { planFixtures } from './planFixtures';
import { runs } from './runs';

const hall = saltmarshHall();
/** What is known of the hardware, without the moments at which it came about. */
function stateOf(bench: Bench, box: Box) {
  const machine = findMachine(bench, box.machineId);
  return {
    media: storesOf(bench).map((s) => ({
      id: s.id,
      in: s.in,
      fate: s.fate,
      origin: s.retentionOrigin,
      blank: isBlank(s.content),
      parts: s.content?.parts.length ?? null,
      image: s.wholeImage?.imageId ?? null,
      system: s.installed?.boxId ?? null,
      pool: s.pooled?.boxId ?? null,
    })),
    facts:
      machine &&
      Object.keys(machine.facts).flatMap((k) => {
        const known = knownFact(machine, k as FactKey);
        return known ? [[k, known.value]] : [];
      }),
    bootFirst: machine?.bootFirst,
    portsOff: machine?.portsOff,
    written: box.written?.imageId ?? null,
  };
}
describe('a plan', () => {
  it('is stopped where the installer is to be written to the drive that it installs on', () => {
    const [wipe] = planFixtures;
    if (!wipe) throw new Error('no fixture');
    const box: Box = { ...wipe.box, targetSerial: 'SN-2026-a' };
    const bench: Bench = { ...wipe.bench, boxes: [box] };
    const { unmet, reaches } = planOf(bench, box);
    expect(unmet.map((u) => [u.key, u.must.code])).toEqual([
      ['write:write', 'stick is not the system drive'],
    ]);
    expect(reaches).toBe(false);
    const stops = hazards(bench, box).filter((h) => h.grade === 'stop');
    expect(stops.map((h) => [h.code, h.stop])).toEqual([['stick is the system drive', 'write']]);
  });

  it('puts in what was to go in and was kept out as a precaution, once the system is on', () => {
    const [wipe] = planFixtures;
    if (!wipe) throw new Error('no fixture');
    const more = { ...storesOf(wipe.bench)[0], id: 'more', name: 'More', serial: 'SN-2026-more', in: null };
    const box: Box = { ...wipe.box, parts: ['more'], precautions: ['unplug:more'] };
    const bench: Bench = { ...wipe.bench, items: [...wipe.bench.items, more as Store], boxes: [box] };
    const { sheet, end } = planOf(bench, box);
    const at = (key: string): number => sheet.steps.findIndex((s) => s.key === key);
    expect(sheet.steps.filter((s) => s.effects.some((e) => 'item' in e && e.item === 'more'))).toEqual([
      expect.objectContaining({ key: 'back:in' }),
    ]);
    expect(at('back:in')).toBeGreaterThan(at('inst:run'));
    expect(storesOf(end.bench).find((s) => s.id === 'more')?.in).toBe('desk');
  });

  it('ends where doing its steps one by one leads to', () => {
    let moved = 0;
    let written = 0;
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        const { end } = planOf(bench, box);
        const after = doAll(bench, box.id).bench;
        const is = stateOf(after, boxIn(after, box.id));
        expect(is).toEqual(stateOf(end.bench, end.box));
        const was = stateOf(bench, box);
        moved += is.media.filter((m, i) => m.in !== was.media[i]?.in).length;
        written += is.media.filter((m, i) => m.system !== was.media[i]?.system).length;
      }),
      { numRuns: runs(28), endOnFailure: true },
    );
    // Something was moved and installed, else it showed little.
    expect(Math.min(moved, written)).toBeGreaterThan(0);
  });

  it('is taken back whole where several steps have changed one drive', () => {
    const [, , , fresh] = planFixtures;
    if (!fresh) throw new Error('no fixture');
    // A drive with something on it goes in: it is erased, and then installed on.
    const content = { ...emptyContent('survey', ''), table: 'gpt' as const };
    const items = fresh.bench.items.map((i) => (i.id === 'n' && isStore(i) ? { ...i, content } : i));
    const bench = { ...fresh.bench, items };
    const all = doAll(bench, 'build');
    expect(all.keys).toEqual(expect.arrayContaining(['open:erase:n', 'inst:run']));
    let now = all.bench;
    for (const key of [...all.keys].reverse()) {
      const step = runSheetOf(now, boxIn(now, 'build')).steps.find((s) => s.key === key);
      if (step) now = done(now, undoneStep(now, boxIn(now, 'build'), step));
    }
    const was = storesOf(bench).find((s) => s.id === 'n');
    expect(storesOf(now).find((s) => s.id === 'n')).toEqual(was);
  });

  it('is opened, and put back into, by how the machine is fed', () => {
    const out = planFixtures.find((f) => f.name === 'a kept drive out meanwhile');
    if (!out) throw new Error('no fixture');
    const of = (form: Machine['form']): { keys: string[]; supply: string | undefined } => {
      const items = out.bench.items.map((i) => (i.kind === 'machine' ? { ...i, form } : i));
      const { steps } = runSheetOf({ ...out.bench, items }, out.box);
      const back = steps.find((s) => s.key === 'back:in');
      return {
        keys: steps.map((s) => s.key),
        supply: back?.what.code === 'put back' ? back.what.supply : undefined,
      };
    };
    expect(of('office desktop').supply).toBe('inside');
    expect(of('office desktop').keys).not.toContain('open:battery');
    // A laptop has a battery unless somebody has said that it has none: its plug is out before a hand goes in.
    expect(of('laptop').supply).toBe('battery');
    const { keys } = of('laptop');
    expect(keys.indexOf('open:battery')).toBeLessThan(keys.indexOf('open:out:b'));
    expect(keys.indexOf('open:battery')).toBeGreaterThan(keys.indexOf('open:cover'));
  });

  it('erases a drive that goes in before a system is written on it, not afterwards', () => {
    const straight = planFixtures.find((f) => f.name === 'written in an adapter');
    if (!straight) throw new Error('no fixture');
    const content = { ...emptyContent('survey', ''), table: 'gpt' as const };
    const items = straight.bench.items.map((i) => (isStore(i) ? { ...i, in: null, content } : i));
    const { sheet, end } = planOf({ ...straight.bench, items }, straight.box);
    const at = (key: string): number => sheet.steps.findIndex((s) => s.key === key);
    expect(at('open:erase:a')).toBeGreaterThanOrEqual(0);
    expect(at('open:erase:a')).toBeLessThan(at('write:write'));
    expect(storesOf(end.bench).find((s) => s.id === 'a')?.installed?.boxId).toBe('build');
  });

  it('is the same while it is done, and taken back leads to where it began', () => {
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        const all = doAll(bench, box.id);
        let now = all.bench;
        for (const key of [...all.keys].reverse()) {
          const step = runSheetOf(now, boxIn(now, box.id)).steps.find((s) => s.key === key);
          if (!step) continue;
          now = done(now, undoneStep(now, boxIn(now, box.id), step));
        }
        expect(stateOf(now, boxIn(now, box.id))).toEqual(stateOf(bench, box));
        expect(boxIn(now, box.id).opening?.moved ?? {}).toEqual({});
      }),
      { numRuns: runs(24), endOnFailure: true },
    );
  });

  it('brings back what a precaution takes out', () => {
    let out = 0;
    const holds = (bench: Bench, box: Box): void => {
      const { comesOut } = movesOf(bench, box);
      const { end, sheet } = planOf(bench, box);
      const taken = comesOut.filter((s) => sheet.steps.some((x) => x.key === `open:out:${s.id}`));
      out += taken.length;
      for (const s of taken)
        expect([s.id, storesOf(end.bench).find((x) => x.id === s.id)?.in]).toEqual([s.id, box.machineId]);
    };
    // Of benches by chance few take anything out: the fixtures do.
    for (const { bench, box } of planFixtures) holds(bench, box);
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made({ ...ask, every: true });
        holds(bench, box);
      }),
      { numRuns: runs(80), endOnFailure: true },
    );
    expect(out).toBeGreaterThan(0);
  });

  it('leaves the boot order and every port as they were, but for what was put first', () => {
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made({ ...ask, every: true });
        const { end, sheet } = planOf(bench, box);
        const machine = findMachine(end.bench, box.machineId);
        expect(machine?.portsOff).toEqual([]);
        const first = sheet.steps.some((s) => s.what.code === 'target first');
        if (!first) expect(machine?.bootFirst).toBeNull();
      }),
      { numRuns: runs(60), endOnFailure: true },
    );
  });

  it('says that it boots exactly where the boot ladder on its last state says so', () => {
    let reached = 0;
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        const { goals, end } = planOf(bench, box);
        const goal = goals.find((g) => g.goal.code === 'boots its system');
        const machine = findMachine(end.bench, box.machineId);
        if (!goal || !machine) return;
        const { result } = bootLadder(end.bench, end.box, machine);
        if (goal.holds) {
          reached += 1;
          expect(result).toBe('the new system starts');
        }
        if (goal.holds === false && goal.lack?.code === 'another boots')
          expect(result).not.toBe('the new system starts');
      }),
      { numRuns: runs(80), endOnFailure: true },
    );
    expect(reached).toBeGreaterThan(0);
  });
});

const withLoader = {
  ...emptyContent('survey', ''),
  table: 'gpt' as const,
  starts: [{ by: 'loader' as const, firmware: null, path: '', title: 'Old system' }],
};
/** Film night with a stick, so that its plan is whole. */
const id = 'film-night';
const stick = storesOf(hall).find((s) => s.kind === 'stick' && s.fate === 'may be lost' && s.in === null);
const whole = done(hall, updateBox(boxIn(hall, id), { targetSerial: stick?.serial ?? null }, ''));
const plan = (bench: Bench): Plan => planOf(bench, boxIn(bench, id));
const stepOf = (bench: Bench, key: string): RunStep => {
  const found = plan(bench).sheet.steps.find((s) => s.key === key);
  if (!found) throw new Error(`no step ${key}`);
  return found;
};
const lacks = (bench: Bench): string[] =>
  plan(bench).goals.flatMap((g) => (g.holds === true ? [] : [`${g.goal.code}: ${g.lack?.code}`]));

describe('where a plan does not reach its end', () => {
  it('says first what is lacking, not what follows from it', () => {
    expect(plan(hall).unmet.map((u) => [u.key, u.must.code])).toEqual([['write:write', 'medium is chosen']]);
  });

  it('names the step that is skipped', () => {
    const bench = done(
      whole,
      leaveStep(boxIn(whole, id), stepOf(whole, 'open:in:loose-480'), 'no time', stamp()),
    );
    const goal = plan(bench).goals.find((g) => g.goal.code === 'boots its system');
    expect(goal).toMatchObject({
      holds: false,
      lack: { code: 'system drive outside' },
      wayOut: { act: { code: 'do', step: 'open:in:loose-480' } },
    });
    expect(plan(bench).unmet.map((u) => u.must.code)).toContain('drive is in the machine');
    expect(plan(bench).reaches).toBe(false);
  });

  it('is not taken for done where every step was skipped', () => {
    let bench = whole;
    for (let i = 0; i < 500; i += 1) {
      const { next } = runSheetOf(bench, boxIn(bench, id));
      if (!next) break;
      bench = done(bench, leaveStep(boxIn(bench, id), next, 'no', stamp()));
    }
    expect(plan(bench).sheet.next).toBeNull();
    expect(lacks(bench)).toContain('boots its system: system not installed');
  });

  it('names another system that boots, and is mended by what it offers', () => {
    // Two drives, the old system in front, and an installer that makes no entry of its own.
    const two = done(whole, takePrecautions(boxIn(whole, id), [], ''));
    const machine = findMachine(two, 'tern');
    if (!machine) throw new Error('no tern');
    const first = {
      ...two,
      items: two.items.map((i) =>
        i.id === 'tern'
          ? { ...machine, bootFirst: 'tern-ssd' }
          : i.id === 'tern-ssd' && isStore(i)
            ? { ...i, content: withLoader }
            : i,
      ),
      profiles: two.profiles.map((p) => ({
        ...p,
        manner: { ...p.manner, entry: 'fallback path only' as const },
      })),
    };
    const goal = plan(first).goals.find((g) => g.goal.code === 'boots its system');
    expect(goal).toMatchObject({
      holds: false,
      lack: { code: 'another boots' },
      wayOut: { stage: 'install', act: { code: 'take', precaution: 'target first' } },
    });
    const mended = done(first, takePrecautions(boxIn(first, id), ['target first'], ''));
    expect(lacks(mended)).not.toContain('boots its system: another boots');
  });

  it('knows no plan without a system', () => {
    const bare = done(whole, updateBox(boxIn(whole, id), { profileId: null }, ''));
    expect(plan(bare).reaches).toBe(false);
    expect(lacks(bare)).toEqual(['has a machine and a system: no system']);
  });

  it('tells a drive that nobody has decided on', () => {
    const open = done(whole, decideLayout(boxIn(whole, id), { driveId: null }, ''));
    const two = { ...open, items: open.items.map((i) => (i.id === 'loose-480' ? { ...i, in: 'tern' } : i)) };
    const both = {
      ...two,
      items: two.items.map((i) => (i.id === 'tern-ssd' ? { ...i, fate: 'may be lost' as const } : i)),
    };
    expect(lacks(both as Bench)).toContain('boots its system: system drive not decided');
  });
});
