import { HStack, Image, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { z } from 'zod';
import { addEntry, type HandEntry } from '@zb/core/acts/box';
import type { Box } from '@zb/core/model/bench';
import type { Stop } from '@zb/core/model/stops';
import { stamp, useAct } from '../storage/hooks';
import { Quiet } from '../ui/Button';
import { Choices } from '../ui/Choices';
import { Input } from '../ui/Input';
import { PickFile } from '../ui/PickFile';
import { Said } from '../ui/Said';
import { checked } from './checked';
import { smallPhoto } from './photo';
import { useDraftForm } from './useDraftForm';

type Kind = HandEntry['kind'];
const TITLE = { note: 'Note', photo: 'Photo', setting: 'Setting changed' } as const;
const WHAT: Record<Kind, { label: string; hint: string }> = {
  note: { label: 'Text', hint: 'What happened' },
  photo: { label: 'What it shows', hint: 'The label under the battery' },
  setting: { label: 'Setting', hint: 'such as graphics memory' },
};

const text = z.string().trim().max(2000);
/** A line is a note with words, a setting with where it went, or a photo. */
const lineSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('note'), text: text.min(1), from: text, to: text, photo: z.string() }),
  z.object({ kind: z.literal('setting'), text: text.min(1), from: text, to: text.min(1), photo: z.string() }),
  z.object({ kind: z.literal('photo'), text, from: text, to: text, photo: z.string().min(1) }),
]);
type Typed = { kind: Kind; text: string; from: string; to: string; photo: string };

const entryOf = (t: z.infer<typeof lineSchema>): HandEntry =>
  t.kind === 'note'
    ? { kind: t.kind, text: t.text }
    : t.kind === 'photo'
      ? { kind: t.kind, text: t.text || 'Photo', photo: t.photo }
      : { kind: t.kind, text: t.text, from: t.from || 'not noted', to: t.to };

/** Adds a line by hand: a note, a photo, or a setting changed from one value to another. */
export function LogEntryForm({
  box,
  stop,
  kinds = ['note', 'setting', 'photo'],
}: {
  box: Box | null;
  stop: Stop | null;
  kinds?: readonly Kind[];
}) {
  const act = useAct();
  const [problem, setProblem] = useState('');
  const empty: Typed = { kind: kinds[0] ?? 'note', text: '', from: '', to: '', photo: '' };
  const { form, submit } = useDraftForm<Typed, z.infer<typeof lineSchema>>({
    values: empty,
    resolver: checked<Typed, z.infer<typeof lineSchema>>(lineSchema),
    draft: `line ${box?.id ?? 'bench'} ${stop ?? ''}`,
    ask: false,
    save: async (line) => {
      // The next line begins empty, of the same kind, before this one is kept: somebody may type on.
      form.reset({ ...empty, kind: line.kind });
      await act(addEntry(box, stop, entryOf(line), stamp()));
      return false;
    },
  });
  const { kind, photo } = form.watch();
  const { errors } = form.formState;
  const read = (file: File): void =>
    void smallPhoto(file).then(
      (data) => {
        form.setValue('photo', data, { shouldDirty: true });
        setProblem('');
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  return (
    <Stack asChild gap="2" _print={{ display: 'none' }}>
      <form onSubmit={(e) => void submit(e)} aria-label="Add to the log">
        <Choices
          across
          label="Add to the log"
          value={kind}
          choices={kinds.map((k) => ({ value: k, words: TITLE[k] }))}
          onTake={(k) => form.setValue('kind', k)}
        />
        <HStack gap="2" align="flex-end" flexWrap={{ base: 'wrap', md: 'nowrap' }}>
          <Input
            label={WHAT[kind].label}
            placeholder={WHAT[kind].hint}
            error={errors.text?.message}
            {...form.register('text')}
          />
          {kind === 'setting' && (
            <>
              <Input label="From" error={errors.from?.message} {...form.register('from')} />
              <Input label="To" error={errors.to?.message} {...form.register('to')} />
            </>
          )}
          {kind === 'photo' && <PickFile label="Picture" accept={['image/*']} onFile={read} />}
          <Quiet type="submit">Add</Quiet>
        </HStack>
        {kind === 'photo' && errors.photo && <Said kind="check">Pick a picture first.</Said>}
        {photo !== '' && <Image src={photo} alt="The picture to add" maxWidth="field" border="firm" />}
        {problem !== '' && <Said kind="stop">{problem}</Said>}
      </form>
    </Stack>
  );
}
