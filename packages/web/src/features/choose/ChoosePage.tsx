import { formatNumber } from '@zb/core/units/number';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { chooseProfile } from '@zb/core/acts/box';
import { fitHeadline } from '@zb/core/words/fit/headline';
import { judgedShort } from '@zb/core/words/fit/finding';
import { judgeAll } from '@zb/core/system/judge';
import { score } from '@zb/core/system/score';
import { machineView } from '@zb/core/system/view';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { NoProfiles } from '../../parts/NoProfiles';
import { VerdictMark } from '../../parts/Marks';
import { stamp, useAct } from '../../storage/hooks';
import { SystemCard } from './SystemCard';

function ChoosePage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const [picked, setPicked] = useState<string | null>(null);
  const judged = useMemo(
    () => (machine ? judgeAll(bench, machine, box.purpose, box) : []),
    [bench, machine, box],
  );
  const view = useMemo(() => machine && machineView(bench, machine), [bench, machine]);
  if (!machine || !view) {
    return (
      <BoxFrame context={context} stop="choose" headline="Choose a machine first">
        <p>
          Which system fits depends on the machine.{' '}
          <Link className="link" to={`/box/${box.id}/survey`}>
            Go to the survey
          </Link>
          .
        </p>
      </BoxFrame>
    );
  }
  const shown = judged.find((j) => j.profileId === (picked ?? box.profileId)) ?? judged[0];
  return (
    <BoxFrame
      context={context}
      stop="choose"
      headline={fitHeadline(machine.name, box.purpose, judged, box.profileId)}
      acts={
        <Link className="link" to="/profiles">
          Profiles
        </Link>
      }
    >
      {judged.length === 0 || !shown ? (
        <NoProfiles />
      ) : (
        <div className="choose">
          <table className="t picklist">
            <thead>
              <tr>
                <th scope="col">System</th>
                <th scope="col">On {machine.name}</th>
                <th scope="col" className="num">
                  Score
                </th>
              </tr>
            </thead>
            <tbody>
              {judged.map((j) => (
                <tr key={j.profileId} className={j.profileId === shown.profileId ? 'here' : ''}>
                  <th scope="row">
                    <button
                      type="button"
                      className="link"
                      aria-pressed={j.profileId === shown.profileId}
                      onClick={() => setPicked(j.profileId)}
                    >
                      {j.profile}
                    </button>
                    <span className="sub">
                      {j.of.purpose}
                      {j.profileId === box.profileId && <b>, chosen</b>}
                    </span>
                  </th>
                  <td>
                    <VerdictMark verdict={j.verdict} />
                    <span className="sub">{judgedShort(j)}</span>
                  </td>
                  <td className="num">
                    {j.verdict === 'does not fit'
                      ? ''
                      : formatNumber(score(view, j.of, bench.settings.weights, j.cost).total)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <SystemCard
            key={shown.profileId}
            bench={bench}
            box={box}
            machine={machine}
            view={view}
            judged={shown}
            profile={shown.of}
            onChoose={(j) => void act(chooseProfile(box, shown.of, j, stamp()))}
          />
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(ChoosePage);
