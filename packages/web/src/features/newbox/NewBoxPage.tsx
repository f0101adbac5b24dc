import { Stack } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { createBox } from '@zb/core/acts/box';
import { beginFrom } from '@zb/core/acts/secondBox';
import { blankMachine } from '@zb/core/acts/shelf';
import { boxSchema } from '@zb/core/model/box';
import { purposes, purposeSchema } from '@zb/core/model/profile';
import { machinesOf } from '@zb/core/model/bench';
import { machineForms, machineSchema } from '@zb/core/model/shelf';
import { BenchLedger } from '../../parts/BenchLedger';
import { checked } from '../../parts/checked';
import { DraftLines } from '../../parts/DraftLines';
import { Sheet } from '../../parts/Sheet';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Select } from '../../ui/Select';
import { AfterFirst } from './AfterFirst';

const newBoxSchema = z
  .object({
    name: z.string().trim().pipe(boxSchema.shape.name),
    /** The box it is made after; empty: none. */
    after: z.string(),
    purpose: purposeSchema,
    /** Empty: decided later. */
    machine: z.string(),
    nickname: z.string().trim().max(200),
    form: machineSchema.shape.form,
  })
  .refine((b) => b.machine !== 'new' || b.nickname !== '', {
    path: ['nickname'],
    message: 'A new machine needs a nickname, so that it is told from the others.',
  });
type NewBox = z.infer<typeof newBoxSchema>;

/** A new box: what it is to become, and of which machine. */
export default function NewBoxPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const machines = machinesOf(bench);
  const values: NewBox = {
    name: '',
    after: '',
    purpose: 'games',
    machine: '',
    nickname: '',
    form: 'office desktop',
  };
  const draft = useDraftForm<NewBox>({
    values,
    resolver: checked<NewBox, NewBox>(newBoxSchema),
    draft: 'new box',
    save: async ({ name, after, purpose, machine, nickname, form }) => {
      const s = stamp();
      const fresh = machine === 'new' ? blankMachine(nickname, form, s) : undefined;
      const taken = fresh ?? machines.find((m) => m.id === machine);
      const first = bench.boxes.find((b) => b.id === after);
      const made = first
        ? beginFrom(bench, first, name, taken, s, fresh !== undefined)
        : createBox(name, purpose, taken, s, fresh !== undefined);
      const kept = await act(made);
      if (kept) void go(`/box/${made.box.id}/survey`);
      return kept;
    },
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  const first = bench.boxes.find((b) => b.id === form.watch('after'));
  return (
    <>
      <Sheet
        title="New box"
        headline="What is it to become?"
        foot={
          // The button of the form below: Enter in a field presses it.
          <Primary type="submit" form="new-box">
            Open the box
          </Primary>
        }
        hint="The box begins at Survey"
      >
        <Stack asChild gap="3" maxWidth="form">
          <form id="new-box" aria-label="New box" onSubmit={(e) => void submit(e)}>
            <DraftLines of={draft} />
            <Input
              label="Name of the box"
              autoFocus
              maxLength={200}
              placeholder="Games corner, guest gate, archive…"
              error={errors.name?.message}
              {...form.register('name')}
            />
            {bench.boxes.length > 0 && (
              <Select
                label="Made after"
                none="no other box"
                options={bench.boxes.map((b) => ({ value: b.id, words: `${b.name}, ${b.purpose}` }))}
                {...form.register('after')}
              />
            )}
            {!first && <Select label="Purpose" options={purposes} {...form.register('purpose')} />}
            <Select
              label="Machine"
              none="decide later"
              options={[
                { value: 'new', words: 'a new machine…' },
                ...machines.map((m) => ({ value: m.id, words: `${m.name}, ${m.form}` })),
              ]}
              {...form.register('machine')}
            />
            {form.watch('machine') === 'new' && (
              <FormGrid>
                <Input
                  label="Its nickname"
                  maxLength={200}
                  error={errors.nickname?.message}
                  {...form.register('nickname')}
                />
                <Select label="Kind" options={machineForms} {...form.register('form')} />
              </FormGrid>
            )}
          </form>
        </Stack>
        {first && (
          <AfterFirst
            bench={bench}
            first={first}
            machine={machines.find((m) => m.id === form.watch('machine'))}
          />
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
