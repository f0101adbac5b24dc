import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import type { TunePlan } from '@zb/core/model/tune';
import { recorderScript } from '@zb/core/tune/logs/recorder';
import { download } from '../../storage/download';
import { Word } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Sub } from '../../ui/Words';
import { LogOpener } from './LogOpener';

/** A log looked at by itself, without an experiment. */
export function LogDialog({ plan, onClose }: { plan: TunePlan; onClose: () => void }) {
  const [key, setKey] = useState(0);
  return (
    <Dialog open onClose={onClose} title="Open a log" size="lg">
      <Stack gap="3">
        <Text>
          Frame times, tables with heads and units, sensors -j, turbostat, fio, iperf3 -J, smartctl -j,
          memtester and stress-ng are told apart by their own bytes. Nothing is sent anywhere.
        </Text>
        <Sub>
          No log yet?{' '}
          <Word onClick={() => download('record.sh', recorderScript, 'text/x-shellscript')}>
            Save our recorder
          </Word>
          : a script for any POSIX shell that reads temperatures, fans, clocks, power and battery once a
          second and changes nothing. Run it with sh record.sh &gt; record.csv.
        </Sub>
        <LogOpener key={key} plan={plan} measureSeconds={null} onAgain={() => setKey(key + 1)} />
      </Stack>
    </Dialog>
  );
}
