import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { Box } from '@zb/core/model/bench';
import type { BoxSharing } from '@zb/core/storage/share/forBox';
import { shareFile, shareForms, writeShares, type ShareForm } from '@zb/core/storage/share/write';
import { shareFaultWords, shareFormWords } from '@zb/core/words/sharing';
import { WrittenText } from '../../parts/WrittenText';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';

/** What the servers of the box are given. */
export function ShareWritten({
  box,
  found,
  onClose,
  onFolders,
}: {
  box: Box;
  found: BoxSharing;
  onClose: () => void;
  /** To the folders, where a Stop is mended. */
  onFolders: () => void;
}) {
  const [form, setForm] = useState<ShareForm>('smb');
  const out = writeShares(form, found);
  return (
    <Dialog open onClose={onClose} title={`${box.name}: folders, written for its servers`} size="lg">
      {'text' in out ? (
        <Stack gap="3">
          <Select
            label="For"
            value={form}
            options={shareForms.map((f) => ({ value: f, words: shareFormWords(f) }))}
            onChange={(e) => setForm(shareForms.find((f) => f === e.target.value) ?? 'smb')}
          />
          <WrittenText text={out.text} name={shareFile[form]} />
        </Stack>
      ) : (
        <Stack gap="3" role="alert">
          <Text>No file is written while a Stop stands. What is on the box is unharmed.</Text>
          {out.stops.map((f, i) => (
            <Said key={i} kind="stop" loud={false}>
              {shareFaultWords(f.fault)}
            </Said>
          ))}
          <Primary alignSelf="flex-start" onClick={onFolders}>
            Go to the folders
          </Primary>
        </Stack>
      )}
    </Dialog>
  );
}
