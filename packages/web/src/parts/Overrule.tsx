import { Stack, Text } from '@chakra-ui/react';
import { useRef } from 'react';
import { overruleSchema } from '@zb/core/model/shelf';
import { Primary } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Lines } from '../ui/Input';
import { checked } from './checked';
import { useDraftForm } from './useDraftForm';

const reasonSchema = overruleSchema.pick({ reason: true });

/** Asks for the reason before a limit of the trade is set aside; the log keeps it. */
export function Overrule({
  title,
  because,
  onOverrule,
  onClose,
}: {
  title: string;
  because: string;
  onOverrule: (reason: string) => void;
  onClose: () => void;
}) {
  const field = useRef<HTMLTextAreaElement | null>(null);
  const { form, submit } = useDraftForm({
    values: { reason: '' },
    resolver: checked(reasonSchema),
    draft: `overrule ${title}`,
    ask: false,
    save: ({ reason }) => {
      onOverrule(reason.trim());
      return true;
    },
  });
  const { ref, ...reason } = form.register('reason', { setValueAs: (t: string) => t.trim() });
  return (
    <Dialog open onClose={onClose} title={`Set a limit aside: ${title}`} focusOn={() => field.current}>
      <form onSubmit={(e) => void submit(e)}>
        <Stack gap="3" align="flex-start">
          <Text>{because}</Text>
          <Lines
            label="Why it does not count here"
            help="The log keeps the reason; the limit can be made to count again."
            maxLength={500}
            error={form.formState.errors.reason?.message}
            {...reason}
            ref={(el) => {
              ref(el);
              field.current = el;
            }}
          />
          <Primary type="submit">Set it aside</Primary>
        </Stack>
      </form>
    </Dialog>
  );
}
