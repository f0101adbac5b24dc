import fc from 'fast-check';
import { doneStep, leaveStep, takeTicks, undoneStep } from '@zb/core/acts/run';
import { planOf } from '@zb/core/box/plan';
import { runSheetOf, type RunSheet, type RunStep } from '@zb/core/box/runSheet';
import { stepsOf } from '@zb/core/box/steps/index';
import { Scene } from '@zb/core/box/scene';
import { hazards } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findBox, findMachine, storesOf, type Bench, type Box, type Machine } from '@zb/core/model/bench';
import type { FactKey } from '@zb/core/model/facts';
import { knownFact } from '@zb/core/model/known';
import { factOfSetting } from '@zb/core/runsheet/settingFact';
import { isStore } from '@zb/core/model/shelf';
import { applyChanges } from '@zb/core/model/changes';
import { faultOf } from '@zb/core/model/fault';
import { readTravel, TravelError } from '@zb/core/model/travel';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { runSheetMarkdown } from '@zb/core/words/runsheet/markdown';
import { travelHtml, travelOf } from '@zb/core/words/runsheet/travel';
import { anyAsk, made } from './anyBox';
import { runs } from './runs';

const hall = saltmarshHall();
let clock = Date.parse('2026-03-05T18:00:00.000Z');
let names = 0;
/** A stamp a minute after the last. */
const stamp = () => {
  clock += 60_000;
  return { now: new Date(clock).toISOString(), id: () => `t${(names += 1)}` };
};
const boxIn = (bench: Bench, id: string): Box => findBox(bench, id) as Box;
const stepOf = (sheet: RunSheet, key: string): RunStep => {
  const found = sheet.steps.find((s) => s.key === key);
  if (!found) throw new Error(`no step ${key} among ${sheet.steps.map((s) => s.key).join(', ')}`);
  return found;
};
const doAll = (bench: Bench, id: string, noted = ''): Bench => {
  let now = bench;
  for (let i = 0; i < 500; i += 1) {
    const { next } = runSheetOf(now, boxIn(now, id));
    if (!next) return now;
    now = applyChanges(now, doneStep(now, boxIn(now, id), next, noted, stamp()).changes);
  }
  throw new Error('it never ends');
};

describe('the order of the steps', () => {
  it('a setting that is made is known of the machine, stays on the sheet as done, and goes back with its tick', () => {
    let bench: Bench = hall;
    for (const { id } of hall.boxes) {
      const setting = runSheetOf(bench, boxIn(bench, id)).steps.find(
        (s) =>
          s.state !== 'done' &&
          s.what.code === 'set' &&
          s.what.setting !== 'port of a drive' &&
          s.what.setting !== 'boot order',
      );
      if (!setting) continue;
      const machine = () => findMachine(bench, boxIn(bench, id).machineId) as Machine;
      const before = machine().facts;
      bench = applyChanges(bench, doneStep(bench, boxIn(bench, id), setting, 'as found', stamp()).changes);
      const made = setting.what.code === 'set' ? factOfSetting(setting.what) : null;
      expect(knownFact(machine(), made?.fact as FactKey)?.value).toBe(made?.value);
      const again = stepOf(runSheetOf(bench, boxIn(bench, id)), setting.key);
      expect([again.state, again.changed]).toEqual(['done', null]);
      bench = applyChanges(bench, undoneStep(bench, boxIn(bench, id), again).changes);
      expect(machine().facts).toEqual(
        before[made?.fact as FactKey] ? before : { ...before, [made?.fact as FactKey]: {} },
      );
      expect(stepOf(runSheetOf(bench, boxIn(bench, id)), setting.key).done).toBeNull();
    }
    expect(bench).not.toBe(hall);
  });
  it('has no step before what it needs, each once, and every one with words', () => {
    let most = 0;
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        const scene = new Scene(bench, box);
        const drafts = stepsOf(scene);
        const { steps, faults } = runSheetOf(bench, box);
        most = Math.max(most, steps.length);
        expect(faults.filter((f) => f.code === 'circle')).toEqual([]);
        expect(steps.map((s) => s.key).sort()).toEqual(drafts.map((d) => d.key).sort());
        expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
        const place = new Map(steps.map((s, i) => [s.key, i]));
        // What a step needs is read from its stop’s own words once more, not from the sheet.
        for (const d of drafts)
          for (const need of d.after)
            for (const other of drafts) {
              const meant = need.endsWith('*') ? other.key.startsWith(need.slice(0, -1)) : other.key === need;
              if (meant && other.key !== d.key)
                expect([d.key, place.get(other.key)! < place.get(d.key)!]).toEqual([d.key, true]);
            }
        for (const s of steps) {
          const { title, lines, exact } = runStepWords(s.what);
          expect(title.trim().length).toBeGreaterThan(2);
          expect(JSON.stringify([title, lines, exact])).not.toMatch(/undefined|NaN|\[object/);
          expect(s.hands.low).toBeLessThanOrEqual(s.hands.high);
          expect(s.alone.low).toBeLessThanOrEqual(s.alone.high);
        }
      }),
      { numRuns: runs(240) },
    );
    expect(most).toBeGreaterThan(30);
  });

  it('has a step for every precaution that was chosen, before the drive is lost where it must be', () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box, chosen } = made(ask);
        const { steps } = runSheetOf(bench, box);
        const at = (holds: (s: RunStep) => boolean): number => steps.findIndex(holds);
        // What an installer erases; of what is written straight, the writing itself.
        const first = (of: string): number =>
          at((x) => x.key.startsWith(of) && x.hurts.includes('what is on the drive is lost'));
        const erases = first('inst:') >= 0 ? first('inst:') : first('write:');
        const named = (id: string | null): string => bench.items.find((i) => i.id === id)?.name ?? 'none';
        for (const p of chosen) {
          met.add(p.kind);
          const drive = named(p.drive);
          const where = at(({ what }) => {
            switch (p.kind) {
              case 'away':
                return what.code === 'put away' && what.drive === drive;
              case 'unplug':
                // What is not in the machine yet is kept out of it.
                return storesOf(bench).find((s) => s.id === p.drive)?.in === box.machineId
                  ? what.code === 'open' && what.what.code === 'take out' && what.what.drive === drive
                  : what.code === 'put away' && what.drive === drive;
              case 'port off':
                return (
                  (what.code === 'set' && what.setting === 'port of a drive' && what.of === drive) ||
                  // Of an image that is written elsewhere it is not plugged in there.
                  (what.code === 'put away' && what.drive === drive)
                );
              case 'copy':
                return what.code === 'copy away' && what.drive === drive;
              case 'label':
                return what.code === 'label the target';
              case 'serial':
                return what.code === 'choose the drive' && what.by === 'serial' && what.serial !== null;
              case 'read':
                return (what.code === 'choose the drive' || what.code === 'write') && what.read;
              case 'menu':
                return (
                  what.code === 'start the stick' &&
                  (what.by === 'menu' || box.precautions.includes('stick first'))
                );
              case 'stick first':
                return what.code === 'set' && what.setting === 'boot order';
              case 'key':
                return what.code === 'try the menu key';
              case 'target first':
                return what.code === 'target first';
              case 'stick out':
                return what.code === 'stick out';
              case 'mode':
                return what.code === 'set' && what.setting === 'boot mode';
              case 'secure off':
                return what.code === 'set' && what.setting === 'Secure Boot' && what.to === 'off';
              case 'enrol':
                return what.code === 'enrol the key';
              case 'power':
                return what.code === 'secure the power';
            }
          });
          expect([p.id, where >= 0]).toEqual([p.id, true]);
          const afterwards = ['target first', 'stick out', 'enrol'].includes(p.kind);
          if (!afterwards && erases >= 0) expect([p.id, where <= erases]).toEqual([p.id, true]);
        }
      }),
      { numRuns: runs(400) },
    );
    // It was asked of most kinds there are, else it showed little.
    expect(met.size).toBeGreaterThanOrEqual(12);
  });

  it('writes over no drive before its fate is said, what matters is copied, and the others are away', () => {
    fc.assert(
      fc.property(anyAsk, (ask) => {
        const { bench, box } = made(ask);
        const { steps } = runSheetOf(bench, box);
        const say = steps.findIndex((s) => s.key === 'inst:yes' || s.key === 'inst:run');
        if (say < 0) return;
        for (const [i, s] of steps.entries())
          if (
            ['decide a drive', 'copy away', 'put away', 'secure the power'].includes(s.what.code) ||
            s.key.startsWith('open:')
          )
            expect([s.key, i < say]).toEqual([s.key, true]);
      }),
      { numRuns: runs(200) },
    );
  });
});

describe('what was done', () => {
  it('stays done when a decision changes, and says what it was', () => {
    const id = 'film-night';
    // The archive's pool has reserved the loose disk that is chosen below.
    const others = hall.boxes.filter((b) => b.id !== 'archive');
    let bench = doAll({ ...hall, boxes: others.map((b) => (b.id === id ? { ...b, signoffs: [] } : b)) }, id);
    const before = runSheetOf(bench, boxIn(bench, id));
    expect(before.steps.every((s) => s.state === 'done')).toBe(true);
    const box = boxIn(bench, id);
    // Another drive takes the system.
    const other = { ...box, layout: { ...(box.layout as NonNullable<Box['layout']>), driveId: 'loose-1t' } };
    bench = applyChanges(bench, [{ in: 'boxes', id, to: other }]);
    const after = runSheetOf(bench, other);
    const chosen = stepOf(after, 'inst:drive');
    expect(chosen.state).toBe('done');
    expect(chosen.changed).toContain('Loose SSD');
    expect(stepOf(after, 'first:language').changed).toBeNull();
    const keys = new Set(after.steps.map((s) => s.key));
    expect(after.gone.map((g) => g.key)).toEqual(
      before.steps.filter((s) => s.done?.ticked && !keys.has(s.key)).map((s) => s.key),
    );
  });

  it('is kept on paper and on the stops alike, can be taken back, and signs a stop off with its last step', () => {
    const id = 'film-night';
    let bench: Bench = hall;
    const box = (): Box => boxIn(bench, id);
    const sheet = (): RunSheet => runSheetOf(bench, box());
    const fetch = doneStep(bench, box(), stepOf(sheet(), 'verify:fetch'), '', stamp());
    expect(fetch.signed).toEqual([]);
    bench = applyChanges(bench, fetch.changes);
    const sum = doneStep(bench, box(), stepOf(sheet(), 'verify:sum'), '', stamp());
    expect(sum.signed).toEqual(['verify']);
    expect(faultOf(sum, bench)).toBeUndefined();
    bench = applyChanges(bench, sum.changes);
    expect(box().signoffs.map((s) => s.stop)).toContain('verify');
    // The clock went on with the step before, a minute ago.
    expect(box().run?.steps['verify:sum']?.seconds).toBe(60);
    const language = stepOf(sheet(), 'first:language');
    bench = applyChanges(bench, doneStep(bench, box(), language, '', stamp()).changes);
    expect(box().first?.done).toContain('language');
    bench = applyChanges(bench, undoneStep(bench, box(), stepOf(sheet(), 'first:language')).changes);
    expect(box().first?.done).not.toContain('language');
    expect(stepOf(sheet(), 'first:language').state).not.toBe('done');
    bench = applyChanges(
      bench,
      leaveStep(box(), stepOf(sheet(), 'first:zone'), 'it has none', stamp()).changes,
    );
    expect(stepOf(sheet(), 'first:zone').because).toBe('it has none');
    bench = applyChanges(bench, leaveStep(box(), stepOf(sheet(), 'first:zone'), null, stamp()).changes);
    expect(stepOf(sheet(), 'first:zone').state).not.toBe('left out');
  });

  it('signs off what is settled, and nothing against a Stop', () => {
    const id = 'film-night';
    const fresh = { ...boxIn(hall, id), signoffs: [] };
    const bench = doAll({ ...hall, boxes: hall.boxes.map((b) => (b.id === id ? fresh : b)) }, id);
    const box = boxIn(bench, id);
    const signed = box.signoffs.map((s) => s.stop);
    expect(signed).toEqual(
      expect.arrayContaining(['survey', 'choose', 'gather', 'verify', 'write', 'network', 'keep']),
    );
    const stops = hazards(bench, box)
      .filter((h) => h.grade === 'stop')
      .map((h) => h.stop);
    expect(stops.length).toBeGreaterThan(0);
    for (const stop of stops) expect(signed).not.toContain(stop);
  });

  it('notes a setting as it was found', () => {
    const id = 'games-corner';
    const box = boxIn(hall, id);
    const step = stepOf(runSheetOf(hall, box), 'setup:set:Secure Boot');
    const { changes } = doneStep(hall, box, step, 'Enabled, standard keys', stamp());
    const line = applyChanges(hall, changes).log.find(
      (l) => l.kind === 'setting' && l.boxId === id && l.text === 'Secure Boot',
    );
    expect(line).toMatchObject({ from: 'Enabled, standard keys', to: 'off', stop: 'firmware' });
  });
});

describe('a sheet that travels', () => {
  const box = boxIn(hall, 'film-night');
  const page = (): string =>
    travelHtml(travelOf(runSheetOf(hall, box), box, hall.name, '2026-03-05T18:00:00.000Z'));

  it('is read back as it was made, whatever is in its names', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 60 }), (name) => {
        const odd = { ...box, name: `${name}</script><!--` };
        const bench = { ...hall, name: `${name}`.slice(0, 100) };
        const sheet = travelOf(runSheetOf(bench, odd), odd, bench.name, '2026-03-05T18:00:00.000Z');
        expect(readTravel(travelHtml(sheet))).toEqual(sheet);
      }),
      { numRuns: runs(80) },
    );
  });

  it('needs nothing that is not in it', () => {
    expect(page()).not.toMatch(/(src|href)=|@import|url\(/);
  });

  it('brings its ticks back; what was done here meanwhile stays', () => {
    const travel = readTravel(page());
    const done = {
      at: '2026-03-05T19:00:00.000Z',
      seconds: 90,
      as: '{}',
      said: 'Fetch it',
      noted: '',
      timed: null,
      fact: null,
    };
    const here = applyChanges(
      hall,
      doneStep(hall, box, stepOf(runSheetOf(hall, box), 'verify:fetch'), '', stamp()).changes,
    );
    const at = boxIn(here, box.id).run?.steps['verify:fetch']?.at;
    const taken = takeTicks(here, boxIn(here, box.id), {
      ...travel.done,
      'verify:fetch': done,
      'first:language': done,
      'no such step': done,
    });
    expect(taken.strange).toEqual(['no such step']);
    const after = boxIn(applyChanges(here, taken.act.changes), box.id);
    expect(after.run?.steps['verify:fetch']?.at).toBe(at);
    expect(after.run?.steps['first:language']).toMatchObject({
      at: done.at,
      seconds: 90,
      // Timed as what it is here: the sheet that travelled knows nothing of that.
      timed: { act: 'first start: language', kind: 'mini PC' },
    });
    expect(after.first?.done).toContain('language');
    expect(after.run?.steps['no such step']).toBeUndefined();
  });

  it.each([
    ['no record in it', () => '<html></html>'],
    ['not JSON', () => page().replace(/("format":"zealous-box-run")[\s\S]*?<\/script>/, '$1</script>')],
    ['not as it was made', () => page().replace('"version":1', '"version":9')],
    ['not as it was made', () => page().replace(/"number":1,/, '"number":"one",')],
    [
      'a tick without its step',
      () =>
        page().replace(
          '"done":{',
          '"done":{"stray":{"at":"2026-03-05T19:00:00.000Z","seconds":null,"as":"","said":"","noted":""},',
        ),
    ],
  ])('is not taken where there is %s', (code, html) => {
    let fault: unknown;
    try {
      readTravel(html());
    } catch (error) {
      fault = error instanceof TravelError ? error.fault.code : error;
    }
    expect(fault).toBe(code);
  });
});

describe('the sheet as Markdown', () => {
  it('has a task for each step, ticked where it is done, and commands to the letter', () => {
    const box = boxIn(hall, 'archive');
    const sheet = runSheetOf(hall, box);
    const text = runSheetMarkdown(planOf(hall, box));
    expect(text.match(/^- \[[ x]\] /gm)).toHaveLength(sheet.steps.length);
    expect(
      text.match(/^- \[x\] .*, (measured|seen in the bench|a photo shows it|by your word)\)$/gm),
    ).toHaveLength(sheet.steps.filter((s) => s.state === 'done').length);
    for (const s of sheet.steps)
      if (s.what.code === 'pool') for (const l of s.what.text.split('\n')) expect(text).toContain(l);
  });
});

it('long names break no act: what is kept of a step can be read back', () => {
  const long = 'A very long name of a thing that somebody typed '.repeat(4).slice(0, 199);
  const bench: Bench = {
    ...hall,
    items: hall.items.map((i) => (isStore(i) ? { ...i, name: `${long}${i.id}`.slice(-199) } : i)),
    profiles: hall.profiles.map((p) => ({
      ...p,
      drivers: p.drivers.map((d) => `${d} ${long}`.slice(0, 199)),
    })),
  };
  for (const id of ['games-corner', 'film-night', 'archive']) {
    let now = bench;
    for (let i = 0; i < 200; i += 1) {
      const box = boxIn(now, id);
      const { next } = runSheetOf(now, box);
      if (!next) break;
      const act = doneStep(now, box, next, long.repeat(5), stamp());
      expect([next.key, faultOf(act, now)]).toEqual([next.key, undefined]);
      now = applyChanges(now, act.changes);
    }
  }
});
