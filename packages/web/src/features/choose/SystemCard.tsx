import { formatNumber } from '@zb/core/units/number';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { updateBox } from '@zb/core/acts/box';
import { breakEvenWords, costWords } from '@zb/core/words/fit/cost';
import { flipWords } from '@zb/core/words/fit/score';
import { amount } from '@zb/core/words/money';
import { usualHours } from '@zb/core/system/cost';
import { judge, otherWays, type Judgement } from '@zb/core/system/judge';
import { flipReport, moneyReport, plannedRival } from '@zb/core/system/report';
import { releaseCard } from '@zb/core/system/school';
import { score } from '@zb/core/system/score';
import type { MachineView } from '@zb/core/system/view';
import type { Bench, Box, Machine, Profile } from '@zb/core/model/bench';
import { Primary, Quiet } from '../../ui/Button';
import { Facts } from '../../parts/Facts';
import { Findings } from '../../parts/Findings';
import { VerdictMark } from '../../parts/Marks';
import { OtherWays } from '../../parts/OtherWays';
import { RuleTable } from '../../parts/RuleTable';
import { ScoreTable } from '../../parts/ScoreTable';
import { stamp, useAct } from '../../storage/hooks';
import { SchoolCard } from './SchoolCard';

/** Everything about one system on this machine: verdict, repairs, releases, score and running cost. */
export function SystemCard({
  bench,
  box,
  machine,
  view,
  judged,
  profile,
  onChoose,
}: {
  bench: Bench;
  box: Box;
  machine: Machine;
  view: MachineView;
  judged: Judgement;
  profile: Profile;
  onChoose: (judged: Judgement) => void;
}) {
  const act = useAct();
  const [against, setAgainst] = useState('');
  const chosen = profile.id === box.profileId;
  const hours = box.hoursPerDay ?? usualHours(box.purpose);
  const money = moneyReport(bench, machine.id, box.purpose, hours);
  const other = money.against.find((a) => a.machineId === against) ?? money.against[0];
  const scored = score(view, profile, bench.settings.weights, judged.cost);
  const wish = bench.wishes.find((w) => w.id === box.wishId);
  // A whole column is judged for this: only where it is shown, and not at every drawing.
  const flip = useMemo(() => {
    const rival = wish && chosen ? plannedRival(bench, machine.id, wish) : undefined;
    return wish && rival ? flipReport(bench, machine.id, rival, wish) : undefined;
  }, [bench, machine.id, wish, chosen]);
  const ways = useMemo(() => otherWays(view, profile, judged), [view, profile, judged]);
  const card = releaseCard(view, profile, chosen ? box : {}, stamp().now);
  const take = (releaseId: string, variantId: string): void =>
    onChoose(judge(view, profile, { releaseId, variantId }));
  return (
    <section className="systemcard" aria-label={`${profile.name} on ${machine.name}`}>
      <div className="row" style={{ alignItems: 'baseline' }}>
        <h2 style={{ fontSize: 17 }}>
          {profile.name} {judged.release.version}
        </h2>
        {chosen ? (
          <b>chosen</b>
        ) : (
          <Primary size="sm" aria-label={`Choose ${profile.name}`} onClick={() => onChoose(judged)}>
            Choose
          </Primary>
        )}
      </div>
      <p>
        {profile.about}{' '}
        <Link className="link" to={`/profiles/${profile.id}`}>
          Its profile
        </Link>
      </p>
      <div>
        <VerdictMark verdict={judged.verdict} />
        {judged.cost !== null && judged.cost > 0 && (
          <span className="soft"> {amount(bench, judged.cost)} to buy</span>
        )}
        <Findings machine={machine} profile={profile} judged={judged} boxId={box.id} />
        {judged.missing.length > 0 && <Facts machine={machine} only={judged.missing.map((m) => m.fact)} />}
        <OtherWays bench={bench} ways={ways} />
        <RuleTable judged={judged} />
      </div>
      <SchoolCard card={card} purpose={profile.purpose} machine={machine.name} onTake={take} />
      <div className="two" style={{ gap: 18 }}>
        <div>
          <h3 className="h6">Score {formatNumber(scored.total)} of 100</h3>
          {flip && (
            <p>
              <b>What would flip it.</b> {flipWords(flip)}
            </p>
          )}
          <details className="why">
            <summary>What each criterion adds</summary>
            <ScoreTable score={scored} settings={bench.settings} />
            <Link className="link" to="/match">
              Move the weights at Match
            </Link>
          </details>
        </div>
        <div>
          <h3 className="h6">Running cost</h3>
          {money.own ? (
            <>
              <p>
                <b className="m">{amount(bench, money.own.perYear)}</b> a year
                <span className="sub">{costWords(money.own, bench.settings)}.</span>
              </p>
              <label className="field" style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
                <span>Hours a day</span>
                <input
                  className="in mono"
                  style={{ width: 74 }}
                  type="number"
                  min={0}
                  max={24}
                  step={0.5}
                  value={hours}
                  onChange={(e) => {
                    const n = Number(e.target.value);
                    if (e.target.value !== '' && n >= 0 && n <= 24)
                      void act(updateBox(box, { hoursPerDay: n }, `Runs ${n} hours a day`));
                  }}
                />
              </label>
              {other && (
                <label className="field">
                  <span>Against</span>
                  <select className="in" value={other.machineId} onChange={(e) => setAgainst(e.target.value)}>
                    {money.against.map((a) => (
                      <option key={a.machineId} value={a.machineId}>
                        {a.name}
                        {a.price > 0 ? `, ${amount(bench, a.price)}` : ''}
                      </option>
                    ))}
                  </select>
                  <span className="sub">{breakEvenWords(other.name, other.even, bench.settings)}</span>
                </label>
              )}
            </>
          ) : (
            <p className="soft">
              Enter the watts when idle at the survey, and the cost of a year stands here.
            </p>
          )}
        </div>
      </div>
      {chosen && (
        <Quiet
          alignSelf="flex-start"
          onClick={() =>
            void act(
              updateBox(
                box,
                { profileId: null, releaseId: null, variantId: null },
                `${profile.name} set aside`,
              ),
            )
          }
        >
          Choose another
        </Quiet>
      )}
    </section>
  );
}
