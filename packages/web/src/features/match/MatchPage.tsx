import { HStack, Stack } from '@chakra-ui/react';
import { formatNumber } from '@zb/core/units/number';
import { amount } from '@zb/core/words/money';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { acceptPlan, blankWish, saveWish, toggleForbid, togglePin } from '@zb/core/acts/wishes';
import { acceptWords, planHeadline, provenWords } from '@zb/core/words/plan';
import { partsFor } from '@zb/core/system/part';
import { matchHeadline } from '@zb/core/words/fit/match';
import { emptyBench, machinesOf } from '@zb/core/model/bench';
import { purposes } from '@zb/core/model/profile';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { NoProfiles } from '../../parts/NoProfiles';
import { Sheet } from '../../parts/Sheet';
import { Shortcuts } from '../../parts/Shortcuts';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { useAssign } from '../../workers/assigning';
import { useSheet } from '../../workers/useSheet';
import { VerdictMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { To } from '../../ui/To';
import { Soft } from '../../ui/Words';
import { CrossingPane } from './CrossingPane';
import { MatchTable } from './MatchTable';
import type { At } from './SheetGrid';
import { SettingsForm } from './SettingsForm';
import { SystemPane, SystemTable } from './SystemTable';
import { WishForm } from './WishForm';
import { WishOrder } from './WishOrder';

const VIEWS = ['Machines × wishes', 'Machines × systems'] as const;

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
  const [ordering, setOrdering] = useState(false);
  const plan = useAssign(bySystem || wishes.length === 0 ? null : given);
  const wish = wishes[at.column];
  const machine = machines[at.row];
  // What is told of a crossing is worked out once the hand rests: arrows never wait for it.
  const told = useDeferredValue(at);
  const acts = useMemo(() => {
    if (bySystem || !wish || !machine) return [];
    return [
      {
        word:
          wish.pinned === machine.id
            ? `No longer pin ${wish.name} to ${machine.name}`
            : `Pin ${wish.name} to ${machine.name}`,
        keys: 'K',
        act: () => void act(togglePin(wish, machine)),
      },
      {
        word: wish.forbid.includes(machine.id)
          ? `Allow ${wish.name} on ${machine.name}`
          : `Forbid ${wish.name} on ${machine.name}`,
        keys: 'X',
        act: () => void act(toggleForbid(wish, machine)),
      },
    ];
  }, [bySystem, wish, machine, act]);
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
      <Shortcuts
        list={[
          { keys: 'k', does: 'pin the wish to the machine, or let it go', act: acts[0]?.act },
          { keys: 'x', does: 'forbid the machine to the wish, or allow it', act: acts[1]?.act },
          { keys: 'n', does: 'add a wish', act: bySystem ? undefined : () => void add() },
        ]}
      />
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
            {!bySystem && wishes.length > 1 && <Quiet onClick={() => setOrdering(true)}>Order them</Quiet>}
            <Quiet onClick={() => setWeighing(true)}>Weights and money</Quiet>
          </>
        }
        fill={!empty && (bySystem || wishes.length > 0)}
        {...(bySystem ? { hint: 'arrows move' } : {})}
      >
        <HStack gap="3" rowGap="1" flexWrap="wrap" marginBottom="2" _print={{ display: 'none' }}>
          <Segments
            label="What is held against the machines"
            options={VIEWS}
            value={bySystem ? 'Machines × systems' : 'Machines × wishes'}
            onTake={(view) => setParams(view === 'Machines × systems' ? { by: 'systems' } : {})}
          />
          <To to="/profiles">Profiles of systems</To>
          <To to="/shopping">Shopping list</To>
          <Soft role="status">
            {plan.state === 'solving'
              ? 'Solving…'
              : plan.state === 'reasons'
                ? 'Looking for reasons and alternatives…'
                : plan.state === 'cancelled'
                  ? 'Solving was stopped; what you see is the last plan.'
                  : ''}
          </Soft>
        </HStack>
        {plan.state === 'failed' && (
          <Said kind="stop">
            The shelf could not be solved: {plan.problem} Nothing was changed. Try “Solve again”.
          </Said>
        )}
        {empty ? (
          <Stack gap="3">
            {machines.length === 0 && (
              <Nothing
                title="No machine is on the shelf yet"
                words="What fits is judged machine by machine, from its survey or from what you enter."
              >
                <Quiet onClick={() => void go('/shelf')}>Put one there and paste its survey</Quiet>
              </Nothing>
            )}
            {profiles.length === 0 && <NoProfiles />}
          </Stack>
        ) : bySystem ? (
          <SystemTable bench={bench} machines={machines} sheet={sheet} at={system} onAt={setSystem} />
        ) : wishes.length === 0 ? (
          <Nothing
            title="No wish yet"
            words="A wish says what a machine is wanted for and where it will stand. With wishes here, the bench works out which machine should take which, and which spare part goes where."
          >
            <Primary onClick={() => void add()}>Add the first wish</Primary>
          </Nothing>
        ) : (
          <MatchTable
            bench={bench}
            machines={machines}
            sheet={sheet}
            plan={plan.solution}
            at={at}
            onAt={setAt}
            onWish={setEditing}
            acts={acts}
          />
        )}
      </Sheet>
      {bySystem && !empty ? (
        <SystemPane bench={given} machine={machines[system.row]} profile={profiles[system.column]} />
      ) : empty || wishes.length === 0 ? (
        <BenchLedger bench={bench} />
      ) : (
        <CrossingPane
          bench={given}
          machine={machines[told.row]}
          wish={wishes[told.column]}
          sheet={sheet}
          plan={plan}
        />
      )}
      <HStack
        gridArea="route"
        bg="bg.margin"
        borderTop="firm"
        borderLeft={{ lg: 'firm' }}
        justify="center"
        columnGap="6"
        rowGap="0"
        flexWrap="wrap"
        minHeight="touch"
        paddingInline="4"
        _print={{ display: 'none' }}
        hideBelow="md"
        aria-label="What the marks mean"
        role="group"
      >
        <VerdictMark kind="yes">fits</VerdictMark>
        <VerdictMark kind="change">fits after a change</VerdictMark>
        <VerdictMark kind="ask">cannot say yet</VerdictMark>
        <VerdictMark kind="no">does not fit</VerdictMark>
        <Soft>outlined: {bySystem ? 'chosen in a box' : 'in the plan'}</Soft>
      </HStack>
      {edited && <WishForm key={edited.id} bench={bench} wish={edited} onClose={() => setEditing(null)} />}
      {ordering && <WishOrder bench={bench} onClose={() => setOrdering(false)} />}
      {weighing && <SettingsForm bench={bench} onClose={() => setWeighing(false)} />}
    </>
  );
}
