import { Stack } from '@chakra-ui/react';
import { keepGuest } from '@zb/core/acts/guests';
import type { Box as Build } from '@zb/core/model/bench';
import { seedDraftOf, seedOfDraft, type SeedDraft } from '@zb/core/model/guestDraft';
import type { Guest, GuestPlan } from '@zb/core/model/guests';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { FormGrid } from '../../../ui/FormGrid';
import { Input, Lines } from '../../../ui/Input';
import { Sub } from '../../../ui/Words';

/** What a first boot is told: who signs in, and which address it has. No password stands in it. */
export function SeedForm({
  box,
  plan,
  guest,
  onClose,
}: {
  box: Build;
  plan: GuestPlan;
  guest: Guest;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const draft = useDraftForm<SeedDraft, NonNullable<Guest['seed']>>({
    values: seedDraftOf(guest),
    resolver: checked<SeedDraft, NonNullable<Guest['seed']>>(seedOfDraft),
    // A hash is not left lying about in the tab.
    draft: null,
    ask: false,
    save: (seed) => keep(keepGuest(box, plan, { ...guest, seed })),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog
      title={`First boot of ${guest.name}`}
      draft={draft}
      remove={
        guest.seed
          ? { words: 'By hand', act: () => void keep(keepGuest(box, plan, { ...guest, seed: null })) }
          : undefined
      }
      onClose={onClose}
    >
      <Stack gap="3">
        <FormGrid>
          <Input label="Calls itself" data error={errors.hostName?.message} {...form.register('hostName')} />
          <Input label="User" data error={errors.user?.message} {...form.register('user')} />
          <Input
            label="Address"
            data
            placeholder="10.44.8.31/24"
            help="empty: what its network gives"
            error={errors.cidr?.message}
            {...form.register('cidr')}
          />
          <Input label="Gateway" data error={errors.gateway?.message} {...form.register('gateway')} />
          <Input
            label="Name servers"
            data
            error={errors.nameServers?.message}
            {...form.register('nameServers')}
          />
          <Input
            label="Installed besides"
            data
            error={errors.packages?.message}
            {...form.register('packages')}
          />
        </FormGrid>
        <Lines
          label="Public keys that sign in"
          data
          rows={3}
          error={errors.keys?.message}
          {...form.register('keys')}
        />
        <Input
          label="Hash of its password"
          data
          help="as openssl passwd -6 makes it; empty: keys alone"
          error={errors.hash?.message}
          {...form.register('hash')}
        />
        <Sub>A password in clear is refused: the seed lies on the pool for anybody who reads it.</Sub>
      </Stack>
    </DraftDialog>
  );
}
