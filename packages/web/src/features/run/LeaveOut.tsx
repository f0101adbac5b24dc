import { Stack } from '@chakra-ui/react';
import { leaveStep } from '@zb/core/acts/run';
import type { RunStep } from '@zb/core/box/runSheet';
import type { Box } from '@zb/core/model/bench';
import { leftOutSchema } from '@zb/core/model/run';
import { z } from 'zod';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp, useAct } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Input } from '../../ui/Input';

const schema = z.object({ because: leftOutSchema.shape.because.trim().min(1) });

/** Asked before a step is left out: why; the log keeps it. */
export function LeaveOut({ box, step, onClose }: { box: Box; step: RunStep; onClose: () => void }) {
  const act = useAct();
  const { form, submit } = useDraftForm({
    values: { because: '' },
    resolver: checked(schema),
    draft: `leave ${box.id} ${step.key}`,
    ask: false,
    save: async ({ because }) => {
      const kept = await act(leaveStep(box, step, because, stamp()));
      if (kept) onClose();
      return kept;
    },
  });
  return (
    <Dialog open onClose={onClose} title="Leave this step out" size="sm">
      <form onSubmit={(e) => void submit(e)}>
        <Stack gap="3">
          <Input
            label="Why it is not wanted"
            maxLength={500}
            error={form.formState.errors.because?.message}
            {...form.register('because')}
          />
          <Primary type="submit">Leave it out</Primary>
        </Stack>
      </form>
    </Dialog>
  );
}
