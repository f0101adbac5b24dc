import { Box, SimpleGrid, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { keepGuest, takeGuests } from '@zb/core/acts/guests';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { Guest, GuestPlan } from '@zb/core/model/guests';
import { draftGuest } from '@zb/core/guests/forBox';
import type { Pot } from '@zb/core/guests/pot';
import { changedPlan, type Mended } from '@zb/core/guests/repair';
import type { WaysToFit } from '@zb/core/guests/trim';
import { guestStart } from '@zb/core/guests/start';
import { formatIec } from '@zb/core/units/bytes';
import { changeWords, mendResultWords, trimWords } from '@zb/core/words/guests';
import { startWords } from '@zb/core/words/start';
import { stamp, useAct } from '../../../storage/hooks';
import { Quiet, Word } from '../../../ui/Button';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { Acts, Head, Sub } from '../../../ui/Words';
import { Working } from '../../../ui/Working';
import type { Elsewhere } from '../../../workers/elsewhere';
import { GuestForm } from './GuestForm';
import { SeedForm } from './SeedForm';

/** What a guest does from its installer. */
function Installer({ bench, guest }: { bench: Bench; guest: Guest }) {
  if (guest.imageId === null) return <Sub>no installer</Sub>;
  const { image, start } = guestStart(bench, guest);
  if (!image) return <VerdictMark kind="ask">not there any more</VerdictMark>;
  const said = start?.starts === 'yes' ? 'starts' : start?.starts === 'no' ? 'does not start' : 'open';
  return (
    <>
      <VerdictMark kind={start?.starts === 'yes' ? 'yes' : start?.starts === 'no' ? 'stop' : 'ask'}>
        {said}
      </VerdictMark>
      <Sub>
        {image.name}, {formatIec(image.bytes)}
        {start && start.starts !== 'yes' ? `: ${startWords(start.why)}` : ''}
      </Sub>
    </>
  );
}

/** One way to make an impossible set fit, with what it changes. */
function Way({
  box,
  plan,
  title,
  says,
  way,
  does,
}: {
  box: Build;
  plan: GuestPlan;
  title: string;
  says: string;
  way: Mended;
  does: string;
}) {
  const act = useAct();
  const words = way.changes.map((c) => changeWords(plan, c));
  return (
    <Stack as="section" aria-label={title} gap="2">
      <Ruled dense label={title} heads={[title]}>
        {words.map((w, i) => (
          <Line key={i}>
            <LineHead>{w}</LineHead>
          </Line>
        ))}
      </Ruled>
      <Sub>{says}</Sub>
      <Acts>
        <Quiet
          onClick={() => void act(takeGuests(box, changedPlan(plan, way.changes), words.join('; '), stamp()))}
        >
          {does}
        </Quiet>
      </Acts>
    </Stack>
  );
}

/** Two ways to make an impossible set fit, side by side. */
function Mend({
  box,
  plan,
  mended,
}: {
  box: Build;
  plan: GuestPlan;
  mended: Elsewhere<WaysToFit, 'stopped'>;
}) {
  const found = mended.stale ? null : mended.found;
  const smallest = found?.smallest;
  return (
    <Box as="section" aria-label="How to make it fit">
      <Head marginBottom="1">How to make it fit</Head>
      {mended.share !== null && (
        <Working label="Every change there is" done={0} whole={1} says="" onCancel={mended.cancel} />
      )}
      {smallest && (
        <SimpleGrid columns={{ base: 1, lg: found.everywhere ? 2 : 1 }} gap="5">
          {smallest.code === 'mended' ? (
            <Way
              box={box}
              plan={plan}
              title="The smallest change"
              says={mendResultWords(smallest)}
              way={smallest.mended}
              does="Apply the smallest change"
            />
          ) : (
            <Sub>{mendResultWords(smallest)}</Sub>
          )}
          {found.everywhere && (
            <Way
              box={box}
              plan={plan}
              title="A little less for every VM"
              says={trimWords(found.everywhere)}
              way={found.everywhere}
              does="Trim every VM"
            />
          )}
        </SimpleGrid>
      )}
    </Box>
  );
}

/** Guests line by line, and what to do where they do not fit. */
export function GuestTable({
  bench,
  box,
  plan,
  pot,
  mended,
  fits,
}: {
  bench: Bench;
  box: Build;
  plan: GuestPlan;
  pot: Pot;
  mended: Elsewhere<WaysToFit, 'stopped'>;
  fits: boolean;
}) {
  const act = useAct();
  const [open, setOpen] = useState<Guest | null>(null);
  const [seed, setSeed] = useState<string | null>(null);
  const seeded = plan.guests.find((g) => g.id === seed);
  return (
    <Stack gap="5">
      {!fits && <Mend box={box} plan={plan} mended={mended} />}
      <Box as="section" aria-label="Guests">
        <Ruled
          stacked
          label="Guests"
          heads={[
            'Guest',
            { words: 'Cores', figure: true },
            { words: 'Memory', figure: true },
            'Disks',
            'Installer',
            'First boot',
            'Now',
          ]}
        >
          {plan.guests.map((g) => (
            <Line key={g.id}>
              <LineHead>
                <Word onClick={() => setOpen(g)}>{g.name}</Word>
                {g.purpose !== '' && <Sub>{g.purpose}</Sub>}
              </LineHead>
              <Num>{g.cores}</Num>
              <Num>
                {formatIec(g.memoryBytes)}
                {g.floorBytes !== null && <Sub>down to {formatIec(g.floorBytes)}</Sub>}
              </Num>
              <Cell>
                {g.disks.map((d) => (
                  <Sub key={d.id}>
                    {formatIec(d.bytes)}
                    {d.thin ? ', thin' : ''}
                  </Sub>
                ))}
              </Cell>
              <Cell>
                <Installer bench={bench} guest={g} />
              </Cell>
              <Cell>
                <Word
                  onClick={() => setSeed(g.id)}
                  aria-label={`${g.seed ? g.seed.hostName : 'by hand'}: first boot of ${g.name}`}
                >
                  {g.seed ? g.seed.hostName : 'by hand'}
                </Word>
              </Cell>
              <Cell>
                <Word
                  aria-pressed={g.on}
                  aria-label={`${g.name}: ${g.on ? 'runs' : 'put aside'}`}
                  onClick={() => void act(keepGuest(box, plan, { ...g, on: !g.on }))}
                >
                  <VerdictMark kind={g.on ? 'yes' : 'no'}>{g.on ? 'runs' : 'put aside'}</VerdictMark>
                </Word>
              </Cell>
            </Line>
          ))}
        </Ruled>
        <Acts marginTop="2">
          <Quiet onClick={() => setOpen(draftGuest(plan, crypto.randomUUID()))}>Another guest</Quiet>
        </Acts>
      </Box>
      {open && (
        <GuestForm bench={bench} box={box} plan={plan} pot={pot} guest={open} onClose={() => setOpen(null)} />
      )}
      {seeded && <SeedForm box={box} plan={plan} guest={seeded} onClose={() => setSeed(null)} />}
    </Stack>
  );
}
