import { Stack } from '@chakra-ui/react';
import { editGate } from '@zb/core/acts/rules';
import type { Box as Build } from '@zb/core/model/bench';
import type { GatePlan, Permit } from '@zb/core/model/gate';
import { permitDraftOf, permitOfDraft, type PermitDraft } from '@zb/core/model/gateDraft';
import { withItem, withoutItem } from '@zb/core/units/list';
import { dayNames, permitLine, zoneWords } from '@zb/core/words/gatePlan';
import { TickField, TicksField } from '../../../parts/fields';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { FormGrid } from '../../../ui/FormGrid';
import { Input } from '../../../ui/Input';
import { Select } from '../../../ui/Select';

/** Who may begin what: everything that is left empty is no condition. */
export function PermitForm({
  box,
  plan,
  permit,
  onClose,
}: {
  box: Build;
  plan: GatePlan;
  permit: Permit;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const there = plan.permits.some((p) => p.id === permit.id);
  const draft = useDraftForm<PermitDraft, Permit>({
    values: permitDraftOf(permit),
    resolver: checked<PermitDraft, Permit>(permitOfDraft(permit)),
    draft: `permit ${box.id} ${there ? permit.id : `${permit.from.zone} ${permit.to.zone}`}`,
    ask: false,
    save: (p) =>
      keep(
        editGate(
          box,
          { permits: withItem(plan.permits, p) },
          `${permitLine(plan, p).name} ${there ? 'saved' : 'let in'}`,
        ),
      ),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const sets = plan.addresses.map((a) => ({ value: a.id, words: a.name }));
  return (
    <DraftDialog
      title={`${zoneWords(plan, permit.from.zone)} to ${zoneWords(plan, permit.to.zone)}`}
      size="lg"
      draft={draft}
      remove={
        there
          ? {
              words: 'Take it away',
              act: () =>
                void keep(
                  editGate(
                    box,
                    { permits: withoutItem(plan.permits, permit.id) },
                    `${permitLine(plan, permit).name} taken away`,
                  ),
                ),
            }
          : undefined
      }
      onClose={onClose}
    >
      <Stack gap="4">
        <FormGrid>
          <Input label="Called" error={errors.name?.message} {...form.register('name')} />
          <Select label="It is" options={['let in', 'refuse']} {...form.register('does')} />
          <TicksField
            control={form.control}
            name="services"
            label="For"
            help="none ticked: everything"
            options={plan.services.map((o) => ({ value: o.id, words: o.name }))}
          />
          {sets.length > 0 && (
            <TicksField
              control={form.control}
              name="fromAddresses"
              label={`Only from, of ${zoneWords(plan, permit.from.zone)}`}
              help="none ticked: all of it"
              options={sets}
            />
          )}
          {sets.length > 0 && (
            <TicksField
              control={form.control}
              name="toAddresses"
              label={`Only to, of ${zoneWords(plan, permit.to.zone)}`}
              help="none ticked: all of it"
              options={sets}
            />
          )}
          <Select
            label="Over"
            options={[
              { value: '', words: 'IPv4 and IPv6' },
              { value: '4', words: 'IPv4 alone' },
              { value: '6', words: 'IPv6 alone' },
            ]}
            {...form.register('family')}
          />
          <Input
            label="From hour"
            data
            placeholder="08:00"
            help="by the gate’s clock; empty: always"
            error={errors.hoursFrom?.message}
            {...form.register('hoursFrom')}
          />
          <Input
            label="To hour"
            data
            placeholder="23:00"
            error={errors.hoursTo?.message}
            {...form.register('hoursTo')}
          />
          <Input
            label="At most"
            data
            help="beginnings; empty: no bound"
            error={errors.rate?.message}
            {...form.register('rate')}
          />
          <Select label="In a" options={['second', 'minute', 'hour', 'day']} {...form.register('per')} />
        </FormGrid>
        <TicksField
          control={form.control}
          name="days"
          label="On"
          help="none ticked: every day"
          across
          options={dayNames.map((words, i) => ({ value: String(i), words }))}
        />
        <Stack gap="1">
          <TickField control={form.control} name="log">
            noted in the gate’s log, ten times a minute at most
          </TickField>
          <TickField control={form.control} name="on">
            in force
          </TickField>
        </Stack>
      </Stack>
    </DraftDialog>
  );
}
