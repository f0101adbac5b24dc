import { Text, Stack } from '@chakra-ui/react';
import { useRef } from 'react';
import { signoffSchema } from '@zb/core/model/box';
import { z } from 'zod';
import { Dialog } from '../ui/Dialog';
import { Primary, Quiet } from '../ui/Button';
import { Input } from '../ui/Input';
import { HazardMark } from '../ui/Marks';
import { Said } from '../ui/Said';
import { Acts } from '../ui/Words';
import { checked } from './checked';
import { useDraftForm } from './useDraftForm';

const reasonSchema = z.object({ reason: signoffSchema.shape.despite.unwrap().trim().min(1).max(300) });

/** Asked before a stop is signed off with a Stop against it: the hazards again, and a reason that goes on record. */
export function SignDespite({
  title,
  against,
  onSign,
  onClose,
}: {
  title: string;
  against: readonly string[];
  onSign: (reason: string) => void;
  onClose: () => void;
}) {
  const field = useRef<HTMLInputElement | null>(null);
  const { form, submit } = useDraftForm({
    values: { reason: '' },
    resolver: checked(reasonSchema),
    draft: `sign ${title}`,
    ask: false,
    save: ({ reason }) => {
      onSign(reason);
      return true;
    },
  });
  const { ref, ...reason } = form.register('reason');
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${title} has a Stop against it`}
      size="md"
      focusOn={() => field.current}
    >
      <form onSubmit={(e) => void submit(e)}>
        <Stack gap="3">
          {against.map((text) => (
            <Said kind="stop" key={text}>
              <HazardMark grade="stop" /> {text}
            </Said>
          ))}
          <Text>Deal with it first. To go on all the same, say why; the log keeps it.</Text>
          <Input
            label="Why it is signed off all the same"
            maxLength={300}
            error={form.formState.errors.reason?.message}
            {...reason}
            ref={(el) => {
              ref(el);
              field.current = el;
            }}
          />
          <Acts>
            <Primary type="button" onClick={onClose}>
              Back to the stop
            </Primary>
            <Quiet type="submit">Sign off all the same</Quiet>
          </Acts>
        </Stack>
      </form>
    </Dialog>
  );
}
