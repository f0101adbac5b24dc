import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { z } from 'zod';
import { openAgain } from '@zb/core/acts/keep';
import { isClosed, isFinished } from '@zb/core/keeping/closed';
import { keepRecordSchema } from '@zb/core/model/keep';
import type { Box } from '@zb/core/model/bench';
import { formatDay } from '@zb/core/units/date';
import { stamp, useAct } from '../storage/hooks';
import { Primary, Quiet, Word } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Input } from '../ui/Input';
import { Said } from '../ui/Said';
import { Acts } from '../ui/Words';
import { checked } from './checked';
import { useDraftForm } from './useDraftForm';

const why = z.object({ reason: keepRecordSchema.shape.opened.unwrap().unwrap().shape.because });

/** Why a finished box is opened again; the log keeps it. */
function OpenAgain({ box, onClose }: { box: Box; onClose: () => void }) {
  const act = useAct();
  const { form, submit } = useDraftForm({
    values: { reason: '' },
    resolver: checked(why),
    draft: `open ${box.id}`,
    ask: false,
    save: async ({ reason }) => {
      const kept = await act(openAgain(box, reason, stamp()));
      if (kept) onClose();
      return kept;
    },
  });
  return (
    <Dialog open onClose={onClose} title={`Open ${box.name} again`}>
      <form onSubmit={(e) => void submit(e)}>
        <Stack gap="3">
          <Text>It is finished and in use. Say what is to be changed; the log keeps it.</Text>
          <Input
            label="Why it is opened"
            autoFocus
            maxLength={500}
            error={form.formState.errors.reason?.message}
            {...form.register('reason')}
          />
          <Acts>
            <Primary type="submit">Open it</Primary>
            <Quiet type="button" onClick={onClose}>
              Leave it closed
            </Quiet>
          </Acts>
        </Stack>
      </form>
    </Dialog>
  );
}

/** Says that a finished box can only be read, or why it was opened again. */
export function Closed({ box }: { box: Box }) {
  const act = useAct();
  const [asking, setAsking] = useState(false);
  const { retired = null, opened = null } = box.kept ?? {};
  if (retired)
    return (
      <Said title={`Retired on ${formatDay(retired.at)}.`}>
        {retired.because}. What was done and decided stays to be read.
      </Said>
    );
  if (isClosed(box))
    return (
      <>
        <Said title="Finished.">
          What was decided can be read, and what comes round is kept under Keep.{' '}
          <Word onClick={() => setAsking(true)}>Open it again</Word>
        </Said>
        {asking && <OpenAgain box={box} onClose={() => setAsking(false)} />}
      </>
    );
  return isFinished(box) && opened ? (
    <Said kind="check" title={`Opened again on ${formatDay(opened.at)}:`}>
      {opened.because}. <Word onClick={() => void act(openAgain(box, null, stamp()))}>Close it</Word>
    </Said>
  ) : null;
}
