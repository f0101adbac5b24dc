import { Box, Stack } from '@chakra-ui/react';
import { useFieldArray } from 'react-hook-form';
import { dropGuest, keepGuest } from '@zb/core/acts/guests';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import { guestDraftOf, guestOfDraft, type GuestDraft } from '@zb/core/model/guestDraft';
import type { Guest, GuestPlan } from '@zb/core/model/guests';
import { isImage } from '@zb/core/model/shelf';
import type { Pot } from '@zb/core/guests/pot';
import { memorySum } from '@zb/core/guests/sums';
import { formatIec } from '@zb/core/units/bytes';
import { TickField, TicksField } from '../../../parts/fields';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { Word } from '../../../ui/Button';
import { FormGrid } from '../../../ui/FormGrid';
import { Input } from '../../../ui/Input';
import { Select } from '../../../ui/Select';
import { Head } from '../../../ui/Words';

const FIRMWARE = [
  { value: 'uefi', words: 'UEFI' },
  { value: 'secure', words: 'UEFI, Secure Boot on' },
  { value: 'bios', words: 'BIOS' },
];

/** All that is said of a guest. */
export function GuestForm({
  bench,
  box,
  plan,
  pot,
  guest,
  onClose,
}: {
  bench: Bench;
  box: Build;
  plan: GuestPlan;
  pot: Pot;
  guest: Guest;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const there = plan.guests.some((g) => g.id === guest.id);
  const draft = useDraftForm<GuestDraft, Guest>({
    values: guestDraftOf(guest),
    resolver: checked<GuestDraft, Guest>(guestOfDraft(guest)),
    draft: `guest ${box.id} ${there ? guest.id : 'new'}`,
    ask: false,
    save: (g) => keep(keepGuest(box, plan, g)),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const disks = useFieldArray({ control: form.control, name: 'disks' });
  const free = memorySum(plan, pot)?.free ?? 0;
  return (
    <DraftDialog
      title={there ? guest.name : 'Another guest'}
      size="lg"
      draft={draft}
      remove={
        there ? { words: 'Take it away', act: () => void keep(dropGuest(box, plan, guest)) } : undefined
      }
      onClose={onClose}
    >
      <Stack gap="4">
        <FormGrid>
          <Input label="Name" data error={errors.name?.message} {...form.register('name')} />
          <Input label="What for" error={errors.purpose?.message} {...form.register('purpose')} />
          <Input label="Cores" data error={errors.cores?.message} {...form.register('cores')} />
          <Input
            label="Memory"
            data
            help={free > 0 ? `it could have ${formatIec(free)} more` : 'no more is left'}
            error={errors.memory?.message}
            {...form.register('memory')}
          />
          <Input
            label="Gives back down to"
            data
            help="needs its own driver; empty: keeps all of it"
            error={errors.floor?.message}
            {...form.register('floor')}
          />
          <Input
            label="Works with at least"
            data
            help="empty: with nothing less than it has"
            error={errors.least?.message}
            {...form.register('least')}
          />
          <Select label="Firmware" options={FIRMWARE} {...form.register('firmware')} />
          <Select
            label="Installed from"
            none="nothing yet"
            options={bench.items.filter(isImage).map((i) => ({ value: i.id, words: i.name }))}
            {...form.register('imageId')}
          />
          <Input
            label="Matters, 1 to 10"
            data
            help="the least goes first where it does not fit"
            error={errors.weight?.message}
            {...form.register('weight')}
          />
          <Input label="Order of starting" data error={errors.order?.message} {...form.register('order')} />
          <Input label="Wait behind it, s" data error={errors.delay?.message} {...form.register('delay')} />
          <Input
            label="Hardware address of its first card"
            data
            help="empty: the host makes one"
            error={errors.hardware?.message}
            {...form.register('hardware')}
          />
        </FormGrid>
        <Box>
          <Head marginBottom="1">Disks</Head>
          {disks.fields.map((f, i) => (
            <FormGrid key={f.id}>
              <Input
                label="Size"
                data
                error={errors.disks?.[i]?.bytes?.message}
                {...form.register(`disks.${i}.bytes`)}
              />
              <Select
                label="On"
                options={plan.pools.map((p) => ({ value: p.id, words: p.name }))}
                {...form.register(`disks.${i}.poolId`)}
              />
              <Input
                label="Written so far"
                data
                error={errors.disks?.[i]?.used?.message}
                {...form.register(`disks.${i}.used`)}
              />
              <Input
                label="Grows a day"
                data
                error={errors.disks?.[i]?.grows?.message}
                {...form.register(`disks.${i}.grows`)}
              />
              <TickField control={form.control} name={`disks.${i}.thin`}>
                takes only what is written
              </TickField>
              <Word onClick={() => disks.remove(i)}>take this disk away</Word>
            </FormGrid>
          ))}
          <Word
            onClick={() =>
              disks.append({
                id: crypto.randomUUID(),
                bytes: '20 GiB',
                poolId: plan.pools[0]?.id ?? '',
                thin: true,
                used: '',
                grows: '',
              })
            }
          >
            another disk
          </Word>
        </Box>
        <TicksField
          control={form.control}
          name="nets"
          label="Networks"
          across
          options={plan.nets.map((n) => ({ value: n.id, words: n.name }))}
        />
        {plan.devices.length > 0 && (
          <TicksField
            control={form.control}
            name="devices"
            label="Devices handed to it"
            across
            options={plan.devices.map((d) => ({ value: d.id, words: d.name }))}
          />
        )}
        <Stack gap="1">
          <TickField control={form.control} name="autostart">
            starts with the host
          </TickField>
          <TickField control={form.control} name="window">
            has a screen, reached from the host alone
          </TickField>
          <TickField control={form.control} name="nested">
            guests run in it
          </TickField>
        </Stack>
      </Stack>
    </DraftDialog>
  );
}
