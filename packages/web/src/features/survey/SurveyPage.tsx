import { HStack, Stack } from '@chakra-ui/react';
import { z } from 'zod';
import { updateBox } from '@zb/core/acts/box';
import { formatDay } from '@zb/core/units/date';
import { blankMachine } from '@zb/core/acts/shelf';
import { machinesOf } from '@zb/core/model/bench';
import { machineSchema } from '@zb/core/model/shelf';
import { surveyHeadline } from '@zb/core/words/survey';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Input } from '../../ui/Input';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Sub } from '../../ui/Words';
import { MachineBody } from '../../parts/MachineBody';
import { stamp, useAct } from '../../storage/hooks';

const nicknameSchema = z.object({ name: machineSchema.shape.name });

function PickMachine({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const take = (id: string, words: string): void =>
    void act(updateBox(box, { machineId: id, profileId: null }, words));
  const { form, submit } = useDraftForm({
    values: { name: '' },
    resolver: checked(nicknameSchema),
    draft: `machine for ${box.id}`,
    ask: false,
    save: ({ name }) => {
      const machine = blankMachine(name, 'office desktop', stamp());
      return act({
        label: `${machine.name} put on the shelf`,
        changes: [
          { in: 'items', id: machine.id, to: machine },
          ...updateBox(box, { machineId: machine.id }, '').changes,
        ],
      });
    },
  });
  const machines = machinesOf(bench);
  return (
    <Stack gap="4">
      {machines.length === 0 ? (
        <Nothing
          title="No machine is on the shelf yet"
          words="Name the one that is to become this box; then paste its report, or enter what you see."
        />
      ) : (
        <Ruled
          stacked
          label="Machines on the shelf"
          heads={['On the shelf', 'Kind', 'Surveyed', { words: 'Take it', silent: true }]}
        >
          {machines.map((m) => {
            const user = bench.boxes.find((b) => b.machineId === m.id && b.id !== box.id);
            return (
              <Line key={m.id}>
                <LineHead>{m.name}</LineHead>
                <Cell>
                  {m.form}
                  {user && <Sub>already in “{user.name}”</Sub>}
                </Cell>
                <Cell color="fg.muted">{m.surveyedAt === null ? 'not yet' : formatDay(m.surveyedAt)}</Cell>
                <Cell>
                  <Word onClick={() => take(m.id, `${m.name} taken for “${box.name}”`)}>Take {m.name}</Word>
                </Cell>
              </Line>
            );
          })}
        </Ruled>
      )}
      <HStack asChild gap="2" align="flex-end" maxWidth="form">
        <form onSubmit={(e) => void submit(e)}>
          <Input
            label="Or a new machine: its nickname"
            maxLength={200}
            error={form.formState.errors.name?.message}
            {...form.register('name', { setValueAs: (t: string) => t.trim() })}
          />
          <Primary type="submit">Put it on the shelf</Primary>
        </form>
      </HStack>
    </Stack>
  );
}

function SurveyPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  return (
    <BoxFrame
      context={context}
      stop="survey"
      headline={surveyHeadline(machine)}
      acts={
        machine && (
          <>
            <Quiet
              onClick={() =>
                void act(updateBox(box, { machineId: null, profileId: null }, 'Machine set aside'))
              }
            >
              Another machine
            </Quiet>
          </>
        )
      }
    >
      {!machine ? (
        <PickMachine context={context} />
      ) : (
        <MachineBody bench={bench} machine={machine} boxId={box.id} />
      )}
    </BoxFrame>
  );
}

export default withBox(SurveyPage);
