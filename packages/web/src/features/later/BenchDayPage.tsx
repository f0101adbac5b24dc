import { useMemo } from 'react';
import { Link } from 'react-router';
import { benchDay } from '@zb/core/box/benchDay';
import { hazardWords } from '@zb/core/words/hazard';
import { formatSpan } from '@zb/core/units/duration';
import { BenchLedger } from '../../parts/BenchLedger';
import { Room } from '../../parts/Room';
import { Sheet } from '../../parts/Sheet';
import { useSeenRows } from '../../parts/useSeenRows';
import { useSummed } from '../../parts/useSummed';
import { useBench } from '../../storage/hooks';

export default function BenchDayPage() {
  const bench = useBench();
  const summed = useSummed(bench);
  const rows = useMemo(() => (summed ? benchDay(summed) : []), [summed]);
  const { holder, measure, seen, before, after } = useSeenRows(rows.length, 40);
  return (
    <>
      <Sheet
        title="Bench day"
        mid="several boxes, one pair of hands"
        headline={
          rows.length === 0 ? 'No box is open' : `Where does each of the ${rows.length} open boxes stand?`
        }
      >
        <div className="stack">
          <p className="said">
            This area will order the steps of all boxes so that one waits while you work on the next; until
            then it shows each box’s next stop and its minutes.
          </p>
          {rows.length > 0 && (
            <div className="scroll-x">
              <table className="t">
                <thead>
                  <tr>
                    <th scope="col">Box</th>
                    <th scope="col">Next stop</th>
                    <th scope="col" className="num">
                      Your hands
                    </th>
                    <th scope="col" className="num">
                      Waiting
                    </th>
                    <th scope="col" className="num">
                      To the end
                    </th>
                    <th scope="col">In the way</th>
                  </tr>
                </thead>
                <tbody ref={holder}>
                  <Room height={before} />
                  {seen
                    .flatMap((at) => {
                      const r = rows[at];
                      return r ? [{ at, r }] : [];
                    })
                    .map(({ at, r }) => (
                      <tr key={r.box.id} ref={measure} data-index={at}>
                        <th scope="row">{r.box.name}</th>
                        <td>
                          <Link className="link" to={`/box/${r.box.id}/${r.next.stop}`}>
                            {r.next.title}
                          </Link>
                        </td>
                        <td className="num">{formatSpan(r.next.hands)}</td>
                        <td className="num">{r.next.waiting.high > 0 ? formatSpan(r.next.waiting) : '—'}</td>
                        <td className="num">{formatSpan(r.left)}</td>
                        <td>
                          {r.inTheWay ? hazardWords(r.inTheWay) : <span className="soft">nothing</span>}
                        </td>
                      </tr>
                    ))}
                  <Room height={after} />
                </tbody>
              </table>
            </div>
          )}
        </div>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
