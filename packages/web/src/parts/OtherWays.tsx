import { List } from '@chakra-ui/react';
import { amount } from '@zb/core/words/money';
import type { Repair } from '@zb/core/system/repairs';
import { repairsWords } from '@zb/core/words/fit/repairs';
import type { Bench } from '@zb/core/model/bench';
import { Fold } from '../ui/Fold';
import { Soft } from '../ui/Words';

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
    <Fold title={`${ways.length === 1 ? 'Another way' : `${ways.length} other ways`} to make it fit`}>
      <List.Root as="ol" marks="steps">
        {ways.map((w) => (
          <List.Item key={repairsWords(w.repairs)}>
            {repairsWords(w.repairs)}{' '}
            <Soft>
              {w.cost === null
                ? 'No price noted.'
                : w.cost === 0
                  ? 'Nothing to buy.'
                  : `${amount(bench, w.cost)}.`}
            </Soft>
          </List.Item>
        ))}
      </List.Root>
    </Fold>
  );
}
