import { Box, chakra, HStack, Link, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { keepTrial } from '@zb/core/acts/trial';
import { findImage, type ImageItem } from '@zb/core/model/bench';
import { contentOf } from '@zb/core/model/inspection';
import { trialAttached, trialFirmwares, type Trial, type TrialFirmware } from '@zb/core/model/trial';
import { agrees, foretoldOf } from '@zb/core/starting/happened';
import { formatExact } from '@zb/core/units/bytes';
import { formatDuration } from '@zb/core/units/duration';
import {
  agreesWords,
  attachedWords,
  disagreements,
  foretoldTrialWords,
  happenedWords,
  trialEndWords,
  trialFirmwareWords,
  trialHeadline,
  trialTitle,
} from '@zb/core/words/trial';
import { BenchLedger } from '../../parts/BenchLedger';
import NotFound from '../../parts/NotFound';
import { useRoom } from '../../parts/room';
import { Sheet } from '../../parts/Sheet';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { Primary } from '../../ui/Button';
import { Facts } from '../../ui/Facts';
import { FileDrop } from '../../ui/FileDrop';
import { VerdictMark, type MarkKind } from '../../ui/Marks';
import { Moment } from '../../ui/Moment';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Two } from '../../ui/Two';
import { Data, Head } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { Screen } from './Screen';
import { pictureOf, useDesk, useTrial } from './useTrial';

/** So long a machine runs at most, seconds, and with so much memory, MiB. */
const SECONDS = 300;
const MEMORY = 768;

/** What was tried of an image, the newest first. */
function Tried({ image }: { image: ImageItem }) {
  const bench = useBench();
  if (image.trials.length === 0) return null;
  return (
    <Box>
      <Head>Tried before</Head>
      <Ruled
        dense
        stacked
        label="Tried before"
        heads={['When', 'Under', 'Foretold', 'Happened', 'Compared', { words: 'Ran', figure: true }]}
      >
        {[...image.trials].reverse().map((t) => {
          const photo = bench.photos.find((p) => p.id === t.photoId);
          return (
            <Line key={t.id}>
              <LineHead>
                <Moment at={t.at} />
              </LineHead>
              <Cell>{trialTitle(t)}</Cell>
              <Cell>{foretoldTrialWords(t.foretold)}</Cell>
              <Cell>
                {happenedWords(t.happened)}
                {photo && (
                  <>
                    {', '}
                    <Link href={photo.data} download={`${image.name}.png`}>
                      its screen
                    </Link>
                  </>
                )}
              </Cell>
              <Cell>{agreesWords(t.foretold, t.happened)}</Cell>
              <Num>{formatDuration(t.seconds)}</Num>
            </Line>
          );
        })}
      </Ruled>
    </Box>
  );
}

const markOf = (as: boolean | null): MarkKind => (as === null ? 'ask' : as ? 'yes' : 'no');

/** Beside the screen: what was foretold, what happens, and what comes over the serial line. */
function Beside({ trial, foretold }: { trial: Trial | null; foretold: ReturnType<typeof foretoldOf> }) {
  return (
    <Two>
      <Facts
        lines={[
          { what: 'Foretold', is: foretoldTrialWords(foretold) },
          { what: 'Happens', is: trial ? happenedWords(trial.happened) : '–' },
          {
            what: 'Compared',
            is: trial ? (
              <VerdictMark kind={markOf(agrees(foretold, trial.happened))}>
                {agreesWords(foretold, trial.happened)}
              </VerdictMark>
            ) : (
              '–'
            ),
          },
          { what: 'Runs for', is: trial ? formatDuration(trial.seconds) : '–' },
        ]}
      />
      <Box>
        <Head>Serial line</Head>
        <chakra.pre
          tabIndex={0}
          aria-label="Serial line"
          css={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere', overflowY: 'auto', maxHeight: '20vh' }}
        >
          <Data>{trial?.serial.trim() || 'nothing came yet'}</Data>
        </chakra.pre>
      </Box>
    </Two>
  );
}

/** Starts an image in the emulator of this machine, before anything is written: what it really does beside what was foretold. */
export default function TrialPage() {
  const { imageId } = useParams();
  const bench = useBench();
  const image = findImage(bench, imageId ?? null);
  return image ? (
    <OneTrial key={image.id} image={image} />
  ) : (
    <NotFound what="This image is not on the shelf" />
  );
}

function OneTrial({ image }: { image: ImageItem }) {
  const bench = useBench();
  const act = useAct();
  const desk = useDesk();
  const room = useRoom();
  const [firmware, setFirmware] = useState<TrialFirmware>('uefi-x64');
  const [attached, setAttached] = useState<Trial['attached']>('disk');
  const [picked, setPicked] = useState<File | null>(null);
  const { told, problem, begin, press, stop } = useTrial((trial) => {
    void pictureOf(trial.id).then((picture) =>
      trial.seconds > 0 && trial.end !== 'emulator failed'
        ? act(keepTrial(findImage(bench, image.id) ?? image, trial, picture, stamp()))
        : undefined,
    );
  });
  const reading = image.inspection ? contentOf(image.inspection) : undefined;
  const container = image.inspection?.container ?? { kind: 'none' as const, innerBytes: null };
  // Of what was never unpacked, nobody knows the size that the machine needs.
  const closed = container.kind !== 'none' && container.innerBytes === null;
  const foretold = foretoldOf(reading, told ?? { firmware, attached });
  const file = picked ?? room.files.get(image.id) ?? null;
  const missing = desk.data?.missing ?? [];
  const busy = told !== null && told.state !== 'over';
  const wrong = picked !== null && (picked.name !== image.name || picked.size !== image.bytes);
  const needsFile = image.depotFile === null && (file === null || wrong);
  const against = disagreements(image.trials);
  const start = (): void =>
    void begin(
      {
        image:
          image.depotFile !== null
            ? { from: 'depot', file: image.depotFile }
            : {
                from: 'upload',
                name: image.name,
                bytes: image.bytes,
                container: container.kind,
                innerBytes: container.innerBytes,
              },
        firmware,
        attached,
        memoryMiB: MEMORY,
        seconds: SECONDS,
      },
      image.depotFile === null ? file : null,
    );
  return (
    <>
      <Sheet
        title="Trial start"
        mid={image.name}
        headline={trialHeadline(image.name, told, foretold)}
        foot={
          busy ? (
            <Primary onClick={stop}>End it, and keep what was seen</Primary>
          ) : (
            <Primary onClick={start} disabled={missing.length > 0 || desk.isError || closed || needsFile}>
              Start it
            </Primary>
          )
        }
        hint="Nothing is written: the image is read alone, the machine has no network, and ends with this page"
      >
        <Stack gap="4">
          {desk.isError && <Said kind="stop">{desk.error.message}</Said>}
          {missing.length > 0 && (
            <Said kind="check">
              There is no emulator on the machine that serves this page. On Debian{' '}
              <Data>apt install {missing.map((m) => m.package).join(' ')}</Data> brings it; then load this
              page again. All else works without it.
            </Said>
          )}
          {closed && (
            <Said kind="check">
              It is packed, and what is inside was not read to its end. Open it in the image room first; then
              it can be started from here, unpacked on the way.
            </Said>
          )}
          {problem !== '' && <Said kind="stop">{problem}</Said>}
          {wrong && (
            <Said kind="stop">
              That file is called {picked.name} and has {formatExact(picked.size)}; {image.name} has{' '}
              {formatExact(image.bytes)}. Pick the one that was opened.
            </Said>
          )}
          {against.length > 0 && (
            <Said kind="stop" loud={false}>
              Under {against.map((t) => trialTitle(t)).join('; ')} something else happened than was foretold.
              What happened counts; tell us, for our rules are wrong there.
            </Said>
          )}
          {told?.end && (
            <Said kind={told.end === 'emulator failed' || told.end === 'file did not come' ? 'stop' : 'note'}>
              {trialEndWords(told.end)} {told.fault}
            </Said>
          )}
          {!busy && (
            <Stack gap="2">
              <HStack gap="3" flexWrap="wrap">
                <Segments
                  label="Firmware"
                  options={trialFirmwares.map((value) => ({ value, words: trialFirmwareWords(value) }))}
                  value={firmware}
                  onTake={setFirmware}
                />
                <Segments
                  label="How it is attached"
                  options={trialAttached.map((value) => ({ value, words: attachedWords(value) }))}
                  value={attached}
                  onTake={setAttached}
                />
              </HStack>
              {needsFile && !closed && (
                <FileDrop
                  label="The image file again"
                  act={`Open ${image.name} again`}
                  words="or drop it here: a browser keeps no files. It goes to this machine’s own server alone, and is gone with the trial."
                  several={false}
                  onFiles={([f]) => setPicked(f ?? null)}
                />
              )}
            </Stack>
          )}
          {told?.state === 'waits for its file' && (
            <Working label="The file is on its way" done={told.come} whole={told.bytes} onCancel={stop} />
          )}
          {told?.state === 'unpacks' && (
            <Working label="It is being unpacked" done={told.come} whole={told.bytes} onCancel={stop} />
          )}
          {told ? (
            <>
              <Screen trial={told} onKeys={press} />
              <Beside trial={told} foretold={foretold} />
            </>
          ) : (
            <>
              <Text>
                Foretold for {trialTitle({ firmware, attached })}: <b>{foretoldTrialWords(foretold)}</b>.
              </Text>
              <Tried image={image} />
            </>
          )}
          {told?.state === 'over' && <Tried image={image} />}
        </Stack>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
