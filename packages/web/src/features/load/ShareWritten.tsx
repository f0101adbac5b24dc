import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { Box } from '@zb/core/model/bench';
import type { BoxSharing } from '@zb/core/storage/share/forBox';
import { shareFile, shareForms, writeShares, type ShareForm } from '@zb/core/storage/share/write';
import { shareFaultWords, shareFormWords } from '@zb/core/words/sharing';
import { WrittenText } from '../../parts/WrittenText';
import { Dialog } from '../../ui/Dialog';
import { Select } from '../../ui/Select';

/** What the servers of the box are given. */
export function ShareWritten({ box, found, onClose }: { box: Box; found: BoxSharing; onClose: () => void }) {
  const [form, setForm] = useState<ShareForm>('smb');
  const out = writeShares(form, found);
  return (
    <Dialog open onClose={onClose} title={`${box.name}: folders, written for its servers`} size="lg">
      <Stack gap="3">
        <Select
          label="For"
          value={form}
          options={shareForms.map((f) => ({ value: f, words: shareFormWords(f) }))}
          onChange={(e) => setForm(shareForms.find((f) => f === e.target.value) ?? 'smb')}
        />
        {'text' in out ? (
          <WrittenText text={out.text} name={shareFile[form]} />
        ) : (
          <Stack gap="1" role="alert">
            <Text>Nothing is written while a Stop stands. What is on the box is unharmed.</Text>
            {out.stops.map((f, i) => (
              <Text key={i}>{shareFaultWords(f.fault)}</Text>
            ))}
          </Stack>
        )}
      </Stack>
    </Dialog>
  );
}
