import { amount } from '@zb/core/words/money';
import type { Repair } from '@zb/core/system/repairs';
import { repairsWords } from '@zb/core/words/fit/repairs';
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
          <li key={repairsWords(w.repairs)}>
            {repairsWords(w.repairs)}{' '}
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
