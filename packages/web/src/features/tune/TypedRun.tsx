import { Stack } from '@chakra-ui/react';
import type { Experiment, QuantityCode, TuneRun } from '@zb/core/model/tune';
import { valuesOfDraft, type RunDraft } from '@zb/core/model/tuneDraft';
import { quantities } from '@zb/core/tune/quantities';
import { questions } from '@zb/core/tune/questions';
import { TickField } from '../../parts/fields';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { Primary } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Said } from '../../ui/Said';

type Read = { values: TuneRun['values']; steady: boolean };

/** A run whose figures are typed: those of the question first, and watts where they can be read. */
export function TypedRun({
  experiment,
  first,
  onRun,
}: {
  experiment: Experiment;
  first: QuantityCode;
  onRun: (values: TuneRun['values'], steady: boolean | null) => Promise<boolean>;
}) {
  const q = questions[experiment.question];
  const codes = [...new Set<QuantityCode>([first, ...q.beside, 'wall', 'noise', 'score'])];
  const draft = useDraftForm<RunDraft, Read>({
    values: { ...Object.fromEntries(codes.map((c) => [c, ''])), steady: true },
    resolver: checked<RunDraft, Read>(valuesOfDraft),
    draft: null,
    ask: false,
    save: ({ values, steady }) => onRun(values, q.settles ? steady : null),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const unit = (c: QuantityCode): string => (quantities[c].unit === 'bytes/s' ? 'MB/s' : quantities[c].unit);
  return (
    <form onSubmit={(e) => void draft.submit(e)}>
      <Stack gap="3">
        <FormGrid>
          {codes.map((c) => (
            <Input
              key={c}
              label={unit(c) === '' ? quantities[c].label : `${quantities[c].label}, ${unit(c)}`}
              data
              inputMode="decimal"
              error={errors[c]?.message}
              {...form.register(c)}
            />
          ))}
        </FormGrid>
        {q.settles && (
          <TickField control={form.control} name="steady">
            it had settled when it was measured
          </TickField>
        )}
        {errors.steady?.message !== undefined && <Said kind="stop">{errors.steady.message}</Said>}
        <Primary type="submit" alignSelf="flex-start">
          Keep these figures
        </Primary>
      </Stack>
    </form>
  );
}
