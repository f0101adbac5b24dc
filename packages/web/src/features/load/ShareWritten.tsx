import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { Box } from '@zb/core/model/bench';
import type { BoxSharing } from '@zb/core/storage/share/forBox';
import { shareFile, shareForms, writeShares, type ShareForm } from '@zb/core/storage/share/write';
import { shareFormWords } from '@zb/core/words/sharing';
import { WrittenText } from '../../parts/WrittenText';
import { Dialog } from '../../ui/Dialog';
import { Select } from '../../ui/Select';

/** What the servers of the box are given. */
export function ShareWritten({ box, found, onClose }: { box: Box; found: BoxSharing; onClose: () => void }) {
  const [form, setForm] = useState<ShareForm>('smb');
  return (
    <Dialog open onClose={onClose} title={`${box.name}: folders, written for its servers`} size="lg">
      <Stack gap="3">
        <Select
          label="For"
          value={form}
          options={shareForms.map((f) => ({ value: f, words: shareFormWords(f) }))}
          onChange={(e) => setForm(shareForms.find((f) => f === e.target.value) ?? 'smb')}
        />
        <WrittenText text={writeShares(form, found.sharing, found.name)} name={shareFile[form]} />
      </Stack>
    </Dialog>
  );
}
