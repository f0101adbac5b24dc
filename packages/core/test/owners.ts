import type { TimedRun } from '@zb/core/learning/timed';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import { normalQuantile } from '@zb/core/tune/numbers/distributions';
import { randomFrom } from '@zb/core/units/random';

/** An owner as dice make one: by how much, in deviations of the table, they differ and vary. */
export interface Owner {
  name: string;
  /** How slow at everything, on average and from owner to owner. */
  slow: number;
  pace: number;
  /** By kind of work, on kinds of machines, with systems, and from run to run. */
  act: number;
  kind: number;
  system: number;
  run: number;
  /** Share of runs in which the clock ran on while they were away, twenty times as long. */
  away: number;
}

const owner = (name: string, o: Partial<Omit<Owner, 'name'>>): Owner => ({
  name,
  ...{ slow: 0, pace: 0.3, act: 0.3, kind: 0.2, system: 0.2, run: 0.5, away: 0 },
  ...o,
});

/** Owners who are as the model has them, and such as are not. Made up. */
export const owners: readonly Owner[] = [
  owner('as assumed', { pace: 0.45, act: 0.5, kind: 0.28, system: 0.26, run: 0.63 }),
  owner('quick', { slow: -1 }),
  owner('slow', { slow: 1.2 }),
  owner('steady', { kind: 0.1, system: 0.1, run: 0.25 }),
  owner('erratic', { run: 1.2 }),
  owner('leaves the clock on', { away: 0.03 }),
  owner('otherwise than the table', { slow: 0.3, act: 1.5, kind: 0.4, system: 0.4 }),
];

/** Runs of eight boxes by one owner, oldest first: thirty kinds of work, three kinds of machines, four systems. */
export function runsOf(o: Owner, seed: number): Omit<TimedRun, 'range'>[] {
  const random = randomFrom(seed);
  const normal = normalFrom(random);
  const known = new Map<string, number>();
  const effect = (key: string, by: number): number => {
    const z = known.get(key) ?? normal() * by;
    known.set(key, z);
    return z;
  };
  const acts = Array.from({ length: 30 }, (_, i) => {
    const low = 30 * (1 + Math.floor(random() * 10));
    return { act: `act ${i}`, table: { low, high: low * (1.5 + random() * 6) } };
  });
  const pace = o.slow + normal() * o.pace;
  return Array.from({ length: 8 }, () => {
    const kind = `kind ${Math.floor(random() * 3)}`;
    const system = `system ${Math.floor(random() * 4)}`;
    return acts.map(({ act, table }) => {
      const [from, to] = [Math.log(table.low), Math.log(table.high)];
      const z =
        pace +
        effect(act, o.act) +
        effect(`${act} ${kind}`, o.kind) +
        effect(`${act} ${system}`, o.system) +
        normal() * o.run;
      const seconds = Math.exp((from + to) / 2 + (z * (to - from)) / (2 * normalQuantile(0.9)));
      return { act, kind, system, table, seconds: random() < o.away ? seconds * 20 : seconds };
    });
  }).flat();
}
