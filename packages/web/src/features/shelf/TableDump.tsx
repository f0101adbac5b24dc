import { Stack } from '@chakra-ui/react';
import { z } from 'zod';
import { contentFromTable } from '@zb/core/layout/read/content';
import { TableError } from '@zb/core/layout/read/fault';
import type { Content } from '@zb/core/model/content';
import { tableFaultWords } from '@zb/core/words/layout';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Lines } from '../../ui/Input';

const dumpSchema = z.object({ text: z.string().trim().min(1) });

/** What lies on a drive, taken over from the dump of its partition table that a person pastes. */
export function TableDump({
  of,
  bytes,
  content,
  onContent,
}: {
  of: string;
  /** Of the drive, where the text does not tell it. */
  bytes: number;
  content: Content | null;
  onContent: (content: Content) => void;
}) {
  const { form, submit } = useDraftForm({
    values: { text: '' },
    resolver: checked(dumpSchema),
    draft: `dump ${of}`,
    ask: false,
    save: ({ text }) => {
      try {
        onContent(contentFromTable(text, content, stamp().now, { bytes }));
        form.reset();
      } catch (error) {
        if (!(error instanceof TableError)) throw error;
        form.setError('text', { type: 'custom', message: tableFaultWords(error.fault) });
      }
      return false;
    },
  });
  return (
    <Fold title="From what a tool prints of its table">
      <Stack asChild gap="2" align="flex-start">
        <form onSubmit={(e) => void submit(e)}>
          <Lines
            label="What sfdisk, lsblk --json --bytes or parted -m prints"
            data
            rows={6}
            spellCheck={false}
            error={form.formState.errors.text?.message}
            {...form.register('text')}
          />
          <Quiet type="submit">Take the parts over</Quiet>
        </form>
      </Stack>
    </Fold>
  );
}
