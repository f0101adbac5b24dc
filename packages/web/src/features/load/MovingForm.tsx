import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { dropMove, moveThing } from '@zb/core/acts/storage';
import type { Box as Build } from '@zb/core/model/bench';
import { movedKinds, type Moving } from '@zb/core/model/moving';
import { movingDraftOf, movingOfDraft, type MovingDraft } from '@zb/core/model/storageDraft';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { Word } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Select } from '../../ui/Select';
import { Head } from '../../ui/Words';

/** Something that moves here: what it is, the sums of its backup, and how much there is on both sides. */
export function MovingForm({
  box,
  moved,
  onClose,
}: {
  box: Build;
  moved: Moving | null;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const [id] = useState(() => moved?.id ?? crypto.randomUUID());
  const draft = useDraftForm<MovingDraft, Moving>({
    values: movingDraftOf(moved),
    resolver: checked<MovingDraft, Moving>(movingOfDraft({ id, done: moved?.done ?? {} })),
    draft: `moving ${box.id} ${moved?.id ?? 'new'}`,
    ask: false,
    save: (after) => keep(moveThing(box, after)),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const counts = useFieldArray({ control: form.control, name: 'counts' });
  return (
    <DraftDialog
      title={moved?.what ?? 'What moves here?'}
      size="lg"
      draft={draft}
      remove={moved ? { words: 'It does not move', act: () => void keep(dropMove(box, moved)) } : undefined}
      onClose={onClose}
    >
      <FormGrid>
        <Input
          label="Its name, or where its files lie"
          data
          error={errors.what?.message}
          {...form.register('what')}
        />
        <Select label="What it is" options={[...movedKinds]} {...form.register('kind')} />
        <Input label="From which server" error={errors.from?.message} {...form.register('from')} />
        <Input
          label="The old one stays whole, days"
          data
          error={errors.keepDays?.message}
          {...form.register('keepDays')}
        />
        <Input label="Sum of the backup there" data error={errors.made?.message} {...form.register('made')} />
        <Input label="Sum of it here" data error={errors.arrived?.message} {...form.register('arrived')} />
      </FormGrid>
      <Head marginTop="4" marginBottom="1">
        Counted on both sides
      </Head>
      <Stack gap="3">
        {counts.fields.map((f, i) => (
          <FormGrid key={f.id}>
            <Input
              label="Table, or folder"
              data
              error={errors.counts?.[i]?.of?.message}
              {...form.register(`counts.${i}.of`)}
            />
            <Input
              label="There"
              data
              error={errors.counts?.[i]?.before?.message}
              {...form.register(`counts.${i}.before`)}
            />
            <Box>
              <Input
                label="Here"
                data
                error={errors.counts?.[i]?.after?.message}
                {...form.register(`counts.${i}.after`)}
              />
              <Word onClick={() => counts.remove(i)}>not this one</Word>
            </Box>
          </FormGrid>
        ))}
        <Box>
          <Word onClick={() => counts.append({ of: '', before: '', after: '' })}>another one to count</Word>
        </Box>
      </Stack>
    </DraftDialog>
  );
}
