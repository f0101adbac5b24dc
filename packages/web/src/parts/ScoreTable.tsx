import { formatNumber } from '@zb/core/units/number';
import type { Score } from '@zb/core/system/score';
import type { Settings } from '@zb/core/model/settings';
import { basisWords } from '@zb/core/words/fit/score';

/** What each criterion adds to a score, and what that rests on. */
export function ScoreTable({ score, settings }: { score: Score; settings: Settings }) {
  return (
    <table className="t scoretable">
      <thead className="hidden-text">
        <tr>
          <th scope="col">Criterion</th>
          <th scope="col">Points</th>
        </tr>
      </thead>
      <tbody>
        {score.parts.map((p) => (
          <tr key={p.criterion}>
            <th scope="row">
              {p.criterion}
              <span className="sub">{basisWords(p.basis, settings)}</span>
            </th>
            <td className="num">+{formatNumber(p.points, 1)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
