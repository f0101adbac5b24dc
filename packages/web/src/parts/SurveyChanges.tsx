import type { SurveyChange } from '@zb/core/machine/compare';
import { formatDay } from '@zb/core/units/date';
import { Primary, Quiet } from '../ui/Button';

/** What a new survey says differently, before it is taken. */
export function SurveyChanges({
  changes,
  before,
  onTake,
  onLeave,
}: {
  changes: SurveyChange[];
  before: string;
  onTake: () => void;
  onLeave: () => void;
}) {
  return (
    <section className="said said-blue stack" style={{ gap: 8 }} aria-label="What the new survey changes">
      <h2 className="h6">
        {changes.length === 0
          ? `The new survey says the same as the one of ${formatDay(before)}`
          : `Since ${formatDay(before)}: ${changes.length} ${changes.length === 1 ? 'difference' : 'differences'}`}
      </h2>
      {changes.length > 0 && (
        <table className="t">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Was</th>
              <th scope="col">Is now</th>
            </tr>
          </thead>
          <tbody>
            {changes.map((c) => (
              <tr key={c.what}>
                <th scope="row">{c.what}</th>
                <td>{c.was}</td>
                <td>
                  <b>{c.now}</b>
                  {c.byHand && <span className="sub">what you entered by hand stays and counts</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="actions">
        <Primary onClick={onTake}>Take the new survey</Primary>
        <Quiet onClick={onLeave}>Leave the old one</Quiet>
      </div>
    </section>
  );
}
