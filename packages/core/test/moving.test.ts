/** Databases that move: what stands against going on, and whether one can go back. Real tools stand in tests/oracle/content.oracle.ts. */
import fc from 'fast-check';
import { moveThing, tickMove } from '@zb/core/acts/storage';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findBox } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { moveSteps, movingSchema, type Moving } from '@zb/core/model/moving';
import { movingDraftOf, movingOfDraft } from '@zb/core/model/storageDraft';
import { moveState } from '@zb/core/storage/moving';
import { backWords, moveFaultWords } from '@zb/core/words/moving';

const DAY = '2026-05-04T10:00:00.000Z';
const moved = (steps: readonly string[], more: Partial<Moving> = {}): Moving =>
  movingSchema.parse({
    id: 'm',
    what: 'records',
    kind: 'PostgreSQL',
    done: Object.fromEntries(steps.map((s) => [s, DAY])),
    ...more,
  });
const codes = (m: Moving, today = '2026-05-05'): string[] =>
  moveState(m, today).findings.map((f) => f.fault.code);
const even = {
  counts: [{ of: 'books', before: 7, after: 7 }],
  sums: { made: 'a'.repeat(64), arrived: 'A'.repeat(64) },
};

it('done in order, counted and with equal sums nothing stands against it', () => {
  for (let n = 0; n <= moveSteps.length; n += 1)
    expect(codes(moved(moveSteps.slice(0, n), even))).toEqual([]);
});

it('each thing that goes wrong is said, and what must not be gone on with is a Stop', () => {
  expect(codes(moved(['back up'], even))).toEqual(expect.arrayContaining(['still written to']));
  expect(
    codes(moved(moveSteps.slice(0, 3), { ...even, sums: { made: 'a'.repeat(64), arrived: 'b'.repeat(64) } })),
  ).toEqual(['sums differ']);
  expect(codes(moved(moveSteps.slice(0, 3), { counts: even.counts }))).toEqual(['sum not known']);
  expect(
    codes(moved(moveSteps.slice(0, 5), { ...even, counts: [{ of: 'books', before: 7, after: 6 }] })),
  ).toEqual(['counts differ']);
  expect(codes(moved(moveSteps.slice(0, 5), { sums: even.sums }))).toEqual(['nothing counted']);
  expect(codes(moved(['freeze', 'switch'], even))).toContain('out of order');
  expect(codes(moved(moveSteps.slice(0, 6), even), '2026-06-30')).toEqual(['old one may go']);
});

it('one can go back free until the new one has taken over, with loss while the old one stays, and then no more', () => {
  fc.assert(
    fc.property(fc.subarray([...moveSteps]), fc.integer({ min: 0, max: 200 }), (steps, days) => {
      const today = new Date(Date.parse(DAY) + days * 86_400_000).toISOString().slice(0, 10);
      const state = moveState(moved(steps, even), today);
      const switched = steps.includes('switch');
      expect(state.back === 'free').toBe(!switched && !(steps.includes('keep') && days > 30 && switched));
      if (state.back === 'none') expect(switched && steps.includes('keep') && days > 30).toBe(true);
      expect(state.keepUntil === null).toBe(!switched);
      expect(backWords(state).length).toBeGreaterThan(10);
      for (const f of state.findings) expect(moveFaultWords(f.fault)).toContain('records');
    }),
  );
});

it('what is typed comes back as it was, and a step is ticked with a line of the log', () => {
  const m = moved(['freeze'], even);
  expect(movingOfDraft(m).parse(movingDraftOf(m))).toEqual({
    ...m,
    sums: { made: 'a'.repeat(64), arrived: 'a'.repeat(64) },
  });
  const wrong = movingOfDraft(m).safeParse({ ...movingDraftOf(m), made: 'not a sum' });
  expect(wrong.error?.issues[0]?.path).toEqual(['made']);
  const bench = saltmarshHall();
  const box = findBox(bench, 'archive');
  if (!box) throw new Error('no archive');
  const one = applyChanges(bench, moveThing(box, m).changes);
  const after = findBox(one, 'archive');
  if (!after) throw new Error('no archive');
  let n = 0;
  const act = tickMove(after, m, 'back up', true, 'Back it up', { now: DAY, id: () => `n${(n += 1)}` });
  const two = applyChanges(one, act.changes);
  expect(findBox(two, 'archive')?.moving[0]?.done).toEqual({ freeze: DAY, 'back up': DAY });
  expect(
    two.log.some((l) => l.boxId === 'archive' && l.kind === 'note' && l.text.includes('Back it up')),
  ).toBe(true);
});
