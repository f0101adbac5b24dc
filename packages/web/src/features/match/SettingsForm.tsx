import { Box } from '@chakra-ui/react';
import { Controller } from 'react-hook-form';
import { z } from 'zod';
import { changeSettings } from '@zb/core/acts/wishes';
import type { Bench } from '@zb/core/model/bench';
import { criteria, settingsSchema, type Settings } from '@zb/core/model/settings';
import { checked } from '../../parts/checked';
import { DraftLines } from '../../parts/DraftLines';
import { useDraftForm } from '../../parts/useDraftForm';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { SliderField } from '../../ui/NumberField';
import { Sub } from '../../ui/Words';
import { useAct } from '../../storage/hooks';

const ABOUT: Record<(typeof criteria)[number], string> = {
  quiet: 'silent counts full, loud nothing',
  watts: 'few watts when idle',
  speed: 'cores, clock and level of the CPU',
  cost: 'little or nothing to buy',
  'spare ports': 'drive and network ports left over',
  age: 'a younger CPU',
  preferred: 'what the system runs better with',
};

/** An amount as people type it: with a point or a comma. */
const typedAmount = (schema: z.ZodNumber) =>
  z
    .string()
    .refine((t) => t.trim() !== '' && Number.isFinite(Number(t.trim().replace(',', '.'))), {
      message: 'An amount is a number from 0, such as 60 or 0.32.',
    })
    .transform((t) => Number(t.trim().replace(',', '.')))
    .pipe(schema);

const { shape } = settingsSchema;
const formSchema = z.object({
  weights: shape.weights,
  budget: typedAmount(shape.budget),
  tariff: typedAmount(shape.tariff),
  currency: shape.currency.trim(),
});
type Typed = z.input<typeof formSchema>;

/** The weights of the score, and the money everything is reckoned with. */
export function SettingsForm({ bench, onClose }: { bench: Bench; onClose: () => void }) {
  const act = useAct();
  const { settings } = bench;
  const draft = useDraftForm<Typed, Settings>({
    values: {
      weights: settings.weights,
      budget: String(settings.budget),
      tariff: String(settings.tariff),
      currency: settings.currency,
    },
    resolver: checked<Typed, Settings>(formSchema),
    draft: 'settings',
    ask: false,
    save: async (change) => {
      const kept = await act(changeSettings(bench, change, 'Weights and money saved'));
      if (kept) onClose();
      return kept;
    },
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  return (
    <Dialog open onClose={onClose} title="Weights and money" size="md">
      <form onSubmit={(e) => void submit(e)}>
        <FormGrid>
          <Box gridColumn="1 / -1" _empty={{ display: 'none' }}>
            <DraftLines of={draft} />
          </Box>
          {criteria.map((c) => (
            <Controller
              key={c}
              control={form.control}
              name={`weights.${c}`}
              render={({ field }) => (
                <Box>
                  <SliderField
                    label={c}
                    value={field.value}
                    words={String(field.value)}
                    onValue={field.onChange}
                    min={0}
                    max={10}
                    step={0.5}
                  />
                  <Sub>{ABOUT[c]}</Sub>
                </Box>
              )}
            />
          ))}
          <Input
            label="To spend on all boxes"
            data
            inputMode="decimal"
            error={errors.budget?.message}
            {...form.register('budget')}
          />
          <Input
            label="Price of a kilowatt-hour"
            data
            inputMode="decimal"
            error={errors.tariff?.message}
            {...form.register('tariff')}
          />
          <Input
            label="Currency behind amounts (may be empty)"
            maxLength={8}
            error={errors.currency?.message}
            {...form.register('currency')}
          />
          <Box gridColumn="1 / -1">
            <Primary type="submit">Save and solve again</Primary>
          </Box>
        </FormGrid>
      </form>
    </Dialog>
  );
}
