import { amount } from '@zb/core/assign/plan';
import type { Repair } from '@zb/core/system/repair';
import type { Bench } from '@zb/core/model/bench';

/** Other repairs that would do as well, after the cheapest. */
export function OtherWays({
  bench,
  ways,
}: {
  bench: Bench;
  ways: readonly { repairs: Repair[]; cost: number | null }[];
}) {
  if (ways.length === 0) return null;
  return (
    <details className="why">
      <summary>{ways.length === 1 ? 'Another way' : `${ways.length} other ways`} to make it fit</summary>
      <ol className="steps">
        {ways.map((w) => (
          <li key={w.repairs.map((r) => r.text).join()}>
            {w.repairs.map((r) => r.text).join(' ')}{' '}
            <span className="soft">
              {w.cost === null
                ? 'No price noted.'
                : w.cost === 0
                  ? 'Nothing to buy.'
                  : `${amount(bench, w.cost)}.`}
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}
