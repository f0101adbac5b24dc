import { Box, Text } from '@chakra-ui/react';
import { amount } from '@zb/core/words/money';
import { shoppingList } from '@zb/core/gather/shopping';
import { shoppingCsv, shoppingName } from '@zb/core/words/gather';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { Sheet } from '../../parts/Sheet';
import { download, fileName } from '../../storage/download';
import { useBench } from '../../storage/hooks';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Head } from '../../ui/Words';

/** One shopping list over all boxes. */
export default function ShoppingPage() {
  const bench = useBench();
  const list = shoppingList(bench);
  const save = (): void => download(fileName(`${bench.name} shopping`, 'csv'), shoppingCsv(list), 'text/csv');
  const over = list.total - bench.settings.budget;
  return (
    <>
      <Sheet
        title="Shopping list"
        mid={`over ${bench.boxes.length} boxes`}
        headline={
          list.lines.length === 0
            ? 'Nothing has to be bought'
            : `${list.lines.length} ${list.lines.length === 1 ? 'thing' : 'things'} to buy, ${amount(bench, list.total)}${list.unpriced > 0 ? ` and ${list.unpriced} without a price` : ''}`
        }
        foot={
          <>
            <Primary disabled={list.lines.length === 0} onClick={() => window.print()}>
              Print
            </Primary>
            <Quiet disabled={list.lines.length === 0} onClick={save}>
              Save as CSV
            </Quiet>
            <To to="/match">Back to Match</To>
          </>
        }
        hint="What is on the shelf is counted once, the oldest box first"
      >
        {list.lines.length === 0 ? (
          <Nothing
            title="Nothing has to be bought"
            words="Every box that has a machine and a system finds what it needs on the shelf or at hand."
          >
            <To to="/match">See what fits at Match</To>
          </Nothing>
        ) : (
          <Ruled
            stacked
            label="To buy"
            heads={[
              'What',
              { words: 'Count', figure: true },
              { words: 'Price', figure: true },
              { words: 'Together', figure: true },
              'For',
            ]}
          >
            {list.lines.map((l) => (
              <Line key={shoppingName(l)}>
                <LineHead whole>{shoppingName(l)}</LineHead>
                <Num>{l.count}</Num>
                <Num>{l.price === null ? 'not noted' : amount(bench, l.price)}</Num>
                <Num>{l.price === null ? '' : amount(bench, l.price * l.count)}</Num>
                <Cell>{l.boxes.join(', ')}</Cell>
              </Line>
            ))}
            <Line>
              <LineHead whole>Together</LineHead>
              <Cell />
              <Cell />
              <Num fontWeight="strong">{amount(bench, list.total)}</Num>
              <Cell color="fg.muted">
                {over > 0
                  ? `${amount(bench, over)} over the budget of ${amount(bench, bench.settings.budget)}`
                  : `within the budget of ${amount(bench, bench.settings.budget)}`}
              </Cell>
            </Line>
          </Ruled>
        )}
        {list.shelf.length > 0 && (
          <Box as="section" aria-label="From the shelf" marginTop="5">
            <Head>From the shelf</Head>
            <Ruled label="From the shelf" heads={['What', 'For']} silent>
              {list.shelf.map((l) => (
                <Line key={l.itemId}>
                  <LineHead css={{ width: '38%' }}>
                    <To to={`/shelf/${l.itemId}`}>{l.name}</To>
                  </LineHead>
                  <Cell>{l.boxes.join(', ')}</Cell>
                </Line>
              ))}
            </Ruled>
          </Box>
        )}
        <Text color="fg.muted" marginTop="3">
          Prices come from the things on the shelf that are marked “could be bought”.{' '}
          <To to="/shelf">Note a price</To>
        </Text>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
