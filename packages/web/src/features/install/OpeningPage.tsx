import { Box, HStack, Stack } from '@chakra-ui/react';
import { tickOpening } from '@zb/core/acts/run';
import { photosOf } from '@zb/core/model/bench';
import { openingOf } from '@zb/core/opening/forBox';
import { openingPlaces } from '@zb/core/opening/places';
import { openingHeadline, openingStepWords } from '@zb/core/words/opening';
import { Schematic } from '../../drawing/Schematic';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { MachinePhotos } from '../../parts/MachinePhotos';
import { stamp, useAct } from '../../storage/hooks';
import { Checkbox } from '../../ui/Checkbox';
import { HazardMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Data, Head, Sub } from '../../ui/Words';
import { InstallViews } from './InstallViews';
import { PhotoMarks } from './PhotoMarks';
import { ScrewTray } from './ScrewTray';

/** Stop 7 with the machine open: steps with their minutes, the tray of screws, photographs with marks, and what sits where. */
function OpeningPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const opening = openingOf(bench, box);
  const places = 'code' in opening ? { before: [], after: [] } : openingPlaces(bench, box, opening);
  return (
    <BoxFrame context={context} stop="install" headline={openingHeadline(opening)}>
      <Stack gap="4">
        <InstallViews box={box} at="Opening" />
        {'code' in opening || !machine ? (
          <Said kind="note">
            {machine
              ? 'Nothing of this plan wants the machine open: no precaution unplugs a drive, and no part goes in. '
              : 'This box has no machine yet. '}
            <To to={machine ? `/box/${box.id}/install/rehearsal` : `/box/${box.id}/survey`}>
              {machine ? 'See what could be unplugged' : 'Take a machine'}
            </To>
          </Said>
        ) : (
          <>
            <Two wider alignItems="start">
              <Box>
                <Head>In this order</Head>
                {opening.steps.map((s) => {
                  const { title, because } = openingStepWords(s.what);
                  const stops = s.what.code === 'put in' && !['fits', 'look'].includes(s.what.place.code);
                  return (
                    <HStack
                      key={s.key}
                      justify="space-between"
                      align="flex-start"
                      borderBottom="thin"
                      paddingBlock="1.5"
                    >
                      <Checkbox
                        checked={s.done}
                        onChange={(done) => void act(tickOpening(bench, box, s.key, done, stamp()))}
                      >
                        {title} {stops && <HazardMark grade="stop" />}
                        <Sub>
                          {because}
                          {s.what.code === 'erase first' && (
                            <>
                              {' · '}
                              <To to={`/shelf/${s.what.id}`}>its page</To>
                            </>
                          )}
                        </Sub>
                      </Checkbox>
                      <Data whiteSpace="nowrap">{s.minutes} min</Data>
                    </HStack>
                  );
                })}
              </Box>
              <Stack gap="4">
                <ScrewTray box={box} tray={opening.record.tray} expected={opening.effort.screws} />
                <Box>
                  <Head>What sits where: before</Head>
                  <Schematic groups={places.before} name={`${machine.name} before`} />
                </Box>
                <Box>
                  <Head>While the plan is carried out</Head>
                  <Schematic groups={places.after} name={`${machine.name} afterwards`} />
                </Box>
              </Stack>
            </Two>
            {photosOf(bench, machine.id).map((p) => (
              <PhotoMarks key={p.id} photo={p} />
            ))}
            <MachinePhotos machine={machine} />
          </>
        )}
      </Stack>
    </BoxFrame>
  );
}

export default withBox(OpeningPage);
