import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { Bench, Box } from '@zb/core/model/bench';
import type { GuestPlan } from '@zb/core/model/guests';
import type { GuestFinding } from '@zb/core/guests/check';
import type { Pot } from '@zb/core/guests/pot';
import { installerFile } from '@zb/core/guests/start';
import { guestArchive, guestFiles } from '@zb/core/guests/write/forms';
import { guestFaultWords } from '@zb/core/words/guestFault';
import { WrittenText } from '../../../parts/WrittenText';
import { downloadBlob } from '../../../storage/download';
import { Quiet } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { Said } from '../../../ui/Said';
import { Select } from '../../../ui/Select';

/** Bytes as a file to save. */
const blobOf = (content: string | Uint8Array): Blob =>
  new Blob([typeof content === 'string' ? content : new Uint8Array(content)]);

/** What the host is given: a file for each guest and network, seeds, a page to read. */
export function GuestsWritten({
  bench,
  box,
  plan,
  pot,
  findings,
  onClose,
}: {
  bench: Bench;
  box: Box;
  plan: GuestPlan;
  pot: Pot;
  findings: readonly GuestFinding[];
  onClose: () => void;
}) {
  const files = guestFiles(plan, pot, (id) => installerFile(bench, plan, id));
  const [path, setPath] = useState(files[0]?.path ?? '');
  const file = files.find((f) => f.path === path) ?? files[0];
  const stops = findings.filter((f) => f.grade === 'stop');
  return (
    <Dialog open onClose={onClose} title={`${box.name}: guests, written for the host`} size="lg">
      <Stack gap="3">
        {stops.map((f, i) => (
          <Said key={i} kind="check">
            {guestFaultWords(f.fault)}
          </Said>
        ))}
        <Select
          label="File"
          value={path}
          options={files.map((f) => ({ value: f.path, words: f.path }))}
          onChange={(e) => setPath(e.target.value)}
        />
        {file && typeof file.content === 'string' ? (
          <WrittenText text={file.content} name={file.path.split('/').pop() ?? 'file'} />
        ) : (
          file && (
            <Quiet
              alignSelf="flex-start"
              onClick={() => downloadBlob(file.path.split('/').pop() ?? 'seed.iso', blobOf(file.content))}
            >
              Save the volume
            </Quiet>
          )
        )}
        <Quiet
          alignSelf="flex-start"
          onClick={() => downloadBlob(`${box.id}-guests.zip`, blobOf(guestArchive(files)))}
        >
          Save all of them in one archive
        </Quiet>
      </Stack>
    </Dialog>
  );
}
