import { formatNumber } from '@zb/core/units/number';
import type { Score } from '@zb/core/system/score';
import type { Settings } from '@zb/core/model/settings';
import { basisWords } from '@zb/core/words/fit/score';
import { Line, LineHead, Num, Ruled } from '../ui/Ruled';
import { Sub } from '../ui/Words';

/** What each criterion adds to a score, and what that rests on. */
export function ScoreTable({ score, settings }: { score: Score; settings: Settings }) {
  return (
    <Ruled dense label="What the score is made of" heads={['Criterion', 'Points']} silent>
      {score.parts.map((p) => (
        <Line key={p.criterion}>
          <LineHead fontSize="small">
            {p.criterion}
            <Sub>{basisWords(p.basis, settings)}</Sub>
          </LineHead>
          <Num>+{formatNumber(p.points, 1)}</Num>
        </Line>
      ))}
    </Ruled>
  );
}
