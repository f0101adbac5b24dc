import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { putRun } from '@zb/core/acts/tune';
import type { Box } from '@zb/core/model/bench';
import type { ArmName, TunePlan, TuneRun } from '@zb/core/model/tune';
import { roomOfText } from '@zb/core/model/tuneDraft';
import { questions } from '@zb/core/tune/questions';
import { runFrom } from '@zb/core/tune/runOf';
import { setsOf, type ExperimentState } from '@zb/core/tune/results';
import type { RunReading } from '@zb/core/tune/runValues';
import { settingDefinitions } from '@zb/core/tune/settings';
import { standInKinds } from '@zb/core/tune/standin/sets';
import { stateTitle } from '@zb/core/words/tune';
import { useActAndClose } from '../../parts/DraftDialog';
import { stamp } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Input } from '../../ui/Input';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Data, Sub } from '../../ui/Words';
import { Guide } from './Guide';
import { LogOpener } from './LogOpener';
import { StandIn } from './StandIn';
import { TypedRun } from './TypedRun';

const WAYS = [
  { value: 'stand-in', words: 'On the stand-in' },
  { value: 'log', words: 'From a log' },
  { value: 'typed', words: 'Typed' },
] as const;
type Way = (typeof WAYS)[number]['value'];

/** One run, guided: what is set, how long to wait, what to read, and where its figures come from. */
export function RunDialog({
  box,
  plan,
  state,
  next,
  onClose,
}: {
  box: Box;
  plan: TunePlan;
  state: ExperimentState;
  next: { arm: ArmName; place: number };
  onClose: () => void;
}) {
  const e = state.experiment;
  const keep = useActAndClose(onClose);
  const canStand = state.changes.every((c) => standInKinds.includes(c.kind));
  const real = state.arms.some((a) => a.runs.some((r) => r.source !== 'stand-in'));
  const [way, setWay] = useState<Way>(canStand && !real ? 'stand-in' : 'log');
  const [log, setLog] = useState<{ reading: RunReading; name: string } | null>(null);
  const [key, setKey] = useState(0);
  const [typedRoom, setTypedRoom] = useState('');
  const room = roomOfText.safeParse(typedRoom);
  const sets = setsOf(state, next.arm);
  const before = setsOf(state, e.order[next.place - 1] ?? '');
  const of = () => ({
    id: crypto.randomUUID(),
    boxId: box.id,
    experimentId: e.id,
    arm: next.arm,
    place: next.place,
    at: stamp().now,
    room: room.data ?? null,
  });
  // A run that did not count makes room for the one that is made in its place.
  const spent = state.arms.flatMap((a) => a.runs).filter((r) => r.place === next.place);
  const kept = (run: TuneRun): Promise<boolean> => keep(putRun(run, spent));
  return (
    <Dialog
      open
      onClose={onClose}
      size="lg"
      title={`Run ${next.place + 1} of ${state.planned}: ${stateTitle(state, next.arm)}`}
    >
      <Stack gap="4">
        <Ruled stacked label="What to set" heads={['Setting', 'Where', 'Set it to', 'It stands at']}>
          {state.changes.map((c) => (
            <Line key={c.id}>
              <LineHead>{c.name}</LineHead>
              <Cell>{c.place}</Cell>
              <Cell>
                <Data>{sets[c.id]}</Data>
                {before[c.id] === sets[c.id] && <Sub>as in the run before: leave it</Sub>}
              </Cell>
              <Cell>
                <Data>{before[c.id] ?? (c.now || c.came)}</Data>
              </Cell>
            </Line>
          ))}
        </Ruled>
        {state.changes.map(
          (c) =>
            settingDefinitions[c.kind].caution !== '' && (
              <Said key={c.id} kind="check">
                {settingDefinitions[c.kind].caution}
              </Said>
            ),
        )}
        <Segments label="Where its figures come from" options={WAYS} value={way} onTake={setWay} />
        {way === 'stand-in' && canStand && (
          <StandIn box={box} plan={plan} state={state} next={next} onKeep={kept} />
        )}
        {way === 'stand-in' && !canStand && (
          <Said>
            The stand-in machine has a power limit, boost, resolution, a frame cap and paste. It cannot try
            this setting: measure on the machine itself.
          </Said>
        )}
        {way !== 'stand-in' && <Guide experiment={e} />}
        {way !== 'stand-in' && questions[e.question].settles && (
          <Input
            label="Room temperature, °C"
            help="Read it at the end of every run: it is taken out where temperatures are compared."
            data
            inputMode="decimal"
            value={typedRoom}
            onChange={(event) => setTypedRoom(event.target.value)}
            error={room.success ? undefined : 'Type a temperature from −30 to 60 °C, or leave it empty.'}
          />
        )}
        {way === 'log' && (
          <LogOpener
            key={key}
            plan={plan}
            measureSeconds={e.settleSeconds > 0 ? e.measureSeconds : null}
            onAgain={() => {
              setLog(null);
              setKey(key + 1);
            }}
            onLog={(l, name) => setLog({ reading: l.reading, name })}
          />
        )}
        {way === 'log' && log && (
          <>
            {log.reading.values[state.first] === undefined && (
              <Said kind="check">
                Nothing in it answers this question by itself; its figures can be kept all the same.
              </Said>
            )}
            {log.reading.steady === false && (
              <Said kind="check">
                It had not settled when the measuring began: it is kept, and not counted.
              </Said>
            )}
            <Primary
              alignSelf="flex-start"
              disabled={!room.success}
              onClick={() => void kept(runFrom(log.reading, of(), 'read', log.name))}
            >
              Keep it as run {next.place + 1}
            </Primary>
          </>
        )}
        {way === 'typed' && (
          <TypedRun
            experiment={e}
            first={state.first}
            onRun={async (values, steady) =>
              room.success &&
              (await kept({
                ...of(),
                steady,
                tau: null,
                leftOut: '',
                values,
                within: {},
                source: 'typed',
                from: '',
                traces: [],
                frames: [],
                frameCount: 0,
              }))
            }
          />
        )}
      </Stack>
    </Dialog>
  );
}
