import { tellDrive } from '@zb/core/acts/storage';
import type { Store } from '@zb/core/model/bench';
import {
  toldDraftOf,
  toldDriveSchema,
  type ToldDrive,
  type ToldDriveDraft,
} from '@zb/core/model/storageDraft';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Select } from '../../ui/Select';

const RATED = [13, 14, 15, 16, 17].map((n) => ({ value: String(n), words: `1 bit in 10^${n}` }));

/** What a data sheet, a price or a look at a drive tells of it. */
export function TellDrive({ store, onClose }: { store: Store; onClose: () => void }) {
  const keep = useActAndClose(onClose);
  const draft = useDraftForm<ToldDriveDraft, ToldDrive>({
    values: toldDraftOf(store),
    resolver: checked<ToldDriveDraft, ToldDrive>(toldDriveSchema),
    draft: `drive ${store.id}`,
    ask: false,
    save: (told) => keep(tellDrive(store, told)),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title={store.name} draft={draft} onClose={onClose}>
      <FormGrid>
        <Select
          label="Sector it writes"
          none="not known"
          options={[
            { value: '512', words: '512 bytes' },
            { value: '4096', words: '4096 bytes' },
          ]}
          help="PHY-SEC of lsblk, or its label"
          {...form.register('sectorBytes')}
        />
        <Select
          label="Unreadable bits, at most"
          none="not known"
          options={RATED}
          help="“non-recoverable read errors” of its data sheet"
          {...form.register('errorExponent')}
        />
        <Select
          label="Shingled (SMR)"
          none="not known"
          options={[
            { value: 'no', words: 'no' },
            { value: 'yes', words: 'yes' },
          ]}
          help="“recording: CMR or SMR” of its data sheet"
          {...form.register('shingled')}
        />
        <Input
          label="Worn, per cent"
          data
          inputMode="decimal"
          error={errors.wear?.message}
          {...form.register('wear')}
        />
        <Input
          label="What it cost"
          data
          inputMode="decimal"
          error={errors.price?.message}
          {...form.register('price')}
        />
      </FormGrid>
    </DraftDialog>
  );
}
