import fc from 'fast-check';
import { createBox, toggleSignoff, updateBox } from '@zb/core/acts/box';
import { decideLayout } from '@zb/core/acts/install';
import { doneStep, undoneStep } from '@zb/core/acts/run';
import { decideFate } from '@zb/core/acts/shelf';
import { recordWrite, type WriteRun } from '@zb/core/acts/write';
import { runSheetOf } from '@zb/core/box/runSheet';
import { hazards } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { gatherList } from '@zb/core/gather/list';
import { laidBox } from '@zb/core/layout/forBox';
import { findBox, findMachine, storesOf, type Bench, type Box, type Store } from '@zb/core/model/bench';
import { applyChanges, type Act } from '@zb/core/model/changes';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { claimAgainst, claimOf, claimsOf } from '@zb/core/plan/claims';
import { writeStands } from '@zb/core/plan/proof';
import { bootLadder } from '@zb/core/starting/ladder';
import { storageOf } from '@zb/core/storage/forBox';
import { buildSheet } from '@zb/core/words/buildSheet';
import { guardTargets } from '@zb/core/write/guard';
import { runs } from './runs';

const hall = saltmarshHall();
let ids = 0;
const stamp = (now = '2026-06-01T09:00:00.000Z') => ({ now, id: () => `made-${(ids += 1)}` });
const done = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const box = (bench: Bench, id: string): Box => {
  const found = findBox(bench, id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};
const store = (bench: Bench, id: string): Store => {
  const found = storesOf(bench).find((s) => s.id === id);
  if (!found) throw new Error(`no store ${id}`);
  return found;
};
const codes = (bench: Bench, id: string): string[] => hazards(bench, box(bench, id)).map((h) => h.code);
const write = (serial: string, imageId = 'none', more: Partial<WriteRun> = {}): WriteRun => ({
  imageId,
  imageName: `${imageId}.img`,
  serial,
  bytes: 1e9,
  touched: true,
  seconds: 60,
  writeSeconds: 50,
  predicted: null,
  result: 'proven',
  explanation: '',
  realBytes: null,
  target: null,
  ...more,
});
/** A second box on a machine, with a system. */
function another(bench: Bench, machineId: string, profileId: string): { bench: Bench; id: string } {
  const made = createBox('Second', 'film', findMachine(bench, machineId), stamp());
  const there = done(bench, made);
  return {
    bench: done(there, updateBox(made.box, { profileId, createdAt: '2026-06-02T00:00:00.000Z' }, '')),
    id: made.box.id,
  };
}
/** Film night, whose drive is decided, with its Install marked as done. */
const film = 'film-night';
const installed = done(hall, toggleSignoff(hall, box(hall, film), 'install', stamp(), 'for the test'));

describe('what was installed', () => {
  it('is what the drive holds afterwards, and the drive is kept', () => {
    const drive = store(installed, 'loose-480');
    expect(drive).toMatchObject({
      fate: 'keep',
      retentionOrigin: 'installed',
      installed: { boxId: film, boxName: 'Film night', by: 'word' },
      content: { learnt: { from: 'install' }, starts: [{ title: 'Curtain Player' }] },
    });
    expect(drive.revision).toBe(store(hall, 'loose-480').revision + 1);
    expect(claimOf(installed, 'loose-480')).toMatchObject({ boxId: film, as: 'in use' });
  });

  it('stands against another box on that drive, wherever it could be chosen', () => {
    const { bench, id } = another(installed, 'tern', 'coldstore');
    const two = done(bench, decideLayout(box(bench, id), { driveId: 'loose-480' }, ''));
    expect(laidBox(two, box(two, id)).why).toMatchObject({ code: 'drive is held', claim: { boxId: film } });
    expect(codes(two, id)).toContain('held by another box');
    expect(codes(two, film)).not.toContain('held by another box');
    expect(storageOf(two, box(two, id)).candidates.find((c) => c.store.id === 'loose-480')).toMatchObject({
      taken: false,
      held: { boxId: film },
    });
    // Whoever says that it may be lost says nothing of the box that runs from it.
    const freed = done(two, decideFate(store(two, 'loose-480'), 'may be lost'));
    const target = { id: 'x', bytes: 480e9, serial: store(freed, 'loose-480').serial, model: '', port: '' };
    const judged = (of: string) =>
      guardTargets([target], storesOf(freed), 1e9, [], (s) => claimAgainst(freed, box(freed, of), s.id))[0];
    expect(judged(id)?.refusals).toContainEqual(
      expect.objectContaining({ rule: 'held by another box', name: store(freed, 'loose-480').name }),
    );
    expect(judged(film)?.allowed).toBe(true);
  });

  it('leaves the box itself free to install again, and says what starts next', () => {
    const inside = applyChanges(installed, [
      { in: 'items', id: 'loose-480', to: { ...store(installed, 'loose-480'), in: 'tern' } },
    ]);
    const mine = box(inside, film);
    expect(laidBox(inside, mine)).toMatchObject({ why: null, drive: { id: 'loose-480' } });
    expect(codes(inside, film)).not.toContain('does not fit');
    const machine = findMachine(inside, 'tern');
    if (!machine) throw new Error('no machine');
    expect(bootLadder(inside, mine, machine)).toMatchObject({ moment: 'every later start' });
    expect(buildSheet(inside, mine)).not.toMatch(/no stick (is )?written/i);
  });

  it('is taken back whole with a mistaken mark, and never where the drive has changed since', () => {
    const back = done(installed, toggleSignoff(installed, box(installed, film), 'install', stamp()));
    const { revision: _, ...now } = store(back, 'loose-480');
    const { revision: __, ...was } = store(hall, 'loose-480');
    expect(now).toEqual(was);
    const serial = store(installed, 'loose-480').serial ?? '';
    const later = done(
      installed,
      recordWrite(installed, box(installed, 'games-corner'), write(serial), stamp()),
    );
    const kept = done(later, toggleSignoff(later, box(later, film), 'install', stamp()));
    expect(store(kept, 'loose-480')).toEqual(store(later, 'loose-480'));
  });

  it('follows the step of the run sheet as well, and its being taken back', () => {
    let bench = hall;
    for (let i = 0; i < 200 && store(bench, 'loose-480').installed === null; i += 1) {
      const step = runSheetOf(bench, box(bench, film)).next;
      if (!step) break;
      bench = done(bench, doneStep(bench, box(bench, film), step, '', stamp()));
    }
    expect(store(bench, 'loose-480')).toMatchObject({ fate: 'keep', installed: { boxId: film } });
    const run = runSheetOf(bench, box(bench, film)).steps.find((s) => s.what.code === 'let it install');
    if (!run) throw new Error('no step installs');
    const back = done(bench, undoneStep(bench, box(bench, film), run));
    expect(store(back, 'loose-480')).toMatchObject({ fate: 'may be lost', installed: null });
  });
});

describe('what was written', () => {
  const serial = 'ST64-0000-F00D';
  const images: Bench = {
    ...hall,
    boxes: hall.boxes.map((b) =>
      b.id === 'games-corner' || b.id === film ? { ...b, targetSerial: serial } : b,
    ),
  };
  const first = done(images, recordWrite(images, box(images, 'games-corner'), write(serial, 'a'), stamp()));
  const second = done(
    first,
    recordWrite(first, box(first, film), write(serial, 'b'), stamp('2026-06-01T10:00:00.000Z')),
  );

  it('is known to the box whose image was there before', () => {
    expect(writeStands(first, box(first, 'games-corner'))).toMatchObject({ code: 'counts' });
    expect(writeStands(second, box(second, film))).toMatchObject({ code: 'counts' });
    expect(writeStands(second, box(second, 'games-corner'))).toMatchObject({
      code: 'replaced',
      image: 'b.img',
      boxName: 'Film night',
    });
    expect(codes(second, 'games-corner')).toContain('stick holds another image');
    expect(codes(second, film)).not.toContain('stick holds another image');
    const write = runSheetOf(second, box(second, 'games-corner')).steps.find((s) => s.what.code === 'write');
    expect(write?.state).not.toBe('done');
    const machine = findMachine(second, 'gull');
    if (!machine) throw new Error('no machine');
    const ladder = bootLadder(second, box(second, 'games-corner'), machine);
    expect(ladder.rungs.find((r) => r.entry.kind === 'stick')?.why).toMatchObject({
      code: 'stick holds another image',
      image: 'b.img',
    });
  });

  it('counts for both where the same image was written again', () => {
    const again = done(first, recordWrite(first, box(first, film), write(serial, 'a'), stamp()));
    expect(writeStands(again, box(again, 'games-corner'))).toMatchObject({ code: 'counts' });
  });

  it('ends with a later write that failed', () => {
    const failed = done(
      first,
      recordWrite(
        first,
        box(first, film),
        write(serial, 'b', { result: 'failed' }),
        stamp('2026-06-01T11:00:00.000Z'),
      ),
    );
    expect(writeStands(failed, box(failed, 'games-corner'))).toMatchObject({ code: 'replaced', image: null });
    expect(codes(failed, 'games-corner')).toContain('stick holds another image');
    expect(codes(failed, film)).toContain('write failed');
  });

  it('ends with a system that another box installs on the same stick', () => {
    const onto = done(first, decideLayout(box(first, film), { driveId: 'market' }, ''));
    const over = done(onto, toggleSignoff(onto, box(onto, film), 'install', stamp(), 'for the test'));
    // It is reserved for the first box, which is a Stop; whoever goes on despite it has done it all the same.
    expect(claimOf(onto, 'market')).toMatchObject({ boxId: 'games-corner' });
    expect(codes(onto, film)).toContain('held by another box');
    expect(store(over, 'market')).toMatchObject({ fate: 'keep', installed: { boxId: film } });
    expect(writeStands(over, box(over, 'games-corner'))).toMatchObject({ code: 'replaced', image: null });
    expect(claimOf(over, 'market')).toMatchObject({ boxId: film, as: 'in use' });
  });

  it('puts a stick on the shelf that nobody had put there', () => {
    const run = write('NEW-STICK-77AA', 'a', { target: { bytes: 16e9, model: 'Plain 16' } });
    const made = done(hall, recordWrite(hall, box(hall, film), run, stamp()));
    expect(storesOf(made).find((s) => s.serial === run.serial)).toMatchObject({
      kind: 'stick',
      bytes: 16e9,
      fate: 'may be lost',
      wholeImage: { imageId: 'a', boxId: film, by: 'read-back' },
    });
    expect(storesOf(hall)).toHaveLength(storesOf(made).length - 1);
  });

  it('makes a drive of a system that is written straight to it the one of that box', () => {
    const straight = hall.profiles.find((p) => p.installer === 'written straight to the final drive');
    if (!straight) throw new Error('no such system');
    const { bench, id } = another(hall, 'tern', straight.id);
    const drive = store(bench, 'loose-480');
    const made = done(bench, recordWrite(bench, box(bench, id), write(drive.serial ?? ''), stamp()));
    expect(store(made, 'loose-480')).toMatchObject({
      fate: 'keep',
      installed: { boxId: id, system: straight.name, by: 'read-back' },
    });
    // For an installer's stick nothing of it is so.
    expect(store(second, 'market')).toMatchObject({ fate: 'may be lost', installed: null });
  });

  it('keeps the stick for its box until the system is installed', () => {
    const item = storesOf(first).find((s) => s.serial === serial);
    if (!item) throw new Error('no stick');
    expect(claimOf(first, item.id)).toMatchObject({ as: 'reserved', of: 'installer' });
    const line = gatherList(first, box(first, 'games-corner')).lines.find((l) => l.key === 'stick');
    expect(line).toBeDefined();
    const over = {
      ...first,
      boxes: first.boxes.map((b) => ({ ...b, signoffs: [{ stop: 'install' as const, at: '' }] })),
    };
    expect(claimOf(over, item.id)).toBeUndefined();
  });
});

describe('claims', () => {
  it('of decisions by dice: one box holds an item at most, and all others are told whom', () => {
    const stores = storesOf(hall);
    const decision = fc.record({
      box: fc.nat(hall.boxes.length - 1),
      item: fc.nat(stores.length - 1),
      as: fc.constantFrom('system', 'stick', 'component', 'pool'),
      installed: fc.boolean(),
      retired: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(decision, { maxLength: 12 }), (decisions) => {
        const boxes = hall.boxes.map((b) => ({ ...b }));
        for (const d of decisions) {
          const [b, s] = [boxes[d.box], stores[d.item]];
          if (!b || !s) continue;
          if (d.as === 'system')
            b.layout = { ...(box(hall, 'archive').layout as NonNullable<Box['layout']>), driveId: s.id };
          if (d.as === 'stick') b.targetSerial = s.serial;
          if (d.as === 'component') b.parts = [...b.parts, s.id];
          if (d.as === 'pool' && b.pool) b.pool = { ...b.pool, drives: [...(b.pool.drives ?? []), s.id] };
          if (d.installed) b.signoffs = [...b.signoffs, { stop: 'install', at: '' }];
        }
        const bench = { ...hall, boxes };
        for (const [id, claims] of claimsOf(bench)) {
          const holder = claimOf(bench, id);
          expect(holder).toBe(claims[0]);
          const free = boxes.filter((b) => claimAgainst(bench, b, id) === undefined);
          expect(free.map((b) => b.id)).toEqual(holder ? [holder.boxId] : []);
          expect(new Set(claims.map((c) => c.boxId)).size).toBe(claims.length);
          // What runs goes before what is only meant.
          if (claims.some((c) => c.as === 'in use')) expect(holder?.as).toBe('in use');
        }
      }),
      { numRuns: runs(150) },
    );
  });

  it('end with the box', () => {
    const gone = { ...installed, boxes: installed.boxes.filter((b) => b.id !== film) };
    expect(claimOf(gone, 'loose-480')).toBeUndefined();
    // What it left is kept all the same.
    expect(store(gone, 'loose-480').fate).toBe('keep');
  });
});

describe('a bench of version 9', () => {
  const old = (bench: Bench): string => {
    const plain = JSON.parse(benchToText(bench)) as Record<string, unknown>;
    const items = (plain.items as Record<string, unknown>[]).map(
      ({ attachment: _a, retentionOrigin: _r, revision: _v, wholeImage: _w, installed: _i, ...rest }) => rest,
    );
    return JSON.stringify({ ...plain, version: 9, items });
  };
  const erasable = done(hall, decideFate(store(hall, 'oak-boot'), 'may be lost'));

  it('is brought up to what was done: the drive of a finished install is kept, the newest write counts', () => {
    const write = (at: string, imageId: string): Box['written'] => ({
      at,
      imageId,
      serial: 'ST64-0000-F00D',
      result: 'proven',
      explanation: '',
      bytes: 1,
      seconds: 1,
    });
    const written = {
      ...erasable,
      boxes: erasable.boxes.map((b) =>
        b.id === 'games-corner'
          ? { ...b, written: write('2026-03-03T10:00:00.000Z', 'a') }
          : b.id === film
            ? { ...b, written: write('2026-03-04T10:00:00.000Z', 'b') }
            : b,
      ),
    };
    const now = benchFromText(old(written));
    expect(store(now, 'oak-boot')).toMatchObject({
      fate: 'keep',
      installed: { boxId: 'archive', system: 'Coldstore', by: 'word' },
    });
    expect(writeStands(now, box(now, film))).toMatchObject({ code: 'counts' });
    expect(writeStands(now, box(now, 'games-corner'))).toMatchObject({ code: 'replaced' });
    // A drive on which nobody has installed anything stays as it was.
    expect(store(now, 'loose-480')).toMatchObject({ fate: 'may be lost', installed: null, revision: 0 });
    expect(benchFromText(benchToText(now))).toEqual(now);
  });
});
