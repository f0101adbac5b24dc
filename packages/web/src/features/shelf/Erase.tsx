import type { Store } from '@zb/core/model/bench';
import { formatSpan } from '@zb/core/units/duration';
import { caveatWords, eraseLevelWords } from '@zb/core/words/erase';
import { erasePlan } from '@zb/core/write/erase';

/** Ways to erase a drive, a stick or a card before it is used again or passed on; none of them is run from here. */
export function Erase({ store }: { store: Store }) {
  const plan = erasePlan(store);
  return (
    <details className="why">
      <summary>Erase it before it is used again or given away</summary>
      {store.fate === 'keep' && (
        <p className="said said-stop">It is marked to keep. Decide otherwise before anything is erased.</p>
      )}
      <table className="t">
        <thead>
          <tr>
            <th scope="col">How sure</th>
            <th scope="col">Way</th>
            <th scope="col">Takes</th>
          </tr>
        </thead>
        <tbody>
          {plan.ways.map((w) => (
            <tr key={`${w.level} ${w.method}`}>
              <th scope="row">
                {w.level}
                <span className="sub">{eraseLevelWords(w.level)}</span>
              </th>
              <td style={{ overflowWrap: 'anywhere' }}>
                {w.method}
                {w.command !== null && <span className="sub m">{w.command}</span>}
                <span className="sub">{caveatWords(w)}</span>
              </td>
              <td className="nowrap">{w.seconds ? formatSpan(w.seconds) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="sub">
        By {plan.source}, for a {plan.kind}.{' '}
        {plan.ways.some((w) => w.command !== null)
          ? 'A drive is named by its serial, so that a letter that moved cannot hit another.'
          : 'It has no serial here: no command is given that could hit another drive. Say its serial first.'}
      </p>
    </details>
  );
}
