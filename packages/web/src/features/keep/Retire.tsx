import { Stack, Text } from '@chakra-ui/react';
import type { z } from 'zod';
import { retire } from '@zb/core/acts/keep';
import { leavesReadable, retirementOf, usualEnd } from '@zb/core/keeping/retirement';
import { storesIn, type Bench, type Box } from '@zb/core/model/bench';
import { cellStates, driveEnds, machineEnds, retiredSchema } from '@zb/core/model/keep';
import { cellWords, driveEndWords, machineEndWords, retireWords } from '@zb/core/words/keep';
import { checked } from '../../parts/checked';
import { DraftLines } from '../../parts/DraftLines';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp, useAct } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { HazardMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Sub } from '../../ui/Words';

const form = retiredSchema.omit({ at: true });
type Form = z.output<typeof form>;
type Typed = z.input<typeof form>;

/** What is done before a box is no more, and what became of its drives and its machine. */
export function Retire({ bench, box, battery }: { bench: Bench; box: Box; battery: boolean }) {
  const act = useAct();
  const inside = box.machineId === null ? [] : storesIn(bench, box.machineId);
  const draft = useDraftForm<Typed, Form>({
    values: {
      because: '',
      machine: 'back to the shelf',
      cells: battery ? 'sound' : 'none',
      drives: inside.map((d) => ({
        id: d.id,
        name: d.name,
        serial: d.serial,
        end: usualEnd(box, d),
        how: '',
        readBack: false,
      })),
    },
    resolver: checked<Typed, Form>(form),
    draft: `retire ${box.id}`,
    ask: false,
    save: (how) => act(retire(bench, box, how, stamp())),
  });
  const { register, watch, formState } = draft.form;
  const to = watch('machine');
  const lines = retirementOf(bench, box, to);
  const readable = leavesReadable(bench, { machine: to, drives: watch('drives') });
  return (
    <Stack gap="4">
      <Ruled
        dense
        label="Before it is no more"
        heads={[{ words: 'No.', figure: true, width: '3em' }, 'Step']}
      >
        {lines.map((l, i) => {
          const { title, how } = retireWords(l);
          return (
            <Line key={`${i} ${title}`}>
              <Cell textAlign="end">{i + 1}</Cell>
              <LineHead>
                {title}
                <Sub>{how}</Sub>
              </LineHead>
            </Line>
          );
        })}
      </Ruled>
      <Stack asChild gap="3">
        <form aria-label="Retire" onSubmit={(e) => void draft.submit(e)}>
          <DraftLines of={draft} />
          <FormGrid>
            <Input
              label="Why it is retired"
              maxLength={500}
              error={formState.errors.because?.message}
              {...register('because')}
            />
            <Select
              label="Where the machine goes"
              options={machineEnds.map((value) => ({ value, words: machineEndWords(value) }))}
              {...register('machine', {
                // What leaves the house is purged, what stays is cleared; what was decided otherwise stays so.
                onChange: () => {
                  const away = draft.form.getValues('machine') !== 'back to the shelf';
                  draft.form.getValues('drives').forEach(({ end }, i) => {
                    if (end === (away ? 'clear' : 'purge'))
                      draft.form.setValue(`drives.${i}.end`, away ? 'purge' : 'clear', { shouldDirty: true });
                  });
                },
              })}
            />
            <Select
              label="Its cells"
              options={cellStates.map((value) => ({ value, words: cellWords(value) }))}
              {...register('cells')}
            />
          </FormGrid>
          {inside.map((d, i) => (
            <FormGrid key={d.id}>
              <Select
                label={`“${d.name}”, …${(d.serial ?? '').slice(-4)}`}
                options={driveEnds.map((value) => ({ value, words: driveEndWords(value) }))}
                {...register(`drives.${i}.end`)}
              />
              <Input
                label={`How “${d.name}” was erased`}
                maxLength={300}
                placeholder="the way, and places read back"
                {...register(`drives.${i}.how`)}
              />
            </FormGrid>
          ))}
          {readable.length > 0 && (
            <Said kind="stop">
              <HazardMark grade="stop" /> What is on {readable.join(', ')} could still be read where the
              machine goes. Purge it, break it up, or take it out.
            </Said>
          )}
          {inside.some((d) => usualEnd(box, d) === 'kept as it is') && (
            <Text>What is to be kept goes to the shelf as it is, out of the machine.</Text>
          )}
          <Primary type="submit" disabled={readable.length > 0}>
            Retire {box.name}
          </Primary>
        </form>
      </Stack>
    </Stack>
  );
}
