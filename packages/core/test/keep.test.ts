import fc from 'fast-check';
import { createBox, toggleSignoff, updateBox } from '@zb/core/acts/box';
import { doneChore, openAgain, retire, setChore } from '@zb/core/acts/keep';
import { idleMachines, benchCards } from '@zb/core/box/benchDay';
import { copyOrAgain } from '@zb/core/box/copyOrAgain';
import { judgeOn } from '@zb/core/box/today';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { choresOf, isDue } from '@zb/core/keeping/chores';
import { closedAgainst, isClosed } from '@zb/core/keeping/closed';
import { leavesReadable, retirementOf } from '@zb/core/keeping/retirement';
import { firmwareBack, keptSettings } from '@zb/core/keeping/settings';
import { findBox, hostsOfBox, storesIn, storesOf, type Bench, type Box } from '@zb/core/model/bench';
import { isBlank } from '@zb/core/model/content';
import { applyChanges, type Act } from '@zb/core/model/changes';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { machineEnds } from '@zb/core/model/keep';
import { stops } from '@zb/core/model/stops';
import { buildSheet } from '@zb/core/words/buildSheet';
import { sheetHtml } from '@zb/core/words/handOver/html';
import { runs } from './runs';

const boxIn = (bench: Bench, id: string): Box => {
  const box = findBox(bench, id);
  if (!box) throw new Error(`no box ${id}`);
  return box;
};
const hall = saltmarshHall();
let ids = 0;
const stamp = (now = '2026-06-01T09:00:00.000Z') => ({ now, id: () => `made-${(ids += 1)}` });
const done = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const signed = (bench: Bench, id: string): Bench => {
  const box = boxIn(bench, id);
  const signoffs = stops.map((stop) => ({ stop, at: '2026-03-06T12:00:00.000Z' }));
  return { ...bench, boxes: bench.boxes.map((b) => (b.id === id ? { ...box, signoffs } : b)) };
};
const finished = signed(hall, 'archive');

describe('what comes round', () => {
  const chore = (bench: Bench, code: string, today: string) => {
    const found = choresOf(bench, boxIn(bench, 'archive'), today).find((c) => c.code === code);
    if (!found) throw new Error(`no ${code}`);
    return found;
  };

  it('is counted from the day the box was finished, and from the day it was done', () => {
    expect(chore(finished, 'update day', '2026-03-10').due).toBe('2026-04-05');
    const late = chore(finished, 'update day', '2026-04-08');
    expect([late.inDays, isDue(late)]).toEqual([-3, true]);
    const after = done(finished, doneChore(boxIn(finished, 'archive'), late, '2026-04-08', stamp()));
    expect(chore(after, 'update day', '2026-04-08').due).toBe('2026-05-08');
    expect(isDue(chore(after, 'update day', '2026-04-08'))).toBe(false);
  });

  it('is not due of a box that is still being built', () => {
    const open = { ...hall, boxes: hall.boxes.map((b) => ({ ...b, pool: null, things: [], reach: null })) };
    for (const b of open.boxes) expect(choresOf(open, b, '2026-06-01').filter(isDue)).toEqual([]);
  });

  it('says the same day as the stop that keeps it too', () => {
    const box = boxIn(finished, 'archive');
    const read = done(
      finished,
      doneChore(box, chore(finished, 'read through', '2026-05-01'), '2026-05-01', stamp()),
    );
    expect(boxIn(read, 'archive').pool?.scrubbed).toBe('2026-05-01');
    const back = done(
      finished,
      doneChore(box, chore(finished, 'bring back', '2026-05-01'), '2026-05-01', stamp()),
    );
    expect(boxIn(back, 'archive').things[0]?.restored).toBe('2026-05-01');
    const copied = boxIn(
      done(finished, doneChore(box, chore(finished, 'back up', '2026-05-01'), '2026-05-01', stamp())),
      'archive',
    );
    for (const c of copied.things[0]?.copies ?? [])
      expect(c.at).toBe(
        c.where === 'this pool' ? box.things[0]?.copies.find((x) => x.where === c.where)?.at : '2026-05-01',
      );
  });

  it('comes as often as somebody decided, or not at all', () => {
    const box = boxIn(finished, 'archive');
    const c = chore(finished, 'long drive test', '2026-03-10');
    const often = done(finished, setChore(box, c, { everyDays: 5, off: false }));
    expect(chore(often, 'long drive test', '2026-03-10').due).toBe('2026-03-11');
    const off = done(finished, setChore(box, c, { everyDays: null, off: true }));
    expect(chore(off, 'long drive test', '2026-03-10').due).toBe(null);
  });

  it('is spoken of before support or a certificate ends', () => {
    const { due } = chore(finished, 'support ends', '2026-03-10');
    expect(due).toBe('2028-10-15');
    expect(isDue(chore(finished, 'support ends', '2028-07-16'))).toBe(false);
    expect(isDue(chore(finished, 'support ends', '2028-07-18'))).toBe(true);
  });

  it('is in order of its days, whatever was done when', () => {
    const day = fc
      .integer({ min: 0, max: 900 })
      .map((n) => new Date(Date.UTC(2026, 2, 6) + n * 86_400_000).toISOString().slice(0, 10));
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(7), day), { maxLength: 12 }), day, (acts, today) => {
        let bench = finished;
        for (const [n, at] of acts) {
          const box = boxIn(bench, 'archive');
          const c = choresOf(bench, box, at)[n];
          if (c && !c.off) bench = done(bench, doneChore(box, c, at, stamp()));
        }
        const all = choresOf(bench, boxIn(bench, 'archive'), today);
        const days = all.map((c) => c.inDays ?? Infinity);
        expect(days).toEqual([...days].sort((a, b) => a - b));
        for (const c of all) if (c.due !== null && c.last !== null) expect(c.due > c.last).toBe(true);
        expect(new Set(all.map((c) => c.key)).size).toBe(all.length);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('a finished box', () => {
  const box = boxIn(finished, 'archive');
  it('is closed: what was decided stays, what keeps it going is done', () => {
    expect(isClosed(box)).toBe(true);
    expect(closedAgainst(finished, updateBox(box, { hoursPerDay: 3 }, 'hours'))?.id).toBe('archive');
    expect(closedAgainst(finished, toggleSignoff(finished, box, 'keep', stamp()))?.id).toBe('archive');
    expect(closedAgainst(finished, { changes: [{ in: 'boxes', id: 'archive' }] })?.id).toBe('archive');
    const [chore] = choresOf(finished, box, '2026-06-01');
    if (!chore) throw new Error('no chore');
    expect(closedAgainst(finished, doneChore(box, chore, '2026-06-01', stamp()))).toBeUndefined();
    // Others are not held up by it.
    const other = boxIn(finished, 'film-night');
    expect(closedAgainst(finished, updateBox(other, { hoursPerDay: 3 }, 'hours'))).toBeUndefined();
    expect(closedAgainst(finished, createBox('new', 'music', undefined, stamp()))).toBeUndefined();
  });

  it('is opened with a reason that the log keeps, and closed again', () => {
    const open = done(finished, openAgain(box, 'a new disk', stamp()));
    const after = boxIn(open, 'archive');
    expect(isClosed(after)).toBe(false);
    expect(closedAgainst(open, updateBox(after, { hoursPerDay: 3 }, 'hours'))).toBeUndefined();
    expect(open.log.some((e) => e.boxId === 'archive' && e.text.includes('a new disk'))).toBe(true);
    const shut = done(open, openAgain(after, null, stamp()));
    expect(isClosed(boxIn(shut, 'archive'))).toBe(true);
  });

  it('of the demo, none is', () => {
    for (const b of hall.boxes) expect(isClosed(b)).toBe(false);
  });
});

describe('settings', () => {
  it('are as they came before any change, and as they are after all', () => {
    const line = (id: string, at: string, from: string, to: string, stop: 'firmware' | 'tune') =>
      ({ kind: 'setting', id, at, boxId: 'archive', stop, text: 'Boot order', from, to }) as const;
    const bench: Bench = {
      ...hall,
      log: [
        line('b', '2026-03-05T20:00:00.000Z', 'stick', 'network', 'firmware'),
        line('a', '2026-03-05T19:00:00.000Z', 'drive', 'stick', 'firmware'),
      ],
    };
    expect(keptSettings(bench, boxIn(bench, 'archive'))).toMatchObject([
      { name: 'Boot order', place: 'firmware', came: 'drive', now: 'network' },
    ]);
    const back: Bench = {
      ...bench,
      log: [...bench.log, line('c', '2026-03-05T21:00:00.000Z', 'network', 'drive', 'firmware')],
    };
    expect(firmwareBack(keptSettings(back, boxIn(back, 'archive')))).toEqual([]);
  });
});

describe('a copy against doing it again', () => {
  it('pays the sooner the more hands it saves', () => {
    const box = boxIn(hall, 'archive');
    const found = copyOrAgain(hall, box);
    if (!found) throw new Error('no drive');
    expect(found.room.packed.high).toBeLessThanOrEqual(found.room.whole);
    expect(found.again.measured).toBeGreaterThan(5);
    const run = box.run;
    if (!run) throw new Error('no run');
    const slow = Object.fromEntries(
      Object.entries(run.steps).map(([k, s]) => [k, { ...s, seconds: (s.seconds ?? 0) * 8 }]),
    );
    const later = copyOrAgain(hall, { ...box, run: { ...run, steps: slow } });
    expect(later?.breakEven ?? 1).toBeLessThan(found.breakEven ?? 1);
  });
});

describe('a box that is retired', () => {
  it('has its drives erased by their kind, what leaves the house so that nobody reads it', () => {
    for (const to of machineEnds)
      for (const b of finished.boxes) {
        const lines = retirementOf(finished, b, to);
        const keep = lines.findIndex((l) => l.code === 'take out what is kept');
        const erase = lines.findIndex((l) => l.code === 'erase');
        if (keep >= 0 && erase >= 0) expect(keep).toBeLessThan(erase);
        for (const l of lines)
          if (l.code === 'erase') {
            // The system of the box goes with it; nothing else that is kept does.
            expect(l.drive.store.fate === 'may be lost' || l.drive.store.installed?.boxId === b.id).toBe(
              true,
            );
            expect(l.drive.level).toBe(to === 'back to the shelf' ? 'clear' : 'purge');
          }
      }
  });

  it('leaves its drives, its machine and its addresses as they are then', () => {
    const box = boxIn(finished, 'archive');
    const drives = storesIn(finished, box.machineId ?? '').map((d) => ({
      id: d.id,
      name: d.name,
      serial: d.serial,
      end: 'purge' as const,
      how: 'block erase',
      readBack: true,
    }));
    const how = { because: 'a larger one', machine: 'given away' as const, cells: 'none' as const, drives };
    expect(leavesReadable(finished, how)).toEqual([]);
    expect(
      leavesReadable(finished, { ...how, drives: drives.map((d) => ({ ...d, end: 'clear' as const })) }),
    ).toHaveLength(3);
    const after = done(finished, retire(finished, box, how, stamp()));
    expect(hostsOfBox(after, 'archive')).toEqual([]);
    for (const d of drives) {
      const store = storesOf({
        ...after,
        items: after.items.map((i) => ({ ...i, owned: true })),
      }).find((s) => s.id === d.id);
      expect(store && isBlank(store.content)).toBe(true);
    }
    expect(idleMachines(after).some((m) => m.id === box.machineId)).toBe(false);
    expect(benchCards(after).some((c) => c.box.id === 'archive')).toBe(false);
    expect(isClosed(boxIn(after, 'archive'))).toBe(true);
    expect(choresOf(after, boxIn(after, 'archive'), '2027-01-01')).toEqual([]);
    expect(benchFromText(benchToText(after)).boxes.find((b) => b.id === 'archive')).toEqual(
      boxIn(after, 'archive'),
    );
    // Back on the shelf it is free for another box.
    const shelf = done(finished, retire(finished, box, { ...how, machine: 'back to the shelf' }, stamp()));
    expect(idleMachines(shelf).some((m) => m.id === box.machineId)).toBe(true);
  });
});

describe('the build sheet', () => {
  it('has what was decided of it: addresses, pool, shares, settings, the way back, the password’s place, what comes round', () => {
    judgeOn('2026-06-01');
    const text = buildSheet(finished, boxIn(finished, 'archive'));
    judgeOn(undefined);
    for (const said of [
      '10.44.8.20',
      '/srv/pool/archive',
      'Oak mirror A',
      'full speed',
      'green book',
      '15 Oct 2028',
    ])
      expect(text).toContain(said);
    expect(text.match(/^## /gm)?.length).toBe(new Set(text.match(/^## .*$/gm)).size);
    const gate = buildSheet(hall, boxIn(hall, 'guest-gate'));
    expect(gate).toMatch(/## Rules/);
    expect(buildSheet(hall, boxIn(hall, 'booking-host'))).toMatch(/## Guests/);
  });

  it('as a page is what was written, and no markup comes in by a name', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }), (name) => {
        const odd = `${name}<script>alert(1)</script>|[x](javascript:alert(2))`;
        const box = { ...boxIn(hall, 'archive'), name: odd, pool: null, gate: null };
        const bench = { ...hall, boxes: [box] };
        const page = sheetHtml(odd, buildSheet(bench, box));
        expect(page).not.toMatch(/<script|href="javascript/);
      }),
      { numRuns: runs(40) },
    );
    const html = sheetHtml('Archive', buildSheet(hall, boxIn(hall, 'archive')));
    expect(html).toContain('<table>');
    expect(html).not.toMatch(/\ssrc=|@import|url\(/);
    // It may fetch and run nothing, whatever a name holds.
    expect(html).toContain('default-src &#39;none&#39;');
  });
});
