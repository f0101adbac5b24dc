import { Box, Text } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { Controller } from 'react-hook-form';
import { z } from 'zod';
import { removeWish, saveWish } from '@zb/core/acts/wishes';
import { usualHours } from '@zb/core/system/cost';
import type { Bench, Wish } from '@zb/core/model/bench';
import { purposes, type Purpose } from '@zb/core/model/profile';
import { noiseLevels, wishFeatures, wishSchema } from '@zb/core/model/wish';
import { checked } from '../../parts/checked';
import { DraftLines } from '../../parts/DraftLines';
import { useDraftForm } from '../../parts/useDraftForm';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Dialog } from '../../ui/Dialog';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { NumberField, SliderField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { Acts, Head } from '../../ui/Words';
import { useAct } from '../../storage/hooks';

const whole = z.string().refine((t) => Number.isFinite(Number(t)) && t.trim() !== '', 'This is no number.');
/** A wish as it is typed: numbers are text until they are read, and no limit is an empty field. */
const formSchema = wishSchema.extend({
  name: z.string().trim().pipe(wishSchema.shape.name),
  profileId: z.string().transform((id) => id || null),
  wattsMax: z
    .string()
    .transform((t) => (t.trim() === '' ? null : Number(t)))
    .pipe(wishSchema.shape.wattsMax),
  hoursPerDay: whole.transform(Number).pipe(wishSchema.shape.hoursPerDay),
});
type Typed = z.input<typeof formSchema>;

/** What is wanted, how much, and where it will stand. */
export function WishForm({ bench, wish, onClose }: { bench: Bench; wish: Wish; onClose: () => void }) {
  const act = useAct();
  const [seen] = useState(wish);
  const first = useRef<HTMLInputElement | null>(null);
  const draft = useDraftForm<Typed, Wish>({
    values: {
      ...wish,
      profileId: wish.profileId ?? '',
      wattsMax: wish.wattsMax === null ? '' : String(wish.wattsMax),
      hoursPerDay: String(wish.hoursPerDay),
    },
    resolver: checked<Typed, Wish>(formSchema),
    draft: `wish ${wish.id}`,
    ask: false,
    save: async (saved) => {
      const kept = await act(saveWish(seen, saved));
      if (kept) onClose();
      return kept;
    },
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  const { purpose, pinned, forbid } = form.watch();
  const systems = bench.profiles.filter((p) => p.purpose === purpose);
  const nameOf = (id: string | null): string =>
    bench.items.find((i) => i.id === id)?.name ?? 'a machine that is gone';
  const { ref, ...name } = form.register('name');
  return (
    <Dialog open onClose={onClose} title="A wish" size="md" focusOn={() => first.current}>
      <form onSubmit={(e) => void submit(e)}>
        <FormGrid>
          <Box gridColumn="1 / -1" _empty={{ display: 'none' }}>
            <DraftLines of={draft} />
          </Box>
          <Input
            label="Name"
            maxLength={120}
            onFocus={(e) => e.target.select()}
            error={errors.name?.message}
            {...name}
            ref={(el) => {
              ref(el);
              first.current = el;
            }}
          />
          <Select
            label="Purpose"
            options={purposes}
            {...form.register('purpose', {
              onChange: (e: React.ChangeEvent<HTMLSelectElement>) => {
                // Another purpose has other systems, and runs other hours.
                form.setValue('profileId', '', { shouldDirty: true });
                form.setValue('hoursPerDay', String(usualHours(e.target.value as Purpose)), {
                  shouldDirty: true,
                });
              },
            })}
          />
          <Select
            label="System"
            none={`any for ${purpose}`}
            options={systems.map((p) => ({ value: p.id, words: p.name }))}
            {...form.register('profileId')}
          />
          <Controller
            control={form.control}
            name="importance"
            render={({ field }) => (
              <SliderField
                label="Importance"
                value={field.value}
                words={`${field.value} of 5`}
                onValue={field.onChange}
                min={1}
                max={5}
              />
            )}
          />
          <Select
            label="Loudest it may be where it stands"
            options={noiseLevels}
            {...form.register('noise')}
          />
          <Input
            label="Most watts when idle (empty: no limit)"
            data
            inputMode="numeric"
            error={errors.wattsMax?.message}
            {...form.register('wattsMax')}
          />
          <Controller
            control={form.control}
            name="hoursPerDay"
            render={({ field }) => (
              <NumberField
                label="Hours a day it runs"
                value={field.value}
                onValue={field.onChange}
                min={0}
                max={24}
                step={0.5}
                error={errors.hoursPerDay?.message}
              />
            )}
          />
          <Controller
            control={form.control}
            name="wire"
            render={({ field }) => (
              <Checkbox checked={field.value} onChange={field.onChange}>
                A network wire leads there
              </Checkbox>
            )}
          />
          <Box role="group" aria-label="It must have" gridColumn="1 / -1">
            <Head as="h3">It must have</Head>
            <Controller
              control={form.control}
              name="features"
              render={({ field }) => (
                <Acts columnGap="4">
                  {wishFeatures.map((f) => (
                    <Checkbox
                      key={f}
                      checked={field.value.includes(f)}
                      onChange={(on) =>
                        field.onChange(on ? [...field.value, f] : field.value.filter((x) => x !== f))
                      }
                    >
                      {f}
                    </Checkbox>
                  ))}
                </Acts>
              )}
            />
          </Box>
          <Box gridColumn="1 / -1">
            <Input label="Notes" maxLength={2000} error={errors.notes?.message} {...form.register('notes')} />
          </Box>
          {(pinned !== null || forbid.length > 0) && (
            <Text gridColumn="1 / -1" color="fg.muted">
              {pinned !== null && `Pinned to ${nameOf(pinned)}. `}
              {forbid.length > 0 && `Forbidden: ${forbid.map(nameOf).join(', ')}. `}
              <Word
                onClick={() => {
                  form.setValue('pinned', null, { shouldDirty: true });
                  form.setValue('forbid', [], { shouldDirty: true });
                }}
              >
                Take that back
              </Word>
            </Text>
          )}
          <Acts gridColumn="1 / -1">
            <Primary type="submit">Save the wish</Primary>
            <Quiet
              onClick={() => {
                void act(removeWish(bench, wish));
                onClose();
              }}
            >
              Remove it
            </Quiet>
          </Acts>
        </FormGrid>
      </form>
    </Dialog>
  );
}
