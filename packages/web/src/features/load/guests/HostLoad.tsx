import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { takeGuests } from '@zb/core/acts/guests';
import { draftGuests, guestsOf } from '@zb/core/guests/forBox';
import { setFits } from '@zb/core/guests/repair';
import { memorySum } from '@zb/core/guests/sums';
import { storageOf } from '@zb/core/storage/forBox';
import { guestsHeadline } from '@zb/core/words/guests';
import { BoxFrame, type BoxContext } from '../../../parts/BoxFrame';
import { LogEntryForm } from '../../../parts/LogEntryForm';
import { stamp, useAct } from '../../../storage/hooks';
import { Primary, Quiet } from '../../../ui/Button';
import { Nothing } from '../../../ui/Nothing';
import { Tabs } from '../../../ui/Tabs';
import { useMended } from '../../../workers/mending';
import { Kept } from '../Kept';
import { Pool } from '../Pool';
import { ToType } from '../ToType';
import { Around } from './Around';
import { GuestTable } from './GuestTable';
import { GuestsWritten } from './GuestsWritten';
import { PotView } from './PotView';
import { RunningHost } from './RunningHost';
import { Turns } from './Turns';

const SIDES = ['guests', 'turns', 'around', 'pool', 'copies'] as const;
type Side = (typeof SIDES)[number];

/** Stop 10 of a host: its guests, out of one pot. */
export function HostLoad({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const { plan, installers, counted, pot, findings } = guestsOf(bench, box);
  const storage = storageOf(bench, box);
  const [side, setSide] = useState<Side>('guests');
  const [open, setOpen] = useState<'written' | 'running' | 'pool' | null>(null);
  const mended = useMended(counted, pot);
  const fits = setFits(counted, pot);
  const empty = box.guests === null;
  const close = (): void => setOpen(null);
  return (
    <BoxFrame
      context={context}
      stop="load"
      headline={guestsHeadline(box.name, plan, findings, memorySum(plan, pot))}
      shortcuts={SIDES.map((s, i) => ({
        keys: String(i + 1),
        does: TITLES[s].toLowerCase(),
        act: () => setSide(s),
      }))}
      acts={
        empty ? undefined : (
          <>
            <Quiet onClick={() => setOpen('written')}>Save for the host</Quiet>
            <Quiet onClick={() => setOpen('running')}>Read a running host</Quiet>
            {storage.chosen && side === 'pool' && (
              <Quiet onClick={() => setOpen('pool')}>Make the pool</Quiet>
            )}
          </>
        )
      }
    >
      {empty ? (
        <Nothing
          title="No guest is laid out"
          words="Pools, networks and the host’s own share are taken from what is known of it; then guests are named one by one."
        >
          <Primary
            onClick={() => void act(takeGuests(box, draftGuests(bench, box), 'a pot to begin with', stamp()))}
          >
            Lay the pot out
          </Primary>
        </Nothing>
      ) : (
        <Tabs
          label="Load"
          at={side}
          onAt={(id) => setSide(SIDES.find((s) => s === id) ?? 'guests')}
          sides={[
            {
              id: 'guests',
              title: TITLES.guests,
              body: (
                <Stack gap="5">
                  <PotView box={box} plan={plan} pot={pot} installers={installers} />
                  <GuestTable bench={bench} box={box} plan={plan} pot={pot} mended={mended} fits={fits} />
                </Stack>
              ),
            },
            { id: 'turns', title: TITLES.turns, body: <Turns plan={plan} pot={pot} /> },
            {
              id: 'around',
              title: TITLES.around,
              body: <Around bench={bench} box={box} plan={plan} pot={pot} />,
            },
            { id: 'pool', title: TITLES.pool, body: <Pool bench={bench} box={box} found={storage} /> },
            { id: 'copies', title: TITLES.copies, body: <Kept box={box} /> },
          ]}
        />
      )}
      <Box marginTop="6">
        <LogEntryForm box={box} stop="load" kinds={['setting', 'photo']} />
      </Box>
      {open === 'written' && (
        <GuestsWritten bench={bench} box={box} plan={plan} pot={pot} findings={findings} onClose={close} />
      )}
      {open === 'running' && <RunningHost box={box} plan={plan} pot={pot} onClose={close} />}
      {open === 'pool' && <ToType box={box} found={storage} onClose={close} />}
    </BoxFrame>
  );
}

const TITLES: Record<Side, string> = {
  guests: 'Guests',
  turns: 'Starting up',
  around: 'The host itself',
  pool: 'Pool',
  copies: 'What must not be lost',
};
