import type { Store } from '@zb/core/model/bench';
import { formatSpan } from '@zb/core/units/duration';
import { caveatWords, eraseLevelWords, noCommandWords } from '@zb/core/words/erase';
import { erasePlan } from '@zb/core/write/erase';

/** Ways to erase a drive, a stick or a card before it is used again or passed on; none of them is run from here. */
export function Erase({ store }: { store: Store }) {
  const plan = erasePlan(store);
  return (
    <details className="why">
      <summary>Erase it before it is used again or given away</summary>
      {plan.not !== null && <p className="said said-check">{noCommandWords(plan.not)}</p>}
      {plan.find !== null && (
        <p className="sub">
          First, find it by its serial, so that a letter that moved cannot hit another:{' '}
          <span className="m" style={{ overflowWrap: 'anywhere' }}>
            {plan.find}
          </span>
        </p>
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
        By {plan.source}, for a {plan.kind}.
      </p>
    </details>
  );
}
