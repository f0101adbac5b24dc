import Papa from 'papaparse';
import { Link } from 'react-router';
import { amount } from '@zb/core/words/money';
import { shoppingList } from '@zb/core/gather/shopping';
import { shoppingName, shoppingRows } from '@zb/core/words/gather';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { Sheet } from '../../parts/Sheet';
import { download, fileName } from '../../storage/download';
import { useBench } from '../../storage/hooks';

/** One shopping list over all boxes. */
export default function ShoppingPage() {
  const bench = useBench();
  const list = shoppingList(bench);
  const save = (): void => {
    // A leading byte-order mark lets spreadsheets read the names; risky first characters are kept from being formulas.
    const text = Papa.unparse(shoppingRows(list), { escapeFormulae: true });
    download(fileName(`${bench.name} shopping`, 'csv'), `\uFEFF${text}\r\n`, 'text/csv');
  };
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
            <Link className="link" to="/match">
              Back to Match
            </Link>
          </>
        }
        hint="What is on the shelf is counted once, the oldest box first"
      >
        {list.lines.length === 0 ? (
          <p>Every box that has a machine and a system finds what it needs on the shelf or at hand.</p>
        ) : (
          <table className="t rows">
            <thead>
              <tr>
                <th scope="col">What</th>
                <th scope="col" className="num">
                  Count
                </th>
                <th scope="col" className="num">
                  Price
                </th>
                <th scope="col" className="num">
                  Together
                </th>
                <th scope="col" style={{ paddingLeft: 18 }}>
                  For
                </th>
              </tr>
            </thead>
            <tbody>
              {list.lines.map((l) => (
                <tr key={shoppingName(l)}>
                  <th scope="row">{shoppingName(l)}</th>
                  <td className="num">{l.count}</td>
                  <td className="num">{l.price === null ? 'not noted' : amount(bench, l.price)}</td>
                  <td className="num">{l.price === null ? '' : amount(bench, l.price * l.count)}</td>
                  <td style={{ paddingLeft: 18 }}>{l.boxes.join(', ')}</td>
                </tr>
              ))}
              <tr>
                <th scope="row">Together</th>
                <td />
                <td />
                <td className="num">
                  <b>{amount(bench, list.total)}</b>
                </td>
                <td style={{ paddingLeft: 18 }} className="soft">
                  {over > 0
                    ? `${amount(bench, over)} over the budget of ${amount(bench, bench.settings.budget)}`
                    : `within the budget of ${amount(bench, bench.settings.budget)}`}
                </td>
              </tr>
            </tbody>
          </table>
        )}
        {list.shelf.length > 0 && (
          <section style={{ marginTop: 18 }}>
            <h2 className="h6">From the shelf</h2>
            <table className="t">
              <thead className="hidden-text">
                <tr>
                  <th scope="col">What</th>
                  <th scope="col">For</th>
                </tr>
              </thead>
              <tbody>
                {list.shelf.map((l) => (
                  <tr key={l.itemId}>
                    <th scope="row" style={{ width: '38%' }}>
                      <Link className="link" to={`/shelf/${l.itemId}`}>
                        {l.name}
                      </Link>
                    </th>
                    <td>{l.boxes.join(', ')}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <p className="soft" style={{ marginTop: 12 }}>
          Prices come from the things on the shelf that are marked “could be bought”.{' '}
          <Link className="link" to="/shelf">
            Note a price
          </Link>
        </p>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
