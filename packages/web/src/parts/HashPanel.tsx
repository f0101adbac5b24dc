import { chakra, HStack, Stack } from '@chakra-ui/react';
import { z } from 'zod';
import { groupedHex } from '@zb/core/checksum/compare';
import type { ImageItem } from '@zb/core/model/bench';
import { writtenBytes } from '@zb/core/model/written';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { progress } from '@zb/core/units/progress';
import type { OpenImage } from '../workers/openImages';
import { useState, type ReactNode } from 'react';
import { Quiet } from '../ui/Button';
import { Lines } from '../ui/Input';
import { Stamp } from '../ui/Marks';
import { PickFile } from '../ui/PickFile';
import { Said } from '../ui/Said';
import { Data, Head, Sub } from '../ui/Words';
import { Working } from '../ui/Working';
import { checked } from './checked';
import { readTextFile } from './textFile';
import { useDraftForm } from './useDraftForm';

function Reading({ open, onCancel }: { open: OpenImage; onCancel: () => void }) {
  const { rate, left } = progress(open.done, open.file.size, open.seconds);
  return (
    <Working
      label="Reading the image"
      done={open.done}
      whole={open.file.size}
      rate={rate}
      {...(left === undefined ? {} : { left })}
      onCancel={onCancel}
    />
  );
}

const listSchema = z.object({ text: z.string().trim().min(1) });

/** Checks what was pasted or opened as a checksum list; the parent compares. */
function ListEntry({ of, onList }: { of: string; onList: (text: string, from: string) => string | null }) {
  const [problem, setProblem] = useState<string | null>(null);
  const take = (value: string, from: string): boolean => {
    const found = onList(value, from);
    setProblem(found);
    return found === null;
  };
  const { form, submit } = useDraftForm({
    values: { text: '' },
    resolver: checked(listSchema),
    draft: `sum ${of}`,
    ask: false,
    save: ({ text }) => take(text, 'pasted'),
  });
  return (
    <form onSubmit={(e) => void submit(e)}>
      <Stack gap="1.5">
        <HStack gap="2" align="flex-end" flexWrap="wrap">
          <Lines
            label="Published checksum or list"
            data
            rows={2}
            placeholder="Paste the checksum, or the whole list"
            css={{ minWidth: '180px' }}
            // A list has several lines, so that a line of its own is Shift and Enter here.
            onKeyDown={(e) => {
              if (e.key !== 'Enter' || e.shiftKey) return;
              e.preventDefault();
              void submit();
            }}
            error={form.formState.errors.text?.message}
            {...form.register('text')}
          />
          <Quiet type="submit">Compare</Quiet>
          <PickFile
            label="Open a list"
            onFile={(f) =>
              void readTextFile(f, 'list').then(
                (t) => take(t, f.name),
                (e: Error) => setProblem(e.message),
              )
            }
          />
        </HStack>
        {problem !== null && (
          <Said kind="check" loud>
            {problem}
          </Said>
        )}
      </Stack>
    </form>
  );
}

/** A digest in groups of four, with what became of it. */
export const Digest = ({
  label,
  kind,
  children,
}: {
  label: string;
  kind: 'plain' | 'good' | 'bad';
  children: ReactNode;
}) => (
  <chakra.div
    display="grid"
    css={{ gridTemplateColumns: '96px minmax(0, 1fr)', columnGap: '8px', lineHeight: 1.55 }}
    overflowWrap="anywhere"
  >
    <Sub>{label}</Sub>
    <Data>
      <chakra.mark
        css={{
          color: 'inherit',
          bg: kind === 'plain' ? 'transparent' : kind === 'good' ? 'proven.wash' : 'stop.wash',
        }}
      >
        {children}
      </chakra.mark>
    </Data>
  </chakra.div>
);

const ALGORITHM = { sha256: 'SHA-256', sha512: 'SHA-512', sha1: 'SHA-1', md5: 'MD5' } as const;

/** Digest against what was published: progress while reading, then the stamp. */
export function HashPanel({
  open,
  image,
  onList,
  onCancel,
}: {
  open: OpenImage | undefined;
  image: ImageItem | undefined;
  onList: (text: string, from: string) => string | null;
  onCancel: () => void;
}) {
  if (open?.state === 'reading' || open?.state === 'digesting')
    return <Reading open={open} onCancel={onCancel} />;
  const comparison = image?.comparison ?? null;
  const shown = comparison && comparison.published !== '' ? comparison : null;
  const name = ALGORITHM[shown?.algorithm ?? 'sha256'];
  const computed = shown?.computed ?? image?.digests.sha256;
  return (
    <Stack gap="1.5">
      <HStack justify="space-between" gap="3">
        <Head>
          {shown
            ? `${name}${shown.of === 'content' ? ' of what is packed inside' : ''} against the published sum`
            : `${name} of this file`}
        </Head>
        {comparison?.verdict === 'same' && <Stamp>SAME FILE</Stamp>}
        {comparison?.verdict === 'differs' && <Stamp kind="stop">NOT THE SAME</Stamp>}
        {comparison?.verdict === 'other-size' && <Stamp kind="stop">ANOTHER SIZE</Stamp>}
        {comparison?.verdict === 'not-listed' && <Stamp kind="check">NOT LISTED</Stamp>}
      </HStack>
      {open?.state === 'cancelled' && (
        <Said kind="check" loud>
          Cancelled after {formatIec(open.done)}. No checksum was kept; what the tables say stands below. Open
          the file again to read it whole.
        </Said>
      )}
      {open?.state === 'failed' && <Said kind="stop">{open.problem}</Said>}
      {computed !== undefined && (
        <div>
          {shown && (
            <Digest label="published" kind={shown.verdict === 'same' ? 'good' : 'bad'}>
              {groupedHex(shown.published)}
            </Digest>
          )}
          {(!shown || shown.verdict === 'differs') && (
            <Digest label={shown?.of === 'content' ? 'inside' : 'this file'} kind={shown ? 'bad' : 'plain'}>
              {groupedHex(computed)}
            </Digest>
          )}
        </div>
      )}
      {open?.state === 'done' && open.seconds > 0 && (
        <Sub>
          read in {formatDuration(open.seconds)}
          {open.file.size > 0 &&
            ` at ${formatRate(progress(open.file.size, open.file.size, open.seconds).rate)}`}
          {comparison ? ` · ${comparison.from}` : ''}
        </Sub>
      )}
      {comparison?.verdict === 'not-listed' && (
        <Said kind="check">
          The list does not name this file ({comparison.from}). It says nothing about it, good or bad.
        </Said>
      )}
      {comparison?.verdict === 'other-size' && image && (
        <Said kind="stop">
          The list names another size: {formatExact(comparison.publishedBytes ?? 0)}, and{' '}
          {comparison.of === 'content' ? 'what is inside' : 'this file'} has{' '}
          {formatExact(comparison.of === 'content' ? writtenBytes(image) : image.bytes)} ({comparison.from}).
          It was cut short, or it is another release. Nothing has been written. Fetch it again.
        </Said>
      )}
      {comparison?.verdict === 'differs' && (
        <Said kind="stop">
          The bytes are not those that were published. Nothing has been written. Fetch the file again, over a
          wire if you can, and open it anew.
        </Said>
      )}
      {computed !== undefined && comparison?.verdict !== 'same' && (
        <ListEntry of={image?.id ?? ''} onList={onList} />
      )}
    </Stack>
  );
}
