import { Box, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { firmwareOf } from '@zb/core/machine/firmware';
import { knownFact } from '@zb/core/model/known';
import { verifyHeadline } from '@zb/core/words/image';
import { callIt } from '@zb/core/acts/profiles';
import { findImage, findProfile } from '@zb/core/model/bench';
import { contentOf } from '@zb/core/model/inspection';
import { unsettledName } from '@zb/core/system/called';
import { updateBox } from '@zb/core/acts/box';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet, Word } from '../../ui/Button';
import { Said } from '../../ui/Said';
import { Head } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { Depot } from '../../parts/Depot';
import { ImageOpener } from '../../parts/ImageOpener';
import { ImageView } from '../../parts/ImageView';
import { useImagePlace } from '../../parts/useImagePlace';
import { useAct } from '../../storage/hooks';
import { forgetImage } from '../../workers/openImages';

function VerifyPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const place = useImagePlace(box.id, box.id);
  const [evidence, setEvidence] = useState(false);
  const image = findImage(bench, box.imageId);
  const { open } = place;
  const busy = open?.state === 'reading' || open?.state === 'digesting';
  const inspection =
    busy || open?.state === 'cancelled' ? open.inspection : (image?.inspection ?? open?.inspection ?? null);
  const shown = inspection
    ? { name: busy ? open.name : (image?.name ?? open?.name ?? ''), bytes: inspection.bytes }
    : undefined;
  const profile = findProfile(bench, box.profileId);
  const seen = image?.inspection && contentOf(image.inspection);
  const calls = profile && seen ? unsettledName(profile, seen.identity) : undefined;
  const another = (): void => {
    forgetImage(box.id);
    void act(updateBox(box, { imageId: null }, 'Image set aside'));
  };
  const others = bench.items.filter((i) => i.kind === 'image' && i.id !== box.imageId);
  const grid = machine && {
    name: machine.name,
    firmware: firmwareOf(machine),
    secureBoot: knownFact(machine, 'firmware.secureBoot')?.value === 'on',
  };
  return (
    <BoxFrame
      context={context}
      stop="verify"
      headline={verifyHeadline(machine, busy ? undefined : image, inspection ?? undefined)}
      signWords="Sign off and choose a stick"
      hint="Ctrl Enter signs off · O opens · E shows the evidence"
      shortcuts={[
        { keys: 'o', does: 'open another image', act: shown ? another : undefined },
        { keys: 'e', does: 'show or hide the evidence', act: () => setEvidence((v) => !v) },
      ]}
      acts={shown && !busy && <Quiet onClick={another}>Open another image</Quiet>}
    >
      {shown && inspection ? (
        <ImageView
          {...shown}
          inspection={inspection}
          open={open}
          image={busy ? undefined : image}
          machine={grid}
          boxMachine={machine}
          evidence={evidence}
          onEvidence={() => setEvidence((v) => !v)}
          onList={(text, from) => place.compareWith(image, text, from)}
          onCancel={place.cancel}
        >
          {profile && calls !== undefined && !busy && (
            <Said>
              It calls itself “{calls}”.{' '}
              <Quiet size="sm" onClick={() => void act(callIt(profile, calls))}>
                That is {profile.name}
              </Quiet>
            </Said>
          )}
        </ImageView>
      ) : (
        <Stack gap="4">
          {open?.state === 'failed' && <Said kind="stop">{open.problem}</Said>}
          {open?.state === 'reading' && (
            <Working
              label={`Reading ${open.name}`}
              done={open.done}
              whole={open.file.size}
              onCancel={place.cancel}
            />
          )}
          <ImageOpener onFiles={([f]) => f && void place.openFile(f)} />
          <Depot open onDepot={place.openDepot} />
          {others.length > 0 && (
            <Box>
              <Head>Already on the shelf</Head>
              {others.map((i) => (
                <Text key={i.id}>
                  <Word
                    onClick={() =>
                      void act(updateBox(box, { imageId: i.id }, `${i.name} taken for this box`))
                    }
                  >
                    {i.name}
                  </Word>
                </Text>
              ))}
            </Box>
          )}
        </Stack>
      )}
    </BoxFrame>
  );
}

export default withBox(VerifyPage);
