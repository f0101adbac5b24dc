import { Box } from '@chakra-ui/react';
import type { PoolOffer } from '@zb/core/storage/ways';
import { makingOf } from '@zb/core/storage/making';
import { formatBoth, formatIec } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { growthWords, ratesWords } from '@zb/core/words/storage';
import { amount } from '@zb/core/words/money';
import { useBench } from '../../storage/hooks';
import { Facts } from '../../ui/Facts';
import { Head } from '../../ui/Words';

/** What else is told of the way that was taken. */
export function OfPool({ offer: o }: { offer: PoolOffer }) {
  const { settings } = useBench();
  const making = makingOf(o.pool, o.room);
  const { costs } = o;
  return (
    <Box as="section" aria-label="What this way means">
      <Head marginBottom="1">What this way means</Head>
      <Facts
        lines={[
          { what: 'Yours', is: formatBoth(o.room.usable) },
          { what: 'Reads and writes', is: ratesWords(o.rates) },
          ...(o.rebuild
            ? [
                {
                  what: 'When a drive is replaced',
                  is: `${formatIec(o.rebuild.writes)} are written to the new one and ${formatIec(o.rebuild.reads)} read from the others: ${formatSpan(o.rebuild.seconds)} while nobody else uses it, ${formatSpan(o.rebuild.busy)} while it is in use (“${o.rebuild.drive}”, which takes longest)`,
                },
              ]
            : []),
          {
            what: 'Until a new pool is whole',
            is:
              making.high === 0
                ? 'at once; it marks itself and no more'
                : `${formatSpan(making)}: every drive is written through once; it can be used meanwhile`,
          },
          {
            what: 'Memory',
            is: `${formatIec(o.memory.least)} at least, ${formatIec(o.memory.well)} to run well`,
          },
          { what: 'Growing later', is: growthWords(o.growth) },
          {
            what: 'Cost',
            is:
              costs.perTerabyte === null
                ? `${costs.watts.toFixed(1)} W at rest${costs.wattsAssumed ? ', as usual for such drives' : ''}; say what each drive cost, and the price of a usable terabyte stands here`
                : `${amount({ settings }, costs.perTerabyte)} for each usable TB; ${costs.watts.toFixed(1)} W at rest${costs.wattsAssumed ? ', as usual for such drives' : ''}`,
          },
        ]}
      />
    </Box>
  );
}
