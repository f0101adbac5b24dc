import { formatNumber } from '@zb/core/units/number';
import { amount } from '@zb/core/words/money';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { acceptPlan, blankWish, saveWish, toggleForbid, togglePin } from '@zb/core/acts/wishes';
import { acceptWords, planHeadline, provenWords } from '@zb/core/words/plan';
import { partsFor } from '@zb/core/system/part';
import { matchHeadline } from '@zb/core/words/fit/match';
import { emptyBench, machinesOf } from '@zb/core/model/bench';
import { purposes } from '@zb/core/model/profile';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { Mark } from '../../parts/Marks';
import { NoProfiles } from '../../parts/NoProfiles';
import { Sheet } from '../../parts/Sheet';
import { useKeys } from '../../parts/useKeys';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { useAssign } from '../../workers/assigning';
import { useSheet } from '../../workers/useSheet';
import { CrossingPane } from './CrossingPane';
import { MatchTable } from './MatchTable';
import type { At } from './SheetGrid';
import { SettingsForm } from './SettingsForm';
import { SystemPane, SystemTable } from './SystemTable';
import { WishForm } from './WishForm';

/** Machines × wishes: what fits, why not, and the assignment that is worth most. */
export default function MatchPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const bySystem = params.get('by') === 'systems';
  const { items, profiles, wishes, settings, boxes } = bench;
  // The log does not bear on what fits, so a line written elsewhere must not solve anew.
  const given = useMemo(
    () => ({ ...emptyBench(), items, profiles, wishes, settings, boxes }),
    [items, profiles, wishes, settings, boxes],
  );
  const machines = useMemo(() => machinesOf(given), [given]);
  const sheet = useSheet(given, bySystem ? 'systems' : 'wishes');
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [system, setSystem] = useState<At>({ row: 0, column: 0 });
  const [editing, setEditing] = useState<string | null>(null);
  const [weighing, setWeighing] = useState(false);
  const plan = useAssign(bySystem || wishes.length === 0 ? null : given);
  const wish = wishes[at.column];
  const machine = machines[at.row];
  const both = !bySystem && wish && machine;
  useKeys({
    k: both ? () => void act(togglePin(wish, machine)) : undefined,
    x: both ? () => void act(toggleForbid(wish, machine)) : undefined,
    n: bySystem ? undefined : () => void add(),
  });
  const add = async (): Promise<void> => {
    const fresh = blankWish('New wish', purposes[0], stamp());
    await act(saveWish(undefined, fresh, 'Wish added'));
    setEditing(fresh.id);
  };
  const accept = async (): Promise<void> => {
    if (!plan.solution) return;
    await act(acceptPlan(bench, plan.solution, stamp()));
    void go('/shopping');
  };
  const edited = wishes.find((w) => w.id === editing);
  const working = plan.state === 'solving' || plan.state === 'reasons';
  const words = plan.solution ? acceptWords(bench, plan.solution) : undefined;
  const spare = partsFor(bench, null).filter((p) => !p.offer).length;
  const empty = machines.length === 0 || profiles.length === 0;
  return (
    <>
      <Sheet
        title="Match"
        mid={`${machines.length} machines, ${wishes.length} wishes, ${spare} spare parts, ${amount(bench, settings.budget)} to spend`}
        right={
          bySystem || !plan.solution
            ? ''
            : `${plan.seconds !== undefined ? `solved in ${formatNumber(plan.seconds, 2)} s, ` : ''}${provenWords(plan.solution)}`
        }
        headline={
          bySystem
            ? 'Which system fits which machine?'
            : plan.solution
              ? planHeadline(bench, plan.solution)
              : matchHeadline(given, sheet)
        }
        foot={
          <>
            {!bySystem && (
              <Primary onClick={() => void accept()} disabled={words === undefined || working}>
                {words ?? 'Nothing new to accept'}
              </Primary>
            )}
            {!bySystem && plan.state === 'solving' && <Quiet onClick={plan.cancel}>Stop solving</Quiet>}
            {!bySystem && plan.state !== 'solving' && wishes.length > 0 && (
              <Quiet onClick={plan.again}>Solve again</Quiet>
            )}
            {!bySystem && <Quiet onClick={() => void add()}>Add a wish</Quiet>}
            <Quiet onClick={() => setWeighing(true)}>Weights and money</Quiet>
          </>
        }
        fill={!empty && (bySystem || wishes.length > 0)}
        hint={bySystem ? 'arrows move' : 'arrows move · K pins a pair · X forbids it · N adds a wish'}
      >
        <div className="actions no-print" style={{ marginBottom: 6, fontSize: 13 }}>
          <button
            type="button"
            className="link"
            aria-pressed={!bySystem}
            onClick={() => setParams({})}
            style={{ fontWeight: bySystem ? 400 : 650 }}
          >
            Machines × wishes
          </button>
          <button
            type="button"
            className="link"
            aria-pressed={bySystem}
            onClick={() => setParams({ by: 'systems' })}
            style={{ fontWeight: bySystem ? 650 : 400 }}
          >
            Machines × systems
          </button>
          <Link className="link" to="/profiles">
            Profiles of systems
          </Link>
          <Link className="link" to="/shopping">
            Shopping list
          </Link>
          <span role="status" className="soft">
            {plan.state === 'solving'
              ? 'Solving…'
              : plan.state === 'reasons'
                ? 'Looking for reasons and alternatives…'
                : plan.state === 'cancelled'
                  ? 'Solving was stopped; what you see is the last plan.'
                  : ''}
          </span>
        </div>
        {plan.state === 'failed' && (
          <p className="said said-stop" role="alert">
            The shelf could not be solved: {plan.problem} Nothing was changed. Try “Solve again”.
          </p>
        )}
        {empty ? (
          <div className="stack">
            {machines.length === 0 && (
              <p>
                No machine is on the shelf yet.{' '}
                <Link className="link" to="/shelf">
                  Put one there and paste its survey
                </Link>
                .
              </p>
            )}
            {profiles.length === 0 && <NoProfiles />}
          </div>
        ) : bySystem ? (
          <SystemTable bench={bench} machines={machines} sheet={sheet} at={system} onAt={setSystem} />
        ) : wishes.length === 0 ? (
          <div className="stack" style={{ maxWidth: 560 }}>
            <p>
              A wish says what a machine is wanted for and where it will stand. With wishes here, the bench
              works out which machine should take which, and which spare part goes where.
            </p>
            <div>
              <Primary onClick={() => void add()}>Add the first wish</Primary>
            </div>
          </div>
        ) : (
          <MatchTable
            bench={bench}
            machines={machines}
            sheet={sheet}
            plan={plan.solution}
            at={at}
            onAt={setAt}
            onWish={setEditing}
          />
        )}
      </Sheet>
      {bySystem && !empty ? (
        <SystemPane bench={given} machine={machines[system.row]} profile={profiles[system.column]} />
      ) : empty || wishes.length === 0 ? (
        <BenchLedger bench={bench} />
      ) : (
        <CrossingPane bench={given} machine={machine} wish={wish} sheet={sheet} plan={plan} />
      )}
      <div className="legend">
        <Mark kind="yes">fits</Mark>
        <Mark kind="change">fits after a change</Mark>
        <Mark kind="ask">cannot say yet</Mark>
        <Mark kind="no">does not fit</Mark>
        <span className="soft">outlined: {bySystem ? 'chosen in a box' : 'in the plan'}</span>
      </div>
      {edited && <WishForm key={edited.id} bench={bench} wish={edited} onClose={() => setEditing(null)} />}
      {weighing && <SettingsForm bench={bench} onClose={() => setWeighing(false)} />}
    </>
  );
}
