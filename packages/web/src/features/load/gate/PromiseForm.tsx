import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { Controller, useWatch } from 'react-hook-form';
import { editGate } from '@zb/core/acts/rules';
import type { Box as Build } from '@zb/core/model/bench';
import { promiseKinds, type GatePlan, type GatePromise } from '@zb/core/model/gate';
import { promiseDraftOf, promiseOfDraft, type PromiseDraft } from '@zb/core/model/gateDraft';
import { sidesOf } from '@zb/core/rules/matrix';
import { withItem, withoutItem } from '@zb/core/units/list';
import { promiseKindWords, promiseWords, zoneWords } from '@zb/core/words/gatePlan';
import { TickField, TicksField } from '../../../parts/fields';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { useAct } from '../../../storage/hooks';
import { Switch } from '../../../ui/Checkbox';
import { Select } from '../../../ui/Select';
import { Ticks } from '../../../ui/Ticks';

/** A sentence that the rules are to keep. */
export function PromiseForm({
  box,
  plan,
  promise,
  onClose,
}: {
  box: Build;
  plan: GatePlan;
  promise: GatePromise | null;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const act = useAct();
  const [before] = useState<GatePromise>(
    () => promise ?? { id: crypto.randomUUID(), on: true, kind: 'answers' },
  );
  const draft = useDraftForm<PromiseDraft, GatePromise>({
    values: promise
      ? promiseDraftOf(promise)
      : { ...promiseDraftOf(before), kind: 'closed', from: plan.zones[0]?.id ?? '' },
    resolver: checked<PromiseDraft, GatePromise>(promiseOfDraft(before)),
    draft: `promise ${box.id} ${promise?.id ?? 'new'}`,
    ask: false,
    save: (p) =>
      keep(editGate(box, { promises: withItem(plan.promises, p) }, `Promise: ${promiseWords(plan, p)}`)),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const kind = useWatch({ control: form.control, name: 'kind' });
  const from = useWatch({ control: form.control, name: 'from' });
  const sides = sidesOf(plan).map((s) => ({ value: s, words: zoneWords(plan, s) }));
  const services = plan.services.map((s) => ({ value: s.id, words: s.name }));
  const sets = plan.addresses.map((a) => ({ value: a.id, words: a.name }));
  return (
    <DraftDialog
      title={promise ? 'A promise' : 'Another promise'}
      draft={draft}
      remove={
        promise
          ? {
              words: 'Promise it no longer',
              act: () =>
                void keep(
                  editGate(box, { promises: withoutItem(plan.promises, promise.id) }, 'A promise less'),
                ),
            }
          : undefined
      }
      onClose={onClose}
    >
      <Stack gap="4">
        {promise && (
          <Switch
            checked={promise.on}
            onChange={(on) =>
              void act(
                editGate(
                  box,
                  { promises: withItem(plan.promises, { ...promise, on }) },
                  on ? 'A promise asked for' : 'A promise put aside',
                ),
              )
            }
          >
            asked for
          </Switch>
        )}
        <Select
          label="What is promised"
          options={promiseKinds.map((k) => ({ value: k, words: promiseKindWords(k) }))}
          {...form.register('kind')}
        />
        {(kind === 'reaches' || kind === 'closed' || kind === 'own sources') && (
          <Select
            label={kind === 'own sources' ? 'Zone' : 'Who begins'}
            error={errors.from?.message}
            options={kind === 'own sources' ? sides.filter((s) => s.value !== 'gate') : sides}
            {...form.register('from')}
          />
        )}
        {(kind === 'reaches' || kind === 'closed') && (
          <Controller
            control={form.control}
            name="to"
            render={({ field }) => (
              <Ticks
                label={kind === 'reaches' ? 'Always reaches (one)' : 'Begins nothing with'}
                across
                options={sides.filter((s) => s.value !== from)}
                value={field.value}
                onChange={(v) => field.onChange(kind === 'reaches' ? v.slice(-1) : v)}
              />
            )}
          />
        )}
        {(kind === 'reaches' || kind === 'closed') && (
          <TicksField
            control={form.control}
            name="services"
            label="For"
            help="none ticked: everything"
            across
            options={services}
          />
        )}
        {kind === 'closed' && (
          <>
            <TicksField control={form.control} name="butServices" label="But for" across options={services} />
            {sets.length > 0 && (
              <TicksField control={form.control} name="butAddresses" label="But at" across options={sets} />
            )}
            <TickField control={form.control} name="forwards">
              forwarded ports are meant to come in
            </TickField>
          </>
        )}
      </Stack>
    </DraftDialog>
  );
}
