import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { ArmName } from '@zb/core/model/tune';
import type { ExperimentResult } from '@zb/core/tune/results';
import { quantities } from '@zb/core/tune/quantities';
import { differenceWords, outcomeWords } from '@zb/core/words/tune';
import { within } from '@zb/core/words/text';
import { Primary, Quiet } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Input } from '../../ui/Input';
import { Acts } from '../../ui/Words';

/** Keeping a state: what is known of it, and why it is kept. */
export function KeepDialog({
  title,
  result,
  arm,
  onKeep,
  onClose,
}: {
  title: string;
  result: ExperimentResult | null;
  arm: ArmName;
  onKeep: (because: string) => Promise<boolean>;
  onClose: () => void;
}) {
  const [because, setBecause] = useState('');
  const said = result?.comparisons.filter((c) => c.arm === arm) ?? [];
  return (
    <Dialog open onClose={onClose} title={`Keep ${within(title)}`} size="sm">
      <Stack gap="3">
        {said.map((c) => (
          <Text key={c.quantity}>
            {quantities[c.quantity].label}: {outcomeWords(c.quantity, c.judged.outcome)},{' '}
            {differenceWords(c.quantity, c.judged)}
          </Text>
        ))}
        <Input label="Why" value={because} onChange={(e) => setBecause(e.target.value)} />
        <Acts>
          <Primary onClick={() => void onKeep(because.trim()).then((kept) => kept && onClose())}>
            Keep it, and note it on the sheet
          </Primary>
          <Quiet onClick={onClose}>Not yet</Quiet>
        </Acts>
      </Stack>
    </Dialog>
  );
}
