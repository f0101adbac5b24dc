import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { TunePlan } from '@zb/core/model/tune';
import type { LogView } from '@zb/core/tune/logView';
import { logErrorWords } from '@zb/core/words/tune';
import type { OpenedLog } from '../../workers/logWorker';
import { Quiet, Word } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Lines } from '../../ui/Input';
import { PickFile } from '../../ui/PickFile';
import { Said } from '../../ui/Said';
import { Acts } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { LogLook } from './LogLook';
import { useBureau } from './useBureau';

/** Opens a log from a file or from what was pasted, and shows what is in it. */
export function LogOpener({
  plan,
  measureSeconds,
  onAgain,
  onLog,
}: {
  plan: TunePlan;
  measureSeconds: number | null;
  onAgain: () => void;
  /** Told of a log that was read, with the name of its file. */
  onLog?: (log: LogView, name: string) => void;
}) {
  const { share, during, cancel } = useBureau();
  const [name, setName] = useState('');
  const [opened, setOpened] = useState<OpenedLog | null>(null);
  const [pasted, setPasted] = useState('');
  const open = async (file: Blob, of: string): Promise<void> => {
    setName(of);
    setOpened(null);
    const found = await during((w, tell) => w.open(file, { measureSeconds, panel: plan.panel }, tell));
    if (!found) return;
    setOpened(found);
    if (found.log) onLog?.(found.log, of);
  };
  return (
    <Stack gap="3">
      <Acts>
        <PickFile label="Open a log file" onFile={(f) => void open(f, f.name)} />
        {opened && <Word onClick={onAgain}>another</Word>}
      </Acts>
      {!opened && share === null && (
        <Fold title="Or paste what a tool printed">
          <Stack gap="2">
            <Lines
              label="What it printed"
              data
              rows={5}
              value={pasted}
              onChange={(e) => setPasted(e.target.value)}
            />
            <Quiet
              alignSelf="flex-start"
              disabled={pasted.trim() === ''}
              onClick={() => void open(new Blob([pasted]), 'what was pasted')}
            >
              Read it
            </Quiet>
          </Stack>
        </Fold>
      )}
      {share !== null && (
        <Working
          label={`Reading ${name}`}
          done={share}
          whole={1}
          says="read and judged on a thread of its own"
          onCancel={cancel}
        />
      )}
      {opened?.fault && <Said kind="stop">{logErrorWords(name, opened.fault)}</Said>}
      {opened?.log && <LogLook log={opened.log} />}
    </Stack>
  );
}
