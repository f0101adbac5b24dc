/**
 * “It looks different” against a second working-out in Python: shares of causes by Bayes’ rule over all of them, the bits of
 * every look by summing over its answers, and the look that is taken next. Nothing of ours is used but the tables it prints.
 */
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { theBench } from '@zb/core/model/bench';
import { randomFrom } from '@zb/core/units/random';
import { diagnoseOutput, diagnoseTables } from '../../packages/cli/src/diagnose';
import { run } from './files';

interface Worked {
  shares: Record<string, number>;
  bits: Record<string, number>;
  next: string[] | null;
}
interface Case {
  moment: string;
  seen: string[];
  answered: { look: string; answer: string | null }[];
}

const hall = saltmarshHall();
const text = JSON.stringify({ ...hall, format: theBench.empty().format });
const random = randomFrom(20261127);
const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T;

describe.each(hall.boxes.map((b) => b.id))('shares and looks of %s', (id) => {
  const tables = diagnoseTables(text, id);
  const cases = Array.from({ length: 60 }, (): Case => {
    const { moment, symptoms, looks } = pick(tables);
    const seen = [...new Set(Array.from({ length: 1 + Math.floor(random() * 2) }, () => pick(symptoms)))];
    const asked = looks.filter(() => random() < 0.2);
    return {
      moment,
      seen,
      answered: asked.map(({ look, answers }) => ({ look, answer: random() < 0.15 ? null : pick(answers) })),
    };
  });
  const worked = JSON.parse(
    run('/usr/bin/python3', ['tests/oracle/diagnose.py'], JSON.stringify({ tables, cases })),
  ) as Worked[];

  it('are those that brute force comes to, and every cause stays in it', () => {
    for (const [i, c] of cases.entries()) {
      const ours = diagnoseOutput(text, id, {
        seen: c.seen,
        at: c.moment,
        answer: c.answered.map((a) => `${a.look}=${a.answer ?? ''}`),
      });
      const theirs = worked[i] as Worked;
      expect(ours.causes.map((x) => x.cause).sort()).toEqual(Object.keys(theirs.shares).sort());
      for (const { cause, share } of ours.causes) {
        expect(Math.abs(share - (theirs.shares[cause] ?? -1))).toBeLessThan(1e-9);
        expect(share).toBeGreaterThan(0);
      }
      if (theirs.next === null) expect(ours.next).toBeNull();
      else {
        expect(theirs.next).toContain(ours.next?.look);
        expect(Math.abs((ours.next?.bits ?? 0) - (theirs.bits[ours.next?.look ?? ''] ?? -1))).toBeLessThan(
          1e-9,
        );
      }
    }
  });
});
