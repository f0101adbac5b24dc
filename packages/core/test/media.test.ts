import { refusalWords } from '@zb/core/words/guard';
import { readbackWords } from '@zb/core/words/readback';
import fc from 'fast-check';
import { guardTargets, serialTail, type AttachedTarget } from '@zb/core/write/guard';
import { columnHeights } from '@zb/core/write/columns';
import { explainReadback, type BlockResult } from '@zb/core/write/readback';
import { predictWrite } from '@zb/core/write/time';
import { store } from '@zb/core/demo/make';
import type { LogEntry } from '@zb/core/model/bench';

const target = (id: string, serial: string | null, bytes = 16e9): AttachedTarget => ({
  id,
  serial,
  bytes,
  model: 'stick',
  port: 'USB',
});
const shelf = (serial: string, more = {}) =>
  store('stick', `s-${serial}`, `Stick ${serial}`, 16e9, serial, more);

describe('the guard', () => {
  it('allows a stick that can be told apart and is large enough', () => {
    const [g] = guardTargets([target('a', 'AAAA-1234')], [shelf('AAAA-1234')], 2e9);
    expect(g).toMatchObject({ allowed: true, tail: '1234', refusals: [] });
    expect(g?.known?.name).toBe('Stick AAAA-1234');
  });

  it('refuses what holds what matters, by serial alone', () => {
    const [g] = guardTargets(
      [target('a', 'AAAA-1234')],
      [shelf('AAAA-1234', { fate: 'keep' as const, holds: 'the only scans' })],
      2e9,
    );
    expect(g?.allowed).toBe(false);
    expect(g?.refusals[0]).toMatchObject({
      rule: 'holds what matters',
      holds: 'the only scans',
    });
  });

  it('refuses what nobody has decided about, whatever is written beside it', () => {
    for (const holds of ['', 'nothing that matters', 'may be lost']) {
      const [g] = guardTargets(
        [target('a', 'AAAA-1234')],
        [shelf('AAAA-1234', { fate: 'not decided' as const, holds })],
        2e9,
      );
      expect(g?.refusals.map((r) => r.rule)).toEqual(['not decided']);
    }
  });

  it('refuses one byte too small, with exact bytes and both units', () => {
    expect(guardTargets([target('a', 'AAAA-1234', 1000)], [], 1000)[0]?.allowed).toBe(true);
    const [g] = guardTargets([target('a', 'AAAA-1234', 16e9 - 1)], [], 16e9);
    expect(g?.refusals[0]?.rule).toBe('too small');
    const [refusal] = g?.refusals ?? [];
    expect(refusal).toMatchObject({ bytes: 16e9 - 1, needs: 16e9 });
    const said = refusal ? refusalWords(refusal).replace(/\u202f/g, ' ') : '';
    expect(said).toContain('15 999 999 999 bytes');
    expect(said).toContain('14.9 GiB (16.0 GB)');
  });

  it('refuses a stick that a read-back found to hold less than it claims', () => {
    const [judged] = guardTargets(
      [target('a', 'AAAA-1234')],
      [shelf('AAAA-1234', { realBytes: 6_291_456 })],
      10,
    );
    expect(judged).toMatchObject({ allowed: false, refusals: [{ rule: 'lies about its capacity' }] });
  });

  it('refuses both of two that cannot be told apart', () => {
    const twins = guardTargets(
      [target('a', 'SAME-0001'), target('b', 'SAME-0001'), target('c', 'ELSE-7777')],
      [],
      1,
    );
    expect(twins.map((g) => g.allowed)).toEqual([false, false, true]);
    const tails = guardTargets([target('a', 'ONE-0001'), target('b', 'TWO-0001')], [], 1);
    expect(tails.every((g) => g.refusals.some((r) => r.rule === 'cannot be told apart'))).toBe(true);
  });

  it('two of equal size with different tails can be told apart', () => {
    expect(
      guardTargets([target('a', 'ST-7C20'), target('b', 'ST-91AF')], [], 1).every((g) => g.allowed),
    ).toBe(true);
  });

  it.each([null, '', 'abc'])('refuses a serial of %p', (serial) =>
    expect(guardTargets([target('a', serial)], [], 1)[0]?.refusals[0]?.rule).toBe('no serial'),
  );

  it('refuses when the shelf has two records of one serial', () => {
    const [g] = guardTargets(
      [target('a', 'AAAA-1234')],
      [shelf('AAAA-1234'), { ...shelf('AAAA-1234'), id: 'other' }],
      1,
    );
    expect(g?.refusals.map((r) => r.rule)).toContain('two records');
  });

  it('never allows a target that matters, whatever else is attached', () => {
    const serial = fc.stringMatching(/^[A-Z0-9]{4,8}$/);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(serial, fc.integer({ min: 1, max: 1e12 }), fc.boolean()), { maxLength: 8 }),
        fc.integer({ min: 1, max: 1e12 }),
        (list, image) => {
          const targets = list.map(([s, bytes], i) => target(String(i), s, bytes));
          const known = list.map(([s, , matters], i) => ({ ...shelf(s, { matters }), id: String(i) }));
          for (const g of guardTargets(targets, known, image)) {
            if (!g.allowed) continue;
            expect(g.target.bytes).toBeGreaterThanOrEqual(image);
            expect(known.some((k) => k.serial === g.target.serial && k.fate !== 'may be lost')).toBe(false);
            const same = targets.filter((t) => serialTail(t.serial) === g.tail && t.bytes === g.target.bytes);
            expect(same).toHaveLength(1);
          }
        },
      ),
    );
  });
});

// Patterns of failing flash: common practice, no source.
describe('what a read-back means', () => {
  const BLOCK = 65536;
  const bad = (...at: number[]): BlockResult[] => at.map((index) => ({ index, same: false, zeros: false }));
  const zeros = (from: number, to: number): BlockResult[] =>
    Array.from({ length: to - from }, (_, i) => ({ index: from + i, same: false, zeros: true }));

  it('all the same is proven', () => {
    expect(explainReadback([], BLOCK, 100 * BLOCK, 100 * BLOCK)).toMatchObject({
      result: 'proven',
      pattern: 'same',
      firstDifference: null,
    });
  });
  it('empty from one place to the end is a lying capacity, with the real size', () => {
    const r = explainReadback(zeros(96, 512), BLOCK, 512 * BLOCK, 512 * BLOCK);
    expect(r).toMatchObject({
      result: 'failed',
      pattern: 'lying capacity',
      firstDifference: 96 * BLOCK,
      differing: 416,
    });
    expect(r.empty).toBe(true);
    expect(readbackWords(r)).toContain('6.00 MiB');
  });
  it('strangers from one place to the end are a lying capacity too', () => {
    const r = explainReadback(bad(8, 9), BLOCK, 10 * BLOCK, 10 * BLOCK);
    expect(r.pattern).toBe('lying capacity');
    expect(r.empty).toBe(false);
  });
  it('one block is a weak place', () => {
    expect(explainReadback(bad(7), BLOCK, 100 * BLOCK, 100 * BLOCK)).toMatchObject({
      result: 'failed',
      pattern: 'weak place',
      firstDifference: 7 * BLOCK,
    });
  });
  it('many here and there are scattered', () =>
    expect(explainReadback(bad(1, 5, 9, 40), BLOCK, 100 * BLOCK, 100 * BLOCK).pattern).toBe('scattered'));
  it('cut short comes before all else', () => {
    const r = explainReadback([], BLOCK, 100 * BLOCK, 50 * BLOCK);
    expect(r).toMatchObject({ result: 'failed', pattern: 'cut short' });
    expect(readbackWords(r)).toMatch(/do not start from it/);
  });
  it('is proven only where nothing differs and all was written', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(99), { maxLength: 100 }),
        fc.integer({ min: 0, max: 100 }),
        (list, written) => {
          const r = explainReadback(bad(...list.sort((a, b) => a - b)), BLOCK, 100 * BLOCK, written * BLOCK);
          expect(r.result === 'proven').toBe(list.length === 0 && written === 100);
        },
      ),
    );
  });
});

// Rates by kind and the factor of reading: common practice, no source; linear quantiles as Hyndman and Fan (1996), type 7.
describe('predicted time', () => {
  const stick = store('stick', 'x', 'X', 16e9, 'ST-1', {});
  const run = (seconds: number, i: number, result: 'proven' | 'failed' = 'proven'): LogEntry => ({
    kind: 'write',
    id: `r${i}`,
    at: '',
    boxId: null,
    stop: 'write',
    text: '',
    serial: 'ST-1',
    result,
    bytes: 1e9,
    predicted: null,
    seconds,
    writeSeconds: null,
  });

  it('without a record it comes from the kind, and says so', () => {
    const p = predictWrite(1e9, stick, []);
    expect(p.value.low).toBeLessThan(p.value.high);
    expect(p.because[0]).toMatch(/common practice/);
  });
  it('a drive is faster than a stick', () => {
    expect(predictWrite(1e9, store('drive', 'd', 'D', 1e12, 'D-1', {}), []).value.high).toBeLessThan(
      predictWrite(1e9, stick, []).value.low * 2,
    );
  });
  it('own runs replace the kind, narrow it, and ignore failures and other sticks', () => {
    const p = predictWrite(2e9, stick, [
      run(50, 1),
      run(52, 2),
      run(54, 3),
      run(1, 4, 'failed'),
      { ...run(1, 5), serial: 'OTHER' } as LogEntry,
    ]);
    expect(p.value.low).toBeGreaterThan(95);
    expect(p.value.high).toBeLessThan(110);
    expect(p.because[0]).toMatch(/3 earlier runs/);
  });
  it('a single run is widened by a tenth each way', () => {
    const p = predictWrite(1e9, stick, [run(100, 1)]).value;
    expect(p.low).toBeCloseTo(100 / 1.1, 3);
    expect(p.high).toBeCloseTo(100 / 0.9, 3);
  });
  it('twice the bytes take twice the time', () => {
    const one = predictWrite(1e9, stick, [run(50, 1), run(60, 2)]).value;
    const two = predictWrite(2e9, stick, [run(50, 1), run(60, 2)]).value;
    expect(two.low / one.low).toBeCloseTo(2, 6);
  });
});

describe('columns', () => {
  it('shares fill the column and the image can always be seen', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e12 }), fc.integer({ min: 1, max: 1e12 }), (image, size) => {
        const h = columnHeights(image, size);
        expect(h.image + h.rest).toBeCloseTo(1);
        expect(h.image).toBeGreaterThanOrEqual(0.08);
        expect(h.rest).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});
