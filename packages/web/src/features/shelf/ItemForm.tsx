import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { Controller, type FieldErrors } from 'react-hook-form';
import { saveItem } from '@zb/core/acts/shelf';
import { machinesOf, type Bench } from '@zb/core/model/bench';
import { memoryKinds } from '@zb/core/model/facts';
import { itemDraftOf, itemOf, type Editable, type ItemDraft } from '@zb/core/model/itemDraft';
import { isStore, transports, type Store } from '@zb/core/model/shelf';
import { formatIec } from '@zb/core/units/bytes';
import { fieldProblemWords } from '@zb/core/words/fieldProblem';
import { sizeProblem } from '@zb/core/words/typedSize';
import { DraftLines } from '../../parts/DraftLines';
import { refused, useDraftForm } from '../../parts/useDraftForm';
import { useAct, useBench } from '../../storage/hooks';
import { Primary, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { FormGrid } from '../../ui/FormGrid';
import { Input, Lines } from '../../ui/Input';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { SizeField } from '../../ui/SizeField';

const errorsOf = (read: Exclude<ReturnType<typeof itemOf>, { item: Editable }>): FieldErrors<ItemDraft> =>
  Object.fromEntries(
    read.problems.map((p) => [
      p.field,
      {
        type: 'custom',
        message:
          'size' in p
            ? sizeProblem(p.size)
            : fieldProblemWords({ code: p.code as never, message: p.message }),
      },
    ]),
  );

const whereOptions = (bench: Bench) => machinesOf(bench).map((m) => ({ value: m.id, words: m.name }));

/** The sheet of anything that is not a machine. Saved as a whole, refused as a whole. */
export function ItemForm({ item }: { item: Editable }) {
  const bench = useBench();
  const act = useAct();
  // What the user saw when the form was opened or saved last: only what differs from it is changed.
  const [seen, setSeen] = useState(item);
  const draft = useDraftForm<ItemDraft, Editable>({
    values: itemDraftOf(item),
    draft: `item ${item.id}`,
    resolver: (typed) => {
      const read = itemOf(seen, typed);
      return 'item' in read ? { values: read.item, errors: {} } : refused(errorsOf(read));
    },
    save: async (saved) => {
      // What lies on it and what becomes of it are facts of their own, decided beside this form.
      const kept = await act(saveItem(seen, saved));
      if (kept) setSeen(saved);
      return kept;
    },
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  const shape = form.watch('shape');
  const owned = form.watch('owned');
  const store: Store | undefined = isStore(item) ? item : undefined;
  const typed = (label: string, key: keyof ItemDraft, data = false) => (
    <Input label={label} data={data} error={errors[key]?.message} {...form.register(key)} />
  );
  const pick = (label: string, key: keyof ItemDraft, options: readonly string[], none?: string) => (
    <Select
      label={label}
      options={options}
      {...(none === undefined ? {} : { none })}
      error={errors[key]?.message}
      {...form.register(key)}
    />
  );
  return (
    <form onSubmit={(e) => void submit(e)} aria-label={item.name}>
      <Stack gap="3">
        <DraftLines of={draft} />
        <FormGrid>
          {typed('Name', 'name')}
          {'bytes' in item && (
            <Controller
              control={form.control}
              name="size"
              render={({ field }) => (
                <SizeField
                  label="Size"
                  text={field.value}
                  error={errors.size?.message}
                  onSize={(_, text) => field.onChange(text)}
                />
              )}
            />
          )}
          {store && typed('Serial', 'serial', true)}
          {store && typed('Model', 'model')}
          {store && typed('Label on it', 'label')}
          {item.kind === 'adapter' && (
            <>
              {typed('From', 'from')}
              {typed('To', 'to')}
              {pick('Goes into', 'goesIn', ['expansion slot', 'USB port', 'outside'])}
              {typed('Wired network ports it adds', 'wiredPorts', true)}
              {typed('SATA ports it adds', 'sataPorts', true)}
            </>
          )}
          {item.kind === 'memory' && (
            <>
              {typed('Type', 'type')}
              {pick('Form', 'form', ['DIMM', 'SO-DIMM'])}
              {pick('Check bits (ECC)', 'checked', memoryKinds, 'not known')}
            </>
          )}
          {item.kind === 'drive' && (
            <>
              {pick('Connects by', 'transport', transports)}
              {pick('Shape', 'shape', ['2.5 inch', '3.5 inch', 'M.2'], 'not said')}
              {shape === 'M.2' && (
                <>
                  {pick('Length', 'length', ['2230', '2242', '2260', '2280', '22110'])}
                  {pick('Key (notch)', 'key', ['B', 'M', 'B+M'])}
                  {pick('PCIe lanes (0: SATA)', 'lanes', ['0', '1', '2', '4'])}
                </>
              )}
            </>
          )}
          {'in' in item && (
            <Select
              label="Sits in"
              none="loose on the shelf"
              options={whereOptions(bench)}
              {...form.register('in')}
            />
          )}
          <Box>
            <Controller
              control={form.control}
              name="owned"
              render={({ field }) => (
                <Checkbox checked={!field.value} onChange={(buy) => field.onChange(!buy)}>
                  It is not here yet: it could be bought
                </Checkbox>
              )}
            />
          </Box>
          {!owned && typed('Price', 'price', true)}
          {store && typed('What is on it, in your words', 'holds')}
          <Box gridColumn="1 / -1">
            <Lines label="Notes" error={errors.notes?.message} {...form.register('notes')} />
          </Box>
        </FormGrid>
        {store?.realBytes != null && (
          <Said kind="stop" loud={false}>
            A read-back found that it really holds about {formatIec(store.realBytes)}.{' '}
            <Word onClick={() => void act(saveItem(store, { ...store, realBytes: null }))}>
              It is another stick now; forget that
            </Word>
          </Said>
        )}
        <Box>
          <Primary type="submit">Save</Primary>
        </Box>
      </Stack>
    </form>
  );
}
