import { HStack, Stack, Text } from '@chakra-ui/react';
import { z } from 'zod';
import { signatureWords } from '@zb/core/words/signature';
import { useState } from 'react';
import { recordComparisons } from '@zb/core/acts/images';
import { againstList } from '@zb/core/checksum/against';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import type { ImageItem } from '@zb/core/model/bench';
import { Quiet, Word } from '../../ui/Button';
import { Lines } from '../../ui/Input';
import { PickFile } from '../../ui/PickFile';
import { Said } from '../../ui/Said';
import { Head, Soft, Sub } from '../../ui/Words';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { readTextFile } from '../../parts/textFile';
import { setRoomList, useRoom, type RoomList } from '../../parts/room';
import { stamp, useAct } from '../../storage/hooks';
import { checkSignature } from '../../workers/openImages';

/** Checks the signature over the list: the key first, then the signature where it is not in the list itself. */
function Signature({ list }: { list: RoomList }) {
  const { text, bytes } = list;
  const [key, setKey] = useState<File | null>(null);
  const [problem, setProblem] = useState('');
  const clear = text.includes('-----BEGIN PGP SIGNED MESSAGE-----');
  const check = (keyFile: File, signature: File | null): void => {
    setProblem('');
    checkSignature(bytes, signature, keyFile).then(
      (found) => setRoomList({ ...list, signature: found }),
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  const found = list.signature;
  const said = found && signatureWords(found);
  return (
    <Stack gap="2">
      <HStack gap="3" flexWrap="wrap">
        <Text>Is the list itself what they published?</Text>
        {key === null ? (
          <PickFile
            label="Open the publisher’s OpenPGP key"
            onFile={(f) => {
              setKey(f);
              if (clear) check(f, null);
            }}
          />
        ) : clear ? (
          <Soft>The signature is in the list itself.</Soft>
        ) : (
          <PickFile label="Open the signature beside the list" onFile={(f) => check(key, f)} />
        )}
      </HStack>
      {problem !== '' && <Said kind="stop">{problem}</Said>}
      {found && said && (
        <Said kind={found.state === 'good' ? 'proven' : 'stop'} loud={false}>
          {said.found}
          <Sub>{said.proves}</Sub>
        </Said>
      )}
    </Stack>
  );
}

const listSchema = z.object({ text: z.string().trim().min(1) });

/** One checksum list against every image of the bench that has been read. */
export function ListPane({ images }: { images: ImageItem[] }) {
  const act = useAct();
  const { list } = useRoom();
  const [problem, setProblem] = useState('');
  const take = (value: string, from: string, bytes = new Blob([value])): boolean => {
    const parsed = parseChecksumList(value);
    if (parsed.sums.length + parsed.sizes.length === 0) {
      setProblem(
        'No checksum is in this text: MD5 has 32 hexadecimal digits, SHA-1 40, SHA-256 64, SHA-512 128. Nothing was changed.',
      );
      return false;
    }
    setProblem('');
    const s = stamp();
    setRoomList({ text: value, bytes, from, signature: null });
    if (images.length > 0) void act(recordComparisons(againstList(images, parsed, from, s.now), from, s));
    return true;
  };
  const { form, submit } = useDraftForm({
    values: { text: '' },
    resolver: checked(listSchema),
    draft: 'room list',
    ask: false,
    save: ({ text }) => {
      if (take(text, 'pasted list')) form.reset();
      return false;
    },
  });
  const parsed = list && parseChecksumList(list.text);
  return (
    <Stack as="section" gap="2" aria-label="Checksum list">
      <Head>One list for all of them</Head>
      <form onSubmit={(e) => void submit(e)}>
        <HStack gap="2" align="flex-end" flexWrap={{ base: 'wrap', md: 'nowrap' }}>
          <Lines
            label="Published checksum list"
            data
            rows={2}
            placeholder="Paste the list they published"
            error={form.formState.errors.text?.message}
            {...form.register('text')}
          />
          <Quiet type="submit">Compare</Quiet>
          <PickFile
            label="Open a list"
            onFile={(f) =>
              void readTextFile(f, 'list').then(
                (t) => take(t, f.name, f),
                (e: Error) => setProblem(e.message),
              )
            }
          />
        </HStack>
      </form>
      {problem !== '' && (
        <Said kind="check" loud>
          {problem}
        </Said>
      )}
      {list && parsed && (
        <>
          <Sub>
            {list.from} lies open: {parsed.sums.length} sums
            {parsed.unreadCount > 0 && `, ${parsed.unreadCount} lines that could not be read`}. Every image
            above is held against it, and so is every file opened from now on.
          </Sub>
          <Signature key={list.text} list={list} />
          <Text>
            <Word onClick={() => setRoomList(null)}>Put the list away</Word>
          </Text>
        </>
      )}
    </Stack>
  );
}
