import { Stack } from '@chakra-ui/react';
import { z } from 'zod';
import { DumpError } from '@zb/core/formats/sfdiskDump';
import { contentFromDump } from '@zb/core/machine/dumped';
import type { Content } from '@zb/core/model/content';
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
  content,
  onContent,
}: {
  of: string;
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
        onContent(contentFromDump(text, content, stamp().now));
        form.reset();
      } catch (error) {
        if (!(error instanceof DumpError)) throw error;
        form.setError('text', { type: 'custom', message: error.message });
      }
      return false;
    },
  });
  return (
    <Fold title="From a dump of its table">
      <Stack asChild gap="2" align="flex-start">
        <form onSubmit={(e) => void submit(e)}>
          <Lines
            label="What sfdisk --dump prints"
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
