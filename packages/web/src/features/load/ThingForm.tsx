import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { dropThing, keepThing } from '@zb/core/acts/storage';
import type { Box as Build } from '@zb/core/model/bench';
import { copyPlaces, type KeptThing } from '@zb/core/model/storage';
import { thingDraftOf, thingOfDraft, type ThingDraft } from '@zb/core/model/storageDraft';
import { placeWords } from '@zb/core/words/storage';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { Word } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Select } from '../../ui/Select';
import { Head } from '../../ui/Words';

/** Something that must not be lost, with every copy of it. */
export function ThingForm({
  box,
  thing,
  onClose,
}: {
  box: Build;
  thing: KeptThing | null;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const [id] = useState(() => thing?.id ?? crypto.randomUUID());
  const draft = useDraftForm<ThingDraft, KeptThing>({
    values: thingDraftOf(thing),
    resolver: checked<ThingDraft, KeptThing>(thingOfDraft(id)),
    draft: `kept ${box.id} ${thing?.id ?? 'new'}`,
    ask: false,
    save: (after) => keep(keepThing(box, after)),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const copies = useFieldArray({ control: form.control, name: 'copies' });
  return (
    <DraftDialog
      title={thing?.what ?? 'What must not be lost?'}
      size="lg"
      draft={draft}
      remove={
        thing ? { words: 'Take it off the list', act: () => void keep(dropThing(box, thing)) } : undefined
      }
      onClose={onClose}
    >
      <FormGrid>
        <Input label="What" error={errors.what?.message} {...form.register('what')} />
        <Input
          label="Size"
          data
          help="“212 GiB”; empty where nobody knows"
          error={errors.bytes?.message}
          {...form.register('bytes')}
        />
        <Input
          label="A copy is too old after, days"
          data
          error={errors.everyDays?.message}
          {...form.register('everyDays')}
        />
        <Input
          label="Last brought back from a copy"
          data
          help="year-month-day; empty: never"
          error={errors.restored?.message}
          {...form.register('restored')}
        />
      </FormGrid>
      <Head marginTop="4" marginBottom="1">
        Its copies
      </Head>
      <Stack gap="3">
        {copies.fields.map((f, i) => (
          <FormGrid key={f.id}>
            <Select
              label={`Copy ${i + 1} lies`}
              options={copyPlaces.map((p) => ({ value: p, words: placeWords(p) }))}
              {...form.register(`copies.${i}.where`)}
            />
            <Input
              label="Where exactly"
              error={errors.copies?.[i]?.name?.message}
              {...form.register(`copies.${i}.name`)}
            />
            <Box>
              <Input
                label="Brought up to date"
                data
                placeholder="year-month-day"
                error={errors.copies?.[i]?.at?.message}
                {...form.register(`copies.${i}.at`)}
              />
              <Word onClick={() => copies.remove(i)}>take this copy off the list</Word>
            </Box>
          </FormGrid>
        ))}
        <Box>
          <Word onClick={() => copies.append({ where: 'another house', name: '', at: '' })}>
            another copy
          </Word>
        </Box>
      </Stack>
    </DraftDialog>
  );
}
